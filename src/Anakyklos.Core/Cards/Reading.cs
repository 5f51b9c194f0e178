using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>What was seen of what came out, what follows from it, and what was seen the time before.</summary>
public sealed partial class JobCard
{
    /// <summary>What was seen at a step, in the order in which it was.</summary>
    /// <param name="step">A step of this card.</param>
    public IReadOnlyList<SeenThere> SeenAt(StepId step) => [.. _state.Seen.Where(s => s.Step == step)];

    /// <summary>What is still to be looked at in a step that reads what came out.</summary>
    /// <param name="step">The step.</param>
    /// <returns>In the order of the sheet; empty when all was, or nothing is.</returns>
    public IReadOnlyList<LookSubject> ToLookAt(SheetStep step) => step.Spec is not ReadSpec spec ? []
        : [.. spec.Looks.Where(s => SeenAt(step.Id).All(seen => seen.Look.Subject != s))];

    /// <summary>What was seen there on the last card of this vehicle that looked, or null.</summary>
    /// <param name="step">The step.</param>
    /// <param name="subject">What is looked at.</param>
    public LookBefore? SeenBefore(StepId step, LookSubject subject) =>
        Opened.SeenBefore?.LastOrDefault(b => b.Step == step && b.Look.Subject == subject);

    /// <summary>What follows if something is seen at a step, with all else that was seen of the same fluid and the time before.</summary>
    /// <param name="step">A step that reads what came out.</param>
    /// <param name="look">What is seen; one that is known.</param>
    public LookOutcome LeadsTo(SheetStep step, Look look)
    {
        var spec = (ReadSpec)step.Spec!;
        var beside = _state.Seen.Where(s => s.Step == step.Id || (!spec.Fluid.IsEmpty && Step(s.Step)?.Spec is ReadSpec other
            && other.Fluid == spec.Fluid)).Select(s => s.Look);
        return LookRules.Judge(look, spec.Alone(look), beside,
            SeenBefore(step.Id, look.Subject) is { } before ? [before.Look] : []);
    }

    /// <summary>What is looked at in words, such as "Magnet of the engine drain plug".</summary>
    /// <param name="step">A step that reads what came out.</param>
    /// <param name="subject">What is looked at.</param>
    public string LookedAt(SheetStep step, LookSubject subject)
    {
        var part = step.Needs.Select(n => Sheet.Fasteners.GetValueOrDefault((FastenerId)n)?.Name).FirstOrDefault(n => n is not null);
        var fluid = step.Spec is ReadSpec { Fluid: { IsEmpty: false } id } ? Sheet.Fluids[id].Name : null;
        return subject switch
        {
            LookSubject.Fluid when fluid is not null => $"Old {Words.Low(fluid)}",
            LookSubject.Fluid => "Old fluid",
            LookSubject.Filter => "Old filter",
            LookSubject.Hold => part is null ? "How tight it was" : $"How tight the {Words.Low(part)} was",
            LookSubject.Seal => part is null ? "Old seal" : $"Old seal of the {Words.Low(part)}",
            _ => part is null ? "Magnet" : $"Magnet of the {Words.Low(part)}",
        };
    }

    /// <summary>What the next card of this vehicle is told: everything that was seen on this one, and before it at other steps.</summary>
    /// <param name="card">The number of this card.</param>
    /// <param name="day">The day on which it was signed.</param>
    public IReadOnlyList<LookBefore> SeenUntil(CardNumber card, DateOnly day) =>
    [
        .. (Opened.SeenBefore ?? []).Where(b => _state.Seen.All(s => s.Step != b.Step || s.Look.Subject != b.Look.Subject)),
        .. _state.Seen.Select(s => new LookBefore(card, day, s.Step, s.Look)),
    ];

    /// <summary>The jobs whose next interval is shorter for what was seen.</summary>
    public IReadOnlySet<JobId> JobsShortened => _state.Seen.Where(s => s.Leads is LookOutcome.Shorten or LookOutcome.Sample)
        .SelectMany(s => Step(s.Step)?.Jobs ?? []).ToHashSet();
}

/// <summary>What was seen at a step of a card.</summary>
/// <param name="Step">The step.</param>
/// <param name="Look">What.</param>
/// <param name="Leads">What followed from it.</param>
public readonly record struct SeenThere(StepId Step, Look Look, LookOutcome Leads);
