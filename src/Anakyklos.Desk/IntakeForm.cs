using Anakyklos.Core.Quantities;

namespace Anakyklos.Desk;

/// <summary>What was typed and chosen at intake, as it came from the page.</summary>
public sealed class IntakeForm
{
    /// <summary>The id of this opening: the same one twice opens one card.</summary>
    public Guid Command { get; set; }

    /// <summary>The vehicle; empty for one that is not on the list yet.</summary>
    public string? Plate { get; set; }

    /// <summary>Part of a plate, model or task, to find the vehicle by where there are many.</summary>
    public string? Find { get; set; }

    /// <summary>What the odometer shows.</summary>
    public string? Odometer { get; set; }

    /// <summary>The odometer that was asked about and that the dash shows all the same.</summary>
    public string? Meant { get; set; }

    /// <summary>Running hours; empty where none are shown.</summary>
    public string? Hours { get; set; }

    /// <summary>What a scan tool read and this form was filled from, by its name; empty for nothing.</summary>
    public string? Read { get; set; }

    /// <summary>Why the odometer shows less than before, in words.</summary>
    public string? Reason { get; set; }

    /// <summary>What that means: <c>exchanged</c> or <c>wrong</c>, the last reading; empty while nobody has said.</summary>
    public string? Lower { get; set; }

    /// <summary>What an exchanged odometer showed at last; empty where nobody knows.</summary>
    public string? OldShowed { get; set; }

    /// <summary>What the new one showed at first; empty where nobody knows.</summary>
    public string? NewShowed { get; set; }

    /// <summary>What the last reading was, where it was wrong.</summary>
    public string? Right { get; set; }

    /// <summary>Ids of the jobs chosen.</summary>
    public string[]? Job { get; set; }

    /// <summary>Where it stands.</summary>
    public string? Bay { get; set; }

    /// <summary>The plate of a newcomer.</summary>
    public string? NewPlate { get; set; }

    /// <summary>The model of a newcomer, a sheet id.</summary>
    public string? Sheet { get; set; }

    /// <summary>The model year of a newcomer.</summary>
    public string? Year { get; set; }

    /// <summary>What a newcomer does.</summary>
    public string? Task { get; set; }

    /// <summary>A newcomer is used hard.</summary>
    public bool Harsh { get; set; }

    /// <summary>Nobody knows a newcomer's history.</summary>
    public bool Unknown { get; set; }

    /// <summary>The message code on the dash.</summary>
    public string? Dash { get; set; }

    /// <summary>The oil life on the dash, in percent.</summary>
    public string? OilLife { get; set; }

    /// <summary>The distance left on the dash.</summary>
    public string? Remaining { get; set; }

    /// <summary>The length of a trip ahead.</summary>
    public string? TripLength { get; set; }

    /// <summary>The day on which it begins.</summary>
    public string? TripLeaves { get; set; }

    /// <summary>How many days it takes.</summary>
    public string? TripDays { get; set; }

    /// <summary>The vehicle that the jobs on the page were for.</summary>
    public string? ShownFor { get; set; }

    /// <summary>The jobs that were proposed for it.</summary>
    public string[]? Offered { get; set; }

    /// <summary>Why a job that is due is not done this time, by job id.</summary>
    public Dictionary<JobId, string> Dropped { get; } = [];

    /// <summary>Fills in what a scan tool read; what was typed into those fields before makes way.</summary>
    /// <param name="of">What was read, and of which vehicle.</param>
    /// <param name="unit">The unit of a bare number.</param>
    internal void Fill(ReportOf of, Unit<Distance> unit)
    {
        Read = of.Name;
        if (of.Plate is { } plate && plate != Plate)
            (Plate, Job) = (plate, null);
        (Odometer, Dash, Remaining, OilLife, Hours) = Texts(of, unit);
    }

    /// <summary>Takes out again what was filled in from a report and not changed since.</summary>
    /// <param name="of">What was read.</param>
    /// <param name="unit">The unit of a bare number.</param>
    internal void Empty(ReportOf of, Unit<Distance> unit)
    {
        var (odometer, dash, remaining, oilLife, hours) = Texts(of, unit);
        Read = null;
        Odometer = Odometer == odometer ? null : Odometer;
        Dash = Dash == dash ? null : Dash;
        Remaining = Remaining == remaining ? null : Remaining;
        OilLife = OilLife == oilLife ? null : OilLife;
        Hours = Hours == hours ? null : Hours;
    }

    private static (string Odometer, string Dash, string Remaining, string OilLife, string Hours) Texts(ReportOf of,
        Unit<Distance> unit) => (Text(of.Report.Odometer, unit), of.Report.Code, of.Report.Left is { } left ? Text(left, unit) : "",
            $"{of.Report.OilLife}", $"{of.Report.Hours}");

    private static string Text(Typed<Distance> far, Unit<Distance> unit) => far.Unit == unit ? far.Exact.Split(' ')[0] : far.Exact;
}
