using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>What a newer revision of a sheet says otherwise, for a card that keeps the older one.</summary>
public static class SheetDifference
{
    /// <summary>One line for each value or step that differs; empty when nothing that a technician would do is different.</summary>
    /// <param name="kept">The revision of the card.</param>
    /// <param name="newer">The newer one.</param>
    /// <returns>Sentences, fasteners first, then fluids, parts and steps.</returns>
    public static IReadOnlyList<string> Between(ModelSheet kept, ModelSheet newer) =>
    [
        .. Changed(kept.Fasteners, newer.Fasteners, f => f.Name, f => $"{f.Tightening.Value.InWords}, {f.Drive}"),
        .. Changed(kept.Fluids, newer.Fluids, f => f.Name,
            f => $"{f.Amount.Value}, {string.Join(" or ", f.Grades.Value)}, {string.Join(" or ", f.Approvals.Value)}"),
        .. Changed(kept.Parts, newer.Parts, p => p.Name, p => p.Number.Value),
        .. Changed(kept.Steps, newer.Steps, s => $"“{s.Title}”", s => $"{s.Title} {s.Value} {s.Warning} {s.Wait?.Lasts}".TrimEnd()),
    ];

    /// <summary>One line for each language in which the newer revision is said otherwise; nothing of it changes what a technician
    /// does.</summary>
    /// <param name="kept">The older revision.</param>
    /// <param name="newer">The newer one.</param>
    /// <returns>Sentences in the order of the languages' codes.</returns>
    public static IReadOnlyList<string> Words(ModelSheet kept, ModelSheet newer) =>
        [.. kept.Words.Keys.Union(newer.Words.Keys).Order(StringComparer.Ordinal).Select(code =>
        {
            var (was, now) = (kept.Words.GetValueOrDefault(code), newer.Words.GetValueOrDefault(code));
            var others = now?.Count(w => was?.GetValueOrDefault(w.Key) != w.Value) ?? 0;
            var gone = was?.Keys.Count(text => now?.ContainsKey(text) != true) ?? 0;
            return (Code: code, Others: others, Gone: gone);
        }).Where(c => c.Others + c.Gone > 0).Select(c => $"Words in “{c.Code}”: {c.Others} new or otherwise, {c.Gone} gone")];

    private static IEnumerable<string> Changed<TId, T>(IReadOnlyDictionary<TId, T> kept, IReadOnlyDictionary<TId, T> newer,
        Func<T, string> name, Func<T, string> says) where TId : notnull
    {
        foreach (var (id, item) in newer)
            if (!kept.TryGetValue(id, out var old))
                yield return $"{name(item)} is new";
            else if (says(old) != says(item))
                yield return $"{name(item)}: {says(item)}, was {says(old)}";
        foreach (var (_, item) in kept.Where(k => !newer.ContainsKey(k.Key)))
            yield return $"{name(item)} is gone";
    }
}
