using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;

namespace Anakyklos.Web.Coaches.LayingOut;

/// <summary>
/// What stands in the fields of a kit at the lift: what was typed, or else what was laid out before, what the stores have, and what lay
/// there last time.
/// </summary>
/// <param name="card">The card.</param>
/// <param name="kit">Its kit held against the stores; null where that is not known.</param>
/// <param name="last">The kit of this card, or of the vehicle's last one; null for none.</param>
/// <param name="typed">What was typed into a field; null when nothing was sent.</param>
/// <param name="unit">The unit of amounts.</param>
public sealed class KitForm(JobCard card, KitList? kit, KitConfirmed? last, Func<string, string>? typed, Unit<Volume> unit)
{
    /// <summary>What is not on the shelf.</summary>
    public IReadOnlyList<KitPartLine> Missing { get; } = [.. kit?.Parts.Where(p => p.Verdict != KitVerdict.InHand) ?? []];

    public string Value(string field, string otherwise) => typed?.Invoke(field) ?? otherwise;

    /// <summary>What is chosen for a part; null when something was sent that is no choice.</summary>
    public KitChoice? Choice(Part part) => typed is not null
        ? Enum.TryParse<KitChoice>(typed($"parts.{part.Id}.choice"), out var choice) ? choice : null
        : card.Kit is not null ? LaidOut(part) : Lacks(part) ? KitChoice.Missing : KitChoice.InHand;

    /// <summary>The number in the field: another than the sheet's, or nothing.</summary>
    public string Number(Part part) => Value($"parts.{part.Id}.number",
        card.Kit?.Parts.GetValueOrDefault(part.Id) is { } number && number != KitConfirmed.OldOneAgain
            && !PartNumber.Same(number, part.Number.Value) ? number : "");

    public string Reason(Part part) => Value($"parts.{part.Id}.reason", Strayed(part)?.Reason ?? "");

    public string Pans => Value("pan", string.Join(" + ", (card.Kit?.AllPans ?? kit?.Pan?.Pans.Select(p => p.Holds).ToList()
        ?? last?.AllPans ?? []).Select(p => p.Print(unit).ToString())));

    public string Amount(FluidSystem fluid) => Value($"oils.{fluid.Id}.amount",
        (card.OilInHand(fluid.Id)?.Amount ?? OnShelf(fluid)?.Amount ?? last?.Oils.GetValueOrDefault(fluid.Id)?.Amount)?.Print(unit)
            .ToString() ?? "");

    public string Product(FluidSystem fluid) => Value($"oils.{fluid.Id}.product",
        card.OilInHand(fluid.Id)?.Product ?? OnShelf(fluid)?.Product ?? last?.Oils.GetValueOrDefault(fluid.Id)?.Product ?? "");

    public string Reason(FluidSystem fluid) => Value($"oils.{fluid.Id}.reason", card.OilInHand(fluid.Id)?.Reason ?? "");

    private (string Product, Quantity<Volume> Amount)? OnShelf(FluidSystem fluid) =>
        kit?.Oils.FirstOrDefault(o => o.Fluid.Id == fluid.Id) is { } line ? KitDesk.InHand(line) : null;

    // What the stores keep and do not have is not claimed by one press; whoever finds one all the same says so.
    private bool Lacks(Part part) =>
        kit?.Parts.FirstOrDefault(l => l.Uses.Any(u => u.Id == part.Id)) is { Missing: > 0, Found: not null } line
        && line.Uses.SkipLast(line.Wanted - line.Missing).Any(u => u.Id == part.Id);

    private KitChoice LaidOut(Part part) => Strayed(part)?.Kind switch
    {
        DeviationKind.OldSealAgain => KitChoice.OldAgain,
        DeviationKind.OtherPart => KitChoice.Other,
        _ => KitChoice.InHand,
    };

    private DeviationTaken? Strayed(Part part) => card.Deviations.LastOrDefault(d => d.Event.Part == part.Id)?.Event;
}
