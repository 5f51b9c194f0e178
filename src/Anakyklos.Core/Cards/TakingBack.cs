using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>What was pressed by mistake is taken back.</summary>
public sealed partial class JobCard
{
    /// <summary>What a person pressed last and could take back: the last event of that command, a change of order only where it did
    /// nothing else; null when there is none.</summary>
    /// <param name="person">Person id.</param>
    public Recorded? LastPressOf(PersonId person)
    {
        var taken = TakenIn(_history);
        var last = _history.LastOrDefault(h => h.By.Id == person && !taken.Contains(h.Seq)
            && h.Event is not (CardOpened or TakenBack or Countersigned or StoodBeside or StopDecided or CarriedMended or PartCame
                or Amended));
        return last?.Event is PlanChanged
            ? _history.LastOrDefault(h => h.Command == last.Command && h.Seq <= last.Seq && h.Event is not PlanChanged) ?? last : last;
    }

    /// <summary>What happened at steps of a kind and was not taken back, in its order: what that kind folds its own state from.</summary>
    /// <param name="kind">The kind.</param>
    internal IEnumerable<(SheetStep Step, CardEvent Event)> HappenedAt(string kind) => HappenedAt(s => s.Kind == kind);

    /// <summary>What happened at some of the steps and was not taken back, in its order.</summary>
    /// <param name="which">At which.</param>
    internal IEnumerable<(SheetStep Step, CardEvent Event)> HappenedAt(Func<SheetStep, bool> which)
    {
        var taken = TakenIn(_history);
        return _history.Where(h => !taken.Contains(h.Seq)).Select(h => (Step: StepOf(h.Event) is { } id ? Step(id) : null, h.Event))
            .Where(h => h.Step is not null && which(h.Step)).Select(h => (h.Step!, h.Event));
    }

    /// <summary>What was noted and can be put right: of each step and fastener the last that holds, in the order of those notes.</summary>
    public IReadOnlyList<Recorded> CanBePutRight
    {
        get
        {
            var taken = TakenIn(_history);
            return [.. _history.Where(h => !taken.Contains(h.Seq) && h.Event is IStepEvent at && Step(at.Step) is { } step
                    && Coach.Of(step).CanBePutRight(h.Event))
                .GroupBy(h => (((IStepEvent)h.Event).Step, Coach.Of(Known(((IStepEvent)h.Event).Step)).NotedOf(h.Event)))
                .Select(g => g.Last()).OrderBy(h => h.Seq)];
        }
    }

    /// <summary>The last torque read at a step and not taken back, passed or not; null when none was read.</summary>
    /// <param name="step">A step of this card.</param>
    public (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueAt(SheetStep step)
    {
        var coach = Coach.Of(step);
        return HappenedAt(step.Kind).Where(h => h.Step.Id == step.Id)
            .Select(h => coach.TorqueOf(h.Event)).LastOrDefault(t => t is not null);
    }

    /// <summary>Whether a device sent what an event noted.</summary>
    public bool IsFromDevice(Recorded noted) =>
        noted.Event is IStepEvent at && Step(at.Step) is { } step && Coach.Of(step).ReadBy(noted.Event) is not null;

    /// <summary>The device that read the last torque of a step; null when a person read it, or nobody did.</summary>
    /// <param name="step">A step of this card.</param>
    public DeviceId? ReadBy(SheetStep step)
    {
        var coach = Coach.Of(step);
        return HappenedAt(step.Kind).Where(h => h.Step.Id == step.Id && coach.TorqueOf(h.Event) is not null)
            .Select(h => coach.ReadBy(h.Event)).LastOrDefault();
    }

    /// <summary>What the card is to be told when a device measured something for a step; null where the step takes no such thing from a
    /// device.</summary>
    /// <param name="step">A step of this card that is left.</param>
    /// <param name="measured">What was measured.</param>
    /// <param name="device">By which device.</param>
    public CardCommand? CommandFor(SheetStep step, MeasuredValue measured, DeviceId device) =>
        Coach.Of(step).Takes(this, step, measured, device);

    /// <summary>What the card is to be told when a scan tool shows something at a step; null where the step waits for no tool.</summary>
    /// <param name="step">A step of this card that is left.</param>
    /// <param name="shows">What the tool shows.</param>
    /// <param name="tool">Which tool.</param>
    public CardCommand? Hears(SheetStep step, string shows, DeviceId tool) => Coach.Of(step).Hears(this, step, shows, tool);

    private static HashSet<int> TakenIn(IEnumerable<Recorded> history) =>
        [.. history.Select(h => h.Event).OfType<TakenBack>().SelectMany(t => Enumerable.Range(t.From, t.To - t.From + 1))];

    private Decision Back(TakeBack c, Person by)
    {
        var wanted = _history.FirstOrDefault(h => h.Seq == c.Of);
        if (LastPressOf(by.Id) is not { } last || wanted is null || last.Command != wanted.Command)
            return No("Only what you pressed last can be taken back.",
                "For a reading that was noted wrongly, put the reading right instead.", ground: Ground.TakenBack);
        var together = _history.Where(h => h.Command == last.Command).ToList();
        if (together.Any(h => IsCountersigned(h.Seq) || DecisionOn(h.Seq) is not null))
            return No("Another person put a name to this.", "It stands.", ground: Ground.TakenBack);
        if (DependsOn(together) is { } later)
            return No($"{later.By.Name} went on from it: “{(StepOf(later.Event) is { } s ? TitleOf(s) : "the order")}”.",
                "Take that back first, or put it right from here.", ground: Ground.TakenBack);
        return Yes(new TakenBack(together[0].Seq, together[^1].Seq));
    }

    // Plays the card without the press; the first later event that could not have happened then depends on it.
    private Recorded? DependsOn(List<Recorded> together)
    {
        var taken = TakenIn(_history);
        var without = new JobCard(Sheet, Opened, _history);
        var fluids = together.Select(h => StepOf(h.Event)).OfType<StepId>().Select(Step).OfType<SheetStep>()
            .Where(s => Sheet.Fluids.ContainsKey(s.What)).Select(s => s.What).ToHashSet();
        foreach (var h in _history.Where(h => !taken.Contains(h.Seq) && h.Command != together[0].Command))
        {
            if (h.Seq > together[^1].Seq)
            {
                if (h.Event is PlanChanged && together.Any(t => t.Event is JobDropped))
                    return h;
                if (StepOf(h.Event) is { } id
                    && h.Event is not (FindingNoted or StepPutAside or DeviationTaken
                    {
                        Kind: DeviationKind.OldSealAgain or DeviationKind.OtherPart or DeviationKind.OtherOil,
                    }))
                {
                    if (without.Step(id) is not { } step)
                        return h;
                    // What came at the same step, and more of the same fluid, counts from what was there.
                    var counts = together.Any(t => StepOf(t.Event) == id)
                        || (h.Event is IStepEvent { GoesOn: true } && fluids.Contains(step.What));
                    if (counts || (without.IsLeft(id) && !without.CanBegin(step)))
                        return h;
                }
            }
            without = without.After(h);
        }
        return null;
    }

    private static StepId? StepOf(CardEvent e) => e switch
    {
        IStepEvent at => (StepId?)at.Step,
        StepPutAside a => a.Step,
        DeviationTaken { Step.IsEmpty: false } d => d.Step,
        FindingNoted f => f.Step,
        ValueRuled v => v.Step,
        _ => null,
    };
}
