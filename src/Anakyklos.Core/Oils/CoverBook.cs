using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Oils;

/// <summary>One approval or class covers another: what asks for the second is served by the first. Never the other way round, unless that
/// is written down as well.</summary>
/// <param name="Code">The newer or stricter code.</param>
/// <param name="Covers">The code that it covers.</param>
/// <param name="Fuels">For these fuels only; empty for all.</param>
public sealed record Cover(string Code, string Covers, IReadOnlyList<Fuel> Fuels);

/// <summary>Which code covers which, through any number of steps.</summary>
public sealed class CoverBook
{
    private readonly ILookup<string, Cover> _from;

    /// <summary>A book of covers.</summary>
    /// <param name="covers">The covers as makers publish them.</param>
    public CoverBook(IEnumerable<Cover> covers)
    {
        Covers = [.. covers];
        _from = Covers.ToLookup(c => Key(c.Code));
    }

    /// <summary>The covers.</summary>
    public IReadOnlyList<Cover> Covers { get; }

    /// <summary>A book without covers: each code is good for itself alone.</summary>
    public static CoverBook Empty { get; } = new([]);

    /// <summary>The shortest way from a code that is had to one that is wanted, both ends included; the code alone when they are the same;
    /// null when it does not cover it.</summary>
    /// <param name="had">On the can.</param>
    /// <param name="wanted">In the sheet.</param>
    /// <param name="fuel">What the engine burns; covers for other fuels do not count.</param>
    /// <returns>The codes from the one that is there to the one that is wanted, both with; null when the one does not cover the
    /// other.</returns>
    public IReadOnlyList<string>? Way(string had, string wanted, Fuel fuel)
    {
        var before = new Dictionary<string, string?> { [Key(had)] = null };
        var names = new Dictionary<string, string> { [Key(had)] = had };
        var next = new Queue<string>([Key(had)]);
        while (next.TryDequeue(out var code))
        {
            if (code == Key(wanted))
            {
                var way = new List<string>();
                for (string? at = code; at is not null; at = before[at])
                    way.Insert(0, names[at]);
                return way;
            }
            foreach (var cover in _from[code].Where(c => c.Fuels.Count == 0 || c.Fuels.Contains(fuel)))
                if (before.TryAdd(Key(cover.Covers), code))
                {
                    names[Key(cover.Covers)] = cover.Covers;
                    next.Enqueue(Key(cover.Covers));
                }
        }
        return null;
    }

    /// <summary>The way back that a cover would make into a circle: from what it covers to the code itself.</summary>
    /// <param name="cover">A cover that is not in the book yet.</param>
    /// <returns>The codes in their order, both ends included; null where there is no way back.</returns>
    public IReadOnlyList<string>? Back(Cover cover) => Enum.GetValues<Fuel>().Where(f => cover.Fuels.Count == 0 || cover.Fuels.Contains(f))
        .Select(f => Way(cover.Covers, cover.Code, f)).FirstOrDefault(w => w is not null);

    private static string Key(string code) => PartNumber.Bare(code);
}
