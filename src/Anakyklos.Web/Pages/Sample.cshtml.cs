using Anakyklos.Core.Quantities;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A sample: its label, what goes to the laboratory with it, and what came back.</summary>
public sealed class SampleModel(LabDesk desk, PeopleStore people, Viewer viewer) : PageModel
{
    public SampleStory Story { get; private set; } = null!;

    public SampleEntry Entry => Story.Entry;

    public IReadOnlyList<TrendDrawing> Trends { get; private set; } = [];

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    /// <summary>What stands against it first; all that is said where nothing does.</summary>
    public string Worst => Entry.Says.Split("; ")[0];

    /// <summary>What else stands against it; empty for nothing.</summary>
    public string Rest => string.Join("; ", Entry.Says.Split("; ").Skip(1));

    /// <summary>How far it ran on that oil, in words.</summary>
    public string OnOil => Entry.Sample.OnOil is { } far ? $"{OdometerText.Of(far, viewer.DistanceUnit)} on this oil"
        : "nobody knows how far it ran on this oil";

    /// <summary>Who took note of the answer; empty while nobody did.</summary>
    public string SeenBy => Entry.SeenBy is { } by ? people.All().FirstOrDefault(p => p.Id == by)?.Name ?? by.Text : "";

    public IActionResult OnGet(string code)
    {
        if (desk.Of(code) is not { } story)
            return NotFound();
        Story = story;
        Trends = story.Judgement is { } judged ? TrendDrawing.Of(judged, story.Story) : [];
        return Page();
    }

    /// <summary>What goes to the laboratory.</summary>
    public IActionResult OnGetRequest(string code) => desk.Of(code) is { } story
        ? File(System.Text.Encoding.UTF8.GetBytes(LabFiles.Write(story.Entry.Sample)), "application/json",
            $"{story.Entry.Sample.Code}.json")
        : NotFound();

    public async Task<IActionResult> OnPostSeenAsync(string code)
    {
        if (!Works)
            return Forbid();
        if (desk.Of(code) is not { } story)
            return NotFound();
        await desk.TakeNote(story.Entry.Sample.Code, viewer.Member!.Person.Id);
        return Redirect($"/sample/{story.Entry.Sample.Code}");
    }
}
