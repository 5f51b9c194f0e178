using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Devices;

namespace Anakyklos.Simulation.Tests;

/// <summary>A card and a vehicle that go through the same service: the card is told what hands do, the vehicle feels it.</summary>
internal sealed partial class BothWalk
{
    internal static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
    internal static readonly Person Una = new("una", "Una B.", Role.Lead);
    private static readonly Person Bram = new("bram", "Bram O.", Role.Technician);

    private static readonly ConcurrentDictionary<string, IReadOnlyList<SheetStep>> Plans = [];

    private readonly CardFacts _facts;
    private readonly List<(Recorded? Said, DateTimeOffset At, IReadOnlyList<Happening> Did)> _did = [];
    private readonly bool _hot;
    private DateTimeOffset _now;

    /// <summary>A card and the vehicle it is for, which was driven in or stood over night.</summary>
    internal BothWalk(ModelSheet sheet, IReadOnlyList<JobId> jobs, int people = 1, bool inOrder = true, bool hot = true,
        WorkSchools? schools = null)
    {
        // The same work is put in order once: many walks begin with it.
        var steps = Plans.GetOrAdd($"{sheet.Id} {people} {schools} {string.Join(' ', jobs)}",
            _ => CardPlanner.Plan(sheet, jobs, people, schools).Steps);
        Card = CardWalk.Open(sheet, jobs, inOrder ? steps : [.. steps.Select(s => s with { After = [] })], schools);
        _now = Card.History[^1].At;
        _facts = UsualPress.Facts(sheet);
        _hot = hot;
        Vehicle = Vehicle.AsItComes(sheet, _now, hot);
    }

    /// <summary>Whose turn it is to press.</summary>
    internal Person By { get; private set; } = Iona;

    /// <summary>The other of the two goes on.</summary>
    internal bool Swap()
    {
        By = By == Iona ? Bram : Iona;
        return true;
    }

    internal static IReadOnlyDictionary<SheetId, ModelSheet> Sheets { get; } =
        Directory.GetFiles(AppContext.BaseDirectory, "*-*.json", SearchOption.AllDirectories).Select(File.ReadAllText)
            .Where(t => t.Contains(ModelSheet.Format, StringComparison.Ordinal)).Select(t => SheetReader.Read(t).Sheet!)
            .ToDictionary(s => s.Id);

    internal JobCard Card { get; private set; }

    internal DateTimeOffset Now => _now;

    internal Vehicle Vehicle { get; private set; }

    internal List<string> Harms { get; } = [];

    /// <summary>From where it stands to the signature by the usual press; what is read and measured is what the vehicle shows.</summary>
    internal void ByTheBook()
    {
        for (var presses = 0; Card.Next is not null; presses++)
        {
            Assert.True(presses < 500, $"“{Card.Next.Title}” comes again and again. {Told}");
            GoOn();
        }
        Decide();
        Say(new Sign());
    }

    /// <summary>What is next is done; where something stands in the way that the lead decides, it is decided.</summary>
    internal void GoOn()
    {
        var step = Card.Next!;
        Later(step);
        if (!Sees(step))
            return;
        var command = Shown(step, UsualPress.Of(Card, step));
        if (Try(command) || (EmptiesFor(step) && Try(command)))
            return;
        Decide();
        if (Card.IsOverTorqued(step.Id) && Try(new SettleOverTorque(step.Id, "Thread is good"), Una))
            return;
        if (Card.Next is { } next && Sees(next) && !Try(Shown(next, UsualPress.Of(Card, next))))
            Assert.Fail($"Stuck at “{next.Title}”: {Why(Shown(next, UsualPress.Of(Card, next)))} {Told}");
    }

    /// <summary>A step out of its turn, by its usual press.</summary>
    internal bool Press(SheetStep step) => Looks(step)
        && (Try(Shown(step, UsualPress.Of(Card, step))) || (EmptiesFor(step) && Try(Shown(step, UsualPress.Of(Card, step)))));

    private bool EmptiesFor(SheetStep step) => Card.PanToEmpty(step) is { } pan && Try(new EmptyPan(pan));

    /// <summary>Something goes wrong with the vehicle, or a hand does something that no card is told.</summary>
    internal Answer Happens(Happening what)
    {
        var at = _now < Vehicle.Now ? Vehicle.Now : _now;
        _did.Add((null, at, [what]));
        var answer = Vehicle.Answer(what, at);
        Vehicle = answer.Vehicle;
        return answer;
    }

    /// <summary>By the usual press until a step is next.</summary>
    internal void UpTo(StepId step)
    {
        for (var presses = 0; Card.Next?.Id != step; presses++)
        {
            Assert.True(presses < 300 && Card.Next is not null, $"“{step}” does not come. {Told}");
            GoOn();
        }
    }

    /// <summary>Why the card refuses; empty where it accepts or asks.</summary>
    internal string Why(CardCommand command) =>
        Card.Decide(command, By, _now, _facts) is Refused refused ? string.Join(" ", refused.Reasons) : "";

    /// <summary>Time goes by, and nobody touches anything.</summary>
    internal void Idle(TimeSpan time) => _now += time;

    private void Decide()
    {
        foreach (var stop in Card.Stops.ToList())
            Try(new DecideStop(stop.Seq, true, "Mended"), Una);
        foreach (var seq in Card.WantingCountersignature.ToList())
            Try(new Countersign(seq), Una);
    }

    // What a person reads off the vehicle in place of what the book would have.
    private CardCommand Shown(SheetStep step, CardCommand book) => book switch
    {
        ConfirmKit kit => kit with
        {
            Pans = [.. Brought(kit.Pans).Select(p => p + Quantity<Volume>.Of(SpareLitres, Volume.Litre))],
        },
        ReadGauge => new ReadGauge(step.Id, ReadOf(step.What)),
        ReadRod => new ReadRod(step.Id, new(Millimetres(Card.Sheet.Fluids[step.What].Rod!.Value.DepthOf(ReadOf(step.What))),
            Length.Millimetre)),
        // What does not run over yet is told so by no one: a little more goes in.
        RunOver when Vehicle.Fluids[step.What].Inside < Card.Sheet.Fluids[step.What].Amount.Value =>
            new Pour(step.Id, new(Card.Sheet.Fluids[step.What].Tolerance.Value, Volume.Litre), true),
        Measure => new Measure(step.Id, new(Quantity<Volume>.Of(Math.Round(Measured(step.What).In(Volume.Litre), 2),
            Volume.Litre), Volume.Litre)),
        See look => look with { Look = new(look.Look.Subject, Looks(step, look.Look)) },
        SeeHose => new SeeHose(step.Id, Vehicle.HoseAt(step.What) switch
        {
            { Bubbles: true } => Runs.Bubbles,
            { Fresh: false } => Runs.Dark,
            _ => Runs.Clear,
        }),
        FeelPedal => new FeelPedal(step.Id, Vehicle.PedalIsSoft ? Pedal.Soft : Pedal.Hard),
        // The light tells, not the clock: what stays on is switched off, and looked into.
        LightWentOut when Vehicle.Until(_now < Vehicle.Now ? Vehicle.Now : _now).Vehicle.OilLight => new LightStaysOn(step.Id),
        // What turned under the wrench had been loose; what stood at its torque has a seal that does not hold.
        RenewSeal when HasEyes && _why.GetValueOrDefault(step.What) == "it is loose" && Card.SealAt(step.What) == SealAfterLeak.Leaked =>
            new SayJointWasLoose(step.Id),
        _ => book,
    };

    // Slivers are told as a picture where they are on a magnet, water and fuel where the old fluid is looked at.
    private Appearance Looks(SheetStep step, Look usual) => usual.Subject switch
    {
        LookSubject.Magnet when step.Needs.Any(n => Vehicle.SeenOf(n) == "slivers on the magnet") => Appearance.Slivers,
        LookSubject.Fluid => Vehicle.SeenOf(((ReadSpec)step.Spec!).Fluid) switch
        {
            "milky" => Appearance.Milky,
            null => usual.Looks,
            _ => Appearance.Thin,
        },
        _ => usual.Looks,
    };

    /// <summary>Whether whoever walks brings the smallest single pan that will do, and empties it in between; else one for each
    /// fluid.</summary>
    internal bool BringsOnePan { get; init; }

    /// <summary>How much more than what runs out each pan holds.</summary>
    internal decimal SpareLitres { get; init; }

    private IReadOnlyList<Quantity<Volume>> Brought(IReadOnlyList<Quantity<Volume>> pans)
    {
        var groups = PanPlan.Together(Card.Sheet, Card.Steps);
        if (!BringsOnePan || groups.Count == 0)
            return pans;
        var one = groups.Max(g => g.Sum(f => f.Amount.Value.In(Volume.Litre)));
        IReadOnlyList<Quantity<Volume>> brought = [Quantity<Volume>.Of(one, Volume.Litre)];
        return PanPlan.Short(groups, brought) is null ? brought : pans;
    }

    private static Quantity<Length> Millimetres(Quantity<Length> depth) =>
        Quantity<Length>.Of(Math.Round(depth.In(Length.Millimetre)), Length.Millimetre);

    private Level ReadOf(FluidId fluid) => new(Math.Clamp(Math.Round(Vehicle.ReadsAs(fluid), 2), Level.Lowest, Level.Highest));

    // By now, however long ago the last hand was at it.
    private Quantity<Volume> Measured(FluidId fluid) => Vehicle.Until(_now < Vehicle.Now ? Vehicle.Now : _now).Vehicle.Fluids[fluid].Pan;

    private void Say(CardCommand command) =>
        Assert.True(Try(command), $"{command}: {Card.Decide(command, By, _now, _facts)}");

    /// <summary>Tells the card; where it accepts, hands do it to the vehicle.</summary>
    internal bool Try(CardCommand command, Person? by = null)
    {
        var decision = Card.Decide(command, by ?? By, _now, _facts);
        if (decision is Asked { Question: PourQuestion q } && command is Pour p)
            decision = Card.Decide(new Pour(p.Step, q.Amount, true), by ?? By, _now, _facts);
        if (decision is Asked { Question: LevelQuestion })
            decision = Card.Decide(command switch
            {
                ReadGauge read => read with { WarningSeen = true },
                ReadRod read => read with { WarningSeen = true },
                _ => command,
            }, by ?? By, _now, _facts);
        if (decision is Asked { Question: RunOverQuestion } && command is RunOver over)
            decision = Card.Decide(over with { WarningSeen = true }, by ?? By, _now, _facts);
        if (decision is Asked { Question: MeasureQuestion } && command is Measure m)
            decision = Card.Decide(m with { Meant = true }, by ?? By, _now, _facts);
        if (decision is not Accepted accepted)
            return false;
        var (next, more) = Card.Taking(accepted, Guid.NewGuid(), by ?? By, _now);
        foreach (var said in more)
            if (said.Event is TakenBack back)
                TakeBack(back, next);
            else
                Does(said, HandsOf.Event(Card, said, Vehicle));
        Card = next;
        Assert.True(Harms.Count == 0, $"{string.Join("\n", Harms)}\n{Told}");
        Agree();
        return true;
    }

    private void Does(Recorded said, IReadOnlyList<Happening> moves)
    {
        _did.Add((said, said.At, moves));
        var leak = said.Event as LeakFound;
        if (leak is not null)
            _untold.Remove(leak.Fastener);
        foreach (var move in moves)
        {
            var answer = Vehicle.Answer(move, said.At);
            Vehicle = answer.Vehicle;
            bool OfItself(Harm h) => (h.Kind is HarmKind.Leak or HarmKind.DrivenOpen
                && _untold.Any(u => Card.Sheet.Fasteners[u].Name == h.What))
                || (h.Kind == HarmKind.SoftPedal && _untold.Any(u => Vehicle.Brakes.Values.Any(b => b.Lines.ContainsKey(u))));
            Harms.AddRange(answer.Harms.Where(h => h.Kind != HarmKind.Strained && !OfItself(h))
                .Select(h => $"{move}: {h}"));
        }
    }

    // What was pressed by mistake was never done: the vehicle is as if it had not been.
    private void TakeBack(TakenBack back, JobCard after)
    {
        // What goes wrong by itself goes wrong only where somebody still looks.
        var looks = after.Remaining.Any(s => s.Traits.LooksAtJoints);
        var kept = _did.Where(d => d.Said is null ? looks || d.Did is not [JointWeeps] : d.Said.Seq < back.From || d.Said.Seq > back.To)
            .ToList();
        _did.Clear();
        Vehicle = Vehicle.AsItComes(Card.Sheet, Card.History[0].At, _hot);
        var before = Harms.Count;
        _untold.Clear();
        foreach (var (said, at, did) in kept)
            if (said is not null)
                Does(said, did);
            else
            {
                _did.Add((null, at, did));
                Vehicle = Vehicle.Answer(did[0], at < Vehicle.Now ? Vehicle.Now : at).Vehicle;
                _untold.UnionWith(did.OfType<JointWeeps>().Select(j => j.What));
            }
        // What happened on the way there was told when it happened.
        Harms.RemoveRange(before, Harms.Count - before);
    }

    // The clock goes on until neither a wait nor heat stands in the way.
    private void Later(SheetStep step)
    {
        _now += step.Takes;
        foreach (var wait in Card.Waits.Where(w => w.Until > _now && (w.Id == step.Id || step.Awaits.Contains(w.Id))))
            _now = wait.Until > _now ? wait.Until : _now;
        if (step.Cold && Card.InTheWay(step, _now).Count > 0)
            _now += Card.Sheet.CoolsIn;
    }

    internal string Told => $"{Card.Sheet.Id} [{string.Join(", ", Card.Opened.Jobs)}] after " + string.Join("; ", _did.TakeLast(9)
        .Select(d => $"{d.Said?.Event.GetType().Name ?? "By itself"} {(d.Said?.Event as IStepEvent)?.Step} [{string.Join(", ", d.Did)}]"));

    /// <summary>Whether nothing but a film is left of what is let out.</summary>
    internal bool NothingRuns => Card.FluidsDrained.All(f => Vehicle.Fluids[f.Id] is var stands
        && (Card.Fluid(f.Id).Poured > Quantity<Volume>.Zero || stands.Inside < f.Tolerance.Value / 4 || !Card.Fluid(f.Id).Out));

    /// <summary>Checks of tightness that a job given up took with it.</summary>
    internal IEnumerable<SheetStep> GivenUp => Card.Opened.Steps.Where(s => s.Kind == StepKind.Retighten && Card.Step(s.Id) is null);

    // Two accounts of one vehicle: what the card believes, and what is.
    private void Agree()
    {
        // What was tightened too far is no more open than shut until somebody has looked at it.
        // What is to be checked again is not believed to be tight either; nor what was to be checked by a job that was given up, for which
        // the lead puts a name to it.
        var strained = Card.Steps.Where(s => Card.IsOverTorqued(s.Id) || (s.Kind == StepKind.Retighten && Card.Remaining.Contains(s)))
            .Concat(GivenUp).Select(s => s.What.Text).Concat(_untold.Select(u => u.Text)).ToHashSet();
        var differs = Difference.Between(Card, Vehicle).Where(d => !strained.Contains(d.What.Text)).ToList();
        Assert.True(differs.Count == 0, $"The card: {string.Join(", ", differs)}. {Told}");
    }
}
