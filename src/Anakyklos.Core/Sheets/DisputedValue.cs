using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>What a disputed value is for.</summary>
public enum DisputeUse
{
    /// <summary>It is wanted where the kit is laid out, such as the number of a part.</summary>
    Kit,

    /// <summary>It is wanted where a fluid goes in or is read.</summary>
    Filling,

    /// <summary>It is wanted where something is tightened or checked.</summary>
    Tightening,
}

/// <summary>A value on which sources disagree.</summary>
/// <param name="Key">What a ruling names it by, such as <c>torque/engine-drain-plug</c>.</param>
/// <param name="Thing">The fluid, fastener or part that it is of.</param>
/// <param name="Use">What it is for.</param>
/// <param name="Of">What it is of, such as "Engine drain plug, torque".</param>
/// <param name="Holds">The value that holds here.</param>
/// <param name="From">Its source.</param>
/// <param name="Others">What others say.</param>
public sealed record DisputedValue(string Key, ThingId Thing, DisputeUse Use, string Of, string Holds, Citation From,
    IReadOnlyList<OtherSaying> Others)
{
    /// <summary>What others say, in words: a ruling holds for these and no others.</summary>
    public string OthersSay => string.Join("; ", Others.Select(o => $"{o.Says} in {o.From.Source.Title}, {o.From.At}"));

    /// <summary>The ruling on it.</summary>
    /// <param name="reason">Why the sheet's value holds.</param>
    /// <param name="by">Who says so.</param>
    /// <param name="at">When.</param>
    public Ruling Ruled(string reason, string by, DateTimeOffset at) => new(Key, Of, $"{Holds}, {From}", OthersSay, reason, by, at);

    /// <summary>Whether a ruling is on this very value, against these very others.</summary>
    /// <param name="ruling">The ruling.</param>
    public bool IsRuledBy(Ruling ruling) => ruling.Value == Key && ruling.Holds == $"{Holds}, {From}" && ruling.Others == OthersSay;
}

/// <summary>That the value of the sheet holds, where sources disagree, and why. Where the others are right, the sheet is wrong and gets a
/// new revision.</summary>
/// <param name="Value">The value, by its key.</param>
/// <param name="Of">What it is of.</param>
/// <param name="Holds">What holds, with its source.</param>
/// <param name="Others">What others say, with theirs.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">Who said so, by name.</param>
/// <param name="At">When.</param>
public sealed record Ruling(string Value, string Of, string Holds, string Others, string Reason, string By, DateTimeOffset At);

/// <summary>A value that is used at the lift and that fewer than two people have compared with its source.</summary>
/// <param name="Thing">The fluid, fastener or part that it is of.</param>
/// <param name="Use">What it is for.</param>
/// <param name="Of">What it is of, such as "Engine drain plug, tightening torque".</param>
/// <param name="Holds">The value.</param>
/// <param name="From">Its source.</param>
public sealed record UncheckedValue(ThingId Thing, DisputeUse Use, string Of, string Holds, Citation From);

/// <summary>What a sheet says of its own values.</summary>
public static class SheetValues
{
    /// <summary>All values of a sheet on which sources disagree.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <returns>Fluids first, then fasteners, then parts, each in the order of the sheet.</returns>
    public static IEnumerable<DisputedValue> Disputed(this ModelSheet sheet) => sheet.Used().Where(v => v.Others.Count > 0);

    /// <summary>All values of a sheet that are used at the lift and that fewer than two people have compared with their source.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <returns>Fluids first, then fasteners, then parts, each in the order of the sheet.</returns>
    public static IEnumerable<UncheckedValue> Unchecked(this ModelSheet sheet) => sheet.Used().Where(v => v.From.CheckedBy < Enough)
        .Select(v => new UncheckedValue(v.Thing, v.Use, v.Of, v.Holds, v.From));

    /// <summary>So many people have to have compared a value with its source.</summary>
    public const int Enough = 2;

    private static IEnumerable<DisputedValue> Used(this ModelSheet sheet)
    {
        static IEnumerable<DisputedValue> One<T>(string what, ThingId thing, DisputeUse use, string of, Sourced<T>? value,
            Func<T, string> say) => value is not null
            ? [new($"{what}/{thing}", thing, use, of, say(value.Value), value.From, value.Disputed)] : [];
        return sheet.Fluids.Values.SelectMany(f => One("amount", f.Id, DisputeUse.Filling, $"{f.Name}, amount", f.Amount, v => v.ToString())
                .Concat(One("between-marks", f.Id, DisputeUse.Filling, $"{f.Name}, between the marks", f.BetweenMarks, v => v.ToString()))
                .Concat(One("top-mark", f.Id, DisputeUse.Filling, $"{f.Name}, at the top mark", f.AtTopMark, v => v.ToString()))
                .Concat(One("grades", f.Id, DisputeUse.Kit, $"{f.Name}, grades", f.Grades, g => string.Join(" or ", g)))
                .Concat(One("approvals", f.Id, DisputeUse.Kit, $"{f.Name}, approvals", f.Approvals, g => string.Join(" or ", g))))
            .Concat(sheet.Fasteners.Values.SelectMany(f => One("torque", f.Id, DisputeUse.Tightening, $"{f.Name}, tightening torque",
                f.Tightening, t => t.InWords)))
            .Concat(sheet.Parts.Values.SelectMany(p => One("number", p.Id, DisputeUse.Kit, $"{p.Name}, number", p.Number, n => n)));
    }
}
