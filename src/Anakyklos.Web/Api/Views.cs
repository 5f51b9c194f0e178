using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Api;

/// <summary>Who is signed in.</summary>
public sealed record SessionView(string Id, string Name, Role Role, string Antiforgery);

/// <summary>A card as others see it.</summary>
public sealed record CardView(long Id, string Plate, string Sheet, int SheetRevision, int Seq, bool Signed, string? Next,
    IReadOnlyList<OpenItem> Open, IReadOnlyList<RunningWait> Waits)
{
    internal static CardView Of(long id, JobCard card) =>
        new(id, card.Opened.Plate, card.Sheet.Id, card.Sheet.Revision, card.History.Count, card.Signature is not null, card.Next?.Id,
        card.Open, [.. card.Waits]);
}

/// <summary>A step of a card.</summary>
public sealed record StepView(string Id, string Kind, string Title, string Phase, Place Place, StepStatus Status)
{
    internal static IReadOnlyList<StepView> All(JobCard card) =>
        [.. card.Steps.Select(s => new StepView(s.Id, s.Kind, s.Title, s.Phase, s.Place, card.State(s.Id).Status))];
}

/// <summary>A command that was carried out: the card's last seq, and the step that comes next.</summary>
public sealed record CommandView(int Seq, bool Repeated, string? Next);

/// <summary>What every command carries.</summary>
public interface ICommandBody
{
    /// <summary>The client's own id of the command; sent twice, it is carried out once.</summary>
    Guid Command { get; }
}

public sealed record StepBody(Guid Command, int? Count = null, string? Reason = null) : ICommandBody;

/// <summary>What lies there. What an oil lacks, and what stands in for a part, is found by the workshop and not said here.</summary>
public sealed record KitBody(Guid Command, IReadOnlyDictionary<string, KitPart> Parts, IReadOnlyDictionary<string, OilLaidOut> Oils,
    IReadOnlyList<Quantity<Volume>>? Pans = null, Quantity<Volume>? Pan = null) : ICommandBody;

public sealed record TakeBackBody(Guid Command, int Of) : ICommandBody;

public sealed record DecisionBody(Guid Command, int Of, bool Mended, string Words) : ICommandBody;

public sealed record ReadingBody(Guid Command, Typed<Torque> Torque, bool UnitIsMeant = false) : ICommandBody;

public sealed record PourBody(Guid Command, Typed<Volume> Amount, bool WarningSeen = false) : ICommandBody;

public sealed record LevelBody(Guid Command, decimal Fraction) : ICommandBody;

public sealed record ReasonBody(Guid Command, string Reason) : ICommandBody;

public sealed record FindingBody(Guid Command, FindingGrade Grade, string Text) : ICommandBody;

public sealed record SignBody(Guid Command) : ICommandBody;
