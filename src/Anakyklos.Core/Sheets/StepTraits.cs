namespace Anakyklos.Core.Sheets;

/// <summary>What a step has to do with the engine.</summary>
public enum EngineUse
{
    /// <summary>It is off meanwhile.</summary>
    Off,

    /// <summary>It may run or not.</summary>
    Either,

    /// <summary>It is run warm and is off again at the end.</summary>
    Warms,

    /// <summary>It is started and runs on.</summary>
    Starts,

    /// <summary>It is switched off.</summary>
    Stops,

    /// <summary>The vehicle is driven with it; off again at the end.</summary>
    Drives,
}

/// <summary>What a step has to do with the lift.</summary>
public enum LiftMove
{
    /// <summary>It does not move it.</summary>
    None,

    /// <summary>What is looked at before it goes up.</summary>
    ReadyToRaise,

    /// <summary>It goes up.</summary>
    Raises,

    /// <summary>What is looked at before it comes down.</summary>
    ReadyToLower,

    /// <summary>It comes down.</summary>
    Lowers,
}

/// <summary>
/// What a step does to the vehicle, told by its kind alone. Composer, order, gates, kit and drawings ask for these and never for a kind; a
/// trait that nobody set is not there, so that a kind which claims nothing may do nothing.
/// </summary>
public readonly record struct StepTraits
{
    /// <summary>It opens an access or undoes a fastener.</summary>
    public bool Opens { get; init; }

    /// <summary>It undoes a drain plug: a fluid runs out. Such a step opens, too.</summary>
    public bool LetsOut { get; init; }

    /// <summary>It sets what holds the vehicle: chocks, stands, straps.</summary>
    public bool Sets { get; init; }

    /// <summary>It closes an access, or takes away what holds the vehicle.</summary>
    public bool Closes { get; init; }

    /// <summary>It tightens a fastener that was out.</summary>
    public bool Tightens { get; init; }

    /// <summary>It undoes a fastener and tightens it again before it ends.</summary>
    public bool ShutsAgain { get; init; }

    /// <summary>It checks the tightening of a fastener that stays in.</summary>
    public bool Checks { get; init; }

    /// <summary>It fits a part.</summary>
    public bool Fits { get; init; }

    /// <summary>A fluid goes in.</summary>
    public bool Fills { get; init; }

    /// <summary>The level of a fluid is read and brought to its mark.</summary>
    public bool Levels { get; init; }

    /// <summary>What ran out is measured.</summary>
    public bool MeasuresOut { get; init; }

    /// <summary>Old fluid is sucked out of its reservoir.</summary>
    public bool SucksOut { get; init; }

    /// <summary>What came out is looked at and judged.</summary>
    public bool Reads { get; init; }

    /// <summary>A pedal or lever is felt, whether its fluid is free of air.</summary>
    public bool FeelsPedal { get; init; }

    /// <summary>Old fluid is caught in a bottle.</summary>
    public bool CatchesInABottle { get; init; }

    /// <summary>What pans and bottle caught goes into its drums.</summary>
    public bool EmptiesPans { get; init; }

    /// <summary>Parts, pans and oil are laid out.</summary>
    public bool LaysOut { get; init; }

    /// <summary>It is looked over that nothing lies about, above or beside.</summary>
    public bool LooksOver { get; init; }

    /// <summary>Opened joints are looked at for leaks.</summary>
    public bool LooksAtJoints { get; init; }

    /// <summary>A system is filled or freed of air, so that the engine can start.</summary>
    public bool Primes { get; init; }

    /// <summary>It is a move of the ritual that puts an indicator out.</summary>
    public bool PutsOut { get; init; }

    /// <summary>It is done by a number or a level and never by a bare press.</summary>
    public bool IsMeasured { get; init; }

    /// <summary>Something is measured or looked at, and left as it was.</summary>
    public bool OnlyLooks { get; init; }

    /// <summary>It may be left out for good with a reason; everything else opens, closes or proves what others rely on.</summary>
    public bool MayBeLeftOut { get; init; }

    /// <summary>What it has to do with the engine.</summary>
    public EngineUse Engine { get; init; }

    /// <summary>What it has to do with the lift.</summary>
    public LiftMove Lift { get; init; }

    /// <summary>It opens something, sets something or lets something out: something is left to close after it.</summary>
    public bool LeavesOpen => Opens || Sets;

    /// <summary>It tightens a fastener, whoever undid it.</summary>
    public bool Fastens => Tightens || ShutsAgain;

    /// <summary>It closes an access or tightens a fastener.</summary>
    public bool Shuts => Closes || Tightens;
}
