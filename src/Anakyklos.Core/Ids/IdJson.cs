using System.Text.Json;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Ids;

/// <summary>Ids in JSON: their text, as a value and as the name of a member.</summary>
public sealed class IdJson : JsonConverterFactory
{
    /// <inheritdoc/>
    public override bool CanConvert(Type typeToConvert) => typeToConvert.GetInterfaces()
        .Any(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IId<>));

    /// <inheritdoc/>
    public override JsonConverter CreateConverter(Type typeToConvert, JsonSerializerOptions options) =>
        (JsonConverter)Activator.CreateInstance(typeof(OfId<>).MakeGenericType(typeToConvert))!;

    private sealed class OfId<TId> : JsonConverter<TId> where TId : struct, IId<TId>
    {
        public override TId Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            TId.Of(reader.GetString() ?? "");

        public override void Write(Utf8JsonWriter writer, TId value, JsonSerializerOptions options) => writer.WriteStringValue(value.Text);

        public override TId ReadAsPropertyName(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            TId.Of(reader.GetString() ?? "");

        public override void WriteAsPropertyName(Utf8JsonWriter writer, TId value, JsonSerializerOptions options) =>
            writer.WritePropertyName(value.Text);
    }
}
