using System.Collections;
using System.Collections.Immutable;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Stores;

/// <summary>The parts of a shelf in their order, found by number at once however many there are. It is never changed: another part instead
/// of one of them makes another list, which shares the rest.</summary>
public sealed class PartList : IReadOnlyList<StockPart>
{
    private readonly StockPart[] _parts;
    private readonly ImmutableDictionary<int, StockPart> _instead;
    private readonly Lazy<Numbers> _numbers;

    private PartList(StockPart[] parts, ImmutableDictionary<int, StockPart> instead, Lazy<Numbers> numbers) =>
        (_parts, _instead, _numbers) = (parts, instead, numbers);

    /// <summary>The list of these parts.</summary>
    /// <param name="parts">In their order; where two have the same number the first counts.</param>
    public static PartList Of(IReadOnlyList<StockPart> parts)
    {
        if (parts is PartList list)
            return list;
        StockPart[] all = [.. parts];
        return new(all, ImmutableDictionary<int, StockPart>.Empty, new(() => Numbers.Of(all)));
    }

    /// <inheritdoc />
    public int Count => _parts.Length;

    /// <summary>How many stand instead of those that the list was made of.</summary>
    public int Changed => _instead.Count;

    /// <inheritdoc />
    public StockPart this[int index] => _instead.GetValueOrDefault(index, _parts[index]);

    /// <summary>The part of just this number, however it is written; null where there is none.</summary>
    public StockPart? Find(string number) => _numbers.Value.Own.TryGetValue(PartNumber.Bare(number), out var at) ? this[at] : null;

    /// <summary>The parts that name a number as an equivalent of theirs, or that are named by the part of that number.</summary>
    /// <param name="number">The number.</param>
    /// <returns>In the order of the list.</returns>
    public IEnumerable<StockPart> EquivalentTo(string number)
    {
        var numbers = _numbers.Value;
        var naming = numbers.Equivalents.GetValueOrDefault(PartNumber.Bare(number)) ?? [];
        var named = Find(number)?.Equivalents.Select(e => numbers.Own.TryGetValue(PartNumber.Bare(e), out var at) ? at : -1)
            .Where(at => at >= 0) ?? [];
        return naming.Union(named).Order().Select(at => this[at]);
    }

    /// <summary>The parts whose number or name has something in it, whatever stands between its letters.</summary>
    /// <param name="text">What is looked for.</param>
    /// <returns>In the order of the list.</returns>
    public IEnumerable<StockPart> Containing(string text)
    {
        var (bare, all) = (PartNumber.Bare(text), _numbers.Value.Bare);
        for (var i = 0; i < all.Length; i++)
            if ((bare.Length > 0 && all[i].Contains(bare, StringComparison.Ordinal))
                || _parts[i].Name.Contains(text, StringComparison.OrdinalIgnoreCase))
                yield return this[i];
    }

    /// <summary>The list with another count of a part: its number and what it stands for are the same.</summary>
    /// <param name="part">The part as it is now.</param>
    /// <exception cref="ArgumentException">It is not in the list, or has other numbers than there.</exception>
    public PartList With(StockPart part)
    {
        if (!_numbers.Value.Own.TryGetValue(PartNumber.Bare(part.Number), out var at) || !IsAlike(this[at], part))
            throw new ArgumentException($"{part.Number} is not in this list as it is.");
        return new(_parts, _instead.SetItem(at, part), _numbers);
    }

    /// <summary>Whether a part stands for the same numbers as one of the list, so that it may stand instead of it.</summary>
    public bool MayStand(StockPart part) => Find(part.Number) is { } there && IsAlike(there, part);

    /// <inheritdoc />
    public IEnumerator<StockPart> GetEnumerator()
    {
        for (var i = 0; i < _parts.Length; i++)
            yield return this[i];
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    private static bool IsAlike(StockPart a, StockPart b) => a.Number == b.Number && a.Name == b.Name && a.SupersededBy == b.SupersededBy
        && a.Equivalents.SequenceEqual(b.Equivalents);

    private sealed record Numbers(string[] Bare, Dictionary<string, int> Own, Dictionary<string, List<int>> Equivalents)
    {
        internal static Numbers Of(StockPart[] parts)
        {
            string[] bare = [.. parts.Select(p => PartNumber.Bare(p.Number))];
            var (own, equivalents) = (new Dictionary<string, int>(parts.Length), new Dictionary<string, List<int>>());
            for (var i = 0; i < parts.Length; i++)
            {
                own.TryAdd(bare[i], i);
                foreach (var other in parts[i].Equivalents)
                {
                    if (!equivalents.TryGetValue(PartNumber.Bare(other), out var named))
                        equivalents[PartNumber.Bare(other)] = named = [];
                    named.Add(i);
                }
            }
            return new(bare, own, equivalents);
        }
    }
}
