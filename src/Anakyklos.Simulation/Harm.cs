namespace Anakyklos.Simulation;

/// <summary>What happened to the vehicle, the floor or a person, that should not have.</summary>
public enum HarmKind
{
    /// <summary>A hand could not do what was said: the way is shut, the lift is elsewhere, or there is nothing to do it to.</summary>
    OutOfReach,

    /// <summary>A fluid ran onto the floor.</summary>
    OnTheFloor,

    /// <summary>Fresh fluid ran out where it had been poured in.</summary>
    PouredThrough,

    /// <summary>The engine ran with too little oil to draw from.</summary>
    RunDry,

    /// <summary>The engine was cranked with an empty fuel filter.</summary>
    CrankedUnprimed,

    /// <summary>The starter was worked for longer than it bears.</summary>
    StarterBurnt,

    /// <summary>The engine ran with something open that must be shut for it.</summary>
    RunOpen,

    /// <summary>A joint leaked under pressure or under its own fluid.</summary>
    Leak,

    /// <summary>A thread was strained or a cap cracked.</summary>
    Strained,

    /// <summary>A fluid stands above its mark by more than it bears while the engine runs.</summary>
    Overfull,

    /// <summary>The vehicle was driven with something open or loose, or while it was held.</summary>
    DrivenOpen,

    /// <summary>A reservoir ran empty while it was pumped from: there is air in the line.</summary>
    AirDrawn,

    /// <summary>The vehicle was driven with a pedal that goes to the floor.</summary>
    SoftPedal,

    /// <summary>The engine was started while something lay in its bay.</summary>
    LeftInBay,

    /// <summary>The engine ran through a part that is not the right one.</summary>
    WrongPart,

    /// <summary>The vehicle was raised unheld, unlooked at, or with the engine running.</summary>
    RaisedUnsafely,

    /// <summary>What held the vehicle went from under it while it was up.</summary>
    OffItsStand,

    /// <summary>Somebody was under the vehicle when it moved.</summary>
    Crushed,

    /// <summary>Another oil went in than the vehicle asks for.</summary>
    WrongOil,

    /// <summary>A belt was thrown off its pulleys.</summary>
    BeltThrown,

    /// <summary>The vehicle was driven on a tyre without air.</summary>
    FlatTyre,

    /// <summary>Fewer screws or clips went in than belong there.</summary>
    DroppedClip,

    /// <summary>The vehicle came down onto something.</summary>
    LoweredOnto,

    /// <summary>Somebody was burnt: hot oil, hot metal.</summary>
    Burnt,
}

/// <summary>How much comes through a joint that leaks.</summary>
public enum LeakGrade
{
    /// <summary>It sweats: a film that gathers dirt.</summary>
    Weep,

    /// <summary>It drips.</summary>
    Drip,

    /// <summary>It runs.</summary>
    Run,
}

/// <summary>A harm.</summary>
/// <param name="Kind">What happened.</param>
/// <param name="What">The thing it happened to: a name of the sheet, with a capital.</param>
/// <param name="Says">What a person would see, hear or feel of it.</param>
public sealed record Harm(HarmKind Kind, string What, string Says)
{
    /// <summary>How much comes, of a leak; null for everything else.</summary>
    public LeakGrade? Grade { get; init; }

    /// <inheritdoc />
    public override string ToString() => $"{Kind}: {What}, {Says}";
}
