namespace Anakyklos.Desk;

/// <summary>The places of the workshop where a vehicle stands while it is worked on.</summary>
public static class Bays
{
    /// <summary>All of them; the last is outside, where there is always room.</summary>
    public static IReadOnlyList<string> All { get; } = ["Bay 1", "Bay 2", "Outside"];

    /// <summary>Those inside, where there is room for one.</summary>
    public static IReadOnlyList<string> Inside { get; } = [.. All.SkipLast(1)];

    /// <summary>Where there is always room.</summary>
    public static string Outside => All[^1];

    /// <summary>A bay as it stands in an address, such as <c>bay-1</c>.</summary>
    public static string Address(string bay) => bay.ToLowerInvariant().Replace(' ', '-');

    /// <summary>The bay of an address, or null.</summary>
    public static string? At(string address) => All.FirstOrDefault(b => Address(b) == address);
}
