namespace Anakyklos.Core.Quantities;

/// <summary>An amount of one dimension. Only amounts of the same dimension add, subtract and compare.</summary>
/// <typeparam name="T">The dimension.</typeparam>
public readonly record struct Quantity<T> : IComparable<Quantity<T>> where T : IDimension<T>
{
    private readonly decimal _base;

    private Quantity(decimal inBaseUnits) => _base = inBaseUnits;

    /// <summary>Nothing of it.</summary>
    public static Quantity<T> Zero => default;

    /// <summary>So many of a unit.</summary>
    /// <param name="amount">The number.</param>
    /// <param name="unit">The unit of the number.</param>
    /// <exception cref="OverflowException">The amount is beyond about 7.9e28 base units.</exception>
    public static Quantity<T> Of(decimal amount, Unit<T> unit) => new(amount * unit.Factor);

    /// <summary>The number in a unit, unrounded.</summary>
    /// <param name="unit">The unit wanted.</param>
    /// <returns>Exact, not rounded.</returns>
    public decimal In(Unit<T> unit) => _base / unit.Factor;

    /// <summary>The value rounded (half away from zero) as is sensible for the unit, and the unit.</summary>
    /// <param name="unit">The unit wanted.</param>
    public Printed Print(Unit<T> unit) => new(QuantityText.Number(In(unit), unit.MinDecimals, unit.MaxDecimals), unit.Symbol);

    /// <summary>The value rounded down (towards zero) to what is printed for the unit, and the unit: never more than it is.</summary>
    /// <param name="unit">The unit wanted.</param>
    /// <returns>With as many decimals more as it takes that an amount above zero does not read as zero.</returns>
    public Printed PrintDown(Unit<T> unit)
    {
        var (value, decimals) = Down(unit);
        return new(QuantityText.Number(value, unit.MinDecimals, decimals), unit.Symbol);
    }

    /// <summary>The quantity that <see cref="PrintDown"/> prints.</summary>
    /// <param name="unit">The unit wanted.</param>
    /// <returns>The largest amount not above this one that the unit can show.</returns>
    public Quantity<T> RoundDown(Unit<T> unit) => Of(Down(unit).Value, unit);

    /// <summary>The smallest amount not below this one that is printed for the unit.</summary>
    /// <param name="unit">The unit wanted.</param>
    public Quantity<T> RoundUp(Unit<T> unit)
    {
        var scale = (decimal)Math.Pow(10, unit.MaxDecimals);
        return Of(Math.Ceiling(In(unit) * scale) / scale, unit);
    }

    private (decimal Value, int Decimals) Down(Unit<T> unit)
    {
        var (decimals, value) = (unit.MaxDecimals, In(unit));
        var scale = (decimal)Math.Pow(10, decimals);
        while (Math.Truncate(value * scale) == 0 && value != 0 && decimals++ < 12)
            scale *= 10;
        return (Math.Truncate(value * scale) / scale, decimals);
    }

    /// <summary>The number in the unit with all its decimals, and the unit: what can be read back as the same amount.</summary>
    /// <param name="unit">The unit wanted.</param>
    public string Exact(Unit<T> unit) =>
        $"{In(unit).ToString("0.############################", System.Globalization.CultureInfo.InvariantCulture)} {unit.Symbol}";

    /// <summary>The largest whole multiple of a step that is not above this amount.</summary>
    /// <param name="step">The graduation, above zero.</param>
    /// <returns>Not rounded; of a negative amount the multiple below it.</returns>
    /// <exception cref="ArgumentOutOfRangeException">The step is zero or negative.</exception>
    public Quantity<T> DownTo(Quantity<T> step) => step._base > 0
        ? new(Math.Floor(_base / step._base) * step._base)
        : throw new ArgumentOutOfRangeException(nameof(step), "The graduation must be above zero.");

    /// <summary>Reads what a person typed: "38 Nm", "28 ft-lb", "1/2 qt", "3,5 L".</summary>
    /// <param name="text">Number and unit.</param>
    /// <param name="problem">What is wrong and what to type instead; empty when it was read.</param>
    /// <param name="assumed">The unit meant when none is typed, where the page shows it beside the field; otherwise a unit is asked
    /// for.</param>
    /// <returns>The amount and the unit it was typed in, or null.</returns>
    public static Typed<T>? Read(string? text, out string problem, Unit<T>? assumed = null) =>
        QuantityText.TryRead(text, assumed, out var number, out var unit, out problem) ? new(Of(number, unit!), unit!) : null;

    /// <inheritdoc />
    public int CompareTo(Quantity<T> other) => _base.CompareTo(other._base);

    /// <summary>In the base unit.</summary>
    public override string ToString() => Print(T.Units[0]).ToString();

    /// <summary>Sum.</summary>
    public static Quantity<T> operator +(Quantity<T> a, Quantity<T> b) => new(a._base + b._base);

    /// <summary>Difference, negative where b is larger.</summary>
    public static Quantity<T> operator -(Quantity<T> a, Quantity<T> b) => new(a._base - b._base);

    /// <summary>So many times.</summary>
    public static Quantity<T> operator *(Quantity<T> a, decimal times) => new(a._base * times);

    /// <summary>One of so many equal parts.</summary>
    /// <exception cref="DivideByZeroException">There are no parts.</exception>
    public static Quantity<T> operator /(Quantity<T> a, decimal parts) => new(a._base / parts);

    /// <summary>How often b goes into a.</summary>
    /// <exception cref="DivideByZeroException">b is zero.</exception>
    public static decimal operator /(Quantity<T> a, Quantity<T> b) => a._base / b._base;

    /// <summary>Less.</summary>
    public static bool operator <(Quantity<T> a, Quantity<T> b) => a._base < b._base;

    /// <summary>More.</summary>
    public static bool operator >(Quantity<T> a, Quantity<T> b) => a._base > b._base;

    /// <summary>Less or the same.</summary>
    public static bool operator <=(Quantity<T> a, Quantity<T> b) => a._base <= b._base;

    /// <summary>More or the same.</summary>
    public static bool operator >=(Quantity<T> a, Quantity<T> b) => a._base >= b._base;
}

/// <summary>A quantity with the unit in which a person gave it.</summary>
/// <typeparam name="T">The dimension.</typeparam>
/// <param name="Value">The amount.</param>
/// <param name="Unit">The unit it was given in.</param>
public readonly record struct Typed<T>(Quantity<T> Value, Unit<T> Unit) where T : IDimension<T>
{
    /// <summary>As given with all its decimals: what can be read back as the same amount.</summary>
    public string Exact => Value.Exact(Unit);

    /// <summary>As given: value in its own unit.</summary>
    public override string ToString() => Value.Print(Unit).ToString();
}

/// <summary>A temperature. It has no sum: twenty degrees and twenty degrees are not forty.</summary>
public readonly record struct Temperature : IComparable<Temperature>
{
    private readonly decimal _celsius;

    private Temperature(decimal celsius) => _celsius = celsius;

    /// <summary>So many degrees of a scale.</summary>
    public static Temperature Of(decimal degrees, Unit<TemperatureScale> unit) => new(degrees * unit.Factor + unit.Offset);

    /// <summary>Degrees on a scale, unrounded.</summary>
    /// <returns>Degrees on that scale, not rounded.</returns>
    public decimal In(Unit<TemperatureScale> unit) => (_celsius - unit.Offset) / unit.Factor;

    /// <summary>Rounded to whole degrees, with the unit.</summary>
    /// <returns>Whole degrees.</returns>
    public Printed Print(Unit<TemperatureScale> unit) =>
        new(QuantityText.Number(In(unit), unit.MinDecimals, unit.MaxDecimals), unit.Symbol);

    /// <summary>Reads what a person typed: "60 °C", "140F".</summary>
    /// <returns>The temperature, or null with <paramref name="problem"/> said.</returns>
    public static Temperature? Read(string? text, out string problem, Unit<TemperatureScale>? assumed = null) =>
        QuantityText.TryRead(text, assumed, out var number, out var unit, out problem) ? Of(number, unit!) : null;

    /// <inheritdoc />
    public int CompareTo(Temperature other) => _celsius.CompareTo(other._celsius);

    /// <summary>In degrees Celsius.</summary>
    public override string ToString() => Print(TemperatureScale.Celsius).ToString();
}
