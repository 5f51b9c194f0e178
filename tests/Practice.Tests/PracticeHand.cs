using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Torques;
using Anakyklos.Devices;
using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>
/// Somebody in the practice bay who does what the card says by the choices of the bay alone, and then tells the card. With eyes they look
/// before they press and see to what they find; without, they do the hands' work and press what is usual.
/// </summary>
internal sealed class PracticeHand
{
    internal static readonly Person Tavish = new("tavish", "Tavish M.", Role.Technician);
    private static readonly Person Una = new("una", "Una B.", Role.Lead);
    private static readonly DateTimeOffset Morning = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    private readonly bool _hasEyes;
    private readonly HashSet<ThingId> _told = [];
    private DateTimeOffset _now = Morning;

    internal PracticeHand(Lesson lesson, bool hasEyes)
    {
        _hasEyes = hasEyes;
        Run = PracticeRun.Begin(lesson, Sheets[lesson.Sheet], Morning, Tavish);
    }

    internal static IReadOnlyDictionary<SheetId, ModelSheet> Sheets { get; } =
        Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json").Select(File.ReadAllText)
            .Where(t => t.Contains(ModelSheet.Format, StringComparison.Ordinal)).Select(t => SheetReader.Read(t).Sheet!)
            .ToDictionary(s => s.Id);

    internal PracticeRun Run { get; private set; }

    /// <summary>Reads the numbers of the sheet off whatever scale the wrench has.</summary>
    internal bool MindsScales { get; init; } = true;

    /// <summary>What the hands do in place of what the card says; null for nothing.</summary>
    internal Func<Happening, Happening?> Means { get; init; } = h => h;

    /// <summary>Does a step at once, whatever the card says to it.</summary>
    internal bool IsHasty { get; init; }

    /// <summary>Presses the pedal before the card is told what it does.</summary>
    internal bool Feels { get; init; } = true;

    /// <summary>All that was done and told, in order.</summary>
    internal List<object> Script { get; } = [];

    /// <summary>What could not be done by the choices of the bay.</summary>
    internal List<string> Missing { get; } = [];

    private Vehicle Vehicle => Run.Vehicle.Until(_now < Run.Vehicle.Now ? Run.Vehicle.Now : _now).Vehicle;

    /// <summary>Works on until the card stands at a step, does something there by the choices of the bay, and tells the card
    /// something.</summary>
    internal Debrief At(Func<JobCard, bool> stands, string choice, string typed, Func<SheetStep, CardCommand> says)
    {
        On(stands);
        _now = Run.Card.Waits.Select(w => w.Until).Append(_now).Max();
        Do(new Goes(Run.Card.Next!.Place));
        if (choice.Length > 0)
            Choose(choice, typed);
        Tell(says(Run.Card.Next!));
        return Debrief.Of(Run);
    }

    internal Debrief Through()
    {
        On(_ => false);
        Decide();
        Tell(new Sign());
        return Debrief.Of(Run);
    }

    private void On(Func<JobCard, bool> stops)
    {
        for (var presses = 0; presses < 400 && Run.Card is { Next: { } step, Ended: null } && !stops(Run.Card); presses++)
        {
            _now += step.Takes;
            if (IsHasty && step.Cold && Run.Card.InTheWay(step, _now).Count > 0)
            {
                foreach (var hand in HandsOf.Event(Run.Card,
                    new(Run.Card.History.Count + 1, _now, Tavish, Guid.Empty, new StepDone(step.Id)), Vehicle))
                    Do(hand);
                Tell(UsualPress.Of(Run.Card, step));
            }
            if (Run.Card.Next?.Id != step.Id)
                continue;
            _now = CardWalk.Later(Run.Card, step, _now);
            Step(step);
        }
    }

    private void Step(SheetStep step)
    {
        Look(step);
        var command = Shown(step, UsualPress.Of(Run.Card, step));
        if (Meant(command) is not Accepted accepted)
        {
            Decide();
            if (Run.Card.IsOverTorqued(step.Id))
                Tell(new SettleOverTorque(step.Id, "Thread is good"), Una);
            // Whatever still stands in the way of this one is told, so that nothing goes round for ever.
            if (Meant(Shown(step, UsualPress.Of(Run.Card, step))) is not Accepted)
                Tell(command);
            return;
        }
        foreach (var e in accepted.Events)
            foreach (var hand in HandsOf.Event(Run.Card, new(Run.Card.History.Count + 1, _now, Tavish, Guid.Empty, e), Vehicle))
                if (Means(hand) is { } meant)
                    Do(meant);
        if (Feels && command is (PressPedal or FeelPedal))
        {
            Do(new Goes(Place.Cab));
            Choose("pedal/feel");
        }
        Look(step);
        // What was seen meanwhile is told otherwise.
        Tell(Shown(step, UsualPress.Of(Run.Card, step)));
    }

    private Decision Meant(CardCommand command) => Run.Card.Decide(Answered(command), Tavish, _now, UsualPress.Facts(Run.Card.Sheet));

    // Each question is answered as somebody answers who meant what they said.
    private CardCommand Answered(CardCommand command) => Run.Card.Decide(command, Tavish, _now, UsualPress.Facts(Run.Card.Sheet)) switch
    {
        Asked { Question: PourQuestion q } when command is Pour p => new Pour(p.Step, q.Amount, true),
        Asked { Question: LevelQuestion } when command is ReadGauge r => r with { WarningSeen = true },
        Asked { Question: LevelQuestion } when command is ReadRod r => r with { WarningSeen = true },
        Asked { Question: RunOverQuestion } when command is RunOver r => r with { WarningSeen = true },
        Asked { Question: MeasureQuestion } when command is Measure m => m with { Meant = true },
        _ => command,
    };

    private void Tell(CardCommand command, Person? by = null)
    {
        Script.Add(new { step = Run.Card.Next?.Id.Text, tell = command.GetType().Name, says = $"{command}" });
        Run = Run.Tell(by is null ? Answered(command) : command, Guid.NewGuid(), by ?? Tavish, _now).Run;
    }

    private void Decide()
    {
        foreach (var stop in Run.Card.Stops.ToList())
            Tell(new DecideStop(stop.Seq, true, "Seen, and let go"), Una);
        foreach (var seq in Run.Card.WantingCountersignature.ToList())
            Tell(new Countersign(seq), Una);
    }

    private CardCommand Shown(SheetStep step, CardCommand book) => book switch
    {
        ReadGauge => new ReadGauge(step.Id, ReadOf(step.What)),
        ReadRod => new ReadRod(step.Id, new(Quantity<Length>.Of(Math.Round(Run.Card.Sheet.Fluids[step.What].Rod!.Value
            .DepthOf(ReadOf(step.What)).In(Length.Millimetre)), Length.Millimetre), Length.Millimetre)),
        RunOver when Vehicle.Fluids[step.What].Inside < Run.Card.Sheet.Fluids[step.What].Amount.Value =>
            new Pour(step.Id, new(Run.Card.Sheet.Fluids[step.What].Tolerance.Value, Volume.Litre), true),
        Measure => new Measure(step.Id, new(Quantity<Volume>.Of(Math.Round(Vehicle.Fluids[step.What].Pan.In(Volume.Litre), 2),
            Volume.Litre), Volume.Litre)),
        SeeHose => new SeeHose(step.Id, Vehicle.HoseAt(step.What) switch
        {
            { Bubbles: true } => Runs.Bubbles,
            { Fresh: false } => Runs.Dark,
            _ => Runs.Clear,
        }),
        MeasurePoint m when _hasEyes && Run.Lesson.Worn.FirstOrDefault(w => w.Step == m.Step && w.Point == m.Point) is { } worn =>
            m with { Value = worn.Reads },
        FeelPedal => new FeelPedal(step.Id, Vehicle.PedalIsSoft ? Pedal.Soft : Pedal.Hard),
        _ => book,
    };

    private Level ReadOf(FluidId fluid) => new(Math.Clamp(Math.Round(Vehicle.ReadsAs(fluid), 2), Level.Lowest, Level.Highest));

    // Looks at all that is in reach, and sees to what is wrong there.
    private void Look(SheetStep step)
    {
        if (!_hasEyes)
            return;
        foreach (var look in Reach().SelectMany(t => t.Choices).Where(c => c.Kind == ChoiceKind.Look).ToList())
            Choose(look.Id);
        foreach (var thing in Run.Known.Keys.Where(k => Run.Lesson.Notice.Any(n => n.What == k && n.ToCard) && _told.Add(k)).ToList())
            Tell(new NoteFinding(step.Id, FindingGrade.KeepAnEye, Run.Lesson.Notice.First(n => n.What == thing).Says));
        string[] remedies = ["/pick", "/right-one", "/right-can", "/free", "/mend", "/seat"];
        if (Run.Vehicle.Faults.OfType<MisreadStick>().Any(m => Run.Known.ContainsKey(m.What)) && Reach().Any(t => t.Id == "ground"))
            Choose("ground/level");
        foreach (var remedy in Reach().SelectMany(t => t.Choices).Where(c => remedies.Any(r => c.Id.EndsWith(r, StringComparison.Ordinal)))
            .ToList())
            Choose(remedy.Id);
    }

    private IReadOnlyList<InReach> Reach() => Run.Reach(Tavish.Name);

    private bool Choose(string id, string typed = "")
    {
        if (_now < Run.Vehicle.Now)
            _now = Run.Vehicle.Now;
        var (run, problem) = Run.Do(Tavish, id, typed, _now);
        Script.Add(new { step = Run.Card.Next?.Id.Text, did = id, typed });
        Run = run;
        if (problem.Length > 0)
            Missing.Add($"{id} {typed}: {problem}");
        return problem.Length == 0;
    }

    private void Do(Happening what)
    {
        switch (what)
        {
            case Goes h when Run.Card.Sheet.Stands == Stand.Lift && Run.Vehicle.People.GetValueOrDefault(Tavish.Name, Place.Side) != h.To:
                // Nobody crawls under a vehicle on its wheels: what is to be done there is done from beside it.
                var feet = h.To == Place.Below && !Run.Vehicle.IsUp ? Place.Side : h.To;
                if (Run.Vehicle.People.GetValueOrDefault(Tavish.Name, Place.Side) != feet)
                    Choose($"feet/{feet.ToString().ToLowerInvariant()}");
                break;
            case TakesOff h when !Run.Vehicle.IsOff(h.What): Choose($"access:{h.What}/off"); break;
            case PutsOn { Count: { } some } h when some < Run.Card.Sheet.Access[h.What].Count:
                Choose($"access:{h.What}/on-some", $"{some}");
                break;
            case PutsOn h when Run.Vehicle.IsOff(h.What): Choose($"access:{h.What}/on"); break;
            case Sets h: Choose($"access:{h.What}/set"); break;
            case TakesAway h: Choose($"access:{h.What}/away"); break;
            case Undoes h when Run.Vehicle.Joints[h.What].IsIn: Undo(h.What); break;
            case Loosens h: Choose($"fastener:{h.What}/slacken"); break;
            case Fits h: Choose($"{Holding(h.What)}/{(h.Old ? "old" : "new")}"); break;
            case RunsIn h: Choose($"fastener:{h.What}/run-in"); break;
            case Tightens h: Tighten(h); break;
            case Pours h: Choose($"fluid:{h.What}/pour", Litres(h.Amount)); break;
            case RunsThrough h: Choose($"fastener:{Draining(h.What)}/rinse", Litres(h.Amount)); break;
            case FillsPart h: Choose($"{Filtering(h.What)}/prefill", Litres(h.Amount)); break;
            case DrawsOff h: Choose($"fluid:{h.What}/draw", Litres(h.Amount)); break;
            case SucksOut h: Choose($"fluid:{h.What}/suck"); break;
            case TopsUp { Amount: { } some } h: Choose($"fluid:{h.What}/top-some", Litres(some)); break;
            case TopsUp h: Choose($"fluid:{h.What}/top"); break;
            case Strokes h: Choose($"fastener:{h.What}/strokes", $"{h.Count}"); break;
            case SlidesPanUnder { Under: { } under } h when !Run.Vehicle.PanUnder.ContainsKey(under):
                Choose($"{Pan(h.Pan)}/under-{under}");
                break;
            case EmptiesPan h: Choose($"{Pan(h.Pan)}/empty"); break;
            case ClearsBelow when Run.Vehicle.IsUp || Run.Card.Sheet.Stands != Stand.Lift: Choose("below/clear"); break;
            case ClearsAbove: Choose("bay/clear"); break;
            case SetsArms: Choose("lift/arms"); break;
            case Raises: Choose("lift/raise"); break;
            case Lowers: Choose("lift/lower"); break;
            case Primes h: Choose($"part:{h.What}/prime"); break;
            case Starts: Choose("engine/start"); break;
            case Stops: Choose("engine/stop"); break;
            case RunsWarm: Choose("engine/warm"); break;
            case Cranks: Choose("engine/crank"); break;
            case Drives h: Choose(h.Far is null ? "road/warm" : "road/short"); break;
            case Inflates h: Choose("tyres/set", h.To.In(Pressure.Bar).ToString(CultureInfo.InvariantCulture)); break;
            case MendsThread h: Choose($"fastener:{h.What}/mend"); break;
            case RenewsSeal h: Choose($"fastener:{h.What}/renew"); break;
            case PutsOut h: PutOut(h.What); break;
            case Brings or Goes or SlidesPanUnder or TakesOff or PutsOn or Undoes or JointWeeps or ClearsBelow: break;
            default: Missing.Add($"Nobody has said how {what} is chosen."); break;
        }
    }

    private void Undo(FastenerId what)
    {
        Choose($"fastener:{what}/undo");
        if (!_hasEyes || !Run.Vehicle.Joints[what].IsIn)
            return;
        Choose($"fastener:{what}/free");
        Choose($"fastener:{what}/undo");
    }

    private void Tighten(Tightens h)
    {
        var fastener = Run.Card.Sheet.Fasteners[h.What];
        var end = fastener.Count > 1 || fastener.Tightening.Value is InStages ? $"-{Math.Max(1, h.Place)}" : "";
        if (h.To is not { } to)
        {
            Choose($"fastener:{h.What}/{(fastener.LastTorque is null ? "as-usual" : "stages")}{end}");
            return;
        }
        if (!Run.Wrench.ContainsKey(Tavish.Name))
            Choose(Reach().Single(t => t.Id == "wrenches").Choices[0].Id);
        var scale = MindsScales ? Run.Wrench[Tavish.Name].Scale : Torque.NewtonMetre;
        Choose($"fastener:{h.What}/tighten{end}", Math.Round(to.In(scale), 1).ToString(CultureInfo.InvariantCulture));
        if (_hasEyes && Run.Vehicle.Joints[h.What].IsStripped)
        {
            Choose($"fastener:{h.What}/mend");
            Choose($"fastener:{h.What}/tighten{end}", Math.Round(to.In(scale), 1).ToString(CultureInfo.InvariantCulture));
        }
    }

    // Move by move; where the display says something else, once more from the beginning.
    private void PutOut(ResetId what)
    {
        var ritual = Run.Card.Sheet.Resets[what];
        for (var tries = 0; tries < (_hasEyes ? 3 : 1) && Run.Vehicle.Lit.Contains(what); tries++)
            foreach (var move in ritual.Moves.Skip(Run.Vehicle.Display.Reset == what ? Run.Vehicle.Display.Made : 0))
                for (var times = 0; times < move.Times; times++)
                {
                    _now += TimeSpan.FromSeconds(1) + (move.Wait ?? TimeSpan.Zero);
                    var control = $"dash/{what}-{move.Uses.ToString().ToLowerInvariant()}";
                    if (move.Types == NextService.None)
                        Choose(control, ((move.Hold ?? TimeSpan.Zero).TotalSeconds + 0.5).ToString(CultureInfo.InvariantCulture));
                    else
                        Choose($"{control}-type",
                            move.Types == NextService.Distance ? $"{ritual.Next?.Distance}" : $"{ritual.Next?.Months}");
                    _now += move.Wait ?? TimeSpan.Zero;
                }
    }

    private string Holding(PartId part) => Run.Card.Sheet.Fasteners.Values.FirstOrDefault(f => f.Seal == part || f.Holds.Contains(part))
        is { } holder ? $"fastener:{holder.Id}/{part}" : $"part:{part}";

    private FastenerId Draining(FluidId fluid) => Run.Card.Sheet.Fasteners.Values.First(f => f.Drains == fluid).Id;

    private string Filtering(FluidId fluid) =>
        Holding(Run.Card.Sheet.Parts.Values.First(p => p.Prefill is not null && Run.Card.Sheet.FluidIn(p.Id)?.Id == fluid).Id);

    private static string Pan(string name) => name == "Pan 2" ? "pan-2" : "pan-1";

    private static string Litres(Quantity<Volume> amount) => amount.In(Volume.Litre).ToString("0.####", CultureInfo.InvariantCulture);
}
