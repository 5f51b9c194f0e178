using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of a road test.</summary>
/// <param name="Tries">What is tried, in order.</param>
/// <param name="Far">How far at least.</param>
public sealed record DriveSpec(IReadOnlyList<RoadTry> Tries, Typed<Distance> Far) : WorkSpec
{
    internal static DriveSpec Read(SheetCursor c) =>
        new(c.List("tries", t => new RoadTry(t.Text("do"), t.Text("expect")), true), c.Typed<Distance>("far"));
}

/// <summary>Something that is tried on the road.</summary>
/// <param name="Do">What is done.</param>
/// <param name="Expect">What it should do then.</param>
public sealed record RoadTry(string Do, string Expect);
