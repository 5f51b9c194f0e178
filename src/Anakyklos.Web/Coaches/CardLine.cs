using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches;

/// <summary>What happened to a card, a line an event: what all kinds of work share here, the rest where the work is drawn.</summary>
public static class CardLine
{
    /// <summary>Who it was, and when it came where a screen had kept it.</summary>
    public static string By(Recorded recorded, WorkshopClock clock) => recorded.By.Name
        + (recorded.Event.Came is { } came ? $", kept without a line, came {clock.Local(came):HH:mm:ss}" : "");

    /// <summary>One event as a line of the record.</summary>
    public static string Of(JobCard card, Recorded recorded)
    {
        return recorded.Event switch
        {
            CardOpened e => $"Card opened at {OdometerText.Of(e.Odometer, e.OdometerAsRead.Unit)}",
            StepDone e => card.TitleOf(e) + (e.Count is { } n ? $" ({n} counted)" : ""),
            PartAwaited e => $"Waits for {e.Name} {e.Number}{(e.Boat is { } boat ? $", {(e.Comes ? "comes" : "boat of")} {boat:dddd d MMMM}"
                : "")}",
            PartCame e => $"{e.Number} is here",
            PlanChanged e => $"{e.Why}. Put in order again{LiftWords.Later(e.Costs)}",
            WaitCut e => $"Wait ended early: {e.Reason}",
            PanEmptied p => $"Emptied {card.PanName(p.Pan)}",
            SampleTaken e => $"Sample {e.Number} of the {Words.Low(card.Sheet.Fluids[e.Fluid].Name)} taken",
            FeltCold => "Felt that the engine is cold",
            StepPutAside e => $"Left for later: {card.TitleOf(e.Step)} ({e.Reason})",
            TakenBack e => e.From == e.To ? $"Line {e.From} taken back" : $"Lines {e.From} to {e.To} taken back",
            DeviationTaken e => $"{e.What} ({e.Reason})",
            Countersigned e => $"Line {e.Of} countersigned",
            StoodBeside e => $"Stands beside {e.Name} at the brakes",
            FindingNoted e => $"Saw: {e.Text}, {LiftWords.Grade(e.Grade)}",
            StopDecided e =>
                $"“{card.Findings.First(f => f.Seq == e.Of).Event.Text}”: {(e.Mended ? "mended" : "may go as it is")} ({e.Words})",
            CarriedMended e => $"“{card.Opened.Carried![e.Index].Text}” of card {card.Opened.Carried[e.Index].Card}: mended ({e.Words})",
            JobDropped e => $"{e.Name} given up: {e.Reason}",
            ValueRuled { ByLibrary: true } e => $"{e.Ruling.Of}: {e.Ruling.Holds}, as {e.Ruling.By} ruled ({e.Ruling.Reason})",
            ValueRuled e => $"{e.Ruling.Of}: {e.Ruling.Holds}, on this card ({e.Ruling.Reason})",
            VoidAsked e => $"To be made void: {e.Reason}",
            CardVoided e => $"Made void: {e.Reason}",
            Amended e => $"Amended, {Words.Low(e.Name)}: {e.Words}",
            LiftMoved e => e.Up ? "Raised, lifting points looked at" : "Lowered, nothing underneath",
            WordLeft e => $"Word for whoever goes on: {e.Text}",
            Signed => "Signed: the ring is closed",
            _ => WorkScene.LineOf(card, recorded.Event)
                ?? throw new InvalidOperationException($"Nobody says what {recorded.Event.GetType().Name} means."),
        };
    }

    /// <summary>The jobs of a card by name, and which of them were given up.</summary>
    public static string Jobs(JobCard card)
    {
        var kept = string.Join(", ", card.Jobs.Select(j => card.Sheet.Jobs[j].Name));
        var dropped = string.Join(", ", card.Dropped.Select(d => d.Event.Name));
        return kept + (kept.Length > 0 && dropped.Length > 0 ? "; " : "") + (dropped.Length > 0 ? $"given up: {dropped}" : "");
    }

    /// <summary>A press in a few words, for the button that takes it back.</summary>
    /// <param name="card">The card.</param>
    /// <param name="recorded">The press.</param>
    /// <param name="say">Says it in the language of whoever looks, before it is cut: half a sentence is in no book.</param>
    public static string Pressed(JobCard card, Recorded recorded, Func<string, string> say) =>
        say(Of(card, recorded)) is var line && line.Length > 44
        ? line[..line.LastIndexOf(' ', 42)] + " …" : line;
}
