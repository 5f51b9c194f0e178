using System.Text.Json.Serialization;
using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Due;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Records;

/// <summary>How something on the record stands.</summary>
public enum RecordState
{
    /// <summary>It is still to be done.</summary>
    NotYet,

    /// <summary>It is done.</summary>
    Done,

    /// <summary>It was left out for good; why stands among what strayed from the book.</summary>
    LeftOut,
}

/// <summary>A fastener that was tightened, or checked where it sat.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Reading">The reading that holds; null when there is none, as where it is tightened by hand.</param>
/// <param name="Outcome">How that reading compares; null without one.</param>
/// <param name="Book">What the book asks; null where it asks for no torque.</param>
/// <param name="State">How its step stands.</param>
/// <param name="IsCheck">It was checked, not undone.</param>
/// <param name="Device">The wrench that sent the reading; null when a person read it off.</param>
/// <param name="Wrench">The wrench that clicked at its setting; null where a number was read.</param>
/// <param name="AtFastener">What came to the fastener through a crow-foot; null where nothing was across the wrench.</param>
/// <param name="Each">Of a group, each fastener by its number; null for one alone.</param>
/// <param name="Asks">All that the book asks, such as a turn after contact.</param>
/// <param name="Of">How an amendment names it, as all lines are named.</param>
public sealed record TightenedLine(string Name, Typed<Torque>? Reading, TorqueOutcome? Outcome, ToTorque? Book, RecordState State,
    bool IsCheck, DeviceId? Device, string? Wrench, Typed<Torque>? AtFastener, IReadOnlyList<TightenedPlace>? Each, TighteningSpec Asks,
    string Of = "");

/// <summary>A fastener of a group that was tightened.</summary>
/// <param name="Number">Its number on the drawing.</param>
/// <param name="Named">Its wheel or side, and its turn there.</param>
/// <param name="Reading">The reading that holds.</param>
/// <param name="Outcome">How it compares.</param>
/// <param name="Wrench">The wrench that clicked at its setting; null where a number was read.</param>
/// <param name="Device">The wrench that sent it; null when a person said it.</param>
/// <param name="Together">How many were said at once with it, in their order; 1 where it was said by itself.</param>
public sealed record TightenedPlace(int Number, string Named, Typed<Torque> Reading, TorqueOutcome Outcome, string? Wrench,
    DeviceId? Device, int Together);

/// <summary>A fluid that went in.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Product">What was printed on the can; empty while nothing lies there.</param>
/// <param name="In">How much went in.</param>
/// <param name="Book">How much the book gives.</param>
/// <param name="CameOut">What was measured coming out; null when it was not.</param>
/// <param name="Level">The last level read; null when none was.</param>
/// <param name="School">Where between the marks this workshop fills to; null where no marks are read.</param>
/// <param name="IsInOne">More than half the span was topped up on one reading, as this workshop does.</param>
/// <param name="Depth">The last level as a depth below the filler; null where it is not read on a rod.</param>
/// <param name="Found">Where it stood before it was let out; null where nobody looked.</param>
/// <param name="Use">What was used since it was filled last; null where that is not known.</param>
/// <param name="From">Out of which containers of the stores it came; null where none is known.</param>
/// <param name="InPart">What of it went into a part before that was fitted, such as a filter; null where nothing did.</param>
/// <param name="Rinsed">What was poured through before it was filled; null where nothing was.</param>
/// <param name="Meter">The dispenser that metered it, or some of it; null where none did.</param>
/// <param name="Metered">How much of it dispensers metered; null where none did.</param>
/// <param name="BeforeRun">Where it stood before the first run; null where nobody looked.</param>
/// <param name="RanOver">It ran out of the hole through which it is filled.</param>
/// <param name="Of">How an amendment names it.</param>
public sealed record FilledLine(string Name, string Product, Quantity<Volume> In, Quantity<Volume> Book, Quantity<Volume>? CameOut,
    Level? Level, TargetSchool? School, bool IsInOne = false, Typed<Length>? Depth = null, Level? Found = null,
    FluidUse? Use = null, IReadOnlyList<PouredFrom>? From = null, DeviceId? Meter = null,
    Quantity<Volume>? InPart = null, Quantity<Volume>? Rinsed = null,
    Quantity<Volume>? Metered = null, Level? BeforeRun = null, bool RanOver = false, string Of = "");

/// <summary>A part that was laid out for the card.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Number">The number of what lies there; empty while nothing does.</param>
/// <param name="OldAgain">The old one goes back.</param>
/// <param name="State">Whether it is in its place; what is used up and not fitted counts with the kit.</param>
/// <param name="StoodInFor">The number of the sheet, where another lies there; null where it is that one.</param>
/// <param name="Of">How an amendment names it.</param>
public sealed record FittedLine(string Name, string Number, bool OldAgain, RecordState State, string? StoodInFor = null,
    string Of = "");

/// <summary>Something that strayed from the book.</summary>
/// <param name="Seq">The seq of its event.</param>
/// <param name="What">What.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">Who did it.</param>
/// <param name="At">When.</param>
/// <param name="SecondName">Who put a second name to it; null when nobody did.</param>
/// <param name="NeedsSecondName">Whether one is needed.</param>
public sealed record StrayedLine(int Seq, string What, string Reason, Person By, DateTimeOffset At, string? SecondName,
    bool NeedsSecondName)
{
    /// <summary>Whether somebody must still put a second name to it.</summary>
    [JsonIgnore]
    public bool WantsSecondName => NeedsSecondName && SecondName is null;
}

/// <summary>Something that strayed from the usual course and is no deviation: its event says what.</summary>
/// <param name="Seq">The seq of its event.</param>
/// <param name="How">How.</param>
/// <param name="By">Who did it, or stood there.</param>
/// <param name="At">When.</param>
public sealed record UnusualLine(int Seq, Stray How, string By, DateTimeOffset At);

/// <summary>A reading that holds, passed or not, and can be put right.</summary>
/// <param name="Seq">The seq of its event.</param>
/// <param name="Name">The fastener.</param>
/// <param name="Reading">What the wrench said.</param>
/// <param name="Outcome">How it compares.</param>
/// <param name="By">Who read it.</param>
/// <param name="At">When.</param>
public sealed record ReadingLine(int Seq, string Name, Typed<Torque> Reading, TorqueOutcome Outcome, Person By, DateTimeOffset At);

/// <summary>A job that was given up.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">Who gave it up.</param>
public sealed record GivenUpLine(string Name, string Reason, string By);

/// <summary>A stop of an earlier card that came with the vehicle.</summary>
/// <param name="Index">Its place, from 0.</param>
/// <param name="Stop">What was found, and who let the vehicle go.</param>
/// <param name="Mended">It was mended on this card.</param>
public sealed record CarriedLine(int Index, StopCarried Stop, bool Mended);

/// <summary>Something that was seen.</summary>
/// <param name="Grade">How bad.</param>
/// <param name="Text">What.</param>
/// <param name="By">Who saw it.</param>
/// <param name="Decided">What the lead decided about it; null when nothing was to be decided, or is not yet.</param>
/// <param name="Photo">The id of the picture of it; null for none.</param>
/// <param name="Of">How an amendment names it.</param>
public sealed record SeenLine(FindingGrade Grade, string Text, string By, StopDecision? Decided, string? Photo = null, string Of = "");

/// <summary>What the lead decided about a stop.</summary>
/// <param name="By">Who.</param>
/// <param name="Mended">Put right; otherwise it goes on as it is.</param>
/// <param name="Words">In the lead's words.</param>
public sealed record StopDecision(string By, bool Mended, string Words);

/// <summary>What was put right after the card was signed.</summary>
/// <param name="Seq">The seq of its event.</param>
/// <param name="Of">The line that it stands beside.</param>
/// <param name="Name">The name of that line.</param>
/// <param name="Words">How it really was.</param>
/// <param name="By">Who signed it.</param>
/// <param name="At">When.</param>
public sealed record AmendedLine(int Seq, string Of, string Name, string Words, string By, DateTimeOffset At);

/// <summary>A sample for the laboratory.</summary>
/// <param name="Fluid">Of which fluid, by name.</param>
/// <param name="Number">Which sample of the card; null for one that was asked for and not taken.</param>
public sealed record SampleLine(string Fluid, int? Number);

/// <summary>What was found at a point of a list of inspections.</summary>
/// <param name="Step">The list.</param>
/// <param name="Name">The point.</param>
/// <param name="Found">What was read or chosen first, in full.</param>
/// <param name="Left">What was read or chosen last; the same where it was done once.</param>
/// <param name="Passes">What passes, in words; empty where an answer was chosen.</param>
/// <param name="Outcome">What the last is worth.</param>
/// <param name="Before">The least that the last card of the vehicle read there, or null.</param>
/// <param name="Lasts">How far it goes until it is down to its limit, by those two; null where nobody can say.</param>
/// <param name="Of">How an amendment names it.</param>
public sealed record InspectedLine(string Step, string Name, string Found, string Left, string Passes, PointOutcome Outcome,
    Gauged? Before, Quantity<Distance>? Lasts, string Of = "");

/// <summary>By which schools of the workshop something was let out.</summary>
/// <param name="Air">When air was let in above an engine oil; null where none was let out.</param>
/// <param name="DripMinutes">For how many minutes it ran out at least, where that is longer than the sheet wants; otherwise 0.</param>
public sealed record DrainedBy(DrainSchool? Air, int DripMinutes);

/// <summary>The card as others read it: page, print and JSON show this and work nothing out themselves.</summary>
/// <param name="Tightened">In the order of the card.</param>
/// <param name="Filled">In the order of the card.</param>
/// <param name="Fitted">In the order of the card.</param>
/// <param name="Readings">Those that can be put right, in the order they were read.</param>
/// <param name="Strayed">In the order it happened.</param>
/// <param name="Seen">In the order it happened.</param>
/// <param name="LeftForLater">Jobs that were due and are not done this time.</param>
/// <param name="GivenUp">Jobs that were given up.</param>
/// <param name="NotCounted">Names of jobs of which an essential step was left out: their intervals go on as before.</param>
/// <param name="Carried">Stops of earlier cards.</param>
/// <param name="Due">When each job falls due next; empty until the card is signed.</param>
/// <param name="Drained">By which schools something was let out; null where nothing was, or none of them applied.</param>
/// <param name="Samples">Samples that were taken, or asked for and not taken; null for none.</param>
/// <param name="Inspected">What was found at the points that were inspected, in the order of the card; null for none.</param>
/// <param name="Unusual">What strayed from the usual course beside deviations and findings, in the order it happened; null for
/// nothing.</param>
/// <param name="WorkedBy">The names of those who did its steps, in the order in which each came to it.</param>
/// <param name="Amended">What was put right after it was signed; null for nothing.</param>
/// <param name="Rulings">What was ruled on disputed values that the card used; null for nothing.</param>
public sealed record ServiceRecord(IReadOnlyList<TightenedLine> Tightened, IReadOnlyList<FilledLine> Filled,
    IReadOnlyList<FittedLine> Fitted, IReadOnlyList<ReadingLine> Readings, IReadOnlyList<StrayedLine> Strayed,
    IReadOnlyList<SeenLine> Seen, IReadOnlyList<JobLeft> LeftForLater, IReadOnlyList<GivenUpLine> GivenUp,
    IReadOnlyList<string> NotCounted, IReadOnlyList<CarriedLine> Carried, IReadOnlyList<JobDue> Due,
    DrainedBy? Drained = null, IReadOnlyList<SampleLine>? Samples = null, IReadOnlyList<InspectedLine>? Inspected = null,
    IReadOnlyList<UnusualLine>? Unusual = null, IReadOnlyList<string>? WorkedBy = null, IReadOnlyList<AmendedLine>? Amended = null,
    IReadOnlyList<Ruling>? Rulings = null)
{
    /// <summary>The record of a card as it stands.</summary>
    /// <returns>The record as the card stands; a signed card gives the same for ever.</returns>
    public static ServiceRecord Of(JobCard card) => new(
        [.. card.Steps.Where(s => s.Traits.Fastens || s.Traits.Checks).Select(s => Line(card, s))],
        [.. card.FluidsWanted.Select(f => Line(card, f))],
        [.. card.PartsWanted.Select(p => Line(card, p))],
        [.. card.CanBePutRight.Select(h => Line(card, h)).OfType<ReadingLine>()],
        [.. card.Deviations.Select(d => new StrayedLine(d.Seq, d.Event.What, d.Event.Reason, d.Recorded.By, d.Recorded.At,
            SecondName(card, d.Seq), d.Event.NeedsCountersignature))],
        [.. card.Findings.Select(f => new SeenLine(f.Event.Grade, f.Event.Text, f.Recorded.By.Name, card.DecisionOn(f.Seq) is { } decided
            ? new(decided.Recorded.By.Name, decided.Event.Mended, decided.Event.Words) : null, f.Event.Photo,
            Amendable.Event(f.Seq)))],
        card.Opened.LeftForLater ?? [],
        [.. card.Dropped.Select(d => new GivenUpLine(d.Event.Name, d.Event.Reason, d.Recorded.By.Name))],
        [.. card.Jobs.Except(card.JobsDone).Select(j => card.Sheet.Jobs[j].Name)],
        [.. (card.Opened.Carried ?? []).Select((stop, index) => new CarriedLine(index, stop, card.IsMended(index)))],
        card.Signature?.Event is Signed signed ? signed.Due : [], DrainedOn(card),
        SamplesOf(card) is { Count: > 0 } samples ? samples : null, InspectedOn(card) is { Count: > 0 } inspected ? inspected : null,
        UnusualOn(card) is { Count: > 0 } unusual ? unusual : null,
        card.WorkedBy is { Count: > 0 } worked ? worked : null,
        card.Amendments.Count == 0 ? null : [.. card.Amendments.Select(a =>
            new AmendedLine(a.Seq, a.Event.Of, a.Event.Name, a.Event.Words, a.Recorded.By.Name, a.Recorded.At))],
        card.RulingsUsed.ToList() is { Count: > 0 } rulings ? rulings : null);

    /// <summary>What was put right of a line.</summary>
    /// <param name="of">The line, as its <c>Of</c> names it.</param>
    public IEnumerable<AmendedLine> AmendedOf(string of) => (Amended ?? []).Where(a => a.Of == of);

    private static IReadOnlyList<UnusualLine> UnusualOn(JobCard card) =>
        [.. card.Strays.Select(s => new UnusualLine(s.Recorded.Seq, s.How, s.Recorded.By.Name, s.Recorded.At))];

    private static IReadOnlyList<InspectedLine> InspectedOn(JobCard card) =>
    [
        .. card.Steps.Where(s => s.Spec is InspectSpec).SelectMany(s => ((InspectSpec)s.Spec!).Points
            .Select(p => (Step: s, Point: p, Found: card.FoundAt(s.Id).FirstOrDefault(f => f.Point == p.Id)))
            .Where(l => l.Found is not null).Select(l => Line(card, l.Step, l.Point, l.Found!))),
    ];

    private static InspectedLine Line(JobCard card, SheetStep step, InspectPoint point, PointFound found)
    {
        var before = card.InspectedBefore(step.Id, point.Id);
        var lasts = point.Measure is { Rule: GaugeRule.Wear, Low: { } low } && JobCard.LeastOf(found.Left) is { } least
            ? WearForecast.Of(before, least, card.Opened.Odometer)?.Lasts(low) : null;
        return new(card.TitleOf(step), point.Name, found.Found, found.Left, point.Measure?.Passes ?? "", found.Outcome, before?.Least,
            lasts, Amendable.Found(step.Id, point.Id));
    }

    private static IReadOnlyList<SampleLine> SamplesOf(JobCard card) =>
    [
        .. card.Samples.Select(s => new SampleLine(card.Sheet.Fluids[s.Fluid].Name, s.Number)),
        .. card.SamplesAsked.Select(f => new SampleLine(f.Name, null)),
    ];

    private static DrainedBy? DrainedOn(JobCard card)
    {
        if (card.Opened.Schools is not { } schools)
            return null;
        var drained = card.Steps.Where(s => s.Traits.LetsOut && card.State(s.Id).Status == StepStatus.Done)
            .Select(s => (Step: s, Fluid: card.Sheet.Fluids[card.Sheet.Fasteners[s.What].Drains!.Value])).ToList();
        DrainSchool? air = drained.Any(d => d.Fluid is { Pumped: true, Through.Count: > 0 }) ? schools.Drain : null;
        // Where the sheet wants longer than the workshop, it was the sheet's wait.
        var drips = drained.Any(d => d.Step.Wait?.Lasts == TimeSpan.FromMinutes(schools.DripMinutes)) ? schools.DripMinutes : 0;
        return air is null && drips == 0 ? null : new(air, drips);
    }

    private static TightenedLine Line(JobCard card, SheetStep step)
    {
        var fastener = card.Sheet.Fasteners[step.What];
        var state = StateOf(card, step);
        var read = state == RecordState.Done ? card.TorqueAt(step) : null;
        var last = read is null ? null
            : card.HappenedAt(step.Kind).Where(h => h.Step.Id == step.Id).Select(h => h.Event).OfType<ReadingTaken>().LastOrDefault();
        return new(fastener.Name, read?.Reading, read?.Outcome, fastener.LastTorque, state, step.Traits.Checks,
            read is null ? null : card.ReadBy(step), last?.Wrench, last?.AtFastener,
            fastener.Count > 1 && read is not null && EachOf(card, step) is { Count: > 0 } each ? each : null,
            fastener.Tightening.Value, Amendable.Torque(step.Id));
    }

    // Of each fastener the reading that was taken last, in the order of their numbers.
    private static IReadOnlyList<TightenedPlace> EachOf(JobCard card, SheetStep step)
    {
        var group = Fastening.Of(card, step).Plan.Group;
        var read = new SortedDictionary<int, ReadingTaken>();
        foreach (var reading in card.HappenedAt(step.Kind).Where(h => h.Step.Id == step.Id).Select(h => h.Event).OfType<ReadingTaken>()
            .Where(r => r.Places is not null))
            foreach (var place in reading.Places!)
                read[place] = reading;
        return [.. read.Select(r => new TightenedPlace(r.Key, group.Named(r.Key), r.Value.Reading, r.Value.Outcome,
            r.Value.Wrench, r.Value.Device, r.Value.Places!.Count))];
    }

    private static ReadingLine? Line(JobCard card, Recorded noted)
    {
        var step = card.Known(((IStepEvent)noted.Event).Step);
        var fastener = card.Sheet.Fasteners.GetValueOrDefault(step.What);
        var number = fastener?.Count > 1 ? $", {Fastening.Of(card, step).Plan.Group.Named(Coach.Of(step).NotedOf(noted.Event))}" : "";
        return Coach.Of(step).TorqueOf(noted.Event) is var (reading, outcome)
            ? new(noted.Seq, fastener!.Name + number, reading, outcome, noted.By, noted.At) : null;
    }

    private static FilledLine Line(JobCard card, FluidSystem fluid)
    {
        var state = card.Fluid(fluid.Id);
        return new(fluid.Name, card.OilInHand(fluid.Id)?.Product ?? "", state.Poured, card.BookOf(fluid.Id), state.CameOut, state.Level,
            card.FillsByMarks(fluid.Id) ? card.FillOf(fluid.Id).School : null,
            card.FillsByMarks(fluid.Id) && card.FillOf(fluid.Id) is { Stages: PourStages.InOne } fill && card.HappenedAt("gauge")
                .Any(h => h.Event is Poured p && h.Step.What == fluid.Id && fill.IsMoreThanHalf(p.Amount.Value)), state.Depth, state.Found,
            card.UseOf(fluid, DateOnly.FromDateTime((card.Ended ?? card.History[^1]).At.DateTime)),
            card.CansOf(fluid.Id) is { Count: > 0 } cans ? cans : null, card.MeteredBy(fluid.Id),
            state.InPart > Quantity<Volume>.Zero ? state.InPart : null, state.Rinsed > Quantity<Volume>.Zero ? state.Rinsed : null,
            card.Metered(fluid.Id) is var metered && metered > Quantity<Volume>.Zero ? metered : null,
            state.BeforeRun,
            fluid.FillBy == FillBy.Overflow && card.Steps.Any(s => s.Traits.Fills && s.What == fluid.Id
                && card.State(s.Id).Status == StepStatus.Done), Amendable.Fluid(fluid.Id));
    }

    private static FittedLine Line(JobCard card, Part part)
    {
        var number = card.Kit?.Parts.GetValueOrDefault(part.Id) ?? "";
        var isIn = card.IsFitted(part.Id) || (number.Length > 0 && !card.IsFittedByAStep(part.Id));
        var old = number == KitConfirmed.OldOneAgain;
        return new(part.Name, old ? "" : number, old, isIn ? RecordState.Done : RecordState.NotYet,
            old || number.Length == 0 || PartNumber.Same(number, part.Number.Value) ? null : part.Number.Value,
            Amendable.Part(part.Id));
    }

    private static string? SecondName(JobCard card, int seq) =>
        card.History.FirstOrDefault(h => h.Event is Countersigned c && c.Of == seq)?.By.Name;

    private static RecordState StateOf(JobCard card, SheetStep step) => card.State(step.Id).Status switch
    {
        StepStatus.Done => RecordState.Done,
        StepStatus.LeftOut => RecordState.LeftOut,
        _ => RecordState.NotYet,
    };
}
