namespace Anakyklos.Core.Quantities;

/// <summary>What a device measured: a number with its unit, of whatever kind. It becomes a torque or a volume only where one is
/// wanted.</summary>
public abstract record MeasuredValue
{
    private const decimal Most = 1_000_000;

    /// <summary>The kind of quantity in a word, such as "torque".</summary>
    public abstract string Kind { get; }

    /// <summary>The number in its unit, unrounded.</summary>
    public abstract decimal Number { get; }

    /// <summary>The unit's symbol.</summary>
    public abstract string Unit { get; }

    /// <summary>Reads a number and the spelling of a unit.</summary>
    /// <param name="number">From 0, at most a million.</param>
    /// <param name="unit">Any spelling of one unit, such as "N·m" or "Nm".</param>
    /// <param name="from">The number of the container that a volume came out of; null where none is said.</param>
    /// <param name="problem">What is wrong and what to send instead; empty when it was read.</param>
    /// <returns>What was measured, or null.</returns>
    public static MeasuredValue? Read(decimal number, string unit, int? from, out string problem)
    {
        problem = number is < 0 or > Most ? "A measured value is from 0 to 1,000,000." : "";
        if (problem.Length > 0)
            return null;
        if (Find<Torque>(unit, ref problem) is { } torque)
            return new MeasuredTorque(new(Quantity<Torque>.Of(number, torque), torque));
        if (Find<Volume>(unit, ref problem) is { } volume)
            return new MeasuredVolume(new(Quantity<Volume>.Of(number, volume), volume), from);
        problem = problem.Length > 0 ? problem : $"“{unit}” is no unit of a torque or a volume.";
        return null;
    }

    private static Unit<T>? Find<T>(string unit, ref string problem) where T : IDimension<T>
    {
        if (T.Ambiguous.TryGetValue(Unit<T>.Normalise(unit), out var two))
            problem = two;
        return problem.Length > 0 ? null : T.Units.FirstOrDefault(u => u.IsSpelt(unit));
    }
}

/// <summary>A torque was measured.</summary>
/// <param name="Torque">In the unit of the device.</param>
public sealed record MeasuredTorque(Typed<Torque> Torque) : MeasuredValue
{
    /// <inheritdoc/>
    public override string Kind => Quantities.Torque.Name;

    /// <inheritdoc/>
    public override decimal Number => Torque.Value.In(Torque.Unit);

    /// <inheritdoc/>
    public override string Unit => Torque.Unit.Symbol;

    /// <inheritdoc/>
    public override string ToString() => Torque.ToString();
}

/// <summary>A volume was measured.</summary>
/// <param name="Volume">In the unit of the device.</param>
/// <param name="From">The number of the container that it says it came out of; null where it says none.</param>
public sealed record MeasuredVolume(Typed<Volume> Volume, int? From = null) : MeasuredValue
{
    /// <inheritdoc/>
    public override string Kind => Quantities.Volume.Name;

    /// <inheritdoc/>
    public override decimal Number => Volume.Value.In(Volume.Unit);

    /// <inheritdoc/>
    public override string Unit => Volume.Unit.Symbol;

    /// <inheritdoc/>
    public override string ToString() => Volume.ToString();
}
