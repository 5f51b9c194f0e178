using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Desk;

/// <summary>Something that the next card should know of those before.</summary>
/// <param name="What">What.</param>
/// <param name="Says">What came of it, with the card.</param>
public sealed record Remembered(string What, string Says);

/// <summary>What the last card leaves to the next one.</summary>
public static class LastTime
{
    /// <summary>Seals that are on their second use, jobs that were not done, and what an eye is kept on.</summary>
    /// <param name="id">The number of the last signed card.</param>
    /// <param name="card">The card.</param>
    /// <param name="sheet">The newest sheet of the model.</param>
    /// <returns>In this order.</returns>
    public static IReadOnlyList<Remembered> Of(CardNumber id, JobCard card, ModelSheet sheet) =>
    [
        .. card.SealsLeftIn.Where(s => s.Value > 0).Select(s => new Remembered(Name(sheet, s.Key),
            $"used again {(s.Value == 1 ? "once" : $"{s.Value} times")} up to card {id}: it wants a new one this time")),
        .. card.Dropped.Select(d => new Remembered(d.Event.Name, $"given up on card {id}: {d.Event.Reason}, {d.Recorded.By.Name}")),
        .. (card.Opened.LeftForLater ?? []).Select(l => new Remembered(l.Name, $"left for later on card {id}: {l.Reason}")),
        .. card.Findings.Where(f => f.Event.Grade == FindingGrade.KeepAnEye)
            .Select(f => new Remembered(f.Event.Text, $"an eye is kept on it since card {id}, {f.Recorded.By.Name}")),
    ];

    private static string Name(ModelSheet sheet, PartId part) => sheet.Parts.TryGetValue(part, out var known) ? known.Name : part.Text;
}
