namespace Anakyklos.Desk;

/// <summary>What was typed and chosen at intake, as it came from the page.</summary>
public sealed class IntakeForm
{
    /// <summary>The id of this opening: the same one twice opens one card.</summary>
    public Guid Command { get; set; }

    /// <summary>The vehicle; empty for one that is not on the list yet.</summary>
    public string? Plate { get; set; }

    /// <summary>What the odometer shows.</summary>
    public string? Odometer { get; set; }

    /// <summary>Running hours; empty where none are shown.</summary>
    public string? Hours { get; set; }

    /// <summary>Why the odometer shows less than before.</summary>
    public string? Reason { get; set; }

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
}
