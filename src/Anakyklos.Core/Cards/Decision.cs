using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Cards;

/// <summary>The answer to a command.</summary>
public abstract record Decision;

/// <summary>It holds; these events are to be appended.</summary>
/// <param name="Events">At least one.</param>
public sealed record Accepted(IReadOnlyList<CardEvent> Events) : Decision;

/// <summary>It cannot be.</summary>
/// <param name="Reasons">Every reason, at least one.</param>
public sealed record Refused(IReadOnlyList<Refusal> Reasons) : Decision;

/// <summary>It needs an answer first.</summary>
/// <param name="Question">The question.</param>
public sealed record Asked(Question Question) : Decision;

/// <summary>One thing in the way.</summary>
/// <param name="What">What is in the way.</param>
/// <param name="Do">What to do about it.</param>
/// <param name="Step">A step that helps, or null.</param>
/// <param name="Field">The field that is wrong, when it is the input itself and not the card; otherwise null.</param>
public sealed record Refusal(string What, string Do, string? Step = null, string? Field = null)
{
    /// <summary>Both sentences.</summary>
    public override string ToString() => $"{What} {Do}";
}

/// <summary>A question that the person must answer before it is taken as typed.</summary>
/// <param name="Text">The question.</param>
public abstract record Question(string Text);

/// <summary>Was another unit meant?</summary>
/// <param name="Text">The question.</param>
/// <param name="AsTyped">The reading as typed.</param>
/// <param name="PerhapsMeant">The same number in the unit in which it would pass.</param>
public sealed record UnitQuestion(string Text, Typed<Torque> AsTyped, Typed<Torque> PerhapsMeant) : Question(Text);

/// <summary>Really pour it?</summary>
/// <param name="Text">The warning as a question.</param>
/// <param name="Amount">The amount.</param>
public sealed record PourQuestion(string Text, Typed<Volume> Amount) : Question(Text);
