using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation.Tests;

/// <summary>
/// Every job, pair and full service, worked by the book on a simulated vehicle: it comes to no harm and ends as it should.
/// </summary>
public sealed class ByTheBookTests
{
    public static TheoryData<string, int> Services => [.. BothWalk.Sheets.Keys.Select(s => s.Text).Order(StringComparer.Ordinal)
        .SelectMany(s => new[] { new TheoryDataRow<string, int>(s, 1), new(s, 2) })];

    public static TheoryData<string> Models => [.. BothWalk.Sheets.Keys.Select(s => s.Text).Order(StringComparer.Ordinal)];

    [Theory]
    [MemberData(nameof(Services))]
    public void A_full_service_does_no_harm(string sheet, int people) => Walk(sheet, [.. BothWalk.Sheets[sheet].Jobs.Keys], people);

    [Theory]
    [MemberData(nameof(Models))]
    public void Each_job_alone_and_each_pair_does_no_harm(string sheet)
    {
        JobId[] jobs = [.. BothWalk.Sheets[sheet].Jobs.Keys.OrderBy(j => j.Text, StringComparer.Ordinal)];
        foreach (var (first, i) in jobs.Select((j, i) => (j, i)))
            foreach (var second in jobs.Skip(i))
                Walk(sheet, first == second ? [first] : [first, second], 1);
    }

    private static void Walk(string sheet, IReadOnlyList<JobId> jobs, int people)
    {
        var walk = new BothWalk(BothWalk.Sheets[sheet], jobs, people);
        walk.ByTheBook();
        // Nor is anything pressed twice: no look is made void by the order itself.
        var twice = walk.Card.History.Select(h => h.Event).OfType<StepDone>().GroupBy(d => d.Step).Where(g => g.Count() > 1)
            .Select(g => $"“{g.Key}” was done {g.Count()} times");
        var wrong = walk.Harms.Concat(Wrong(walk)).Concat(twice).ToList();
        Assert.True(wrong.Count == 0, $"{sheet}, {string.Join(" and ", jobs)}:\n{string.Join("\n", wrong)}");
    }

    /// <summary>What is not as it should be on a vehicle whose card was signed.</summary>
    internal static IEnumerable<string> Wrong(BothWalk walk)
    {
        var (card, vehicle) = (walk.Card, walk.Vehicle);
        var left = walk.GivenUp.Select(s => s.What.Text).ToHashSet();
        foreach (var (id, joint) in vehicle.Joints)
        {
            var fastener = vehicle.Sheet.Fasteners[id];
            if (!left.Contains(id.Text) && fastener.Tightening.Value is ToTorque to && !(joint.Torque >= to.Low && joint.Torque <= to.High))
                yield return $"{fastener.Name} is at {joint.Torque}";
            if (joint.Seals.Count != (fastener.Seal is null ? 0 : 1))
                yield return $"{fastener.Name} has {joint.Seals.Count} seals";
            if (fastener.Holds.Any(p => !joint.Holds.Contains(p)))
                yield return $"{fastener.Name} does not hold what it should";
        }
        foreach (var fluid in card.FluidsDrained)
        {
            var stands = vehicle.Fluids[fluid.Id];
            if (fluid.BetweenMarks is not null ? vehicle.LevelOf(fluid.Id) is var level && walk.Misread(fluid.Id) is var off
                && (level < -off || level > 1.1m + off)
                : stands.Inside + stands.Filter is var sum && Math.Abs((sum - fluid.Amount.Value).In(Volume.Litre))
                    > (fluid.Tolerance.Value * 1.25m).In(Volume.Litre))
                yield return $"{fluid.Name}: {stands.Inside + stands.Filter} is in, by the book {fluid.Amount.Value}";
        }
        // Where the job was given up the wheels are not bled out, and the record says so.
        foreach (var fluid in vehicle.Brakes.Keys.Where(f => !vehicle.IsFull(f)
            && card.Opened.Steps.Where(s => (s.Spec as BleedSpec)?.Fluid == f).All(s => card.Step(s.Id) is not null)))
            yield return $"the reservoir of {fluid} is not at its upper line";
        if (vehicle.PedalIsSoft)
            yield return "the pedal is soft";
        foreach (var (id, stands) in vehicle.Fluids.Where(f => f.Value.Floor > Quantity<Volume>.Zero))
            yield return $"{stands.Floor} of {id} on the floor";
        if (vehicle.Off.Count > 0 || vehicle.IsUp || vehicle.Runs || (vehicle.PanUnder.Count > 0 && vehicle.Sheet.Stands == Stand.Lift))
            yield return $"off {string.Join(", ", vehicle.Off.Keys)}, up {vehicle.IsUp}, runs {vehicle.Runs}, "
                + $"pan {string.Join(", ", vehicle.PanUnder.Values)}";
        foreach (var reset in card.Steps.Where(s => s.EndsReset && card.State(s.Id).Status == StepStatus.Done
            && vehicle.Lit.Contains(s.What)))
            yield return $"{reset.What} is still lit";
    }
}
