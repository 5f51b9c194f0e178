using System.Globalization;

namespace Anakyklos.Web.Languages;

/// <summary>
/// A sentence of the application with what it says in another language. Where it has holes, such as "{0} of {1} at best", any words may
/// stand in them; the other language may put them in another order.
/// </summary>
public sealed class Phrase
{
    // "Saw: {0}" is a sentence of nobody else's, however short its label.
    private const int Label = 5;

    // With fewer letters in words of its own a phrase has none that tell it from any other.
    private const int Own = 3;

    // They stand in anybody's sentence and tell none from another.
    private static readonly HashSet<string> _everywhere = ["a", "an", "and", "at", "for", "in", "is", "it", "of", "on", "or", "the", "to"];

    // Words of the sentence before, between and after its holes.
    private readonly string[] _pieces;

    // Which hole stands after which piece.
    private readonly int[] _holes;

    private readonly string[] _otherPieces;
    private readonly int[] _otherHoles;

    /// <param name="sentence">As the application says it, with holes.</param>
    /// <param name="other">The same in the other language, with the same holes or fewer.</param>
    /// <exception cref="FormatException">The other language has a hole that the sentence has not.</exception>
    public Phrase(string sentence, string other)
    {
        Sentence = sentence;
        (_pieces, _holes) = Cut(sentence);
        (_otherPieces, _otherHoles) = Cut(other);
        if (_otherHoles.Except(_holes).Any())
            throw new FormatException($"“{other}” has a hole that “{sentence}” has not.");
        var own = _pieces.SelectMany(WordsOf).Where(w => !_everywhere.Contains(w)).Sum(w => w.Length);
        Letters = (own < Own ? own : _pieces.Sum(p => p.Count(char.IsLetter)))
            + (_pieces[0] is [>= 'A' and <= 'Z', .., ':', ' '] ? Label : 0);
        Rarest = _pieces.SelectMany(WordsOf).MaxBy(w => w.Length) ?? "";
    }

    /// <summary>The sentence as the application says it.</summary>
    public string Sentence { get; }

    /// <summary>How many letters of it stand outside its holes, unless all of them are in words that every sentence has: the more, the
    /// surer it is meant.</summary>
    public int Letters { get; }

    /// <summary>The longest of its own words, by which it is found; empty where it has none.</summary>
    public string Rarest { get; }

    /// <summary>Whether it has no hole.</summary>
    public bool IsWhole => _holes.Length == 0;

    /// <summary>The phrase without the mark with which it goes on from something; null where it has none in both languages.</summary>
    /// <param name="marks">Such marks, ", " for one.</param>
    public Phrase? ByItself(IEnumerable<string> marks) => marks.FirstOrDefault(m => Sentence.StartsWith(m, StringComparison.Ordinal)
        && _otherPieces[0].StartsWith(m, StringComparison.Ordinal) && Sentence.Length > m.Length) is { } mark
        ? new(Sentence[mark.Length..], Say(h => $"{{{h}}}")[mark.Length..]) : null;

    /// <summary>Whether the other language says what stands in a hole: it needs no "was".</summary>
    /// <param name="hole">Its number.</param>
    public bool Says(int hole) => _otherHoles.Contains(hole);

    /// <summary>The words in a text: runs of letters.</summary>
    public static IEnumerable<string> WordsOf(string text)
    {
        for (var (at, from) = (0, -1); at <= text.Length; at++)
        {
            var isLetter = at < text.Length && char.IsLetter(text[at]);
            if (isLetter && from < 0)
                from = at;
            if (isLetter || from < 0)
                continue;
            yield return text[from..at];
            from = -1;
        }
    }

    /// <summary>What may stand in the holes of a text that was made from this sentence.</summary>
    /// <param name="text">The text.</param>
    /// <returns>By number of the hole, each way to see it; none when the text was not made from it.</returns>
    public IEnumerable<IReadOnlyDictionary<int, string>> In(string text) => text.StartsWith(_pieces[0], StringComparison.Ordinal)
        && text.EndsWith(_pieces[^1], StringComparison.Ordinal) ? Fill(text, _pieces[0].Length, 0, new Dictionary<int, string>()) : [];

    /// <summary>The sentence in the other language.</summary>
    /// <param name="holes">What stands in each hole.</param>
    public string Say(Func<int, string> holes) =>
        string.Concat(_otherPieces.Select((piece, at) => at < _otherHoles.Length ? piece + holes(_otherHoles[at]) : piece));

    // A hole ends where the next piece begins: at its first place or, where that makes no sense, a later one.
    private IEnumerable<IReadOnlyDictionary<int, string>> Fill(string text, int at, int hole, IReadOnlyDictionary<int, string> found)
    {
        if (hole == _holes.Length)
        {
            if (at == text.Length)
                yield return found;
            yield break;
        }
        var piece = _pieces[hole + 1];
        if (hole == _holes.Length - 1)
        {
            if (text.Length - at >= piece.Length)
                yield return With(text[at..^piece.Length]);
            yield break;
        }
        // Between two holes nothing stands, or a space: the second only goes on from the first, "was" or nothing at all.
        if (string.IsNullOrWhiteSpace(piece))
        {
            for (var next = text.Length - piece.Length; next > at; next--)
                if (text.AsSpan(next).StartsWith(piece, StringComparison.Ordinal))
                    foreach (var filled in Fill(text, next + piece.Length, hole + 1, With(text[at..next])))
                        yield return filled;
            yield break;
        }
        for (var next = text.IndexOf(piece, at, StringComparison.Ordinal); next >= 0 && next < text.Length;
            next = text.IndexOf(piece, next + 1, StringComparison.Ordinal))
            foreach (var filled in Fill(text, next + piece.Length, hole + 1, With(text[at..next])))
                yield return filled;

        IReadOnlyDictionary<int, string> With(string words) => new Dictionary<int, string>(found) { [_holes[hole]] = words };
    }

    private static (string[] Pieces, int[] Holes) Cut(string sentence)
    {
        var pieces = new List<string>();
        var holes = new List<int>();
        var from = 0;
        for (var open = sentence.IndexOf('{'); open >= 0; open = sentence.IndexOf('{', open + 1))
        {
            var close = sentence.IndexOf('}', open);
            if (close < 0 || !int.TryParse(sentence.AsSpan(open + 1, close - open - 1), NumberStyles.None, CultureInfo.InvariantCulture,
                out var hole))
                continue;
            pieces.Add(sentence[from..open]);
            holes.Add(hole);
            from = close + 1;
        }
        pieces.Add(sentence[from..]);
        return ([.. pieces], [.. holes]);
    }
}
