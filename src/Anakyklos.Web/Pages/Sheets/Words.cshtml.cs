using System.Globalization;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.Sheets;

/// <summary>A text of a sheet beside what it is in another language.</summary>
/// <param name="Text">The text as the sheet has it.</param>
/// <param name="Said">What it is; empty where nobody has said it.</param>
/// <param name="Program">What the program makes of it by itself; empty where it does not know it.</param>
/// <param name="Wrong">What is wrong with what was typed; null for nothing.</param>
public sealed record TextToSay(string Text, string Said, string Program, Refusal? Wrong)
{
    /// <summary>Whether whoever is spoken to in that language reads it in it.</summary>
    public bool IsSaid => Said.Length > 0 || Program.Length > 0;
}

/// <summary>What the texts of a draft are in another language, thing by thing.</summary>
public sealed class WordsModel(SheetDesk desk, Viewer viewer) : PageModel
{
    private PhraseBook? _program;

    /// <summary>The draft.</summary>
    public DraftNow Now { get; private set; } = null!;

    /// <summary>The language's code, and its own name where it is one of those that people choose.</summary>
    public string Language { get; private set; } = "";

    public string LanguageName { get; private set; } = "";

    /// <summary>The things that have texts, each with all of them; the model as a whole has an empty path.</summary>
    public IReadOnlyList<(string Path, string Name, IReadOnlyList<TextToSay> Texts)> Things { get; private set; } = [];

    /// <summary>The thing whose texts are said.</summary>
    public string At { get; private set; } = "";

    /// <summary>How the words stood when this page was made.</summary>
    public string Was { get; private set; } = "";

    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];

    public bool Works => viewer.Member?.Person.WorksOnCards == true;

    public IReadOnlyList<TextToSay> Texts => Things.FirstOrDefault(t => t.Path == At).Texts ?? [];

    public IEnumerable<TextToSay> All => Things.SelectMany(t => t.Texts);

    /// <summary>The next thing that has a text without a word; null where none has.</summary>
    public string? Next => Things.SkipWhile(t => t.Path != At).Skip(1).Concat(Things)
        .Where(t => t.Path != At && t.Texts.Any(x => !x.IsSaid)).Select(t => t.Path).FirstOrDefault();

    public IActionResult OnGet(long n, string language, string? at) => Load(n, language, at, NoneTyped) ?? Page();

    public async Task<IActionResult> OnPostAsync(long n, string language, string? at, string? was, string[] english, string[] said)
    {
        if (english.Length != said.Length || english.Distinct().Count() != english.Length)
            return BadRequest();
        var typed = english.Zip(said).ToDictionary(w => w.First, w => w.Second ?? "");
        var wrong = await desk.Say(n, viewer.Member!.Person, language, was ?? "", typed);
        if (Load(n, language, at, wrong.Count == 0 ? NoneTyped : typed, wrong) is { } missing)
            return missing;
        if (wrong.Count == 0)
            return Redirect(To(Texts.All(t => t.IsSaid) && Next is { } next ? next : At));
        Was = was ?? "";
        Response.StatusCode = wrong.Any(r => r.Field is not null) ? StatusCodes.Status422UnprocessableEntity
            : Works ? StatusCodes.Status409Conflict : StatusCodes.Status403Forbidden;
        return Page();
    }

    /// <summary>The address of a thing's texts.</summary>
    public string To(string path) => $"/library/draft/{Now.Draft.Id}/words/{Language}?at={Uri.EscapeDataString(path)}";

    private static readonly Dictionary<string, string> NoneTyped = [];

    private IActionResult? Load(long n, string language, string? at, Dictionary<string, string> typed, IReadOnlyList<Refusal>? wrong = null)
    {
        if (desk.Find(n) is not { } now || !OtherTongues.IsLanguage(language) || language == Offered.English.Name)
            return NotFound();
        (Now, Language, Refusals, Was) = (now, language, wrong ?? [], SheetDesk.WordsMark(now, language));
        LanguageName = Offered.All.FirstOrDefault(l => l.Code == language).Name ?? language;
        _program = Offered.All.Any(l => l.Code == language) ? Offered.Book(CultureInfo.GetCultureInfo(language)) : null;
        var said = SheetTexts.Said(now.Text, language);
        Things = [.. SheetTexts.Of(now.Text).GroupBy(s => SheetDesk.ThingOf(s.Path)).Select(g => (g.Key,
            g.Key.Length == 0 ? now.Name : SheetGroup.Name(now.Text, g.Key), (IReadOnlyList<TextToSay>)[.. g.Select(s =>
                new TextToSay(s.Text, typed.GetValueOrDefault(s.Text) ?? said.GetValueOrDefault(s.Text, ""), ByProgram(s.Text),
                    Refusals.FirstOrDefault(r => r.Field == s.Text)))]))];
        At = at is not null && Things.Any(t => t.Path == at) ? at
            : Things.FirstOrDefault(t => t.Texts.Any(x => !x.IsSaid)).Path ?? Things.FirstOrDefault().Path ?? "";
        return null;
    }

    private string ByProgram(string text) => _program?.Say(text) is { IsKnown: true } known ? known.Text : "";
}
