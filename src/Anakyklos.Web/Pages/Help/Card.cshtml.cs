using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Help;

/// <summary>How the card thinks, shown on one that is worked in software while the page is drawn: what stands here is what the card
/// says.</summary>
public sealed class CardModel(SheetStore sheets) : PageModel
{
    private const int MostReasons = 4;

    /// <summary>The card as it was opened, where most was open, and signed.</summary>
    public JobCard Opened { get; private set; } = null!;
    public JobCard Widest { get; private set; } = null!;
    public JobCard Closed { get; private set; } = null!;

    /// <summary>What is open there, with the step that closes it.</summary>
    public IReadOnlyList<(OpenItem Open, string By)> ClosedBy { get; private set; } = [];

    /// <summary>The first step of which something stands in the way where most is open, with that.</summary>
    public (SheetStep Step, IReadOnlyList<Refusal> Reasons)? Gate { get; private set; }

    /// <summary>What the card says to a signature where most is open, the first few, and how many there are.</summary>
    public IReadOnlyList<Refusal> Unsigned { get; private set; } = [];
    public int AllUnsigned { get; private set; }

    public void OnGet()
    {
        // One of the workshop's own, else one that lies there for practice: there is always one of these.
        var sheet = sheets.Newest().Concat(sheets.ToPractise()).First(s => Walk(s).Count > 0);
        var walk = Walk(sheet);
        (Opened, Widest, Closed) = (walk[0], walk.MaxBy(c => c.Open.Count)!, walk[^1]);
        var now = Widest.History[^1].At;
        Gate = Widest.Steps.Where(s => Widest.State(s.Id).Status != StepStatus.Done)
            .Select(s => (Step: s, Reasons: Widest.InTheWay(s, now))).Where(s => s.Step.Kind is "run" or "lower" or "raise")
            .FirstOrDefault(s => s.Reasons.Count > 0) is { Step: not null } found ? found : null;
        if (Widest.Decide(new Sign(), Widest.History[0].By, now, UsualPress.Facts(sheet)) is Refused refused)
        {
            (Unsigned, AllUnsigned) = ([.. refused.Reasons.Take(MostReasons)], refused.Reasons.Count);
            // Whoever cannot sign is told of each open thing first, with the step that helps.
            ClosedBy = [.. Widest.Open.Zip(refused.Reasons, (open, reason) => (open, reason.Step is { } step && Widest.Step(step) is { } by
                ? Widest.TitleOf(by) : ""))];
        }
    }

    private static IReadOnlyList<JobCard> Walk(ModelSheet sheet)
    {
        var job = sheet.Jobs.Keys.FirstOrDefault(j => j.Text.StartsWith("engine-oil", StringComparison.Ordinal),
            sheet.Jobs.Keys.First());
        List<JobCard> walk = [.. CardWalk.Along(sheet, [job])];
        return walk[^1].Signature is null ? [] : walk;
    }
}
