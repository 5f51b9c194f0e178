using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;

namespace Anakyklos.Desk.Files;

/// <summary>What was done, as a comma-separated file: a row a job of a signed card.</summary>
public static class HistoryFile
{
    /// <summary>The headings.</summary>
    public static readonly string[] Columns =
        ["plate", "model", "card", "signed", "signed by", "odometer", "job", "done", "next at", "next by", "hash"];

    /// <summary>Writes it.</summary>
    /// <param name="signed">The signed cards.</param>
    /// <param name="local">Tells a time as the workshop's clock shows it.</param>
    /// <param name="hash">The hash of a card's last event.</param>
    public static string Write(IEnumerable<CardAtHand> signed, Func<DateTimeOffset, DateTimeOffset> local, Func<CardNumber, string> hash) =>
        CsvTable.Write(Columns, signed.Where(c => c.Card.Signature is not null).SelectMany(c =>
        {
            var (card, signature) = (c.Card, c.Card.Signature!);
            var (due, done) = (((Signed)signature.Event).Due, card.JobsDone);
            return card.Opened.Jobs.Select(job =>
            {
                var next = due.FirstOrDefault(d => d.Job == job)?.Next;
                return new[]
                {
                    card.Opened.Plate, card.Sheet.FullName, $"{c.Entry.Id}",
                    local(signature.At).ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture), signature.By.Name,
                    Km(card.Opened.Odometer), card.Sheet.Jobs[job].Name,
                    done.Contains(job) ? "yes" : card.Dropped.Any(d => d.Event.Job == job) ? "given up" : "no",
                    next?.At is { } at ? Km(at) : "", next?.By?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "",
                    hash(c.Entry.Id),
                };
            });
        }));

    private static string Km(Quantity<Distance> distance) =>
        $"{distance.In(Distance.Kilometre).ToString("0.###", CultureInfo.InvariantCulture)} km";
}
