using Anakyklos.Core.Due;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Desk;

/// <summary>A vehicle at intake, as the page shows it: what was typed, what is due and why, and the card that comes of it.</summary>
public sealed class IntakeVisit
{
    internal IntakeVisit(IntakeForm form, IReadOnlyList<Refusal> refusals) => (Form, Refusals) = (form, refusals);

    /// <summary>What was typed and chosen.</summary>
    public IntakeForm Form { get; }

    /// <summary>What is wrong with it; without a field where it is not the input.</summary>
    public IReadOnlyList<Refusal> Refusals { get; }

    /// <summary>The vehicles to choose from: all of them by plate; of many those that are looked for, or the most urgent, with the chosen
    /// one first.</summary>
    public required IReadOnlyList<Vehicle> Vehicles { get; init; }

    /// <summary>How many there are, or fit what is looked for.</summary>
    public required int Found { get; init; }

    /// <summary>Whether there are so many that one is looked for.</summary>
    public required bool AreMany { get; init; }

    /// <summary>The newest sheet of every model.</summary>
    public required IReadOnlyList<ModelSheet> Models { get; init; }

    /// <summary>The plate chosen; empty for a newcomer.</summary>
    public required string Plate { get; init; }

    /// <summary>The bay chosen, or the first that is free.</summary>
    public required string Bay { get; init; }

    /// <summary>Which vehicle with an open card stands in a bay; outside there is always room.</summary>
    public required IReadOnlyDictionary<string, string> Taken { get; init; }

    /// <summary>The sheet of the vehicle, or of the newcomer's model; null when there is none.</summary>
    public ModelSheet? Model { get; internal set; }

    /// <summary>The jobs of that model.</summary>
    public IReadOnlyList<Job> Jobs => Model is { } model ? [.. model.Jobs.Values] : [];

    /// <summary>The jobs chosen.</summary>
    public IReadOnlyList<JobId> Chosen { get; internal set; } = [];

    /// <summary>What scan tools read lately of vehicles that could be taken in; the newest first.</summary>
    public required IReadOnlyList<ReportOf> Lately { get; init; }

    /// <summary>What a scan tool read and the form was filled from; null where it was typed.</summary>
    public ReportOf? Report { get; internal set; }

    /// <summary>The fields that hold what it read.</summary>
    public IReadOnlyList<string> ReadOut { get; internal set; } = [];

    /// <summary>What is to be noted as the identity of the vehicle; empty where it is known, or no tool read it.</summary>
    public string NewIdentity { get; internal set; } = "";

    /// <summary>Whether a lower odometer has to be explained.</summary>
    public bool AskReason { get; internal set; }

    /// <summary>An odometer further than is believed, which somebody has to look at once more; null where none is.</summary>
    public Typed<Distance>? AskMeant { get; internal set; }

    /// <summary>Nothing is to be opened yet: what cannot be read is told above the jobs, which script puts into the page as it
    /// stands.</summary>
    public bool IsPreview { get; internal set; }

    /// <summary>How the vehicle stands; null for a newcomer.</summary>
    public VehicleStanding? Standing { get; internal set; }

    /// <summary>What is proposed; null for a newcomer.</summary>
    public Proposal? Proposal { get; internal set; }

    /// <summary>The distance left that the dash shows; null where it shows none.</summary>
    public Quantity<Distance>? LeftSays { get; internal set; }

    /// <summary>The card that the chosen jobs make; null while none is chosen.</summary>
    public CardPlan? Plan { get; internal set; }

    /// <summary>What that card needs, held against the shelf.</summary>
    public KitList? Kit { get; internal set; }

    /// <summary>Indicators that its last card left lit.</summary>
    public IReadOnlyList<IndicatorLit> Lit { get; internal set; } = [];

    /// <summary>What the cards before leave to this one.</summary>
    public IReadOnlyList<Remembered> LastTime { get; internal set; } = [];

    /// <summary>What is to be planned since any card before, or what an eye is kept on, and nothing has become of.</summary>
    public IReadOnlyList<Recommendation> Recommended { get; internal set; } = [];

    /// <summary>What its driver said that the dash shows; empty for nothing.</summary>
    public string Told { get; internal set; } = "";

    /// <summary>A trip that is noted; it counts where none is typed.</summary>
    public Trip? TripAhead { get; internal set; }

    /// <summary>Stops that the vehicle carries from its last card.</summary>
    public IReadOnlyList<StopCarried> Stops { get; internal set; } = [];

    /// <summary>What the laboratory said of its last samples.</summary>
    public IReadOnlyList<SampledBefore> Sampled { get; internal set; } = [];

    /// <summary>Ids of the jobs that are proposed.</summary>
    public IReadOnlyList<JobId> Proposed => [.. Proposal?.Jobs.Where(p => p.Proposed).Select(p => p.Standing.Item.Job) ?? []];

    internal IReadOnlyList<JobId> Usual => Proposed is { Count: > 0 } due ? due : [.. Jobs.Take(1).Select(j => j.Id)];
}
