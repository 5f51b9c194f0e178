using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Rehearsal;

/// <summary>
/// What the usual right hand does at each step: the book's amount, the torque that is wanted, the level aimed at. For rehearsals and demos.
/// </summary>
public static class UsualPress
{
    /// <summary>The command for a step that is next.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step of it that is not done.</param>
    public static CardCommand Of(JobCard card, SheetStep step) => step.Kind switch
    {
        StepKind.Kit => Kit(card, step),
        StepKind.Tighten or StepKind.Retighten when card.Sheet.Fasteners[step.What].Tightening.Value is ToTorque to =>
            new TakeReading(step.Id, new(to.Target, Torque.NewtonMetre)),
        StepKind.Pour => new Pour(step.Id, new(card.Wanted(step.What) - card.Fluid(step.What).Poured, Volume.Litre)),
        StepKind.Measure => new Measure(step.Id, new(card.Sheet.Fluids[step.What].Amount.Value, Volume.Litre)),
        StepKind.Gauge => AtGauge(card, step),
        _ => new ConfirmStep(step.Id),
    };

    /// <summary>Facts in which every fluid of a sheet has a product of its own name that fits it.</summary>
    /// <param name="sheet">The sheet.</param>
    public static CardFacts Facts(ModelSheet sheet) => new(Shelf.Empty with
    {
        Oils = new([.. sheet.Fluids.Values.DistinctBy(f => PartNumber.Bare(f.Name))
            .Select(f => new OilProduct(f.Name, f.Grades.Value, f.Approvals.Value, f.Additives, true))], CoverBook.Empty),
    });

    private static ConfirmKit Kit(JobCard card, SheetStep step) =>
        new(step.Id, card.PartsWanted.ToDictionary(p => p.Id, _ => new KitPart(KitChoice.InHand)),
        [.. card.FluidsDrained.Select(f => f.Amount.Value)], card.FluidsWanted.ToDictionary(f => f.Id, f =>
            new OilLaidOut(f.Amount.Value, f.Name)));

    private static CardCommand AtGauge(JobCard card, SheetStep step)
    {
        var (fill, state) = (card.FillOf(step.What), card.Fluid(step.What));
        return state is { Level: { } level } && state.SinceReading == Quantity<Volume>.Zero
            && fill.After(level) is { Verdict: not FillVerdict.Good } advice
            ? advice.Verdict == FillVerdict.Pour ? new Pour(step.Id, new(advice.Amount, Volume.Litre))
                : new TakeOut(step.Id, new(advice.Amount, Volume.Litre))
            : new ReadGauge(step.Id, fill.Target);
    }
}
