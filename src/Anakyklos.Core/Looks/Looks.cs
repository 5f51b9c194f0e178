namespace Anakyklos.Core.Looks;

/// <summary>What is looked at when something comes out.</summary>
public enum LookSubject
{
    /// <summary>The magnet of a drain plug or a pan.</summary>
    Magnet,

    /// <summary>The fluid that ran out: colour, clarity, smell.</summary>
    Fluid,

    /// <summary>The old filter, its folds washed out.</summary>
    Filter,

    /// <summary>The old seal.</summary>
    Seal,

    /// <summary>How tight the last hand had it.</summary>
    Hold,
}

/// <summary>How something looks. The words are on disk and stay.</summary>
public enum Appearance
{
    /// <summary>Nothing on the magnet.</summary>
    Clean,

    /// <summary>Grey paste: normal wear.</summary>
    Paste,

    /// <summary>Fine glitter.</summary>
    Glitter,

    /// <summary>Slivers that can be felt.</summary>
    Slivers,

    /// <summary>Lumps.</summary>
    Lumps,

    /// <summary>Clear.</summary>
    Clear,

    /// <summary>Dark, and even.</summary>
    Dark,

    /// <summary>Thin, and it smells of fuel.</summary>
    Thin,

    /// <summary>Sludge.</summary>
    Sludge,

    /// <summary>Milky, drops of water, or white froth.</summary>
    Milky,

    /// <summary>A filter without bits.</summary>
    NoBits,

    /// <summary>Bits of soft metal that no magnet holds.</summary>
    SoftMetal,

    /// <summary>Bits of steel.</summary>
    Steel,

    /// <summary>Bits of plastic or friction lining.</summary>
    Lining,

    /// <summary>A seal in one piece.</summary>
    Whole,

    /// <summary>A seal squeezed flat or hard.</summary>
    Flat,

    /// <summary>A seal of which a piece is missing.</summary>
    Torn,

    /// <summary>It let go with a snap, as it should.</summary>
    Snapped,

    /// <summary>It was hardly tight.</summary>
    Loose,

    /// <summary>It was far too tight.</summary>
    Overtight,

    /// <summary>Thread came out with it.</summary>
    Stripped,
}

/// <summary>What follows from what was seen, from nothing to the worst.</summary>
public enum LookOutcome
{
    /// <summary>Carry on.</summary>
    CarryOn,

    /// <summary>The next interval of the work is half as long, once.</summary>
    Shorten,

    /// <summary>A sample goes to the laboratory, and the next interval is half as long.</summary>
    Sample,

    /// <summary>A specialist looks at it before it runs: the lead decides.</summary>
    Specialist,

    /// <summary>The vehicle is held: the lead decides.</summary>
    Hold,
}

/// <summary>Something that was seen.</summary>
/// <param name="Subject">What was looked at.</param>
/// <param name="Looks">How it looks.</param>
public readonly record struct Look(LookSubject Subject, Appearance Looks);

/// <summary>What was seen at a step on an earlier card of the vehicle.</summary>
/// <param name="Card">The number of that card.</param>
/// <param name="Day">When.</param>
/// <param name="Step">The step.</param>
/// <param name="Look">What.</param>
public sealed record LookBefore(CardNumber Card, DateOnly Day, StepId Step, Look Look);
