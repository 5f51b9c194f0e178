using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>The calibrations of wrenches and meters.</summary>
public sealed class CalibrationStore(WorkshopDatabase database)
{
    private const string Iso = "yyyy-MM-dd";

    /// <summary>Keeps a calibration, with what the settings say of the device from then on.</summary>
    /// <param name="calibration">The calibration.</param>
    /// <param name="change">What becomes of the settings; null where the device is not there any more, and then nothing is kept.</param>
    /// <returns>Whether it was kept.</returns>
    public Task<bool> Keep(Calibration calibration, Func<WorkshopSettings, WorkshopSettings?> change) => database.Writes.Run(scope =>
    {
        if (change(SettingStore.Read(scope.Connection)) is not { } settings)
            return false;
        SettingStore.Write(scope.Connection, settings);
        scope.Connection.Execute("""
            insert into calibration (device, day, off_percent, until, person_id, at) values (@Device, @day, @off, @until, @By, @at)
            """, new
        {
            calibration.Device,
            day = calibration.Day.ToString(Iso, CultureInfo.InvariantCulture),
            off = calibration.Off.ToString(CultureInfo.InvariantCulture),
            until = calibration.Until.ToString(Iso, CultureInfo.InvariantCulture),
            calibration.By,
            at = CardStore.Iso(calibration.At),
        });
        return true;
    });

    /// <summary>All calibrations, the newest first.</summary>
    public ILookup<string, Calibration> All()
    {
        using var connection = database.Connect();
        return connection.Query<(string Device, string Day, string Off, string Until, string By, string At)>(
            "select device, day, off_percent, until, person_id, at from calibration order by at desc")
            .Select(c => new Calibration(c.Device, Day(c.Day), decimal.Parse(c.Off, CultureInfo.InvariantCulture), Day(c.Until), c.By,
                CardStore.Time(c.At))).ToLookup(c => c.Device);
    }

    /// <summary>The cards on which a wrench gave a reading between two moments, in their order.</summary>
    /// <param name="device">What is painted on it.</param>
    /// <param name="since">From when; null for ever.</param>
    /// <param name="until">Before when.</param>
    public IReadOnlyList<CardNumber> CardsWith(string device, DateTimeOffset? since, DateTimeOffset until)
    {
        using var connection = database.Connect();
        return [.. connection.Query<long>("""
            select distinct card_id from event
            where body like '{"event":"ReadingTaken"%' and (@since is null or at >= @since) and at < @until
                and (json_extract(body, '$.wrench') = @device or json_extract(body, '$.device') = @device)
            order by card_id
            """, new
        {
            device, since = since is { } s ? CardStore.Iso(s) : null, until = CardStore.Iso(until),
        }).Select(id => (CardNumber)id)];
    }

    private static DateOnly Day(string text) => DateOnly.ParseExact(text, Iso, CultureInfo.InvariantCulture);
}
