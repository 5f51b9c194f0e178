using Anakyklos.Core.Due;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Workshop;

/// <summary>All that was read of a vehicle's odometers, on the scale of the one it has now.</summary>
public sealed class OdometerHistory
{
    private readonly IReadOnlyList<ExchangedClock> _exchanged;
    private readonly HashSet<DateOnly> _fit;
    private readonly Func<DateTimeOffset, DateOnly> _day;

    /// <summary>The history of one vehicle.</summary>
    /// <param name="readings">Its readings as they were put right last, newest first.</param>
    /// <param name="exchanged">Its odometers that were exchanged, in any order.</param>
    /// <param name="day">The day in the workshop of a moment.</param>
    public OdometerHistory(IReadOnlyList<OdometerReading> readings, IReadOnlyList<ExchangedClock> exchanged,
        Func<DateTimeOffset, DateOnly> day)
    {
        (Readings, _exchanged, _day) = (readings, exchanged, day);
        // Of one day the last counts: whoever read it later put it right.
        OdometerReading[] days = [.. readings.DistinctBy(r => day(r.At))];
        UseMark[] marks = [.. days.Select(Mark)];
        var looked = days.Where(r => r.LookedTwice).Select(r => day(r.At)).ToHashSet();
        var fitting = DailyUse.Fitting(marks, looked);
        _fit = [.. fitting.Select(m => m.Day), .. looked];
        Marks = [.. marks.Where(m => _fit.Contains(m.Day))];
        Use = DailyUse.From(marks, looked);
        Last = days.FirstOrDefault(r => _fit.Contains(day(r.At)));
        LeftOut = fitting is [var first, ..] ? [.. days.Where(r => day(r.At) is var d && d > first.Day && !_fit.Contains(d))] : [];
    }

    private ExchangedClock? Added { get; init; }

    private (OdometerReading Of, Quantity<Distance> Now)? Righted { get; init; }

    /// <summary>The history with what is told just now and is not noted yet.</summary>
    /// <param name="exchanged">An odometer that was exchanged since the last reading; or null.</param>
    /// <param name="right">A reading that was wrong, and what it was; or null.</param>
    public OdometerHistory Knowing(ExchangedClock? exchanged, (OdometerReading Of, Quantity<Distance> Now)? right) =>
        exchanged is null && right is null ? this
            : new([.. Readings.Select(r => r == right?.Of ? r with { Reading = right.Value.Now } : r)],
                exchanged is null ? _exchanged : [.. _exchanged, exchanged], _day) { Added = exchanged, Righted = right };

    /// <summary>Where something was noted, on the odometer of today, that is noted on the one before still.</summary>
    /// <param name="noted">As it is noted.</param>
    public Quantity<Distance> Carried(Quantity<Distance> noted) => Righted is var (of, now)
        && noted - of.Reading + now is var right && noted == OnThisClock(of.Reading, of.At) ? right
        : noted + (Added?.Apart ?? Quantity<Distance>.Zero);

    /// <summary>The life of the vehicle before any job was done: delivered with nothing on the odometer that it had then.</summary>
    /// <param name="vehicle">The vehicle.</param>
    public VehiclePast PastOf(Vehicle vehicle) => vehicle.Past with
    {
        Delivered = vehicle.Past.Delivered with { Odometer = OnThisClock(Quantity<Distance>.Zero, DateTimeOffset.MinValue) },
    };

    /// <summary>Every reading, newest first, each as its odometer showed it.</summary>
    public IReadOnlyList<OdometerReading> Readings { get; }

    /// <summary>Its odometers that were exchanged.</summary>
    public IReadOnlyList<ExchangedClock> Exchanged => _exchanged;

    /// <summary>Readings that are believed, one a day, newest first, as the odometer of today would have shown them.</summary>
    public IReadOnlyList<UseMark> Marks { get; }

    /// <summary>Its use a day, or null when that cannot be told yet.</summary>
    public DailyUse? Use { get; }

    /// <summary>The last reading that is believed; null where there is none.</summary>
    public OdometerReading? Last { get; }

    /// <summary>Where that is on the odometer of today, on the day it was read; null where there is none.</summary>
    public UseMark? LastMark => Marks is [var last, ..] ? last : null;

    /// <summary>Readings that do not fit the others and are left out of every sum, newest first.</summary>
    public IReadOnlyList<OdometerReading> LeftOut { get; }

    /// <summary>A reading of whichever odometer it had then, as that of today would have shown it.</summary>
    /// <param name="reading">What was read.</param>
    /// <param name="at">When.</param>
    /// <returns>Below zero where the odometer of today has run less.</returns>
    public Quantity<Distance> OnThisClock(Quantity<Distance> reading, DateTimeOffset at) =>
        _exchanged.Where(e => e.At > at).Aggregate(reading, (sum, e) => sum + e.Apart);

    /// <summary>Where the vehicle stood when a card was opened, on the odometer of today: as it was put right, not as the card has
    /// it.</summary>
    /// <param name="card">The card.</param>
    /// <param name="written">What the card has.</param>
    /// <param name="opened">When it was opened.</param>
    public Quantity<Distance> OnThisClock(CardNumber card, Quantity<Distance> written, DateTimeOffset opened) =>
        OnThisClock(Readings.FirstOrDefault(r => r.Card == card)?.Reading ?? written, opened);

    /// <summary>Between which readings one of a day must lie, by those beside it that are believed.</summary>
    /// <param name="day">The day.</param>
    /// <param name="besides">A reading that does not count, because it is the one that is put right; or null.</param>
    /// <returns>As the odometer of today shows them; where none is after it, as far as a vehicle can have gone since the one before
    /// (<see cref="DailyUse.MostADay"/>); null where there is none on that side.</returns>
    public (Quantity<Distance>? Least, Quantity<Distance>? Most) Between(DateOnly day, OdometerReading? besides = null)
    {
        var others = besides is null ? Marks : [.. Marks.Where(m => m.Day != _day(besides.At))];
        var before = others.Where(m => m.Day <= day).Select(m => (UseMark?)m).FirstOrDefault();
        var after = others.Where(m => m.Day >= day).Select(m => (UseMark?)m).LastOrDefault();
        var farthest = before is { } from ? from.Odometer + DailyUse.MostADay * Math.Max(1, day.DayNumber - from.Day.DayNumber)
            : (Quantity<Distance>?)null;
        return (before?.Odometer, after is { } to && !(to.Odometer > farthest) ? to.Odometer : farthest);
    }

    private UseMark Mark(OdometerReading r) => new(OnThisClock(r.Reading, r.At), _day(r.At), r.Hours);
}
