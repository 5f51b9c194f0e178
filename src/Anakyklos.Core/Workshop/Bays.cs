using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Workshop;

/// <summary>The places of a workshop where a vehicle stands while it is worked on.</summary>
/// <param name="Inside">Those inside, where there is room for one; in the order in which they are filled.</param>
public sealed record Bays(IReadOnlyList<string> Inside)
{
    /// <summary>How many there can be inside.</summary>
    public const int Most = 12;

    /// <summary>The most characters of a name.</summary>
    public const int LongestName = 20;

    /// <summary>Where there is always room.</summary>
    public const string Outside = "Outside";

    /// <summary>Before anything was set.</summary>
    public static IReadOnlyList<string> Usual { get; } = ["Bay 1", "Bay 2"];

    /// <summary>All of them; the last is outside.</summary>
    public IReadOnlyList<string> All => [.. Inside, Outside];

    /// <summary>Whether there is such a place.</summary>
    /// <param name="bay">Its name.</param>
    public bool Has(string? bay) => bay is not null && All.Contains(bay);

    /// <summary>A bay as it stands in an address, such as <c>bay-1</c>.</summary>
    /// <param name="bay">Its name.</param>
    public static string Address(string bay) => bay.ToLowerInvariant().Replace(' ', '-');

    /// <summary>The bay of an address, or null.</summary>
    /// <param name="address">As <see cref="Address"/> writes it.</param>
    public string? At(string address) => All.FirstOrDefault(b => Address(b) == address);

    /// <summary>What speaks against the names of the bays inside: a name is told from the others at a glance and in an address.</summary>
    /// <param name="names">As typed, trimmed.</param>
    /// <param name="field">The field they were typed into.</param>
    /// <returns>Why not; null where nothing does.</returns>
    public static Refusal? Check(IReadOnlyList<string> names, string field)
    {
        if (names.Count is 0 or > Most)
            return new(names.Count == 0 ? "There is no bay." : $"{names.Count} bays are too many.", $"Name 1 to {Most}, a line each.",
                Field: field);
        if (names.FirstOrDefault(n => n.Length is 0 or > LongestName || !n.All(IsPlain) || n.Contains("  ")) is { } odd)
            return new($"“{(odd.Length > LongestName ? odd[..LongestName] + "…" : odd)}” cannot be painted on a wall.",
                $"Up to {LongestName} letters and digits, with single spaces.", Field: field);
        if (names.Append(Outside).GroupBy(Address).FirstOrDefault(g => g.Count() > 1) is { } twice)
            return new(Address(Outside) == twice.Key ? "Outside is there already, and has always room."
                : $"“{twice.First()}” stands there twice.", "Give each bay a name of its own.", Field: field);
        return null;
    }

    private static bool IsPlain(char c) => char.IsLetterOrDigit(c) || c is ' ';
}
