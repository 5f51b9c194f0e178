using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Practice;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What stands around a lift: the crib, the stores, devices, drums, what the lead has ruled.</summary>
/// <param name="Wrenches">The torque wrenches in calibration.</param>
/// <param name="Shelf">The stores as they stand for this card; empty where nothing is poured.</param>
/// <param name="WrenchesHere">The wrenches that send from the bay of the card; none where no step looks over them.</param>
/// <param name="ScanToolHere">The scan tool that sends from there; null for none.</param>
/// <param name="Drums">The drums for what came out; null where none is filled here.</param>
/// <param name="Rulings">What the lead has ruled on values of the sheet; null where nobody asks.</param>
/// <param name="Printer">How the card's label stands that was sent to a printer last; null where there is none.</param>
/// <param name="Readings">Readings that wait in the bay, oldest first.</param>
/// <param name="Kit">The kit held against the stores; null where it is not laid out here.</param>
/// <param name="LastKit">The kit of this card, or of the vehicle's last one; null for none.</param>
/// <param name="NewerSheet">A newer revision of the sheet; null for none.</param>
/// <param name="Brakes">What the lead asks for before brakes; null for nothing, or where none are worked on.</param>
public sealed record Surroundings(IReadOnlyList<TorqueWrench> Wrenches, Shelf Shelf, IReadOnlyList<DeviceId> WrenchesHere,
    DeviceId? ScanToolHere, IReadOnlyList<DrumNow>? Drums, IReadOnlyList<Ruling>? Rulings, string? Printer,
    IReadOnlyList<KeptReading> Readings, KitList? Kit, KitConfirmed? LastKit, ModelSheet? NewerSheet, BrakeLesson? Brakes);

/// <summary>Looks around a lift: in the workshop, or in the practice bay, where nothing runs out and no device sends.</summary>
public sealed class AroundLift(CardStore cards, SettingStore settings, SheetStore sheets, KitDesk kits, DeviceDesk devices, DrumDesk drums,
    LabelDesk labels, RulingStore rulings, PracticeDesk practice)
{
    /// <summary>What stands around a card at a step.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="bay">Where its vehicle stands.</param>
    /// <param name="card">The card.</param>
    /// <param name="step">The step.</param>
    /// <param name="today">The day.</param>
    public Surroundings Of(CardNumber id, string bay, JobCard card, SheetStep step, DateOnly today) => PracticeStore.IsRun(id)
        ? InPractice(id, card, step, today) : new(
            [.. settings.Read().Wrenches.Where(w => w.InCrib.IsCalibrated(today)).Select(w => w.Wrench)],
            card.Sheet.Pours(step) is not null ? kits.Shelf(id) : Shelf.Empty,
            step.Traits.LooksOver ? devices.WrenchesIn(bay) : [],
            step.Traits.PutsOut ? devices.ScanToolIn(bay) : null,
            step.Traits.EmptiesPans ? drums.Now() : null,
            card.UnruledAt(step).Any() ? rulings.Of(card.Sheet.Id) : null,
            step.PutsLabelUp ? labels.Says(id) : null,
            devices.WaitingIn(bay),
            step.Traits.LaysOut ? kits.Of(id, card) : null,
            step.Traits.LaysOut ? card.Kit ?? LastOf(card) : null,
            sheets.Newest(card.Sheet.Id) is { } newest && newest.Revision > card.Sheet.Revision ? newest : null,
            card.IsOnBrakes(step) ? cards.BeforeBrakes() : null);

    private KitConfirmed? LastOf(JobCard card) => cards.OfVehicle(card.Opened.Plate).Where(c => c.SignedAt is not null)
        .Select(c => cards.Find(c.Id)!.Kit).FirstOrDefault();

    private Surroundings InPractice(CardNumber id, JobCard card, SheetStep step, DateOnly today)
    {
        var lesson = practice.Run(id)!.Lesson;
        var shelf = PracticeBench.Shelf(lesson, card.Sheet);
        return new(PracticeBench.Wrenches(lesson), card.Sheet.Pours(step) is not null ? shelf : Shelf.Empty, [], null, null,
            card.UnruledAt(step).Any() ? [] : null, null, [],
            step.Traits.LaysOut ? KitCheck.Of(card.Sheet, card.Jobs, card.Steps, card.Opened.SealsUsedAgain, shelf, null, today) : null,
            card.Kit, null, null);
    }
}
