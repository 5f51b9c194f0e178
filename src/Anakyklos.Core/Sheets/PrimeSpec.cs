namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of filling a system before the engine is started.</summary>
/// <param name="Times">So often at least: strokes of a hand primer, or turns of the key.</param>
/// <param name="Each">For how long each of them is held; null where they are only counted.</param>
/// <param name="Of">What is counted, such as "strokes".</param>
public sealed record PrimeSpec(int Times, TimeSpan? Each, string Of) : WorkSpec
{
    internal static PrimeSpec Read(SheetCursor c) => new(c.Whole("times", 1, 500, 1), c.Duration("each", false), c.Text("of"));
}
