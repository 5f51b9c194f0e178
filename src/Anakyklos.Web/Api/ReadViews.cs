using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Api;

/// <summary>A person.</summary>
public sealed record PersonView(PersonId Id, string Name, Role Role);

/// <summary>A vehicle among all.</summary>
/// <param name="Plate">Its plate.</param>
/// <param name="Sheet">Its model sheet.</param>
/// <param name="Model">Its model, as a person calls it.</param>
/// <param name="Task">What it does.</param>
/// <param name="Year">Its model year.</param>
/// <param name="Odometer">Where it is taken to stand today.</param>
/// <param name="Overdue">How many of its jobs are overdue.</param>
/// <param name="Due">How many are due.</param>
/// <param name="Soon">How many are near.</param>
public sealed record VehicleView(string Plate, SheetId Sheet, string Model, string Task, int Year, Quantity<Distance> Odometer, int Overdue,
    int Due, int Soon)
{
    internal static VehicleView Of(VehicleInFleet v) => new(v.Vehicle.Plate, v.Vehicle.SheetId, v.Model, v.Vehicle.Task, v.Vehicle.Year,
        v.Now.Odometer, v.Standing.Overdue, v.Standing.Due, v.Standing.Soon);
}

/// <summary>How a job of a vehicle stands.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Job">The job.</param>
/// <param name="Name">Its name.</param>
/// <param name="State">How it stands.</param>
/// <param name="At">Due at this reading; null where distance does not count.</param>
/// <param name="By">Due on this day; null where age does not count.</param>
/// <param name="Left">What is left of the distance, below zero when it is over.</param>
/// <param name="DaysLeft">Days left, below zero when it is over.</param>
/// <param name="Rule">Whose rule counts.</param>
/// <param name="LastAt">The reading at which it was last done; null where that is not known.</param>
/// <param name="LastOn">The day on which it was last done.</param>
public sealed record DueView(string Plate, JobId Job, string Name, DueState State, Quantity<Distance>? At, DateOnly? By,
    Quantity<Distance>? Left, int? DaysLeft, RuleOf Rule, Quantity<Distance>? LastAt, DateOnly? LastOn)
{
    internal static DueView Of(string plate, Standing s, UseMark now) => new(plate, s.Item.Job, s.Item.Name, s.State, s.At, s.By,
        s.Left(now).Distance, s.Left(now).Days, s.RuleThatCounts(now), s.Last?.Odometer, s.Last?.Day);
}

/// <summary>A reading of an odometer.</summary>
public sealed record ReadingView(DateOnly Day, Quantity<Distance> Odometer, int? Hours);

/// <summary>A card of a vehicle.</summary>
public sealed record CardOfVehicleView(CardNumber Card, DateTimeOffset OpenedAt, DateTimeOffset? SignedAt, DateTimeOffset? VoidedAt);

/// <summary>A vehicle with what is known of it.</summary>
public sealed record VehicleStoryView(string Plate, SheetId Sheet, string Task, int Year, Use Use, bool IsGone,
    IReadOnlyList<ReadingView> Readings, IReadOnlyList<DueView> Jobs, IReadOnlyList<CardOfVehicleView> Cards)
{
    internal static VehicleStoryView Of(Vehicle vehicle, VehicleStanding? standing, IReadOnlyList<CardEntry> cards) => new(vehicle.Plate,
        vehicle.SheetId, vehicle.Task, vehicle.Year, vehicle.Use, vehicle.IsGone,
        [.. (standing?.Readings ?? []).Select(r => new ReadingView(r.Day, r.Odometer, r.Hours))],
        [.. (standing?.Items ?? []).Select(i => DueView.Of(vehicle.Plate, i, standing!.Now))],
        [.. cards.Select(c => new CardOfVehicleView(c.Id, c.OpenedAt, c.SignedAt, c.VoidedAt))]);
}

/// <summary>A visit in the coming weeks.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Jobs">What for.</param>
/// <param name="Day">The day; null where it has no place.</param>
/// <param name="Bay">The bay; null where it has no place.</param>
/// <param name="IsFixed">Whether a person put it there.</param>
/// <param name="Missing">What is missing for it.</param>
public sealed record VisitView(string Plate, IReadOnlyList<JobId> Jobs, DateOnly? Day, string? Bay, bool IsFixed,
    IReadOnlyList<string> Missing)
{
    internal static VisitView Of(WorkshopWeek week, WeekVisit v) => new(v.Plate, v.Of.Wish.Jobs, v.Slot is { } slot
        ? week.Days[slot.Day].Date : null, v.Slot is { } at ? week.BayOf(at) : null, v.IsFixed, v.Missing);
}

/// <summary>A container.</summary>
public sealed record ContainerView(int Id, string Product, Quantity<Volume> Size, Quantity<Volume> Left, DateOnly? Opened, string Batch,
    string Place)
{
    internal static ContainerView Of(OilContainer c) => new(c.Id, c.Product, c.Size, c.Left, c.Opened, c.Batch, c.Place);
}

/// <summary>A job of a model.</summary>
public sealed record JobView(JobId Id, string Name);

/// <summary>A model in use.</summary>
public sealed record SheetView(SheetId Id, string Name, int Revision, IReadOnlyList<int> Revisions, IReadOnlyList<JobView> Jobs);

/// <summary>What happened after a place.</summary>
/// <param name="Changes">What happened.</param>
/// <param name="Next">From where to ask next; where it is what was asked for, nothing has happened since.</param>
public sealed record ChangesView(IReadOnlyList<WorkshopChange> Changes, long Next)
{
    internal static ChangesView Of((IReadOnlyList<WorkshopChange> Changes, long Until) read) => new(read.Changes, read.Until);
}
