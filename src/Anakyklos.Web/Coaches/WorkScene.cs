using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Desk;
using Anakyklos.Web.Hosting;
using System.Collections.Frozen;

namespace Anakyklos.Web.Coaches;

/// <summary>Who looks, what hangs in the crib and what stands in the stores.</summary>
/// <param name="Viewer">Whose units count.</param>
/// <param name="Wrenches">The torque wrenches in calibration.</param>
/// <param name="Shelf">The stores as they stand.</param>
/// <param name="Today">The day in the workshop.</param>
/// <param name="Can">The container that somebody wants to pour from; null for the one that the stores give out.</param>
/// <param name="WrenchesHere">The wrenches that send from the bay of the card.</param>
/// <param name="ScanToolHere">The scan tool that sends from the bay of the card; null for none.</param>
/// <param name="Drums">The drums for what came out, as they stand; null where none is filled here.</param>
/// <param name="Rulings">What the lead has ruled on values of the sheet by now; null where nobody asks.</param>
/// <param name="Printer">How the card's label stands that was sent to a printer last; null where there is none.</param>
/// <param name="Point">The point of a list that somebody wants to look at; null for the one that is next.</param>
public sealed record Looker(Viewer Viewer, IReadOnlyList<TorqueWrench> Wrenches, Shelf Shelf, DateOnly Today, int? Can,
    IReadOnlyList<DeviceId> WrenchesHere, string? Point = null, DeviceId? ScanToolHere = null,
    IReadOnlyList<DrumNow>? Drums = null, IReadOnlyList<Ruling>? Rulings = null, string? Printer = null);

/// <summary>
/// Draws the steps of a kind of work at the lift and says its events on the record. Whatever has no scene of its own is one sentence and
/// one
/// press; what is measured and has none offers no press at all.
/// </summary>
public class WorkScene
{
    private static readonly WorkScene Sentence = new();

    private static readonly IReadOnlyList<WorkScene> All = [.. typeof(WorkScene).Assembly.GetTypes()
        .Where(t => t.IsSubclassOf(typeof(WorkScene)) && !t.IsAbstract).Select(t => (WorkScene)Activator.CreateInstance(t)!)];

    private static readonly FrozenDictionary<string, WorkScene> ByKind = All.SelectMany(s => s.Kinds.Select(k => (k, s)))
        .ToFrozenDictionary(p => p.k, p => p.s);

    /// <summary>The scene of a kind.</summary>
    public static WorkScene Of(string kind) => ByKind.GetValueOrDefault(kind, Sentence);

    /// <summary>The kinds that it draws.</summary>
    public virtual IReadOnlyList<string> Kinds => [];

    /// <summary>Draws a step: the one value, what stands beside it, and what the big button says and does.</summary>
    /// <param name="scene">The scene, with what all kinds share.</param>
    /// <param name="to">Who looks.</param>
    public virtual void Draw(LiftScene scene, Looker to)
    {
        Inspecting.InspectScene.TellTurns(scene);
        if (StepKinds.Knows(scene.Step.Kind) && !scene.Step.Traits.IsMeasured)
            scene.Offer(Said(scene.Step));
    }

    /// <summary>An event of this work as a line of the record.</summary>
    /// <param name="card">The card.</param>
    /// <param name="e">The event.</param>
    /// <returns>The line, or null when it is not an event of this work.</returns>
    public virtual string? Line(JobCard card, CardEvent e) => null;

    /// <summary>An event of any work as a line of the record; null when no work knows it.</summary>
    /// <param name="card">The card.</param>
    /// <param name="e">The event.</param>
    public static string? LineOf(JobCard card, CardEvent e) => All.Select(s => s.Line(card, e)).FirstOrDefault(line => line is not null);

    /// <summary>What the big button says: the step's own words, or the usual ones.</summary>
    protected static string Said(SheetStep step) => step.Said.Length > 0 ? step.Said : "Done";
}
