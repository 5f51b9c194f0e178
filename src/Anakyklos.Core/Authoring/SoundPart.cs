using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Authoring;

/// <summary>What of an unfinished sheet is sound: all but what is wrong and what cannot be without it, so that its card can be seen while
/// it is written. It is in use nowhere.</summary>
/// <param name="Sheet">The sheet without what is wrong.</param>
/// <param name="Without">The paths of the things and fields that were left out, in the order in which they were.</param>
public sealed record SoundPart(ModelSheet Sheet, IReadOnlyList<string> Without)
{
    // What is left out may have been needed by something else, and that by another; nothing hangs together deeper.
    private const int Rounds = 12;

    /// <summary>The sound part of a sheet with a job in it.</summary>
    /// <param name="text">The sheet.</param>
    /// <returns>Null where something is wrong that belongs to no thing, or no job is left.</returns>
    public static SoundPart? Of(SheetText text)
    {
        var without = new List<string>();
        for (var round = 0; round < Rounds; round++)
        {
            var reading = SheetReader.Read(text.ToString());
            if (reading.Sheet is { } sheet)
                return sheet.Jobs.Count > 0 ? new(sheet, without) : null;
            IReadOnlyList<string> wrong = [.. reading.Errors.Select(e => Least(text, e.Field ?? "")).Distinct()];
            if (wrong.Contains(""))
                return null;
            foreach (var path in wrong.Where(text.Has))
            {
                text = text.Without(path);
                without.Add(path);
            }
        }
        return null;
    }

    // The field itself where its thing can be without it, else the thing; what names something that is not there means another thing
    // without it. Empty for what belongs to none.
    private static string Least(SheetText text, string path)
    {
        var parts = path.Split('.', '[');
        if (parts is not [var table, var id, .. var below] || SheetShape.Tables.All(t => t.Name != table))
            return text.Has(parts[0]) && SheetShape.Sheet.Member(parts[0]) is null or { IsRequired: false } ? parts[0] : "";
        var thing = $"{table}.{id}";
        var field = below is [var name, ..] && text.Has($"{thing}.{name}") ? SheetShape.At(thing)!.Member(name) : null;
        return !text.Has(thing) ? "" : field is { IsRequired: false, RefersTo: "" } ? $"{thing}.{field.Name}" : thing;
    }
}
