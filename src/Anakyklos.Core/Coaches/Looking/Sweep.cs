using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>What is looked for when a place is looked over.</summary>
public enum SweepFor
{
    /// <summary>A tool that was used there: it lies there no more.</summary>
    Tool,

    /// <summary>Something that was off there: it is on again.</summary>
    BackOn,

    /// <summary>What lies about after any work: rags, lamp, pan.</summary>
    Loose,
}

/// <summary>One thing that is looked for when a place is looked over.</summary>
/// <param name="For">What kind of thing.</param>
/// <param name="What">The thing, as it is said.</param>
/// <param name="Seen">Whether somebody said so by itself.</param>
public sealed record SweepItem(SweepFor For, string What, bool Seen)
{
    /// <summary>What a card gives to look for at a step that looks a place over, in the order in which it is looked.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that looks over a place, above or below.</param>
    public static IReadOnlyList<SweepItem> Of(JobCard card, SheetStep step)
    {
        var below = step.Place == Place.Below;
        var here = card.Steps.Where(s => card.State(s.Id).Status == StepStatus.Done
            && (below ? s.Place == Place.Below || s.Lift == LiftNeed.Up : s.Place == Place.Top || card.Sheet.IsMotorcycle)).ToList();
        var fasteners = here.Where(s => s.Traits.Opens || s.Traits.Fastens).Select(s => card.Sheet.Fasteners.GetValueOrDefault(s.What))
            .OfType<Fastener>().ToList();
        var accesses = here.Where(s => s.Traits.Opens || s.Traits.Closes).Select(s => card.Sheet.Access.GetValueOrDefault(s.What))
            .OfType<Access>().Where(a => !a.HoldsVehicle).DistinctBy(a => a.Id).ToList();
        var tools = fasteners.Select(f => f.Drive).Concat(accesses.Where(a => !a.IsByHand).Select(a => a.Tool)).Where(t => t.Length > 0);
        var wrench = fasteners.Any(f => f.LastTorque is not null) ? new[] { "Torque wrench" } : [];
        IEnumerable<(SweepFor, string)> found =
        [
            .. tools.Select(Words.Capital).Concat(wrench).Distinct().Select(t => (SweepFor.Tool, t)),
            .. accesses.Where(a => !card.HasOpen(a)).Select(a => (SweepFor.BackOn, a.Name)),
            (SweepFor.Loose, below ? "Pan, chute and lamp" : "Rags, foil and lamp"),
        ];
        return [.. found.Select(f => new SweepItem(f.Item1, f.Item2, card.IsSwept(step.Id, f.Item2)))];
    }
}

/// <summary>One thing was looked for and is as it should be.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">The thing.</param>
public sealed record SweptFor(StepId Step, string What) : CardEvent, IStepEvent;

/// <summary>One thing was looked for and is as it should be.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">The thing, as it is listed.</param>
public sealed record SweepOne(StepId Step, string What) : StepCommand(Step);

/// <summary>What may be said while a place is looked over.</summary>
internal sealed class SweepCommands : ICommandPage
{
    private static readonly CommandField<string> What = Field.Text("what", "what was looked for", needed: true);

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("swept", "One thing was looked for and is as it should be", [Field.Step, What],
            said => new SweepOne(said.Of(Field.Step), said.Of(What))),
    ];
}
