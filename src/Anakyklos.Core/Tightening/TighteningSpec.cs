using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tightening;

/// <summary>How a fastener is to be tightened.</summary>
public abstract record TighteningSpec;

/// <summary>To a torque, with the range that passes.</summary>
/// <param name="Target">What the wrench is set to.</param>
/// <param name="Low">The lowest reading that passes.</param>
/// <param name="High">The highest reading that passes.</param>
public sealed record ToTorque(Quantity<Torque> Target, Quantity<Torque> Low, Quantity<Torque> High) : TighteningSpec
{
    /// <summary>
    /// Judges a reading. When the number fails in the unit given but would pass in another, that unit is named, so that the person can be
    /// asked.
    /// </summary>
    /// <param name="reading">The reading with the unit it was given in.</param>
    /// <returns>Too little, passes or too much, where the limits pass; and the unit that was perhaps meant, or null.</returns>
    public TorqueVerdict Judge(Typed<Torque> reading)
    {
        var outcome = Compare(reading.Value);
        if (outcome == TorqueOutcome.Passes)
            return new(outcome, null);
        var number = reading.Value.In(reading.Unit);
        var meant = Torque.Units
            .Where(u => u != reading.Unit && Compare(Quantity<Torque>.Of(number, u)) == TorqueOutcome.Passes)
            .OrderBy(u => Math.Abs((Quantity<Torque>.Of(number, u) - Target).In(Torque.NewtonMetre)))
            .FirstOrDefault();
        return new(outcome, meant);
    }

    private TorqueOutcome Compare(Quantity<Torque> torque) =>
        torque < Low ? TorqueOutcome.TooLittle : torque > High ? TorqueOutcome.TooMuch : TorqueOutcome.Passes;
}

/// <summary>To contact, then so many turns more.</summary>
/// <param name="Turns">Turns after contact, such as 0.75.</param>
public sealed record TurnAfterContact(decimal Turns) : TighteningSpec;

/// <summary>By hand only.</summary>
/// <param name="How">What the hand should feel, such as "until the catch clicks".</param>
public sealed record ByHand(string How) : TighteningSpec;

/// <summary>What a reading is worth.</summary>
public enum TorqueOutcome
{
    /// <summary>Inside the range.</summary>
    Passes,

    /// <summary>Below the range: go again.</summary>
    TooLittle,

    /// <summary>Above the range: stop, the fastener's own rule applies.</summary>
    TooMuch,
}

/// <summary>The judgement of one reading.</summary>
/// <param name="Outcome">Passes, too little or too much, in the unit given.</param>
/// <param name="PerhapsMeant">A unit in which the same number would pass, when it does not in the unit given.</param>
public readonly record struct TorqueVerdict(TorqueOutcome Outcome, Unit<Torque>? PerhapsMeant);

/// <summary>What to do after a fastener was tightened too far.</summary>
public enum OverTorqueRule
{
    /// <summary>Slacken it and tighten again.</summary>
    SlackenAndRepeat,

    /// <summary>Take it out, fit a new part and tighten that.</summary>
    NewPart,

    /// <summary>Leave it; the workshop lead decides before anything else is done to it.</summary>
    LeadDecides,
}
