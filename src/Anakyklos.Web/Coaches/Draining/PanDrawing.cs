using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Coaches.Draining;

/// <summary>A drain pan of a card as it is drawn: as wide as it holds, with what is in it and what is about to run in. Lengths in the units
/// of a drawing that is 80 high.</summary>
/// <param name="Name">Its name, with a capital.</param>
/// <param name="Holds">What it holds.</param>
/// <param name="Says">What is in it, in words.</param>
/// <param name="Comes">How much is about to run in; empty for nothing.</param>
/// <param name="Width">How wide it is drawn.</param>
/// <param name="Stands">Where the surface stands, from above.</param>
/// <param name="Rises">Where it will stand when the step is done; as high as it stands where nothing runs in.</param>
/// <param name="IsUnder">It goes under this step.</param>
public sealed record PanDrawing(string Name, string Holds, string Says, string Comes, decimal Width, decimal Stands, decimal Rises,
    bool IsUnder)
{
    /// <summary>The rim and the bottom.</summary>
    public const decimal Rim = 14;

    /// <inheritdoc cref="Rim"/>
    public const decimal Bottom = 74;

    /// <summary>Its rim, wall and bottom as a line.</summary>
    public string Wall => FormattableString.Invariant(
        $"3,{Rim} 10,{Rim} 10,{Bottom} {Width - 10:0.#},{Bottom} {Width - 10:0.#},{Rim} {Width - 3:0.#},{Rim}");

    /// <summary>The pans of a card at a step.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">The step.</param>
    /// <param name="unit">In which unit.</param>
    public static IReadOnlyList<PanDrawing> Of(JobCard card, SheetStep step, Unit<Volume> unit)
    {
        var under = card.State(step.Id).Status is StepStatus.Waiting or StepStatus.Aside ? card.PanFor(step) : null;
        var largest = card.Pans.Select(p => p.Holds.In(Volume.Litre)).DefaultIfEmpty(1).Max();
        return [.. card.Pans.Select((pan, i) =>
        {
            var after = i == under ? card.ComesInto(step) : Quantity<Volume>.Zero;
            decimal At(Quantity<Volume> filled) => Bottom - Math.Clamp(filled / pan.Holds, 0, 1) * (Bottom - Rim);
            var name = card.PanName(i);
            return new PanDrawing($"{char.ToUpperInvariant(name[0])}{name[1..]}{(i == under ? " goes under it:" : "")}",
                pan.Holds.Print(unit).ToString(), pan.In.Count == 0 ? "empty" : string.Join(", ", pan.In.GroupBy(c => c.Fluid.Name)
                    .Select(g => $"{g.Aggregate(Quantity<Volume>.Zero, (sum, c) => sum + c.Amount).Print(unit)} {Words.Low(g.Key)}")),
                after > Quantity<Volume>.Zero ? after.Print(unit).ToString() : "", 90 + 110 * pan.Holds.In(Volume.Litre) / largest,
                At(pan.Filled), At(pan.Filled + after), i == under);
        })];
    }
}
