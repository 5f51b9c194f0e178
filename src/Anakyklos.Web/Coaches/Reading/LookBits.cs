using System.Globalization;
using Anakyklos.Core.Looks;

namespace Anakyklos.Web.Coaches.Reading;

/// <summary>What lies on a magnet, in a fluid or between folds, as it is drawn: always the same for the same look.</summary>
/// <param name="Look">How it is drawn.</param>
/// <param name="Path">Its outline, in a drawing that is 120 wide and 90 high.</param>
public sealed record LookBits(string Look, string Path)
{
    /// <summary>The bits of a look.</summary>
    /// <param name="look">What is seen.</param>
    /// <returns>None where nothing lies there.</returns>
    public static IReadOnlyList<LookBits> Of(Look look) => look.Looks switch
    {
        Appearance.Paste => [new("look-paste", "M38 52Q34 34 50 28Q66 18 78 34Q90 48 78 60Q64 72 50 64Q40 62 38 52Z")],
        Appearance.Glitter => Scattered("look-glitter", 34, 24, (x, y, _) => F($"M{x} {y}l2 2l-2 2l-2 -2Z")),
        Appearance.Slivers => Scattered("look-sliver", 11, 22, (x, y, i) => F($"M{x} {y}l{(i % 3 - 1) * 9} {8 - i % 4 * 4}")),
        Appearance.Lumps => Scattered("look-lump", 5, 17, (x, y, i) => F($"M{x - 6} {y}q2 -{7 + i} 8 -5q8 2 5 9q-4 6 -10 3q-5 -2 -3 -7Z")),
        Appearance.Sludge => [new("look-lump", "M33 62Q44 52 54 60Q66 50 76 58Q84 54 87 60V74Q87 83 78 83H42Q33 83 33 74Z")],
        Appearance.Thin => [new("look-fume", "M46 14q6 -6 0 -12M60 14q6 -6 0 -12M74 14q6 -6 0 -12")],
        Appearance.Milky => Scattered("look-drop", 7, 20, (x, y, _) => F($"M{x} {y}q5 7 0 9q-5 -2 0 -9Z")),
        Appearance.SoftMetal => Scattered("look-soft", 12, 32, (x, y, _) => F($"M{x} {y}l5 1l-2 4l-5 -1Z")),
        Appearance.Steel => Scattered("look-sliver", 12, 32, (x, y, i) => F($"M{x} {y}l{i % 3 * 3 - 3} 7")),
        Appearance.Lining => Scattered("look-chip", 9, 32, (x, y, _) => F($"M{x} {y}h9v6h-9Z")),
        Appearance.Snapped => [new("look-turn", "M32 26A36 36 0 0 1 82 12M82 12L72 10M82 12L76 20")],
        Appearance.Loose => [new("look-turn", "M24 44A36 36 0 1 1 60 75M24 44L18 34M24 44L34 38")],
        Appearance.Overtight => [new("look-turn look-strong", "M36 20A34 34 0 0 1 60 10M60 10L51 5M60 10L52 16"), new("look-sliver",
            "M84 24l8 -5M88 38h10M84 52l8 5")],
        Appearance.Stripped => Scattered("look-sliver", 9, 30, (x, y, i) => F($"M{x} {y + 18}q{(i % 2) * 6 - 3} 5 2 9")),
        _ => [],
    };

    // A golden angle apart, further and further out: evenly spread, without chance.
    private static IReadOnlyList<LookBits> Scattered(string look, int count, double reach, Func<double, double, int, string> path) =>
        [.. Enumerable.Range(0, count).Select(i => (Angle: i * 2.399963, Out: reach * Math.Sqrt((i + 0.5) / count), i))
            .Select(p => new LookBits(look, path(Math.Round(60 + p.Out * Math.Cos(p.Angle), 1),
                Math.Round(45 + p.Out * Math.Sin(p.Angle), 1), p.i)))];

    private static string F(FormattableString path) => path.ToString(CultureInfo.InvariantCulture);
}
