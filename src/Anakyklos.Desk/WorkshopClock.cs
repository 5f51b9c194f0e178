namespace Anakyklos.Desk;

/// <summary>The time in the workshop: the host's clock in the workshop's zone.</summary>
public sealed class WorkshopClock(TimeProvider time)
{
    /// <summary>Now, with the workshop's offset.</summary>
    public DateTimeOffset Now => TimeZoneInfo.ConvertTime(time.GetUtcNow(), Zone);

    /// <summary>The day in the workshop.</summary>
    public DateOnly Today => DateOnly.FromDateTime(Now.DateTime);

    /// <summary>A moment of a day in the workshop.</summary>
    public DateTimeOffset At(DateOnly day, TimeOnly time) => new(day.ToDateTime(time), Zone.GetUtcOffset(day.ToDateTime(time)));

    /// <summary>The workshop's zone.</summary>
    public TimeZoneInfo Zone => time.LocalTimeZone;

    /// <summary>How many times as fast as a wall clock it goes; 1 but for a hurried demo.</summary>
    public int Speed => time is HurriedClock hurried ? hurried.Speed : 1;

    /// <summary>A stored time in the workshop's zone.</summary>
    public DateTimeOffset Local(DateTimeOffset at) => TimeZoneInfo.ConvertTime(at, Zone);

    /// <summary>The day of a stored time in the workshop's zone.</summary>
    public DateOnly Day(DateTimeOffset at) => DateOnly.FromDateTime(Local(at).DateTime);
}

/// <summary>A clock that starts at the real time and then goes faster, so that a demo's waits pass quickly.</summary>
public sealed class HurriedClock(TimeProvider real, int speed) : TimeProvider
{
    private readonly DateTimeOffset _start = real.GetUtcNow();
    private TimeSpan _ahead;

    /// <summary>How many times as fast.</summary>
    public int Speed => speed;

    /// <inheritdoc />
    public override DateTimeOffset GetUtcNow() => _start + _ahead + (real.GetUtcNow() - _start) * speed;

    /// <summary>Puts it forward where it is behind: whoever hurried before has lived to a later time than this one starts at.</summary>
    /// <param name="at">The time before which it must not be.</param>
    public void NotBefore(DateTimeOffset at)
    {
        if (at - GetUtcNow() is var behind && behind > TimeSpan.Zero)
            _ahead += behind;
    }
}
