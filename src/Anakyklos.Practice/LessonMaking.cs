using System.Text.RegularExpressions;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>What somebody says of a lesson that they make of something that happened.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Story">What is told before it begins.</param>
/// <param name="Fault">The key of what is wrong; empty where nothing is.</param>
/// <param name="Says">What is to be noticed, as it is told afterwards.</param>
/// <param name="Right">What is right.</param>
/// <param name="Hot">Whether the vehicle was driven in.</param>
public sealed record LessonDraft(string Name, string Story, string Fault, string Says, string Right, bool Hot);

/// <summary>Something that can be wrong in a lesson.</summary>
/// <param name="Key">By which it is chosen.</param>
/// <param name="Fault">What is wrong.</param>
/// <param name="Notice">How it is noticed.</param>
public sealed record FaultToChoose(string Key, Fault Fault, ToNotice Notice);

/// <summary>Makes lessons of what happened on real cards, without saying to whom.</summary>
public static partial class LessonMaking
{
    private const int LongestName = 60;
    private const int LongestText = 400;
    private const int OwnRoad = 900;

    /// <summary>What can be wrong on a card, what is nearest to where something happened first.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="jobs">The jobs.</param>
    /// <param name="at">The thing at which something happened; empty for none.</param>
    public static IReadOnlyList<FaultToChoose> Faults(ModelSheet sheet, IReadOnlyList<JobId> jobs, ThingId at) =>
        [.. FreePractice.MayBeWrong(sheet, jobs).Select(f => new FaultToChoose($"{f.Fault.GetType().Name}/{f.Notice.What}",
            f.Fault, f.Notice))
            .OrderBy(f => !at.IsEmpty && f.Notice.What.Text == at.Text ? 0 : 1)];

    /// <summary>A text without plates and without names.</summary>
    /// <param name="text">The text.</param>
    /// <param name="plates">Plates, also where they are written with other gaps or none.</param>
    /// <param name="names">Names of people, each also by its first word alone.</param>
    public static string Without(string text, IEnumerable<string> plates, IEnumerable<string> names)
    {
        var bare = plates.Select(Bare).Where(p => p.Length > 1).ToHashSet();
        text = Runs().Replace(text, run => WithoutPlates(run.Value, bare));
        foreach (var name in names.Where(n => n.Trim().Length > 1).OrderByDescending(n => n.Length))
            foreach (var said in new[] { name.Trim(), name.Trim().Split(' ')[0] }.Where(n => n.Length > 2))
                text = Regex.Replace(text, $@"(?<!\w){Regex.Escape(said)}(?!\w)", "somebody",
                    RegexOptions.IgnoreCase | RegexOptions.CultureInvariant);
        return text;
    }

    private static string Bare(string plate) => string.Concat(plate.Where(char.IsAsciiLetterOrDigit)).ToUpperInvariant();

    // The longest first: what is one plate as a whole is not half of another.
    private static string WithoutPlates(string run, HashSet<string> bare)
    {
        var words = Words().Matches(run);
        for (var many = words.Count; many > 0; many--)
            for (var from = 0; from + many <= words.Count; from++)
            {
                var (start, end) = (words[from].Index, words[from + many - 1].Index + words[from + many - 1].Length);
                if (bare.Contains(Bare(run[start..end])))
                    return WithoutPlates(run[..start], bare) + "the vehicle" + WithoutPlates(run[end..], bare);
            }
        return run;
    }

    /// <summary>The lesson of a draft; or what is wrong with that, by its field.</summary>
    /// <param name="draft">What somebody said, without plate and names.</param>
    /// <param name="sheet">The model.</param>
    /// <param name="jobs">The jobs of the card.</param>
    public static (Lesson? Lesson, IReadOnlyList<Refusal> Wrong) Make(LessonDraft draft, ModelSheet sheet, IReadOnlyList<JobId> jobs)
    {
        var wrong = new List<Refusal>();
        void Wants(string text, int most, string field, string what)
        {
            if (string.IsNullOrWhiteSpace(text))
                wrong.Add(new($"{what} is missing.", "Write it in a sentence.", Field: field));
            else if (text.Length > most)
                wrong.Add(new($"{what} is too long.", $"Say it in {most} characters.", Field: field));
        }
        Wants(draft.Name, LongestName, "name", "Its name");
        Wants(draft.Story, LongestText, "story", "What is told before");
        Wants(draft.Right, LongestText, "right", "What is right");
        var slug = NoLetters().Replace(draft.Name.ToLowerInvariant(), "-").Trim('-');
        if (draft.Name.Trim().Length > 0 && slug.Length == 0)
            wrong.Add(new("Its name has no letters.", "Use plain letters or digits.", Field: "name"));
        var chosen = draft.Fault.Length == 0 ? null : Faults(sheet, jobs, default).FirstOrDefault(f => f.Key == draft.Fault);
        if (draft.Fault.Length > 0 && chosen is null)
            wrong.Add(new("That cannot be wrong on this card.", "Choose one of those shown.", Field: "fault"));
        if (chosen is not null)
            Wants(draft.Says, LongestText, "says", "What is to be noticed");
        return wrong.Count > 0 ? (null, wrong) : (new($"own-{slug}", draft.Name.Trim(), OwnRoad, "Our own",
            draft.Story.Trim(), sheet.Id, jobs,
            draft.Hot, 1, chosen is null ? [] : [chosen.Fault], chosen is null ? [] :
                [chosen.Notice with { Says = draft.Says.Trim().TrimEnd('.') }],
            [.. Enum.GetValues<HarmKind>().Where(k => k != HarmKind.OutOfReach)], draft.Right.Trim(), [], null, []), []);
    }

    // Words with at most one space or dash between them, few enough for a plate in pieces.
    [GeneratedRegex(@"(?<!\w)\w+(?:[- ]\w+){0,40}")]
    private static partial Regex Runs();

    [GeneratedRegex(@"\w+")]
    private static partial Regex Words();

    [GeneratedRegex("[^a-z0-9]+")]
    private static partial Regex NoLetters();
}
