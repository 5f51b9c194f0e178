using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>A joint leaks: it counts as open again.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record LeakFound(StepId Step, FastenerId Fastener) : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Leak;
}

/// <summary>A joint leaks.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record ReportLeak(StepId Step, FastenerId Fastener) : StepCommand(Step);

/// <summary>What is seen of the joints that this card opened, and what a leak does.</summary>
public sealed partial class JobCard
{
    /// <summary>The joints that are under pressure while the engine runs, and seen then without going under the vehicle: closed, and
    /// opened on this card.</summary>
    public IEnumerable<Fastener> JointsInSight => JointsOpened.Where(f => !HasOpen(f) && IsPumped(f)
        && (Sheet.IsMotorcycle || !f.IsUnderneath));

    /// <summary>What it means that a joint leaks.</summary>
    /// <param name="step">The step at which it was seen.</param>
    /// <param name="joint">A joint of this card.</param>
    internal Decision Leaks(StepId step, FastenerId joint) => Yes(new LeakFound(step, joint),
        new FindingNoted(step, FindingGrade.PlanIt, $"{Sheet.Fasteners[joint].Name} leaked after it was closed"));

    /// <summary>What a leak does: the joint is open, and is proved again whatever runs through it.</summary>
    /// <param name="joint">A joint of this card.</param>
    internal IEnumerable<Effect> OpensAgain(FastenerId joint) =>
        Steps.FirstOrDefault(s => s.Traits.Fastens && s.What == joint) is { } tighten ? Coach.Of(tighten).Leaks(this, tighten) : [];
}
