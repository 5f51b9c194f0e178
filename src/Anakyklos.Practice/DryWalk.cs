using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Devices;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>What was found where a card of a sheet was walked beside the vehicle in software.</summary>
/// <param name="At">The title of the step at which it showed itself; empty for the end.</param>
/// <param name="What">The thing that it is about; empty for the vehicle as a whole.</param>
/// <param name="Says">What happened, in words.</param>
public sealed record DryFinding(string At, ThingId What, string Says);

/// <summary>A card of a sheet, walked from its opening to its signature.</summary>
/// <param name="Presses">How many presses it took.</param>
/// <param name="IsSigned">Whether it could be signed.</param>
/// <param name="Findings">What should not have happened, in order; none where the sheet forgot nothing.</param>
public sealed record DryWalked(int Presses, bool IsSigned, IReadOnlyList<DryFinding> Findings);

/// <summary>
/// Walks a card by the usual press while hands do to a vehicle in software what each press says, and no more. What the sheet forgot shows
/// itself there: what nobody closed, what runs out where no pan stands, what is short at the end.
/// </summary>
public static class DryWalk
{
    private static readonly Person Hand = new("walk", "The one who walks", Role.Technician);

    /// <summary>Walks jobs of a sheet.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="jobs">The jobs.</param>
    /// <param name="hot">Whether the vehicle was driven in just now.</param>
    public static DryWalked Of(ModelSheet sheet, IReadOnlyList<JobId> jobs, bool hot = true)
    {
        var card = CardWalk.Open(sheet, jobs, CardPlanner.Plan(sheet, jobs).Steps);
        var (now, facts, findings, presses) = (card.History[0].At, UsualPress.Facts(sheet), new List<DryFinding>(), 0);
        var vehicle = Vehicle.AsItComes(sheet, now, hot);
        for (; card.Next is { } step; presses++)
        {
            now = CardWalk.Later(card, step, now + step.Takes);
            if (presses > 6 * card.Steps.Count || Answered(card, step, Read(card, step, vehicle, now), now, facts) is not { } accepted)
                return new(presses, false, [.. findings, new(step.Title, step.What, Why(card, step, now, facts))]);
            var (next, told) = card.Taking(accepted, Guid.Empty, Hand, now);
            foreach (var said in told)
                foreach (var move in HandsOf.Event(card, said, vehicle))
                {
                    var answer = vehicle.Answer(move, said.At < vehicle.Now ? vehicle.Now : said.At);
                    vehicle = answer.Vehicle;
                    findings.AddRange(answer.Harms.Where(IsOfTheSheet).Select(h => new DryFinding(step.Title, step.What, h.Says)));
                }
            card = next;
        }
        var signed = card.Decide(new Sign(), Hand, now, facts) is Accepted;
        if (!signed && card.Decide(new Sign(), Hand, now, facts) is Refused refused)
            findings.Add(new("", default, string.Join(" ", refused.Reasons)));
        findings.AddRange(Difference.Between(card, vehicle).Select(d => new DryFinding("", d.What,
            $"{d.Name}: the card takes it for {d.Card}, and it is {d.Vehicle}.")));
        return new(presses, signed, [.. findings.Distinct()]);
    }

    // How evenly something is drawn down is the hand's, and no sheet says it.
    private static bool IsOfTheSheet(Harm harm) => PracticeRun.IsHarm(harm) && harm.Kind != HarmKind.Strained;

    // What is read is what the vehicle shows; everything else is done by the book.
    private static CardCommand Read(JobCard card, SheetStep step, Vehicle vehicle, DateTimeOffset now)
    {
        var later = vehicle.Until(now < vehicle.Now ? vehicle.Now : now).Vehicle;
        return UsualPress.Of(card, step) switch
        {
            ReadGauge => new ReadGauge(step.Id, Mark(later, step.What)),
            ReadRod rod => rod with
            {
                Depth = new(Quantity<Length>.Of(Math.Round(card.Sheet.Fluids[step.What].Rod!.Value.DepthOf(Mark(later, step.What))
                    .In(Length.Millimetre)), Length.Millimetre), Length.Millimetre),
            },
            RunOver when later.Fluids[step.What].Inside < card.Sheet.Fluids[step.What].Amount.Value =>
                new Pour(step.Id, new(card.Sheet.Fluids[step.What].Tolerance.Value, Volume.Litre), true),
            Measure => new Measure(step.Id, new(Quantity<Volume>.Of(Math.Round(later.Fluids[step.What].Pan.In(Volume.Litre), 2),
                Volume.Litre), Volume.Litre), true),
            var book => book,
        };
    }

    private static Level Mark(Vehicle vehicle, ThingId fluid) =>
        new(Math.Clamp(Math.Round(vehicle.ReadsAs(fluid), 2), Level.Lowest, Level.Highest));

    // What is asked is answered with yes: it is so.
    private static Accepted? Answered(JobCard card, SheetStep step, CardCommand command, DateTimeOffset now, CardFacts facts) =>
        card.Decide(command, Hand, now, facts) switch
        {
            Accepted accepted => accepted,
            Asked { Question: PourQuestion q } when command is Pour => card.Decide(new Pour(step.Id, q.Amount, true), Hand, now, facts)
                as Accepted,
            Asked when command is ReadGauge read => card.Decide(read with { WarningSeen = true }, Hand, now, facts) as Accepted,
            Asked when command is ReadRod rod => card.Decide(rod with { WarningSeen = true }, Hand, now, facts) as Accepted,
            Asked when command is RunOver over => card.Decide(over with { WarningSeen = true }, Hand, now, facts) as Accepted,
            _ => card.PanToEmpty(step) is { } pan ? card.Decide(new EmptyPan(pan), Hand, now, facts) as Accepted : null,
        };

    private static string Why(JobCard card, SheetStep step, DateTimeOffset now, CardFacts facts) =>
        card.Decide(UsualPress.Of(card, step), Hand, now, facts) switch
        {
            Refused refused => string.Join(" ", refused.Reasons),
            Asked asked => asked.Question.Text,
            _ => "It comes again and again.",
        };
}
