using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Desk;

/// <summary>Something that the next card should know of those before.</summary>
/// <param name="What">What.</param>
/// <param name="Says">What came of it, with the card.</param>
public sealed record Remembered(string What, string Says);

/// <summary>What the cards before leave to the next one.</summary>
public static class LastTime
{
    /// <summary>Seals that are on their second use, and jobs that were not done and have not been since.</summary>
    /// <param name="last">The last signed card.</param>
    /// <param name="notAllDone">The signed cards on which a job was given up or left for later, the newest first.</param>
    /// <param name="lastDone">When each job was done last, here or elsewhere.</param>
    /// <param name="sheet">The newest sheet of the model.</param>
    /// <param name="day">The day in the workshop of a moment.</param>
    /// <returns>In this order.</returns>
    public static IReadOnlyList<Remembered> Of(LastCard last, IReadOnlyList<LastCard> notAllDone,
        IReadOnlyDictionary<JobId, DateOnly> lastDone, ModelSheet sheet, Func<DateTimeOffset, DateOnly> day) =>
    [
        .. last.SealsUsedAgain.Where(s => s.Value > 0).Select(s => new Remembered(Name(sheet, s.Key),
            $"used again {(s.Value == 1 ? "once" : $"{s.Value} times")} up to card {last.Number}: it wants a new one this time")),
        .. notAllDone.SelectMany(NotDone).DistinctBy(n => n.Job)
            .Where(n => !lastDone.TryGetValue(n.Job, out var done) || done < day(n.Signed)).Select(n => n.Says),
    ];

    private static IEnumerable<(JobId Job, DateTimeOffset Signed, Remembered Says)> NotDone(LastCard of) => of.Card is not { } card ? [] :
    [
        .. card.Dropped.Select(d => (d.Event.Job, card.Signature!.At,
            new Remembered(d.Event.Name, $"given up on card {of.Number}: {d.Event.Reason}, {d.Recorded.By.Name}"))),
        .. (card.Opened.LeftForLater ?? []).Select(l => (l.Job, card.Signature!.At,
            new Remembered(l.Name, $"left for later on card {of.Number}: {l.Reason}"))),
    ];

    private static string Name(ModelSheet sheet, PartId part) => sheet.Parts.TryGetValue(part, out var known) ? known.Name : part.Text;
}
