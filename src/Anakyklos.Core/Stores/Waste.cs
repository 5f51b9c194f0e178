using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Stores;

/// <summary>What goes into a drum of its own, as it must not be mixed with the rest.</summary>
public enum Waste
{
    /// <summary>Engine, gearbox and axle oil.</summary>
    Oil,

    /// <summary>Coolant.</summary>
    Coolant,

    /// <summary>Brake fluid.</summary>
    BrakeFluid,

    /// <summary>Filters that oil stood in, counted.</summary>
    Filters,

    /// <summary>Anything else.</summary>
    Other,
}

/// <summary>A drum for what came out.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Waste">What goes into it.</param>
/// <param name="Holds">What it holds; zero for one in which pieces are counted.</param>
/// <param name="Pieces">How many pieces it holds; 0 for fluids.</param>
/// <param name="KeepDays">For how many days at most something may lie in it before it is collected; 0 for no limit.</param>
public sealed record WasteDrum(string Name, Waste Waste, Quantity<Volume> Holds, int Pieces, int KeepDays);

/// <summary>Something that went into a drum, or was taken away from it.</summary>
/// <param name="Day">When.</param>
/// <param name="Amount">How much fluid; negative for what came out of it again.</param>
/// <param name="Pieces">How many pieces; negative likewise.</param>
/// <param name="Collected">It was taken away.</param>
public sealed record DrumEntry(DateOnly Day, Quantity<Volume> Amount, int Pieces, bool Collected);

/// <summary>How full a drum is, and when it must be collected.</summary>
/// <param name="Amount">How much fluid is in it.</param>
/// <param name="Pieces">How many pieces are in it.</param>
/// <param name="Full">How full it is: 0 empty, 1 full; more where it was filled beyond.</param>
/// <param name="Since">Since when something lies in it; null while it is empty.</param>
/// <param name="CollectBy">The day by which it must be collected; null where nothing asks for it yet.</param>
/// <param name="IsByTime">That day comes from how long it may be kept; otherwise from how fast it fills.</param>
public sealed record DrumStand(Quantity<Volume> Amount, int Pieces, decimal Full, DateOnly? Since, DateOnly? CollectBy, bool IsByTime)
{
    private const int FillsOver = 180;
    private const int LeastOver = 30;
    private const decimal FullEnough = 0.9m;

    /// <summary>Whether it must be collected now.</summary>
    /// <param name="today">The day.</param>
    public bool IsDue(DateOnly today) => CollectBy <= today;

    /// <summary>How a drum stands.</summary>
    /// <param name="drum">The drum.</param>
    /// <param name="entries">All that went in and out, in the order of their days.</param>
    /// <param name="today">The day. How fast it fills is taken from the last 180 days, or from the first entry where that is nearer, 30
    /// days at least: what came on the first day does not come every day. It is to be collected when nine tenths are full.</param>
    public static DrumStand Of(WasteDrum drum, IReadOnlyList<DrumEntry> entries, DateOnly today)
    {
        var (amount, pieces, since) = (Quantity<Volume>.Zero, 0, (DateOnly?)null);
        foreach (var e in entries)
        {
            (amount, pieces) = (amount + e.Amount, pieces + e.Pieces);
            since = amount <= Quantity<Volume>.Zero && pieces <= 0 ? null : e.Collected ? e.Day : since ?? e.Day;
        }
        var full = drum.Pieces > 0 ? (decimal)pieces / drum.Pieces : drum.Holds > Quantity<Volume>.Zero ? amount / drum.Holds : 0;
        DateOnly? byTime = drum.KeepDays > 0 && since is { } from ? from.AddDays(drum.KeepDays) : null;
        var byFill = full >= FullEnough ? today : FullOn(drum, entries, full, today);
        return new(amount, pieces, full, since, byFill < byTime || byTime is null ? byFill : byTime,
            byTime <= (byFill ?? DateOnly.MaxValue));
    }

    private static DateOnly? FullOn(WasteDrum drum, IReadOnlyList<DrumEntry> entries, decimal full, DateOnly today)
    {
        var lately = entries.Where(e => !e.Collected && e.Day.DayNumber > today.DayNumber - FillsOver).ToList();
        if (lately.Count == 0)
            return null;
        var days = Math.Max(LeastOver, today.DayNumber - lately[0].Day.DayNumber + 1);
        var came = drum.Pieces > 0 ? (decimal)lately.Sum(e => e.Pieces) / drum.Pieces
            : lately.Aggregate(Quantity<Volume>.Zero, (sum, e) => sum + e.Amount) / drum.Holds;
        // A year from now nobody plans a collection.
        return came <= 0 || (FullEnough - full) / (came / days) is var left && left > 365 ? null : today.AddDays((int)Math.Floor(left));
    }

    /// <summary>The drum that something goes into: of those for it the first that has room, or else the one that has most.</summary>
    /// <param name="waste">What it is.</param>
    /// <param name="drums">The drums, each with how full it is.</param>
    /// <returns>The drum, or null where there is none for it.</returns>
    public static WasteDrum? For(Waste waste, IEnumerable<(WasteDrum Drum, decimal Full)> drums)
    {
        var fit = drums.Where(d => d.Drum.Waste == waste).ToList();
        return (fit.FirstOrDefault(d => d.Full < FullEnough).Drum ?? fit.OrderBy(d => d.Full).FirstOrDefault().Drum);
    }

    /// <summary>What a fluid is once it came out.</summary>
    /// <param name="fluid">The fluid.</param>
    public static Waste Of(FluidSystem fluid) => fluid.Grades.Value switch
    {
        var g when g.Any(x => x.StartsWith("SAE", StringComparison.OrdinalIgnoreCase)
            || x.StartsWith("ATF", StringComparison.OrdinalIgnoreCase)) => Waste.Oil,
        var g when g.Any(x => x.StartsWith("DOT", StringComparison.OrdinalIgnoreCase)) => Waste.BrakeFluid,
        _ when fluid.Id.Text.Contains("coolant", StringComparison.OrdinalIgnoreCase) => Waste.Coolant,
        _ => Waste.Other,
    };
}
