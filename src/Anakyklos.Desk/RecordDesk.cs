using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Records that leave the workshop as files, and those of others that come in.</summary>
public sealed class RecordDesk(CardStore cards, SheetStore sheets, SettingStore settings, BroughtRecordStore brought, WorkshopClock clock)
{
    /// <summary>The file of a signed card.</summary>
    /// <param name="id">The card.</param>
    /// <returns>JSON; null where there is no such card, or it is not signed.</returns>
    public string? Write(CardNumber id) => cards.Find(id) is { Signature: not null } card
        && sheets.Text(card.Opened.SheetId, card.Opened.SheetRevision) is { } sheet
        ? RecordFile.Write(settings.Read().Name, id, card, sheet, cards.Chain(id)) : null;

    /// <summary>The hash of a card's last event, or of the last up to an event.</summary>
    /// <param name="id">The card.</param>
    /// <param name="upTo">The seq of the event; null for the last.</param>
    public string Hash(CardNumber id, int? upTo = null) => upTo is not { } seq ? cards.HeadHash(id)
        : cards.Chain(id).LastOrDefault(l => l.Seq <= seq)?.Hash ?? "";

    /// <summary>Verifies a file of another workshop and keeps it.</summary>
    /// <param name="text">The file's text.</param>
    /// <param name="by">Who brings it.</param>
    /// <returns>The record that is here now; or what is wrong.</returns>
    public async Task<(VerifiedRecord? Record, IReadOnlyList<Refusal> Wrong)> BringIn(string text, Person by)
    {
        var (record, wrong) = RecordFile.Read(text);
        if (record is null)
            return (null, wrong);
        await brought.Keep(new(record.Hash, record.Workshop, record.Number.Value, record.Card.Opened.Plate, record.Card.Signature!.At,
            clock.Now), text, by.Id);
        return (record, []);
    }

    /// <summary>A record of another workshop, verified once more; null where there is none of that name.</summary>
    /// <param name="hash">The hash of its last event.</param>
    public VerifiedRecord? Find(string hash) => brought.Content(hash) is { } text ? RecordFile.Read(text).Record : null;
}
