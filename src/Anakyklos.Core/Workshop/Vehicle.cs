using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;

namespace Anakyklos.Core.Workshop;

/// <summary>A vehicle.</summary>
/// <param name="Plate">Its plate.</param>
/// <param name="SheetId">Its model sheet.</param>
/// <param name="Task">What it does.</param>
/// <param name="Year">Model year.</param>
/// <param name="Use">How hard it is used.</param>
/// <param name="Delivered">The day it was delivered; null for the first of January of its model year.</param>
/// <param name="HistoryUnknown">Nobody knows what was done before it came here.</param>
/// <param name="WarrantyUntil">The last day of the maker's warranty, or null.</param>
/// <param name="Identity">What it tells a scan tool that it is; empty while no tool has read it.</param>
/// <param name="IsGone">It is not looked after here any more.</param>
public sealed record Vehicle(string Plate, SheetId SheetId, string Task, int Year, Use Use, DateOnly? Delivered = null,
    bool HistoryUnknown = false, DateOnly? WarrantyUntil = null, string Identity = "", bool IsGone = false)
{
    /// <summary>Its life before any job was done: delivered with nothing on the clock.</summary>
    public VehiclePast Past => new(new(default, Delivered ?? new(Year, 1, 1)), HistoryUnknown);

    /// <summary>Whether the maker's warranty holds on a day.</summary>
    public bool IsUnderWarranty(DateOnly day) => day <= WarrantyUntil;
}
