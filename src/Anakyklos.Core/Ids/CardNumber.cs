using System.Text.Json;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Ids;

/// <summary>The number of a card, as it stands on the record; counts up from 1.</summary>
/// <param name="Value">The number.</param>
[JsonConverter(typeof(CardNumberJson))]
public readonly record struct CardNumber(long Value)
{
    /// <summary>The card of this number.</summary>
    public static implicit operator CardNumber(long value) => new(value);

    /// <inheritdoc/>
    public override string ToString() => Value.ToString(System.Globalization.CultureInfo.InvariantCulture);
}

/// <summary>A card's number in JSON: a number.</summary>
public sealed class CardNumberJson : JsonConverter<CardNumber>
{
    /// <inheritdoc/>
    public override CardNumber Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) => new(reader.GetInt64());

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, CardNumber value, JsonSerializerOptions options) =>
        writer.WriteNumberValue(value.Value);
}
