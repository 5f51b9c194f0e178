using System.Text.Json.Serialization;

namespace Anakyklos.Core.Ids;

/// <summary>The id of one kind of thing. A text becomes an id where one is wanted; an id becomes neither a text nor an id of another kind
/// unless somebody says so.</summary>
/// <typeparam name="TSelf">The id itself.</typeparam>
public interface IId<TSelf> : IComparable<TSelf> where TSelf : struct, IId<TSelf>
{
    /// <summary>As it is written in files, addresses and events; empty for none.</summary>
    string Text { get; }

    /// <summary>The id of a text.</summary>
    /// <param name="text">As it is written; empty for none.</param>
    static abstract TSelf Of(string text);
}

/// <summary>The id of a step, a job, a part and so on: <c>StepId</c> is <c>Id&lt;AStep&gt;</c> everywhere.</summary>
/// <typeparam name="T">What it names; one of the marks beside it.</typeparam>
/// <param name="Text">As it is written; empty for none.</param>
[JsonConverter(typeof(IdJson))]
public readonly record struct Id<T>(string Text) : IId<Id<T>>
{
    /// <inheritdoc/>
    public string Text { get => field ?? ""; } = Text;

    /// <summary>Whether it names nothing.</summary>
    public bool IsEmpty => Text.Length == 0;

    /// <inheritdoc/>
    public static Id<T> Of(string text) => new(text);

    /// <summary>The id of a text; of none, the one that names nothing.</summary>
    public static implicit operator Id<T>(string? text) => new(text ?? "");

    /// <summary>What is meant where the thing is known to be of this kind.</summary>
    public static implicit operator Id<T>(ThingId thing) => new(thing.Text);

    /// <summary>Anything that has an id is a thing.</summary>
    public static implicit operator ThingId(Id<T> id) => new(id.Text);

    /// <summary>Whether the thing is this one.</summary>
    public static bool operator ==(ThingId thing, Id<T> id) => thing.Text == id.Text;

    /// <summary>Whether the thing is another one.</summary>
    public static bool operator !=(ThingId thing, Id<T> id) => !(thing == id);

    /// <summary>In the order of their letters.</summary>
    public int CompareTo(Id<T> other) => string.CompareOrdinal(Text, other.Text);

    /// <summary>Whether both name the same, or both nothing.</summary>
    public bool Equals(Id<T> other) => Text == other.Text;

    /// <inheritdoc/>
    public override int GetHashCode() => string.GetHashCode(Text, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override string ToString() => Text;
}

/// <summary>
/// The id of whatever a step is done to, or of whatever is open: an access, a fluid, a fastener, a part, a reset. What kind of thing it is
/// is said beside it, by the kind of the step or of the open item; only there may it be read as an id of that kind.
/// </summary>
/// <param name="Text">As it is written; empty for none.</param>
[JsonConverter(typeof(IdJson))]
public readonly record struct ThingId(string Text) : IId<ThingId>
{
    /// <inheritdoc/>
    public string Text { get => field ?? ""; } = Text;

    /// <summary>Whether it names nothing.</summary>
    public bool IsEmpty => Text.Length == 0;

    /// <inheritdoc/>
    public static ThingId Of(string text) => new(text);

    /// <summary>The id of a text; of none, the one that names nothing.</summary>
    public static implicit operator ThingId(string? text) => new(text ?? "");

    /// <summary>Whether the thing is called so.</summary>
    public static bool operator ==(ThingId thing, string text) => thing.Text == text;

    /// <summary>Whether the thing is called otherwise.</summary>
    public static bool operator !=(ThingId thing, string text) => !(thing == text);

    /// <summary>In the order of their letters.</summary>
    public int CompareTo(ThingId other) => string.CompareOrdinal(Text, other.Text);

    /// <summary>Whether both name the same, or both nothing.</summary>
    public bool Equals(ThingId other) => Text == other.Text;

    /// <inheritdoc/>
    public override int GetHashCode() => string.GetHashCode(Text, StringComparison.Ordinal);

    /// <inheritdoc/>
    public override string ToString() => Text;
}
