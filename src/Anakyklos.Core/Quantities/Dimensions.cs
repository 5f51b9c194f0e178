namespace Anakyklos.Core.Quantities;

// The factors follow from the definitions of the international inch (25.4 mm), the avoirdupois pound (0.45359237 kg) and standard
// gravity (9.80665 m/s²), and from the US gallon (231 cubic inches) and the imperial gallon (4.54609 L); all are exact (NIST SP 811,
// appendix B).

/// <summary>Tightening torque. Base unit: newton metre.</summary>
public sealed class Torque : IDimension<Torque>
{
    /// <summary>Newton metre.</summary>
    public static readonly Unit<Torque> NewtonMetre = new("N·m", 1m, 0, 1, ["newtonmetre", "newtonmetres", "newtonmeter", "newtonmeters"]);

    /// <summary>Pound-force foot, 1.3558179483314004 N·m.</summary>
    public static readonly Unit<Torque> PoundFoot =
        new("lbf·ft", 1.3558179483314004m, 0, 1, ["ftlb", "ftlbs", "ftlbf", "lbft", "lbsft", "footpound", "footpounds", "poundfoot",
            "poundfeet"]);

    /// <summary>Pound-force inch, a twelfth of a pound-force foot.</summary>
    public static readonly Unit<Torque> PoundInch =
        new("lbf·in", 0.1129848290276167m, 0, 0, ["inlb", "inlbs", "inlbf", "lbin", "lbsin", "inchpound", "inchpounds", "poundinch"]);

    /// <summary>Kilogram-force metre, 9.80665 N·m.</summary>
    public static readonly Unit<Torque> KilogramMetre = new("kgf·m", 9.80665m, 1, 2, ["kgm", "mkg", "mkgf", "kpm", "mkp"]);

    /// <inheritdoc />
    public static string Name => "torque";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Torque>> Units { get; } = [NewtonMetre, PoundFoot, PoundInch, KilogramMetre];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["lb"] = "Type lbf·ft or lbf·in: pounds alone could be either.",
        ["lbs"] = "Type lbf·ft or lbf·in: pounds alone could be either.",
        ["lbf"] = "Type lbf·ft or lbf·in: pounds alone could be either.",
        ["kg"] = "Type kgf·m or N·m: kilograms alone are not a torque.",
    };
}

/// <summary>Volume of a fluid. Base unit: litre.</summary>
public sealed class Volume : IDimension<Volume>
{
    /// <summary>Litre.</summary>
    public static readonly Unit<Volume> Litre = new("L", 1m, 2, 2, ["litre", "litres", "liter", "liters", "ltr"]);

    /// <summary>Millilitre.</summary>
    public static readonly Unit<Volume> Millilitre =
        new("mL", 0.001m, 0, 0, ["cc", "cm3", "millilitre", "millilitres", "milliliter", "milliliters"]);

    /// <summary>US liquid quart, 0.946352946 L.</summary>
    public static readonly Unit<Volume> Quart = new("US qt", 0.946352946m, 2, 2, ["qt", "qts", "quart", "quarts", "usquart", "usquarts"]);

    /// <summary>US fluid ounce, 29.5735295625 mL.</summary>
    public static readonly Unit<Volume> FluidOunce = new("US fl oz", 0.0295735295625m, 0, 1, ["usfloz", "usoz"]);

    /// <summary>US gallon, 3.785411784 L.</summary>
    public static readonly Unit<Volume> Gallon = new("US gal", 3.785411784m, 2, 2, ["usgallon", "usgallons"]);

    /// <summary>Imperial pint, 0.56826125 L.</summary>
    public static readonly Unit<Volume> ImperialPint =
        new("imp pt", 0.56826125m, 2, 2, ["imppint", "imppints", "imperialpint", "imperialpints", "ukpt", "ukpint"]);

    /// <inheritdoc />
    public static string Name => "volume";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Volume>> Units { get; } = [Litre, Millilitre, Quart, FluidOunce, Gallon, ImperialPint];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = Spellings(
        ("Type US gal, or give litres: a gallon is 3.79 L in the US and 4.55 L in Britain.", ["gal", "gals", "gallon", "gallons"]),
        ("Type imp pt, or give litres: a pint is 0.47 L in the US and 0.57 L in Britain.", ["pt", "pts", "pint", "pints"]),
        ("Type US fl oz, or give millilitres: an ounce is 29.6 mL in the US, 28.4 mL in Britain, or a weight.",
            ["oz", "floz", "fluidounce", "fluidounces", "ounces"]));

    private static Dictionary<string, string> Spellings(params (string Say, string[] Words)[] groups) =>
        groups.SelectMany(g => g.Words.Select(w => (w, g.Say))).ToDictionary(p => p.w, p => p.Say);
}

/// <summary>Distance driven. Base unit: kilometre.</summary>
public sealed class Distance : IDimension<Distance>
{
    /// <summary>Kilometre.</summary>
    public static readonly Unit<Distance> Kilometre = new("km", 1m, 0, 0, ["kms", "kilometre", "kilometres", "kilometer", "kilometers"]);

    /// <summary>International mile, 1.609344 km.</summary>
    public static readonly Unit<Distance> Mile = new("mi", 1.609344m, 0, 0, ["mile", "miles"]);

    /// <inheritdoc />
    public static string Name => "distance";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Distance>> Units { get; } = [Kilometre, Mile];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["m"] = "Type km or mi: m could be metres or miles.",
        ["k"] = "Type the whole number with km or mi.",
    };
}

/// <summary>Length of a part or a gap. Base unit: millimetre.</summary>
public sealed class Length : IDimension<Length>
{
    /// <summary>Millimetre.</summary>
    public static readonly Unit<Length> Millimetre = new("mm", 1m, 0, 2, ["millimetre", "millimetres", "millimeter", "millimeters"]);

    /// <summary>Inch, 25.4 mm.</summary>
    public static readonly Unit<Length> Inch = new("in", 25.4m, 0, 3, ["inch", "inches", "\""]);

    /// <summary>Thousandth of an inch, 0.0254 mm.</summary>
    public static readonly Unit<Length> Thousandth = new("thou", 0.0254m, 0, 1, ["thousandth", "thousandths"]);

    /// <inheritdoc />
    public static string Name => "length";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Length>> Units { get; } = [Millimetre, Inch, Thousandth];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["mil"] = "Type thou or mm: a mil is a thousandth of an inch to some and a millimetre to others.",
        ["mils"] = "Type thou or mm: a mil is a thousandth of an inch to some and a millimetre to others.",
    };
}

/// <summary>Pressure, as a gauge shows it. Base unit: kilopascal.</summary>
public sealed class Pressure : IDimension<Pressure>
{
    /// <summary>Kilopascal.</summary>
    public static readonly Unit<Pressure> Kilopascal = new("kPa", 1m, 0, 0, ["kilopascal", "kilopascals"]);

    /// <summary>Bar, 100 kPa.</summary>
    public static readonly Unit<Pressure> Bar = new("bar", 100m, 1, 2, ["bars"]);

    /// <summary>Pound-force per square inch, 4.4482216152605 N over 645.16 mm².</summary>
    public static readonly Unit<Pressure> PoundPerSquareInch =
        new("psi", 4.4482216152605m / 0.64516m, 0, 1, ["lbf/in²", "lbf/in2", "lb/in2"]);

    /// <inheritdoc />
    public static string Name => "pressure";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Pressure>> Units { get; } = [Kilopascal, Bar, PoundPerSquareInch];
}

/// <summary>Mass, as a scale shows it. Base unit: kilogram.</summary>
public sealed class Mass : IDimension<Mass>
{
    /// <summary>Kilogram.</summary>
    public static readonly Unit<Mass> Kilogram = new("kg", 1m, 2, 3, ["kilo", "kilos", "kilogram", "kilograms"]);

    /// <summary>Gram.</summary>
    public static readonly Unit<Mass> Gram = new("g", 0.001m, 0, 0, ["gram", "grams", "gr"]);

    /// <summary>Avoirdupois pound, 0.45359237 kg.</summary>
    public static readonly Unit<Mass> Pound = new("lb", 0.45359237m, 2, 2, ["lbs", "pound", "pounds"]);

    /// <inheritdoc />
    public static string Name => "weight";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Mass>> Units { get; } = [Kilogram, Gram, Pound];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["oz"] = "Type lb, kg or g: an ounce may be a fluid ounce.",
    };
}

/// <summary>Force, as for belt tension. Base unit: newton.</summary>
public sealed class Force : IDimension<Force>
{
    /// <summary>Newton.</summary>
    public static readonly Unit<Force> Newton = new("N", 1m, 0, 1, ["newton", "newtons"]);

    /// <summary>Kilogram-force, 9.80665 N.</summary>
    public static readonly Unit<Force> KilogramForce = new("kgf", 9.80665m, 1, 2, ["kp"]);

    /// <summary>Pound-force, 4.4482216152605 N.</summary>
    public static readonly Unit<Force> PoundForce = new("lbf", 4.4482216152605m, 0, 1, []);

    /// <inheritdoc />
    public static string Name => "force";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<Force>> Units { get; } = [Newton, KilogramForce, PoundForce];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["kg"] = "Type kgf or N: a kilogram is a mass.",
        ["lb"] = "Type lbf or N: a pound is a mass.",
    };
}

/// <summary>Scales of temperature. Base unit: degree Celsius. It is no dimension: there is no amount of it that could be added.</summary>
public sealed class TemperatureScale : IMeasure<TemperatureScale>
{
    /// <summary>Degree Celsius.</summary>
    public static readonly Unit<TemperatureScale> Celsius = new("°C", 1m, 0, 0, ["c", "degc", "celsius", "ºc"]);

    /// <summary>Degree Fahrenheit: °C = (°F − 32) × 5/9.</summary>
    public static readonly Unit<TemperatureScale> Fahrenheit = new("°F", 5m / 9m, 0, 0, ["f", "degf", "fahrenheit", "ºf"], -160m / 9m);

    /// <inheritdoc />
    public static string Name => "temperature";

    /// <inheritdoc />
    public static IReadOnlyList<Unit<TemperatureScale>> Units { get; } = [Celsius, Fahrenheit];

    /// <inheritdoc />
    public static IReadOnlyDictionary<string, string> Ambiguous { get; } = new Dictionary<string, string>
    {
        ["°"] = "Type °C or °F.",
        ["deg"] = "Type °C or °F.",
    };
}
