using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>The answer to a command.</summary>
public abstract record Decision
{
    /// <summary>The longest reason or finding, in characters.</summary>
    public const int LongestText = Reason.Longest;

    internal static Accepted Yes(params CardEvent[] events) => new(events);

    internal static Refused No(string what, string @do, StepId? step = null, string? field = null, Ground? ground = null) =>
        new([new(what, @do, step, field, Ground: ground)]);

    internal static Refused NoSuchStep(StepId id) =>
        No($"There is no step “{(id.Text.Length > 60 ? id.Text[..60] : id.Text)}” that this can be done to.", "Go back to the card.");

    /// <summary>What is wrong with words that must be there: missing, one sign only, or too long; null when they can be kept.</summary>
    internal static Refused? Wordless(string text, string field, string what) =>
        Reason.Wrong(text, field, what) is { } wrong ? new Refused([wrong]) : null;

    /// <summary>That no amount like this goes in or out of anything here; null when it may.</summary>
    internal static Refused? Implausible(Typed<Volume> amount) =>
        amount.Value <= Quantity<Volume>.Zero ? No("An amount is above zero.", "Type how much it was, with its unit.", field: "amount")
        : amount.Value > Quantity<Volume>.Of(50, Volume.Litre)
            ? No($"{amount} is more than any sump here holds.", "Type how much it was, with its unit.", field: "amount")
        : null;
}

/// <summary>It holds; these events are to be appended.</summary>
/// <param name="Events">At least one.</param>
public sealed record Accepted(IReadOnlyList<CardEvent> Events) : Decision
{
    /// <summary>The card as it will stand, as far as the decision had to look ahead; null when nobody did.</summary>
    internal JobCard? Then { get; init; }
}

/// <summary>It cannot be.</summary>
/// <param name="Reasons">Every reason, at least one.</param>
public sealed record Refused(IReadOnlyList<Refusal> Reasons) : Decision
{
    /// <summary>Whether it is the role of whoever said it that is in the way, whatever the card's state.</summary>
    public bool IsForRole { get; init; }
}

/// <summary>It needs an answer first.</summary>
/// <param name="Question">The question.</param>
public sealed record Asked(Question Question) : Decision;

/// <summary>A question that the person must answer before it is taken as typed.</summary>
/// <param name="Text">The question.</param>
public abstract record Question(string Text);
