using Anakyklos.Core.Cards;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Xunit;

namespace Anakyklos.Core.Tests;

/// <summary>Where the trade has two schools, the workshop's own holds for the card from its opening on.</summary>
public sealed class SchoolTests
{
    private static readonly WorkSchools PlugFirst = new(DrainSchool.PlugFirst);

    public static TheoryData<string> Models => [.. Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json")
        .Select(f => Path.GetFileNameWithoutExtension(f)!).Order()];

    private static ModelSheet Sheet(string name) =>
        SheetReader.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", $"{name}.json"))).Sheet!;

    private static int At(IReadOnlyList<SheetStep> steps, Func<SheetStep, bool> which) => steps.ToList().FindIndex(s => which(s));

    private static bool ComesBefore(IReadOnlyList<SheetStep> steps, StepId before, SheetStep step) => step.After.Concat(step.Awaits)
        .Any(a => a == before || ComesBefore(steps, before, steps.First(s => s.Id == a)));

    [Fact]
    public void The_cap_comes_before_the_plug_or_after_it()
    {
        var sheet = Sheet("tarn-courier-20d");
        (int Cap, int Plug) Order(WorkSchools? schools)
        {
            var steps = CardPlanner.Plan(sheet, ["engine-oil-and-filter"], schools: schools).Steps;
            return (At(steps, s => s.Id == "loosen-filler-cap"), At(steps, s => s.Traits.LetsOut));
        }

        Assert.True(Order(null) is var air && air.Cap < air.Plug);
        Assert.True(Order(PlugFirst) is var plug && plug.Plug < plug.Cap);
    }

    [Theory]
    [MemberData(nameof(Models))]
    public void Either_way_every_model_is_worked_to_the_signature_and_poured_through_an_open_cap(string model)
    {
        var sheet = Sheet(model);
        JobId[] all = [.. sheet.Jobs.Keys];
        var steps = CardPlanner.Plan(sheet, all, schools: new(DrainSchool.PlugFirst, 25)).Steps;
        foreach (var drain in steps.Where(s => s.Traits.LetsOut))
        {
            Assert.True(drain.Wait is null || drain.Wait.Lasts >= TimeSpan.FromMinutes(25));
            var fluid = sheet.Fluids[sheet.Fasteners[drain.What].Drains!.Value];
            foreach (var way in fluid.Pumped ? fluid.Through : [])
            {
                var opens = steps.Single(s => s.Traits.Opens && s.What == way && !s.Id.Text.EndsWith("-again", StringComparison.Ordinal));
                Assert.True(At(steps, s => s == drain) < At(steps, s => s == opens), $"{drain.Title}, {way}");
                // Not only in this order: in any.
                Assert.True(ComesBefore(steps, drain.Id, opens), $"{drain.Title}, {way}");
            }
        }
        var card = CardWalk.Open(sheet, all, steps, new(DrainSchool.PlugFirst, 25));
        Assert.Equal(steps.Where(s => !s.MovesLift).Select(s => s.Id).Order(), card.Work.Steps.Select(s => s.Id).Order());
        // The work of an open card is put together by its own school, not by the usual one.
        Assert.All(card.Work.Steps.Where(s => s.Traits.LetsOut && s.Wait is not null),
            s => Assert.True(s.Wait!.Lasts >= TimeSpan.FromMinutes(25)));
        Assert.Null(CardWalk.Refused(sheet, all, schools: new(DrainSchool.PlugFirst, 25)));
    }

    [Fact]
    public void A_patient_workshop_waits_longer_but_never_shorter_than_the_sheet()
    {
        Assert.Equal(TimeSpan.FromMinutes(40), new WorkSchools(DripMinutes: 40).Drips(TimeSpan.FromMinutes(10)));
        Assert.Equal(TimeSpan.FromMinutes(10), new WorkSchools(DripMinutes: 5).Drips(TimeSpan.FromMinutes(10)));
        Assert.Equal(TimeSpan.FromMinutes(10), WorkSchools.Usual.Drips(TimeSpan.FromMinutes(10)));
    }
}
