using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Quantities;

/// <summary>What a gauge in the hand reads: a unit of length or of pressure, or whole things that are counted.</summary>
[JsonConverter(typeof(ScaleJson))]
public abstract class Scale
{
    private static readonly IReadOnlyList<Scale> All =
    [
        .. Of<Length>(), .. Of<Pressure>(), .. new[] { "clicks", "cracks", "strokes", "turns", "years" }.Select(w => new Counted(w)),
    ];

    /// <summary>The kind of thing, such as "length"; of what is counted, its word.</summary>
    public abstract string Kind { get; }

    /// <summary>The unit's symbol, or the word for what is counted.</summary>
    public abstract string Symbol { get; }

    /// <summary>The other units of the same kind.</summary>
    public IReadOnlyList<Scale> Others => [.. All.Where(s => s.Kind == Kind && s != this)];

    /// <summary>The symbols of all scales.</summary>
    public static IReadOnlyList<string> Symbols => [.. All.Select(s => s.Symbol)];

    /// <summary>The scale of a symbol, as it is written; null where none is.</summary>
    /// <param name="symbol">Such as "mm" or "clicks".</param>
    public static Scale? Find(string symbol) => All.FirstOrDefault(s => s.Symbol == symbol);

    /// <summary>Reads what was typed: a bare number on this scale, or a number with any unit of the same kind.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="problem">What is wrong with it, as a sentence; empty when it was read.</param>
    /// <returns>Null when it is no such number, or below zero.</returns>
    public Gauged? Read(string? text, out string problem)
    {
        var read = Parse(text, out problem);
        if (read is not { Base: < 0 })
            return read;
        problem = $"{read} cannot be: it is below zero.";
        return null;
    }

    /// <summary>An amount in this unit.</summary>
    /// <param name="number">From 0.</param>
    public Gauged Of(decimal number) => new(number * Factor, this);

    internal abstract decimal Factor { get; }

    internal abstract string Print(decimal inBase);

    private protected abstract Gauged? Parse(string? text, out string problem);

    private static IEnumerable<Scale> Of<T>() where T : IDimension<T> => T.Units.Select(u => new Measured<T>(u));

    private sealed class Measured<T>(Unit<T> unit) : Scale where T : IDimension<T>
    {
        public override string Kind => T.Name;

        public override string Symbol => unit.Symbol;

        internal override decimal Factor => unit.Factor;

        internal override string Print(decimal inBase) => Quantity<T>.Of(inBase, T.Units[0]).Print(unit).Number;

        private protected override Gauged? Parse(string? text, out string problem) =>
            Quantity<T>.Read(text, out problem, unit) is { } typed ? new(typed.Value.In(T.Units[0]), Find(typed.Unit.Symbol)!) : null;
    }

    private sealed class Counted(string word) : Scale
    {
        public override string Kind => word;

        public override string Symbol => word;

        internal override decimal Factor => 1;

        internal override string Print(decimal inBase) => inBase.ToString("0.##", CultureInfo.InvariantCulture);

        private protected override Gauged? Parse(string? text, out string problem)
        {
            var typed = (text ?? "").Trim();
            var bare = typed.EndsWith(word, StringComparison.OrdinalIgnoreCase) ? typed[..^word.Length].Trim() : typed;
            problem = "";
            if (bare.Length is > 0 and <= 6 && bare.All(char.IsAsciiDigit))
                return new(int.Parse(bare, CultureInfo.InvariantCulture), this);
            var counting = $"Count the {word}.";
            problem = typed.Length == 0 ? counting : $"“{(typed.Length > 40 ? typed[..40] + "…" : typed)}” is no whole number. {counting}";
            return null;
        }
    }

    private sealed class ScaleJson : JsonConverter<Scale>
    {
        public override Scale Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            Find(reader.GetString() ?? "") ?? throw new JsonException("There is no such scale.");

        public override void Write(Utf8JsonWriter writer, Scale value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Symbol);
    }
}

/// <summary>What a gauge said.</summary>
/// <param name="Base">In the base unit of its kind.</param>
/// <param name="Scale">The scale that it was read on.</param>
[JsonConverter(typeof(GaugedJson))]
public readonly record struct Gauged(decimal Base, Scale Scale) : IComparable<Gauged>
{
    /// <summary>The number on its scale, rounded as its unit is printed.</summary>
    public string Number => Scale.Print(Base);

    /// <summary>It in full, unrounded, as it is written down.</summary>
    public string Exact =>
        $"{(Base / Scale.Factor).ToString("0.############################", CultureInfo.InvariantCulture)} {Scale.Symbol}";

    /// <summary>The same on another scale of its kind.</summary>
    /// <param name="scale">One of the same kind.</param>
    /// <exception cref="ArgumentException">It is of another kind.</exception>
    public Gauged On(Scale scale) => scale.Kind == Scale.Kind ? this with { Scale = scale }
        : throw new ArgumentException($"{Scale.Kind} is not read in {scale.Symbol}.", nameof(scale));

    /// <summary>Reads what <see cref="Exact"/> wrote.</summary>
    /// <param name="text">A number and its unit.</param>
    /// <returns>Null where it is neither.</returns>
    public static Gauged? Find(string text) => text.IndexOf(' ') is > 0 and var space && Scale.Find(text[(space + 1)..]) is { } scale
        ? scale.Read(text, out _) : null;

    /// <inheritdoc/>
    /// <exception cref="InvalidOperationException">The other is of another kind.</exception>
    public int CompareTo(Gauged other) => Scale.Kind == other.Scale.Kind ? Base.CompareTo(other.Base)
        : throw new InvalidOperationException($"{this} and {other} are not of a kind.");

    /// <inheritdoc/>
    public override string ToString() => $"{Number} {Scale.Symbol}";

    /// <inheritdoc cref="CompareTo"/>
    public static bool operator <(Gauged a, Gauged b) => a.CompareTo(b) < 0;

    /// <inheritdoc cref="CompareTo"/>
    public static bool operator >(Gauged a, Gauged b) => a.CompareTo(b) > 0;

    /// <inheritdoc cref="CompareTo"/>
    public static bool operator <=(Gauged a, Gauged b) => a.CompareTo(b) <= 0;

    /// <inheritdoc cref="CompareTo"/>
    public static bool operator >=(Gauged a, Gauged b) => a.CompareTo(b) >= 0;

    private sealed class GaugedJson : JsonConverter<Gauged>
    {
        public override Gauged Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            Find(reader.GetString() ?? "") ?? throw new JsonException("That is no reading of a gauge.");

        public override void Write(Utf8JsonWriter writer, Gauged value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Exact);
    }
}
