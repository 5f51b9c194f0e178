using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Api;

/// <summary>The workshop's clock.</summary>
/// <param name="Now">In milliseconds since 1970.</param>
/// <param name="Speed">How fast it goes: 1, or more in a hurried demo.</param>
public sealed record ClockView(long Now, int Speed);

/// <summary>Who is signed in.</summary>
public sealed record SessionView(PersonId Id, string Name, Role Role, string Antiforgery);

/// <summary>A card as others see it.</summary>
public sealed record CardView(CardNumber Id, string Plate, SheetId Sheet, int SheetRevision, int Seq, bool Signed, StepId? Next,
    IReadOnlyList<OpenItem> Open, IReadOnlyList<RunningWait> Waits)
{
    internal static CardView Of(CardNumber id, JobCard card) =>
        new(id, card.Opened.Plate, card.Sheet.Id, card.Sheet.Revision, card.History.Count, card.Signature is not null, card.Next?.Id,
        card.Open, [.. card.Waits]);
}

/// <summary>A step of a card.</summary>
/// <param name="Id">Its id, with which something is said at it.</param>
/// <param name="Kind">Its kind of work.</param>
/// <param name="What">What it works on, an id of the sheet; empty for nothing.</param>
/// <param name="Title">What to do, in words.</param>
/// <param name="Phase">The phase of the work.</param>
/// <param name="Place">Where the person stands.</param>
/// <param name="Status">How it stands.</param>
/// <param name="Spec">What the sheet says of it: torque, amount, marks, points; null where it says nothing.</param>
public sealed record StepView(StepId Id, string Kind, ThingId What, string Title, string Phase, Place Place, StepStatus Status,
    WorkSpec? Spec)
{
    internal static IReadOnlyList<StepView> All(JobCard card) => [.. card.Steps.Select(s =>
        new StepView(s.Id, s.Kind, s.What, card.TitleOf(s), s.Phase, s.Place, card.State(s.Id).Status, s.Spec))];
}

/// <summary>A command that was carried out: the card's last seq, and the step that comes next.</summary>
public sealed record CommandView(int Seq, bool Repeated, StepId? Next);
