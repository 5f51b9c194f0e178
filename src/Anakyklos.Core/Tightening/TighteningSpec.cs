using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tightening;

/// <summary>How a fastener is to be tightened.</summary>
public abstract record TighteningSpec
{
    /// <summary>In a few words, such as "38 N·m (35 to 41)".</summary>
    public string InWords => this switch
    {
        ToTorque { IsRange: true } range => $"{range.Low.Print(Torque.NewtonMetre).Number} to {range.High}",
        ToTorque to => $"{to.Target} ({to.Low.Print(Torque.NewtonMetre).Number} to {to.High})",
        TurnAfterContact turn => $"{turn.Turns * 360:0}° after contact",
        TurnFurther turn => $"{turn.Degrees}° further",
        InStages stages => string.Join(", then ", stages.Stages.Select(s => s is ToTorque to ? $"{to.Target}" : s.InWords)),
        ByHand hand => $"by hand, {hand.How}",
        _ => throw new InvalidOperationException($"Nobody has said what {GetType().Name} is in words."),
    };
}

/// <summary>To a torque, with the range that passes.</summary>
/// <param name="Target">What the wrench is set to.</param>
/// <param name="Low">The lowest reading that passes.</param>
/// <param name="High">The highest reading that passes.</param>
/// <param name="IsRange">The sheet gives both ends and no value; the target is the middle.</param>
public sealed record ToTorque(Quantity<Torque> Target, Quantity<Torque> Low, Quantity<Torque> High, bool IsRange = false) : TighteningSpec
{
    /// <summary>How far an earlier pass may stray from its share, either way; the last pass has the sheet's own limits.</summary>
    public const decimal EarlyPassStrays = 0.15m;

    /// <summary>A share of it, for an earlier pass. It passes within <see cref="EarlyPassStrays"/> of the share, or within what the sheet
    /// allows of the whole where that is wider, and never above the target.</summary>
    /// <param name="percent">Of the target, above 0 and up to 100.</param>
    /// <returns>This itself for 100.</returns>
    /// <exception cref="ArgumentOutOfRangeException">No such share.</exception>
    public ToTorque Share(int percent)
    {
        if (percent is < 1 or > 100)
            throw new ArgumentOutOfRangeException(nameof(percent), "A pass has a share above 0 and up to 100 percent.");
        if (percent == 100)
            return this;
        var target = Target * (percent / 100m);
        var (low, high) = (Math.Min(Low / Target, 1 - EarlyPassStrays), Math.Max(High / Target, 1 + EarlyPassStrays));
        var most = target * high;
        return new(target, target * low, most < Target ? most : Target);
    }

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

/// <summary>From where the stage before it ended, so many degrees further.</summary>
/// <param name="Degrees">Above 0.</param>
public sealed record TurnFurther(int Degrees) : TighteningSpec;

/// <summary>In stages, each on all fasteners of a group before the next begins.</summary>
/// <param name="Stages">Two at least: torques and turns, the first of them a torque.</param>
public sealed record InStages(IReadOnlyList<TighteningSpec> Stages) : TighteningSpec;

/// <summary>By hand only.</summary>
/// <param name="How">What the hand should feel, such as "until the catch clicks".</param>
public sealed record ByHand(string How) : TighteningSpec
{
    /// <summary>The first pass of a group: all of them in before one is drawn down.</summary>
    public static ByHand UntilItSeats { get; } = new("until it seats");
}

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
