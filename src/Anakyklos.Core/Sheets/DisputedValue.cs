using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>A value on which sources disagree.</summary>
/// <param name="Of">What it is of, such as "Engine drain plug, torque".</param>
/// <param name="Holds">The value that holds here.</param>
/// <param name="From">Its source.</param>
/// <param name="Others">What others say.</param>
public sealed record DisputedValue(string Of, string Holds, Citation From, IReadOnlyList<OtherSaying> Others);

/// <summary>What a sheet says of its own values.</summary>
public static class SheetValues
{
    /// <summary>All values of a sheet on which sources disagree, fluids first.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <returns>Fluids first, then fasteners, then parts, each in the order of the sheet.</returns>
    public static IEnumerable<DisputedValue> Disputed(this ModelSheet sheet)
    {
        static IEnumerable<DisputedValue> One<T>(string of, Sourced<T>? value, Func<T, string> say) =>
            value is { Disputed.Count: > 0 } ? [new(of, say(value.Value), value.From, value.Disputed)] : [];
        return sheet.Fluids.Values.SelectMany(f => One($"{f.Name}, amount", f.Amount, v => v.ToString())
                .Concat(One($"{f.Name}, between the marks", f.BetweenMarks, v => v.ToString()))
                .Concat(One($"{f.Name}, at the top mark", f.AtTopMark, v => v.ToString()))
                .Concat(One($"{f.Name}, grades", f.Grades, g => string.Join(" or ", g)))
                .Concat(One($"{f.Name}, approvals", f.Approvals, g => string.Join(" or ", g))))
            .Concat(sheet.Fasteners.Values.SelectMany(f => One($"{f.Name}, tightening torque", f.Tightening, t => t.InWords)))
            .Concat(sheet.Parts.Values.SelectMany(p => One($"{p.Name}, number", p.Number, n => n)));
    }
}
