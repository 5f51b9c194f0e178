using Anakyklos.Core.Quantities;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>What sort of thing a choice is.</summary>
public enum ChoiceKind
{
    /// <summary>Hands do something to the vehicle.</summary>
    Hand,

    /// <summary>Eyes, ears, nose or a feeling hand find out how something is; nothing is changed by it.</summary>
    Look,

    /// <summary>Feet go somewhere else.</summary>
    Go,

    /// <summary>A tool is taken up.</summary>
    Take,
}

/// <summary>What a choice must be told in figures.</summary>
public enum TypedAs
{
    /// <summary>Nothing.</summary>
    Nothing,

    /// <summary>A bare number, as it is set on the scale of the wrench in hand.</summary>
    Setting,

    /// <summary>A volume; a bare number is in litres.</summary>
    Volume,

    /// <summary>How many, from 1.</summary>
    Count,

    /// <summary>For how many seconds something is held, from 0.</summary>
    Seconds,

    /// <summary>What is typed into a display.</summary>
    Text,

    /// <summary>A pressure; a bare number is in bar.</summary>
    Pressure,
}

/// <summary>What somebody sees, hears, smells or feels.</summary>
/// <param name="Says">In words.</param>
/// <param name="Wrong">The thing with which something is wrong by it; empty where all is as it should be.</param>
public sealed record Sight(string Says, ThingId Wrong)
{
    /// <summary>All is as it should be, or nobody can tell by it.</summary>
    internal static Sight Well(string says) => new(says, default);

    /// <summary>The one or the other.</summary>
    internal static Sight Of(bool isWrong, ThingId what, string wrong, string well) => isWrong ? new(wrong, what) : Well(well);
}

/// <summary>What somebody does: with hands, or with eyes.</summary>
/// <param name="Words">In words, as it is told afterwards.</param>
/// <param name="Hands">What happens to the vehicle by it, in order; none where it is only looked at.</param>
public sealed record Deed(string Words, IReadOnlyList<Happening> Hands)
{
    /// <summary>What is seen or felt by it once it is done; null where nothing is looked at.</summary>
    internal Func<Vehicle, Sight>? Sees { get; init; }

    /// <summary>The wrench that is in hand from then on; null where that stays as it is.</summary>
    internal PracticeWrench? Takes { get; init; }
}

/// <summary>A torque wrench of the practice bay.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Scale">The unit of its scale, which is read off it and not typed.</param>
public sealed record PracticeWrench(string Name, Unit<Torque> Scale);

/// <summary>Something that can be done from where somebody stands.</summary>
/// <param name="Id">By which it is chosen: the thing, a slash, and what is done.</param>
/// <param name="Words">What is done, as it stands on a button.</param>
/// <param name="Kind">What sort of thing it is.</param>
/// <param name="Asks">What it must be told.</param>
public sealed record Choice(string Id, string Words, ChoiceKind Kind, TypedAs Asks = TypedAs.Nothing)
{
    // What comes of it with what was typed, or what is wrong with that.
    internal Func<string, (Deed? Deed, string Problem)> Does { get; init; } = _ => (null, "Nobody has said what this does.");
}

/// <summary>A thing within reach, and what can be done to it.</summary>
/// <param name="Id">Its kind, a colon, and its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Stands">What anybody sees of it without looking closer.</param>
/// <param name="Choices">What can be done, the usual first.</param>
public sealed record InReach(string Id, string Name, string Stands, IReadOnlyList<Choice> Choices);
