using System.Collections.Concurrent;
using System.Collections.Frozen;
using System.Text.RegularExpressions;

namespace Anakyklos.Web.Languages;

/// <summary>All that the application says, in another language.</summary>
public sealed partial class PhraseBook
{
    private const string Days = "Mon(?:day)?|Tue(?:sday)?|Wed(?:nesday)?|Thu(?:rsday)?|Fri(?:day)?|Sat(?:urday)?|Sun(?:day)?";

    private const string Months = "Jan(?:uary)?|Feb(?:ruary)?|Mar(?:ch)?|Apr(?:il)?|May|June?|July?|Aug(?:ust)?|Sep(?:tember)?|Oct(?:ober)?"
        + "|Nov(?:ember)?|Dec(?:ember)?";

    private const string Unit = "N·m|lbf·ft|lbf·in|L|mL|mm|km|ml|kg|g|bar|kPa|psi|V|h|min|s|N|lbf|ft|in|mi|lb|mg|mg/kg|qt|oz|gal|US qt"
        + "|°C|%";

    // So many texts are kept ready; then it begins anew.
    private const int Kept = 20_000;

    // A sentence in a sentence in a sentence; nobody speaks deeper.
    private const int Deepest = 4;

    // A phrase with fewer letters of its own, such as "{0} on the {1}", counts only where all that stands in it is known.
    private const int Sure = 5;

    // So many signs of a sentence that was cut short tell which one it is.
    private const int Surest = 12;

    // So many ways to see the same text as the same phrase are tried.
    private const int Ways = 24;

    // A list of more parts is nobody's sentence.
    private const int Longest = 40;

    // What is a list in every language, those with commas before those that are said.
    private const string Comma = ", ";

    private static readonly string[] _marks = [" · ", "; ", ": ", Comma, " + ", " / ", " – ", " → "];

    // A phrase that goes on from something, ", every second time", also stands by itself in a list.
    private static readonly string[] _goingOn = [", ", "; ", ": "];

    private readonly KeyValuePair<string, string>[] _entries;
    private readonly Manner _manner;
    private readonly (string Here, string There)[] _joints;
    private readonly FrozenDictionary<string, string> _whole;
    private readonly string[] _sorted;
    private readonly FrozenDictionary<string, Phrase[]> _byWord;
    private readonly ConcurrentDictionary<string, Said> _ready = new();

    /// <param name="entries">Each sentence as the application says it, with what it is in the other language.</param>
    /// <param name="manner">How the other language joins, quotes and counts.</param>
    /// <exception cref="FormatException">A translation has a hole that its sentence has not.</exception>
    public PhraseBook(IEnumerable<KeyValuePair<string, string>> entries, Manner manner)
    {
        _entries = [.. entries];
        _manner = manner;
        _joints = [.. _marks.Select(m => (m, m)), (" and ", manner.And), (" or ", manner.Or), (" with ", manner.With)];
        Phrase[] phrases = [.. _entries.Select(e => new Phrase(e.Key, e.Value))];
        Sentences = [.. phrases.Select(p => p.Sentence)];
        var known = phrases.Select(p => p.Sentence).ToHashSet(StringComparer.Ordinal);
        phrases = [.. phrases, .. phrases.Select(p => p.ByItself(_goingOn)).OfType<Phrase>().Where(p => known.Add(p.Sentence))];
        _whole = phrases.Where(p => p.IsWhole).ToFrozenDictionary(p => p.Sentence, p => p.Say(_ => ""), StringComparer.Ordinal);
        _sorted = [.. _whole.Keys.Order(StringComparer.Ordinal)];
        _byWord = phrases.Where(p => !p.IsWhole).GroupBy(p => p.Rarest, StringComparer.Ordinal)
            .ToFrozenDictionary(g => g.Key, g => g.ToArray(), StringComparer.Ordinal);
    }

    /// <summary>All sentences that it has, as the application says them.</summary>
    public IReadOnlyList<string> Sentences { get; }

    /// <summary>A book that knows some names besides; what this one has already, it keeps as it is.</summary>
    /// <param name="names">Each name with what it is in the other language; of two for the same the first holds. One that looks like a
    /// sentence with holes is passed over.</param>
    public PhraseBook With(IEnumerable<KeyValuePair<string, string>> names)
    {
        var known = _entries.Select(e => e.Key).ToHashSet(StringComparer.Ordinal);
        return new([.. _entries, .. names.Select(n => KeyValuePair.Create(Spaces().Replace(n.Key.Trim(), " "), n.Value.Trim()))
            .Where(n => n.Key.Length > 0 && n.Value.Length > 0 && !(n.Key + n.Value).Contains('{', StringComparison.Ordinal)
                && known.Add(n.Key))], _manner);
    }

    /// <summary>A text of the application in the other language. What it does not know stays as it is, and so does the white space at both
    /// ends; the numbers and dates in what it knows follow the language.</summary>
    /// <param name="text">The text, as it would be shown.</param>
    /// <returns>The text to show, and whether all of it was known.</returns>
    public Said Say(string text)
    {
        var bare = text.AsSpan().Trim();
        if (bare.IsEmpty)
            return new(text, true);
        var words = Spaces().Replace(bare.ToString(), " ");
        if (_ready.Count >= Kept)
            _ready.Clear();
        var said = Say(words, 0);
        var before = text.Length - text.AsSpan().TrimStart().Length;
        return said with { Text = string.Concat(text.AsSpan(0, before), said.Text, text.AsSpan(before + bare.Length)) };
    }

    private Said Say(string text, int depth)
    {
        if (!text.Any(char.IsLetter))
            return new(Figures(text), true);
        if (_ready.TryGetValue(text, out var ready))
            return ready;
        if (Exactly(text) is { } exactly)
            return new(exactly, true);
        return depth > Deepest ? Leaf(text) : _ready[text] = Parted(text, depth);
    }

    private Said Parted(string text, int depth)
    {
        if (IsOnlyDates(text))
            return Leaf(text);
        if (Reasons().Match(text) is { Success: true } m && Exactly(m.Groups["what"].Value) is not null)
            return WithReason(text, depth)!.Value;
        var byPhrase = ByPhrase(text, depth, isSure: true);
        return byPhrase is { IsKnown: true } ? byPhrase.Value
            : OldForNew(text, depth) ?? Quoted(text, depth) ?? BesideNumber(text, depth) ?? ByJoints(text, depth, inPart: false)
                ?? ByPhrase(text, depth, isSure: false) ?? WithReason(text, depth) ?? BeforeMark(text, depth)
                ?? BySentences(text, depth) ?? byPhrase ?? ByJoints(text, depth, inPart: true) ?? Leaf(text);
    }

    // As it stands; as it stands before a mark; as a name that stands inside a sentence, where its capital was taken.
    private string? Exactly(string text)
    {
        if (_whole.TryGetValue(text, out var other))
            return other;
        var end = text[^1] is '.' or ':' or '!' or '?' or ',' or '…' ? text[^1..] : "";
        if (end.Length > 0 && _whole.TryGetValue(text[..^1], out other))
            return other + end;
        if (text[^1] == '…')
            return Begun(text[..^1].TrimEnd());
        if (char.IsUpper(text[0]))
        {
            var small = char.ToLowerInvariant(text[0]) + text[1..];
            return _whole.TryGetValue(small, out other) ? Capital(other)
                : end.Length > 0 && _whole.TryGetValue(small[..^1], out other) ? Capital(other) + end : null;
        }
        var capital = char.ToUpperInvariant(text[0]) + text[1..];
        return _whole.TryGetValue(capital, out other) ? other
            : end.Length > 0 && _whole.TryGetValue(capital[..^1], out other) ? other + end : null;
    }

    // A sentence that is kept without its full stop, since it stands in others too.
    private Said? BeforeMark(string text, int depth) => text is [.. var before, '.' or '!' or '?'] && before.Length > 0
        && Say(before, depth + 1) is { IsKnown: true } said && said.Text != before ? said with { Text = said.Text + text[^1] } : null;

    // A title of a card on which the old one goes back: the sheet has said it for a new one.
    private Said? OldForNew(string text, int depth)
    {
        var olds = Olds().Matches(text);
        // All of them, or only the last: "Old seal out of its bore, old one in".
        foreach (var first in olds.Count == 0 ? [] : new[] { 0, olds.Count - 1 }.Distinct())
        {
            var renewed = Olds().Replace(text, m => m.Index < olds[first].Index ? m.Value : m.Value[0] == 'O' ? "New" : "new");
            if (Say(renewed, depth + 1) is { IsKnown: true } said && _manner.Old(said.Text) is { } old)
                return new(old, true);
        }
        return null;
    }

    // What strayed from the book, and why, as somebody wrote it.
    private Said? WithReason(string text, int depth) => Reasons().Match(text) is { Success: true } m
        && Say(m.Groups["what"].Value, depth + 1) is { IsKnown: true } what
        && Say(m.Groups["why"].Value, depth + 1) is var why ? new($"{what.Text} ({why.Text})", why.IsKnown) : null;

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    // A title that was cut short for want of room is cut short in the other language as well.
    private string? Begun(string text)
    {
        var at = Array.BinarySearch(_sorted, text, StringComparer.Ordinal);
        at = at < 0 ? ~at : at;
        if (text.Length < Surest || at >= _sorted.Length || !_sorted[at].StartsWith(text, StringComparison.Ordinal))
            return null;
        var words = _whole[_sorted[at]];
        return words.Length <= text.Length + 2 ? words
            : words[..Math.Max(words.LastIndexOf(' ', text.Length), 1)].TrimEnd(',', ';', ':') + " …";
    }

    private Said? ByPhrase(string text, int depth, bool isSure)
    {
        Said? partly = null;
        foreach (var (phrase, holes) in Phrase.WordsOf(text).Distinct().SelectMany(w => _byWord.GetValueOrDefault(w, []))
            .Where(p => p.Letters >= Sure == isSure).OrderByDescending(p => p.Letters).ThenBy(p => p.Sentence, StringComparer.Ordinal)
            .SelectMany(p => p.In(text).Take(Ways).Select(h => (Phrase: p, Holes: h))))
        {
            var said = holes.ToDictionary(h => h.Key, h => h.Value.Trim().Length == 0 ? new(h.Value, true) : Say(h.Value, depth + 1));
            var words = phrase.Say(h => said[h].Text);
            var whole = new Said(char.IsUpper(text[0]) && words.Length > 0 ? Capital(words) : words,
                said.All(h => h.Value.IsKnown || !phrase.Says(h.Key)));
            if (whole.IsKnown)
                return whole;
            if (isSure)
                partly ??= whole;
        }
        return partly;
    }

    private Said? BySentences(string text, int depth)
    {
        var said = Grouped(SentenceEnds().Split(text), " ", depth);
        return said.Count > 1 && said.Any(s => s.IsKnown) ? Joined(said, " ") : null;
    }

    // A list is said where all of its parts are known, or half of them where nothing better is found; otherwise it may be somebody's own
    // words.
    private Said? ByJoints(string text, int depth, bool inPart)
    {
        foreach (var (here, there) in inPart ? [(Comma, Comma)] : _joints)
        {
            var parts = text.Split(here);
            if (parts.Length is < 2 or > Longest)
                continue;
            var said = Grouped(parts, here, depth);
            if (said.All(s => s.IsKnown) || (inPart && said.Count(s => s.IsKnown) * 2 >= said.Count))
                return Joined(said, there);
        }
        return null;
    }

    // A name may have the mark of the list in itself, and two sentences may be known as one.
    private List<Said> Grouped(string[] parts, string joint, int depth)
    {
        var said = new List<Said>();
        for (var from = 0; from < parts.Length;)
        {
            var to = parts.Length;
            while (to > from + 1 && (to - from == parts.Length || !IsName(string.Join(joint, parts[from..to]), depth)))
                to--;
            var part = string.Join(joint, parts[from..to]);
            said.Add(part.Trim().Length == 0 ? new(part, true) : Say(part, depth + 1));
            from = to;
        }
        return said;
    }

    private bool IsName(string text, int depth) => text.Length > 0
        && (Exactly(text) is not null || BesideNumber(text, depth) is not null || Quoted(text, depth) is { IsKnown: true });

    private Said? Quoted(string text, int depth) => text is ['“', .. var inside, '”'] && !inside.Contains('”')
        ? Say(inside, depth + 1) is var said ? said with { Text = _manner.Open + said.Text + _manner.Close } : null : null;

    // A name beside a number of its own: "10 Brown froth", "Oil filter TC-0621-F".
    private Said? BesideNumber(string text, int depth)
    {
        var number = NumberBeside().Match(text);
        if (!number.Success || Units().IsMatch(number.Groups["name"].Value))
            return null;
        var name = Say(number.Groups["name"].Value, depth + 1);
        if (!name.IsKnown)
            return null;
        // What has no other name here is a name itself, and its number a part of it: "Fen 1.2". So is one behind a name without a unit:
        // "Workshop manual 4.2".
        var (before, after) = (number.Groups["before"].Value, number.Groups["after"].Value);
        return name.Text == number.Groups["name"].Value ? new(Figures(text), true)
            : name with
            {
                Text = Figures(before) + name.Text + (Units().IsMatch(after[(after.LastIndexOf(' ') + 1)..]) ? Figures(after) : after),
            };
    }

    private static Said Joined(IEnumerable<Said> parts, string between)
    {
        Said[] said = [.. parts];
        return new(string.Join(between, said.Select(s => s.Text)), said.All(s => s.IsKnown));
    }

    private Said Leaf(string text)
    {
        var dated = Dates().Replace(text, Dated);
        var figures = Figures(dated);
        return new(figures, !EnglishWord().IsMatch(Dates().Replace(text, "")));
    }

    // "21 Oct 2026" is no name beside a number.
    private static bool IsOnlyDates(string text) => text.Any(char.IsDigit) && !Dates().Replace(text, "").Any(char.IsLetter);

    // "Tue 10 Mar" is "Di, 10. März", "March 2027" "März 2027".
    private string Dated(Match date)
    {
        var day = date.Groups["day"] is { Success: true } d ? Exactly(d.Value) ?? d.Value : "";
        var month = date.Groups["month"] is { Success: true } m ? Exactly(m.Value) ?? m.Value : "";
        return !date.Groups["date"].Success ? day.Length > 0 ? day : month + " "
            : (day.Length > 0 ? day + _manner.AfterWeekday : "") + date.Groups["date"].Value + _manner.AfterDay + month;
    }

    // A decimal point becomes a comma. What looks like a number of something with parts, "1.2.3" or "AB.1", does not, and neither does what
    // stands behind a word without a unit, which is a part of its name: "Courier 2.0 D", "Workshop manual 4.2".
    private string Figures(string text) => Decimals().Replace(text, _manner.Point);

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();

    [GeneratedRegex(@"^(?<what>[^()]+) \((?<why>[^()]+)\)$")]
    private static partial Regex Reasons();

    [GeneratedRegex(@"\b[Oo]ld(?= )")]
    private static partial Regex Olds();

    [GeneratedRegex(@"^(?<before>\S*\d\S* )(?<name>\D.*)$|^(?<name>.*[^\d ])(?<after> (?:\d|[A-Z]\S*\d)\S*"
        + @"(?: (?:" + Unit + "))?)$")]
    private static partial Regex NumberBeside();

    [GeneratedRegex("^(?:" + Unit + ")$")]
    private static partial Regex Units();

    [GeneratedRegex(@"(?<=[.!?]”?) (?=[\p{Lu}“\d])")]
    private static partial Regex SentenceEnds();

    [GeneratedRegex(@"(?<=(?<![\w.,-])\d+)\.(?=\d+(?: ?(?:" + Unit + @")(?![\w-])|(?![\w.-]*[\w-])(?<!\p{L} \d+\.\d+)))")]
    private static partial Regex Decimals();

    [GeneratedRegex(@"\b(?:(?<day>" + Days + @")(?<comma>,?) )?(?<date>\d{1,2}) (?<month>" + Months + @")\b|\b(?<month>" + Months
        + @") (?=\d{4}\b)|\b(?<day>" + Days + @")\b")]
    private static partial Regex Dates();

    // A word in small letters that stands for no unit and is no part of an id or address; a name begins with a capital.
    [GeneratedRegex(@"(?<![\w./-])(?!(?:" + Unit + @")\b)\p{Ll}{2,}(?![\w/-]|\.\w)")]
    private static partial Regex EnglishWord();
}

/// <summary>A text as it is said in a language.</summary>
/// <param name="Text">The words to show.</param>
/// <param name="IsKnown">Whether all of it was known; what was not stays as the application said it.</param>
public readonly record struct Said(string Text, bool IsKnown);
