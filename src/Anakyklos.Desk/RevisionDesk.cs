using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What a draft would change if it were put in use.</summary>
/// <param name="Newest">The revision that is in use; null for a model that is not here.</param>
/// <param name="Next">The revision that it would be.</param>
/// <param name="Differences">What is otherwise, in sentences; of a new model nothing.</param>
/// <param name="Vehicles">The vehicles of this model.</param>
/// <param name="Cards">Open cards, which keep the revision they were opened with.</param>
/// <param name="ToOrder">Part numbers that it asks for and the stores do not know.</param>
/// <param name="Unchecked">How many of its values were not compared by two.</param>
/// <param name="Elsewhere">How many say that two have compared them, and came in so with a file: nobody here has.</param>
public sealed record Upheaval(int? Newest, int Next, IReadOnlyList<string> Differences, IReadOnlyList<string> Vehicles,
    IReadOnlyList<(CardNumber Card, string Plate)> Cards, IReadOnlyList<string> ToOrder, int Unchecked,
    int Elsewhere);

/// <summary>Whose a value of a sheet is.</summary>
/// <param name="Writer">Who wrote it, or brought it in with a file.</param>
/// <param name="Readers">Who read it in its source, or ruled on it.</param>
public sealed record ValueHands(PersonId Writer, IReadOnlyList<PersonId> Readers);

/// <summary>Revisions of model sheets come into use and go out of it by the lead, who has seen what that changes.</summary>
public sealed class RevisionDesk(SheetDesk desk, DraftStore drafts, SheetStore sheets, VehicleStore vehicles, CardStore cards,
    ShelfStore shelf, WorkshopClock clock)
{
    /// <summary>What a draft would change; null where it has errors.</summary>
    /// <param name="now">The draft.</param>
    public Upheaval? Of(DraftNow now)
    {
        if (now.Reading.Sheet is not { } sheet)
            return null;
        var newest = sheets.Newest(now.Draft.Sheet);
        var known = shelf.Read().Parts.Select(p => PartNumber.Bare(p.Number)).ToHashSet();
        var ours = vehicles.All().Where(v => v.SheetId == now.Draft.Sheet).Select(v => v.Plate).ToList();
        return new(newest?.Revision, sheets.NextRevision(now.Draft.Sheet),
            newest is null ? [] : [.. SheetDifference.Between(newest, sheet), .. SheetDifference.Words(newest, sheet)], ours,
            [.. cards.Unsigned().Where(c => ours.Contains(c.Plate)).Select(c => (c.Id, c.Plate))],
            [.. sheet.Parts.Values.Select(p => p.Number.Value).Where(n => !known.Contains(PartNumber.Bare(n))).Distinct()],
            now.Values.Count - now.Checked, desk.ReadElsewhere(now).Count);
    }

    /// <summary>Puts a draft in use.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">The lead.</param>
    /// <param name="edition">The edition that was looked at.</param>
    /// <param name="newest">The revision that it was compared with; null for none.</param>
    /// <param name="reason">Why, in words.</param>
    /// <returns>The new revision, or what is wrong.</returns>
    public async Task<(int? Revision, IReadOnlyList<Refusal> Wrong)> PutInUse(long id, Person by, int edition, int? newest, string reason)
    {
        if (by.Role is not Role.Lead)
            return (null, [new("The workshop lead puts a sheet in use.", "Ask the lead.")]);
        if (desk.Find(id) is not { } now)
            return (null, [new("There is no such draft any more.", "Go back to the library.")]);
        if (now.Reading.Sheet is null)
            return (null, [new("Something is wrong in this sheet.", "Put it right first: it is listed beside it.")]);
        if (now.Disputed.Count > 0)
            return (null, [new("Two people read a value otherwise.", "Rule on it first.")]);
        if (Reason.Wrong(reason, "reason", "What is new") is { } wrong)
            return (null, [wrong]);
        var next = sheets.NextRevision(now.Draft.Sheet);
        var text = now.Text.With("revision", JsonValue.Create(next)).ToString();
        return now.Draft.Edition == edition && SheetReader.Read(text).Sheet is { } sheet
            && await drafts.PutInUse(now.Draft, newest, sheet, text, reason.Trim(), by.Id, clock.Now) ? (next, [])
            : (null, [new("The draft or the model has changed since you looked.", "Look at the difference again.")]);
    }

    /// <summary>Whose the values of a model are, as far as they were written or read here.</summary>
    /// <param name="sheet">The model.</param>
    /// <returns>By the value's path; without those that came with the first file and that nobody touched.</returns>
    public IReadOnlyDictionary<string, ValueHands> Hands(SheetId sheet)
    {
        var hands = new Dictionary<string, ValueHands>();
        SheetText? before = null;
        foreach (var draft in drafts.InUse(sheet))
        {
            var text = SheetText.Read(draft.Content, out _)!;
            before ??= draft.Base is { } b && sheets.Text(sheet, b) is { } first ? SheetText.Read(first, out _) : null;
            var writers = drafts.Writers(draft.Id);
            foreach (var path in before is null ? CitedValue.AllOf(text).Select(v => v.Path)
                : SheetForm.Changed(before, text).Select(c => c.Path))
                hands[path] = new(writers.TryGetValue(path, out var who) ? who : draft.StartedBy, []);
            foreach (var look in drafts.Looks(draft.Id).Where(l => l.Outcome is "same" or "ruled"))
            {
                var own = hands.GetValueOrDefault(look.Path) ?? new(draft.StartedBy, []);
                hands[look.Path] = own with { Readers = [.. own.Readers.Append(look.Person).Distinct()] };
            }
            before = text;
        }
        return hands;
    }

    /// <summary>Withdraws the newest revision of a model; the one before it holds again, for cards that are opened from then on.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="revision">The revision.</param>
    /// <param name="by">The lead.</param>
    /// <param name="reason">Why.</param>
    public async Task<IReadOnlyList<Refusal>> Withdraw(SheetId sheet, int revision, Person by, string reason) =>
        by.Role is not Role.Lead ? [new("The workshop lead withdraws a revision.", "Ask the lead.")]
        : Reason.Wrong(reason, "withdrawn", "The reason") is { } wrong ? [wrong]
        : await drafts.Withdraw(sheet, new(revision, "withdrawn", by.Id, reason.Trim(), clock.Now)) ? []
        : [new("Only the newest revision is withdrawn, and only where an older one is there to hold.", "Write a new revision instead.")];
}
