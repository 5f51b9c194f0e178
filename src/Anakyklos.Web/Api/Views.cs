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
public sealed record StepView(StepId Id, string Kind, string Title, string Phase, Place Place, StepStatus Status)
{
    internal static IReadOnlyList<StepView> All(JobCard card) =>
        [.. card.Steps.Select(s => new StepView(s.Id, s.Kind, card.TitleOf(s), s.Phase, s.Place, card.State(s.Id).Status))];
}

/// <summary>A command that was carried out: the card's last seq, and the step that comes next.</summary>
public sealed record CommandView(int Seq, bool Repeated, StepId? Next);
