namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of running an engine warm by the clock; one that is ridden or driven for it says so of the step.</summary>
/// <param name="Lasts">For how long at least.</param>
/// <param name="Held">What is done instead of riding it where something that is done cold has it held already; empty where it is not
/// ridden.</param>
public sealed record WarmSpec(TimeSpan Lasts, string Held) : WorkSpec
{
    internal static WarmSpec Read(SheetCursor c) => new(c.Duration("lasts") ?? TimeSpan.Zero, c.Text("held", false));
}
