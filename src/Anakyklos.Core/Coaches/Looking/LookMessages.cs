using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>A joint is dry.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record JointDry(StepId Step, FastenerId Fastener) : CardEvent, IStepEvent;

/// <summary>A joint weeps: it was wiped, and is looked at again.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
/// <param name="Again">After how long it is looked at again.</param>
public sealed record JointWept(StepId Step, FastenerId Fastener, TimeSpan Again) : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Leak;
}

/// <summary>A joint is dry.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record ReportDry(StepId Step, FastenerId Fastener) : StepCommand(Step);

/// <summary>A joint weeps, and was wiped.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record ReportWeep(StepId Step, FastenerId Fastener) : StepCommand(Step);

/// <summary>What may be said while joints are looked at.</summary>
internal sealed class LookCommands : ICommandPage
{
    private static readonly CommandField<string> Fastener = Field.Text("fastener", "the fastener whose joint is looked at", needed: true);

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("leak", "A joint leaks", [Field.Step, Fastener], said => new ReportLeak(said.Of(Field.Step), said.Of(Fastener))),
        new("dry", "A joint is dry", [Field.Step, Fastener], said => new ReportDry(said.Of(Field.Step), said.Of(Fastener))),
        new("weep", "A joint weeps, and was wiped", [Field.Step, Fastener], said => new ReportWeep(said.Of(Field.Step), said.Of(Fastener))),
    ];
}

/// <summary>How an opened joint is looked at.</summary>
public enum LookWhile
{
    /// <summary>It is under pressure while the engine runs, and after that.</summary>
    EngineRan,

    /// <summary>It is under pressure while somebody presses pedal or lever.</summary>
    Pressed,

    /// <summary>Its fluid stands behind it.</summary>
    AsItStands,
}

/// <summary>A joint that this card opened, as it is looked at.</summary>
/// <param name="Fastener">The joint.</param>
/// <param name="While">What brings a leak out.</param>
/// <param name="Look">What was seen at this look; null where nobody has said.</param>
public sealed record LookedAtJoint(Fastener Fastener, LookWhile While, JointLook? Look)
{
    /// <summary>The joints of a look, in the order of the sheet.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that looks at joints; where it switches the engine off, only what is in sight until then.</param>
    public static IReadOnlyList<LookedAtJoint> Of(JobCard card, SheetStep step) =>
        [.. (step.Traits.Engine == EngineUse.Stops ? card.JointsInSight : card.JointsOpened)
            .Select(f => new LookedAtJoint(f, card.IsPumped(f) ? LookWhile.EngineRan
            : card.Sheet.IsPressed(f) ? LookWhile.Pressed : LookWhile.AsItStands, card.JointAt(step.Id, f.Id)))];
}
