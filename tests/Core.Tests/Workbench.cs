using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Tests;

/// <summary>A card on the Courier with a clock that only the test moves.</summary>
internal sealed class Workbench
{
    internal static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
    internal static readonly Person Una = new("una", "Una B.", Role.Lead);
    internal static readonly Person Tavish = new("tavish", "Tavish M.", Role.Technician);
    internal static readonly Person Desk = new("desk", "Transport desk", Role.Viewer);
    internal static readonly string SheetText = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "tarn-courier-20d.json"));
    internal static readonly ModelSheet Courier = SheetReader.Read(SheetText).Sheet!;

    internal Workbench(TargetSchool? school = null, IReadOnlyDictionary<PartId, int>? seals = null,
        PourStages stages = PourStages.ByHalves, IReadOnlyDictionary<FluidId, FilledBefore>? filled = null)
    {
        var opened = new CardOpened("HD-07", Courier.Id, Courier.Revision, ["engine-oil-and-filter"],
            CardPlanner.Compose(Courier, ["engine-oil-and-filter"]),
            Km(148_200), Use.Harsh, school, seals ?? new Dictionary<PartId, int>(), Stages: stages, FilledBefore: filled);
        Card = JobCard.Replay(Courier, [new(1, Now, Iona, Guid.NewGuid(), opened)]);
    }

    /// <summary>A card of its own with these jobs of one of the sheets that ship, planned and opened.</summary>
    internal static JobCard On(string sheet, params JobId[] jobs) =>
        CardWalk.Open(Shipped.Sheets[sheet], jobs, CardPlanner.Compose(Shipped.Sheets[sheet], jobs));

    internal DateTimeOffset Now { get; private set; } = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    internal JobCard Card { get; private set; }

    internal static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    internal static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    internal static Typed<Torque> Nm(decimal nm) => new(Quantity<Torque>.Of(nm, Torque.NewtonMetre), Torque.NewtonMetre);

    internal static Typed<Volume> Litres(decimal litres) => new(L(litres), Volume.Litre);

    internal static ConfirmKit FullKit(decimal pan = 8, decimal oil = 7) => new("lay-out-kit",
        Courier.Parts.Keys.ToDictionary(id => id, _ => new KitPart(KitChoice.InHand)), [L(pan)], EngineOil(oil, "Gannet Lowash 5W-30"));

    internal static IReadOnlyDictionary<FluidId, OilLaidOut> EngineOil(decimal litres, string product, string reason = "") =>
        new Dictionary<FluidId, OilLaidOut> { ["engine-oil"] = new(L(litres), product, reason) };

    /// <summary>The depot's oil book, as it ships.</summary>
    internal static readonly OilBook Book = OilBook.Read(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "oils.json"))).Book!;

    internal CardFacts Facts { get; set; } = new(Shelf.Empty with { Oils = Book });

    internal void Wait(double minutes) => Now += TimeSpan.FromMinutes(minutes);

    internal Decision Try(CardCommand command, Person? by = null)
    {
        var decision = Card.Decide(command, by ?? Iona, Now, Facts);
        if (decision is Accepted accepted)
            Card = Card.Taking(accepted, Guid.NewGuid(), by ?? Iona, Now).Card;
        return decision;
    }

    internal void Do(CardCommand command, Person? by = null) =>
        Assert.True(Try(command, by) is Accepted, $"{command}: {Describe(Card.Decide(command, by ?? Iona, Now, Facts))}");

    internal IReadOnlyList<Refusal> Refusals(CardCommand command, Person? by = null) => Assert.IsType<Refused>(Try(command, by)).Reasons;

    internal static string Describe(Decision d) => d is Refused r ? string.Join(" ", r.Reasons) : d.ToString()!;

    // What is said more than once at a step, with the clock in between.
    private void ByTheClock(SheetStep step)
    {
        while (Card.State(step.Id).Status != StepStatus.Done)
        {
            Do(UsualPress.Of(Card, step));
            if (Card.Waits.FirstOrDefault(w => w.Id == step.Id && w.Until > Now) is { } held
                && Card.State(step.Id).Status != StepStatus.Done)
                Now = held.Until;
        }
    }

    /// <summary>Does every step as the book has it, up to a step (exclusive) or to the end.</summary>
    internal void WorkUpTo(StepId? stop = null)
    {
        for (var presses = 0; Card.Next is { } step && step.Id != stop; presses++)
        {
            Assert.True(presses < 2 * Card.Steps.Count, $"“{step.Title}” comes again and again on the way to {stop ?? "the end"}.");
            foreach (var id in step.Awaits)
                if (Card.Waits.FirstOrDefault(w => w.Id == id) is { } wait && wait.Until > Now)
                    Now = wait.Until;
            switch (step.Kind)
            {
                case StepKind.Kit: Do(FullKit()); break;
                case StepKind.Tighten when Card.SealAt(step.What) is SealAfterLeak.Leaked or SealAfterLeak.LeakedAgain:
                    Do(UsualPress.Of(Card, step));
                    break;
                case StepKind.Tighten: Do(new TakeReading(step.Id, Nm(step.What == "engine-drain-plug" ? 38 : 25))); break;
                case StepKind.Pour: Do(new Pour(step.Id, Litres(5))); break;
                case StepKind.Read or StepKind.Inspect or StepKind.Fit: Do(UsualPress.Of(Card, step)); break;
                case StepKind.Gauge: Do(new ReadGauge(step.Id, new(0.75m))); break;
                case StepKind.Run or StepKind.Reset: ByTheClock(step); break;
                default: Do(new ConfirmStep(step.Id)); break;
            }
            Wait(1);
        }
    }
}
