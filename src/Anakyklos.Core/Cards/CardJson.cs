using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>How events are written as JSON. Quantities are texts with their unit ("38 N·m"), unrounded, so that the record can be read
/// without this program.</summary>
public static class CardJson
{
    /// <summary>The options for reading and writing events and for the JSON endpoints.</summary>
    /// <returns>The same options.</returns>
    public static JsonSerializerOptions Options { get; } = Configure(new(JsonSerializerDefaults.Web));

    /// <summary>Sets converters and encoding on existing options.</summary>
    /// <param name="options">Options that are not in use yet.</param>
    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull;
        options.Encoder = JavaScriptEncoder.Create(System.Text.Unicode.UnicodeRanges.All);
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false));
        options.Converters.Add(new QuantityConverters());
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver
        {
            Modifiers = { Family<CardEvent>("event"), Family<Effect>("effect"), Family<WorkSpec>("work") },
        };
        return options;
    }

    // Events and effects are found where their work is written down; what is not among them is not read as anything.
    private static Action<JsonTypeInfo> Family<T>(string discriminator)
    {
        JsonDerivedType[] known = [.. typeof(T).Assembly.GetTypes().Where(t => !t.IsAbstract && t.IsAssignableTo(typeof(T)))
            .OrderBy(t => t.Name, StringComparer.Ordinal).Select(t => new JsonDerivedType(t, t.Name))];
        return info =>
        {
            if (info.Type != typeof(T))
                return;
            info.PolymorphismOptions = new()
            {
                TypeDiscriminatorPropertyName = discriminator,
                UnknownDerivedTypeHandling = JsonUnknownDerivedTypeHandling.FailSerialization,
            };
            foreach (var type in known)
                info.PolymorphismOptions.DerivedTypes.Add(type);
        };
    }

    /// <summary>An event as JSON.</summary>
    /// <returns>One line of JSON, with the kind of event in its member <c>event</c>.</returns>
    public static string Write(CardEvent e) => JsonSerializer.Serialize(e, Options);

    /// <summary>An event from JSON.</summary>
    /// <returns>The event.</returns>
    /// <exception cref="JsonException">It is not an event of a known kind.</exception>
    public static CardEvent Read(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<CardEvent>(json, Options) ?? throw new JsonException("An event cannot be null.");
        }
        catch (Exception e) when (e is NotSupportedException or FormatException or InvalidOperationException or ArgumentException
            or OverflowException or KeyNotFoundException)
        {
            throw new JsonException("This is no event that anybody knows.", e);
        }
    }

    private sealed class QuantityConverters : JsonConverterFactory
    {
        public override bool CanConvert(Type type) =>
            type.IsGenericType && (type.GetGenericTypeDefinition() == typeof(Quantity<>)
                || type.GetGenericTypeDefinition() == typeof(Typed<>));

        public override JsonConverter CreateConverter(Type type, JsonSerializerOptions options)
        {
            var converter = type.GetGenericTypeDefinition() == typeof(Quantity<>) ? typeof(QuantityConverter<>) : typeof(TypedConverter<>);
            return (JsonConverter)Activator.CreateInstance(converter.MakeGenericType(type.GetGenericArguments()))!;
        }
    }

    private sealed class QuantityConverter<T> : JsonConverter<Quantity<T>> where T : IDimension<T>
    {
        public override Quantity<T> Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            Parse<T>(reader.GetString()).Value;

        public override void Write(Utf8JsonWriter writer, Quantity<T> value, JsonSerializerOptions options) =>
            writer.WriteStringValue(Text(value, T.Units[0]));
    }

    private sealed class TypedConverter<T> : JsonConverter<Typed<T>> where T : IDimension<T>
    {
        public override Typed<T> Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) => Parse<T>(reader.GetString());

        public override void Write(Utf8JsonWriter writer, Typed<T> value, JsonSerializerOptions options) =>
            writer.WriteStringValue(Text(value.Value, value.Unit));
    }

    private static string Text<T>(Quantity<T> value, Unit<T> unit) where T : IDimension<T> =>
        $"{value.In(unit).ToString("0.############################", CultureInfo.InvariantCulture)} {unit.Symbol}";

    private static Typed<T> Parse<T>(string? text) where T : IDimension<T>
    {
        var space = text?.IndexOf(' ') ?? -1;
        if (space > 0 && decimal.TryParse(text.AsSpan(0, space), NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
            && T.Units.FirstOrDefault(u => u.Symbol == text![(space + 1)..]) is { } unit)
            return new(Quantity<T>.Of(number, unit), unit);
        return Quantity<T>.Read(text, out var problem) ?? throw new JsonException(problem);
    }
}
