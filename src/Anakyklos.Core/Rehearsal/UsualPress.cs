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
    /// <returns>The command of the usual press at the step.</returns>
    public static CardCommand Of(JobCard card, SheetStep step) => card.UnruledAt(step).FirstOrDefault() is { } disputed
        ? new RuleValue(step.Id, disputed.Key, "As the sheet says") : Coach.Of(step).ByTheBook(card, step);

    /// <summary>Facts in which every fluid of a sheet has a product of its own name that fits it, and a wrench can be set for
    /// anything.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <returns>A shelf and a book in which everything of the sheet is there and fits.</returns>
    public static CardFacts Facts(ModelSheet sheet) => new(Shelf.Empty with
    {
        Wrenches = [new(new("Any", Quantity<Torque>.Of(0.1m, Torque.NewtonMetre), Quantity<Torque>.Of(2000, Torque.NewtonMetre),
            Quantity<Torque>.Of(0.1m, Torque.NewtonMetre), Torque.NewtonMetre, 0,
            Quantity<Length>.Of(400, Length.Millimetre)), DateOnly.MaxValue)],
        Oils = new([.. sheet.Fluids.Values.DistinctBy(f => PartNumber.Bare(f.Name))
            .Select(f => new OilProduct(f.Name, f.Grades.Value, f.Approvals.Value, f.Additives, true))], CoverBook.Empty),
    });
}
