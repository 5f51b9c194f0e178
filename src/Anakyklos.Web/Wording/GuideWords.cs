using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Wording;

/// <summary>What somebody is told beside their first card, at the first step of each kind.</summary>
public static class GuideWords
{
    private static readonly Dictionary<string, string> OfKinds = new(StringComparer.Ordinal)
    {
        ["kit"] = "Before anything is opened, what lies there is held against the list. Say what lies there; the kit takes what you say.",
        ["open"] = "Something is opened now. The button says what the hands did; press it, or Enter. Then watch the ring: it gets a bead, "
            + "and nothing is signed before that bead is gone.",
        ["inspect"] = "Look, and say what you see. The card knows what follows from each answer.",
        ["do"] = "This opens nothing and closes nothing; it is only not forgotten. A wrong press is taken back with U.",
        ["fit"] = "The number is held against the part in your hand.",
        ["close"] = "This closes what was opened. Watch its bead go.",
        ["clear"] = "Nothing is shut before somebody has looked over what lies below. What was seen on the way is noted with S.",
        ["tighten"] = "The large number is what the wrench is set to; it is typed as it clicked, in any unit.",
    };

    /// <summary>What is said at a step; empty for nothing, also where its kind was met before on this card.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">The step.</param>
    public static string Of(JobCard card, SheetStep step) => OfKinds.TryGetValue(step.Kind, out var words)
        && !card.Steps.Any(s => s.Kind == step.Kind && s.Id != step.Id && card.State(s.Id).Status == StepStatus.Done) ? words : "";
}
