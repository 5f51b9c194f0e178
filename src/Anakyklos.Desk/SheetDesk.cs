using System.Collections.Concurrent;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A value that two people read otherwise, and that asks for a ruling.</summary>
/// <param name="Value">The value as the draft has it.</param>
/// <param name="Writer">Who wrote it.</param>
/// <param name="Reader">Who read it otherwise.</param>
/// <param name="Typed">What they typed, by the paths of its fields.</param>
public sealed record DisputedReading(CitedValue Value, PersonId Writer, PersonId Reader, IReadOnlyDictionary<string, string> Typed);

/// <summary>A draft as it is now.</summary>
/// <param name="Draft">The draft.</param>
/// <param name="Text">Its text.</param>
/// <param name="Reading">The sheet, or everything that is wrong in it.</param>
/// <param name="Values">All that it takes from its sources.</param>
/// <param name="Disputed">The values that ask for a ruling.</param>
/// <param name="Writers">Who wrote which value.</param>
public sealed record DraftNow(Draft Draft, SheetText Text, SheetReading Reading, IReadOnlyList<CitedValue> Values,
    IReadOnlyList<DisputedReading> Disputed, IReadOnlyDictionary<string, PersonId> Writers)
{
    /// <summary>How many of its values were compared by two.</summary>
    public int Checked => Values.Count(v => v.IsChecked);

    /// <summary>Make and model.</summary>
    public string Name => $"{Text.Said("make")} {Text.Said("name")}".Trim();

    /// <summary>Who wrote a value.</summary>
    public PersonId WriterOf(string path) => Writers.TryGetValue(path, out var who) ? who : Draft.StartedBy;

    /// <summary>The words of a value that has no numbers, such as how something is opened: what there is to be read.</summary>
    /// <param name="value">The value.</param>
    public IReadOnlyList<string> WordsOf(CitedValue value) => SheetShape.At(value.Path) is not { } shape ? []
        : [.. shape.Members.Where(m => m.Kind is EntryKind.Text or EntryKind.Texts && m.Name is not ("from" or "at")
            && m.RefersTo.Length == 0).Select(m => CitedValue.Typed(Text, $"{value.Path}.{m.Name}")).Where(t => t.Length > 0)];

    /// <summary>The values that somebody may check: those of others, and not those that they have read already.</summary>
    /// <param name="who">Who.</param>
    public IReadOnlyList<CitedValue> ToCheck(PersonId who) => [.. Values.Where(v => BlindCheck.May(v, WriterOf(v.Path), who)
        && Disputed.All(d => d.Value.Path != v.Path))];
}

/// <summary>
/// The desk at which model sheets are written, and checked by a second person who does not see what the first one wrote. What is written is
/// the file itself: whatever was not touched stays in it letter by letter.
/// </summary>
public sealed class SheetDesk(DraftStore drafts, SheetStore sheets, PracticeDesk practice, WorkshopClock clock)
{
    private const int KeptReady = 30;

    private static readonly Refusal Gone = new("There is no such draft any more.", "Go back to the library.");
    private static readonly Refusal Quicker = new("Somebody else has changed this draft just now.", "Load the page again: what you typed "
        + "is still in its fields.");

    private readonly ConcurrentDictionary<string, SheetReading> _read = new();

    /// <summary>The drafts that are being written, the one that was changed last first.</summary>
    public IReadOnlyList<DraftNow> Open() => [.. drafts.Open().Select(Now)];

    /// <summary>A draft that is being written; null when there is none of this number.</summary>
    public DraftNow? Find(long id) => drafts.Find(id) is { Ended: "" } draft ? Now(draft) : null;

    private DraftNow Now(Draft draft)
    {
        var text = SheetText.Read(draft.Content, out _)!;
        var (values, writers) = (CitedValue.AllOf(text), drafts.Writers(draft.Id));
        var now = new DraftNow(draft, text, Reading(draft.Content), values, [], writers);
        return now with
        {
            Disputed = [.. drafts.Looks(draft.Id).Where(l => l.Outcome == "other")
                .Select(l => (Look: l, Value: values.FirstOrDefault(v => v.Path == l.Path))).Where(x => x.Value is not null)
                .Select(x => new DisputedReading(x.Value!, now.WriterOf(x.Look.Path), x.Look.Person,
                    JsonSerializer.Deserialize<Dictionary<string, string>>(x.Look.Typed)!))],
        };
    }

    private SheetReading Reading(string content)
    {
        if (_read.Count > KeptReady)
            _read.Clear();
        return _read.GetOrAdd(content, c => SheetRehearsal.Read(Encoding.UTF8.GetBytes(c)));
    }

    // A value is written by whoever knows the vehicles; what comes of it is for the lead.
    private static Refusal? Refused(Person by) => by.WorksOnCards ? null
        : new("Only technicians and the lead write and check sheets.", "Ask the lead.");

    /// <summary>Begins the sheet of a model that is not here.</summary>
    /// <param name="by">Who.</param>
    /// <param name="make">The make.</param>
    /// <param name="name">The model.</param>
    /// <param name="stands"><c>lift</c> or <c>ground</c>.</param>
    /// <param name="like">A model that it is like: its sheet is copied, and nothing of it counts as compared; empty for none.</param>
    /// <returns>Its number, or what is wrong.</returns>
    public async Task<(long? Draft, IReadOnlyList<Refusal> Wrong)> Start(Person by, string make, string name, string stands, string like)
    {
        if (Refused(by) is { } not)
            return (null, [not]);
        List<Refusal> wrong = [];
        foreach (var (field, text, what) in new[] { ("make", make, "The make"), ("name", name, "The model") })
            if (string.IsNullOrWhiteSpace(text) || text.Length > 100)
                wrong.Add(new($"{what} is {(string.IsNullOrWhiteSpace(text) ? "missing" : "longer than 100 signs")}.", "Write it as it "
                    + "stands on the vehicle.", Field: field));
        if (stands is not ("lift" or "ground"))
            wrong.Add(new("It stands on a lift, or on the ground.", "Choose one.", Field: "stands"));
        var newest = like.Length == 0 ? null : sheets.Newest(like);
        if (like.Length > 0 && newest is null)
            wrong.Add(new("There is no such model to copy.", "Choose one of the list.", Field: "like"));
        if (wrong.Count > 0)
            return (null, wrong);
        var id = SheetIds.For($"{make} {name}", i => sheets.Revisions(i).Count > 0 || drafts.Open().Any(d => d.Sheet == i));
        var text0 = newest is null ? SheetText.New(id, make.Trim(), name.Trim(), stands)
            : SheetText.Read(sheets.Text(newest.Id, newest.Revision)!, out _)!.With("id", JsonValue.Create(id))
                .With("revision", JsonValue.Create(1)).With("make", JsonValue.Create(make.Trim()))
                .With("name", JsonValue.Create(name.Trim())).With("stands", JsonValue.Create(stands));
        // What another model's book says nobody has read in the book of this one.
        text0 = CitedValue.AllOf(text0).Where(v => v.CheckedBy > 0).Aggregate(text0, (t, v) => BlindCheck.Marked(t, v.Path, 0));
        return Begun(await drafts.Begin(id, text0.ToString(), null, by.Id, clock.Now));
    }

    /// <summary>Begins the next revision of a model that is here.</summary>
    /// <param name="by">Who.</param>
    /// <param name="sheet">The model.</param>
    /// <param name="revision">The revision that it begins with: the newest, or one to which it goes back.</param>
    public async Task<(long? Draft, IReadOnlyList<Refusal> Wrong)> Revise(Person by, SheetId sheet, int revision)
    {
        if (Refused(by) is { } not)
            return (null, [not]);
        if (sheets.Text(sheet, revision) is not { } text || SheetText.Read(text, out _) is null)
            return (null, [new("There is no such revision.", "Load the page again.")]);
        return Begun(await drafts.Begin(sheet, text, revision, by.Id, clock.Now));
    }

    /// <summary>Takes a file in as a draft: of a model that is in use, it comes into use only when the lead has seen what it
    /// changes.</summary>
    /// <param name="by">Who.</param>
    /// <param name="text">The file's text.</param>
    public async Task<(long? Draft, IReadOnlyList<Refusal> Wrong)> TakeIn(Person by, string text)
    {
        if (Refused(by) is { } not)
            return (null, [not]);
        if (Read(text, out var wrong) is not { } sheet)
            return (null, [wrong!]);
        var id = sheet.Said("id");
        if (sheet.Said("format") != ModelSheet.Format || id.Length == 0)
            return (null, [new($"A sheet says “{ModelSheet.Format}” as its format, and its id.", "Look at the first lines of the file.")]);
        return Begun(await drafts.Begin(id, sheet.ToString(), sheets.Newest(id)?.Revision, by.Id, clock.Now));
    }

    private static SheetText? Read(string text, out Refusal? wrong)
    {
        var sheet = SheetText.Read(text, out wrong);
        if (sheet is not null && SheetIds.Wrong(sheet) is { Count: > 0 } names)
            (sheet, wrong) = (null, new($"Here stands what is no id: {string.Join("; ", names.Take(5))}.",
                "Use small letters, digits and dashes."));
        return sheet;
    }

    private static (long?, IReadOnlyList<Refusal>) Begun(long? id) => id is not null ? (id, [])
        : (null, [new($"{DraftStore.Most} sheets are being written; there can be no more at once.", "Finish one, or throw one away.")]);

    /// <summary>Puts typed fields of a thing into a draft.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="path">The thing; empty for what the sheet says of the model as a whole.</param>
    /// <param name="was">The thing's text as it stood when the page was made: what others changed since is not written over.</param>
    /// <param name="typed">What was typed for a path; null for a field that did not stand on the page.</param>
    /// <returns>What is wrong; nothing is changed then.</returns>
    public Task<IReadOnlyList<Refusal>> Change(long id, Person by, string path, string was, Func<string, string?> typed) =>
        Write(id, by, now => path.Length > 0 && now.Text.Raw(path) is { } raw && Mark(raw) != was
            ? (now.Text, [Quicker]) : SheetForm.Apply(now.Text, path, typed));

    /// <summary>Says in a few letters how a thing stands, so that a page can tell whether it has been changed since.</summary>
    public static string Mark(string raw) =>
        Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(Encoding.UTF8.GetBytes(raw)))[..16];

    /// <summary>Adds a thing to a table of a draft.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="table">The table, such as <c>fasteners</c>.</param>
    /// <param name="name">Its name.</param>
    /// <returns>Its path, or what is wrong.</returns>
    public async Task<(string? Path, IReadOnlyList<Refusal> Wrong)> Add(long id, Person by, string table, string name)
    {
        string? path = null;
        var wrong = await Write(id, by, now =>
        {
            if (SheetShape.Tables.FirstOrDefault(t => t.Name == table) is not { } shape)
                return (now.Text, [new("There is nothing of this kind in a sheet.", "Load the page again.")]);
            if (string.IsNullOrWhiteSpace(name) || name.Length > 100)
                return (now.Text, [new("Say what it is called, in at most 100 signs.", "Such as “Drain plug of the rear axle”.",
                    Field: "called")]);
            var thing = SheetIds.For(name, i => SheetShape.Tables.Any(t => now.Text.Has($"{t.Name}.{i}")));
            path = $"{table}.{thing}";
            var called = shape.Members.FirstOrDefault(m => m.Name is "name" or "title")?.Name;
            return (now.Text.With(path, called is null ? new JsonObject() : new JsonObject { [called] = name.Trim() }), []);
        });
        return wrong.Count > 0 ? (null, wrong) : (path, wrong);
    }

    /// <summary>The values of a draft that say that enough people have read them, though nobody here has: they came with a file.</summary>
    /// <param name="now">The draft.</param>
    /// <returns>Their paths, in the order of the sheet.</returns>
    public IReadOnlyList<string> ReadElsewhere(DraftNow now)
    {
        var inUse = sheets.Newest(now.Draft.Sheet) is { } newest ? SheetText.Read(sheets.Text(newest.Id, newest.Revision)!, out _) : null;
        // What stands in the revision in use as it does here was seen by the lead when that came into use.
        var seen = inUse is null ? [] : CitedValue.AllOf(inUse).Where(v => v.IsChecked).Select(v => v.Path)
            .Except(SheetForm.Changed(inUse, now.Text).Select(c => c.Path)).ToHashSet();
        var readHere = drafts.Looks(now.Draft.Id).Where(l => l.Outcome is "same" or "ruled").Select(l => l.Path).ToHashSet();
        return [.. now.Values.Where(v => v.IsChecked && !readHere.Contains(v.Path) && !seen.Contains(v.Path)).Select(v => v.Path)];
    }

    /// <summary>Whether the text of a sheet says of any of its values that enough people have read it.</summary>
    /// <param name="text">A text that can be read as a sheet.</param>
    public static bool SaysIsRead(string text) => Read(text, out _) is { } sheet && CitedValue.AllOf(sheet).Any(v => v.IsChecked);

    /// <summary>Takes what a file says of who has read its values for nothing: those that nobody here has read are to be read.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    public Task<IReadOnlyList<Refusal>> ReadHere(long id, Person by) => Write(id, by, now =>
        (ReadElsewhere(now).Aggregate(now.Text, (text, path) => BlindCheck.Marked(text, path, 0)), []));

    /// <summary>Says what texts of a draft are in another language. Nobody has to check it: what the sheet means stays.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="language">The language's code, such as <c>de</c>.</param>
    /// <param name="was">The mark of the words in that language when the page was made: what others said since is not written over.</param>
    /// <param name="words">What each text is, by the text; an empty one takes its word away.</param>
    /// <returns>What is wrong, by the text; nothing is changed then.</returns>
    public Task<IReadOnlyList<Refusal>> Say(long id, Person by, string language, string was, IReadOnlyDictionary<string, string> words) =>
        Write(id, by, now => WordsMark(now, language) != was ? (now.Text, [Quicker]) : SheetTexts.With(now.Text, language, words));

    /// <summary>How the words of a draft in a language stand.</summary>
    public static string WordsMark(DraftNow now, string language) => Mark(now.Text.Raw($"{OtherTongues.Member}.{language}") ?? "");

    /// <summary>Takes a thing out of a draft. What names it is told as wrong from then on.</summary>
    public Task<IReadOnlyList<Refusal>> Remove(long id, Person by, string path) => Write(id, by, now =>
        path.Split('.') is [var table, _] && SheetShape.Tables.Any(t => t.Name == table) && now.Text.Has(path)
            ? (now.Text.Without(path), []) : (now.Text, [new("There is no such thing in this sheet.", "Load the page again.")]));

    /// <summary>Takes another text for the whole draft.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="edition">The edition that it was made from.</param>
    /// <param name="text">The text.</param>
    public Task<IReadOnlyList<Refusal>> Rewrite(long id, Person by, int edition, string text) => Write(id, by, now =>
    {
        if (now.Draft.Edition != edition)
            return (now.Text, [Quicker]);
        if (Read(text.ReplaceLineEndings("\n"), out var wrong) is not { } written)
            return (now.Text, [wrong! with { Field = "text" }]);
        if (written.Said("id") != now.Draft.Sheet.Text)
            return (now.Text, [new($"This draft is for “{now.Draft.Sheet}”.", "Leave the id as it is, or begin another sheet.",
                Field: "text")]);
        return (SheetForm.Unchecked(now.Text, written), []);
    });

    /// <summary>Changes a draft, and notes whose the changed values are.</summary>
    internal async Task<IReadOnlyList<Refusal>> Write(long id, Person by, Func<DraftNow, (SheetText, IReadOnlyList<Refusal>)> change)
    {
        if (Refused(by) is { } not)
            return [not];
        if (Find(id) is not { } now)
            return [Gone];
        var (text, wrong) = change(now);
        if (wrong.Count > 0 || text.ToString() == now.Draft.Content)
            return wrong;
        IReadOnlyList<string> written = [.. SheetForm.Changed(now.Text, text).Select(c => c.Path)];
        return await drafts.Write(now.Draft, text.ToString(), written, by.Id, clock.Now) ? [] : [Quicker];
    }

    /// <summary>Somebody typed from the source what a value is, without seeing what the draft says.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="path">The value.</param>
    /// <param name="typed">What was typed, by the paths of its fields; of words that are only read, nothing.</param>
    /// <returns>Whether both read the same; or what is wrong, and then nothing is kept.</returns>
    public async Task<(bool Same, IReadOnlyList<Refusal> Wrong)> Look(long id, Person by, string path,
        IReadOnlyDictionary<string, string> typed)
    {
        if (Refused(by) is { } not)
            return (false, [not]);
        if (Find(id) is not { } now)
            return (false, [Gone]);
        if (now.Values.FirstOrDefault(v => v.Path == path) is not { } value || value.IsChecked)
            return (false, [new("This value is not to be checked any more.", "Go on with the next.")]);
        if (now.WriterOf(path) == by.Id)
            return (false, [new("You wrote this value yourself.", "Somebody else has to read it in the source.")]);
        IReadOnlyList<Refusal> empty = [.. value.Fields.Where(f => string.IsNullOrWhiteSpace(typed.GetValueOrDefault(f.Path)))
            .Select(f => new Refusal("Type what the source says.", "Where it says nothing of it, type a dash.", Field: f.Path))];
        if (empty.Count > 0)
            return (false, empty);
        var same = BlindCheck.Differing(value, typed).Count == 0;
        var text = same ? BlindCheck.Marked(now.Text, path, CitedValue.Enough) : now.Text;
        var kept = await drafts.Look(now.Draft, text.ToString(), new(path, by.Id, clock.Now,
            JsonSerializer.Serialize(value.Fields.ToDictionary(f => f.Path, f => typed[f.Path].Trim())), same ? "same" : "other"));
        return kept ? (same, []) : (false, [Quicker]);
    }

    /// <summary>The lead rules on a value that two people read otherwise.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">The lead.</param>
    /// <param name="path">The value.</param>
    /// <param name="reader">Whose reading holds: the writer's, or that of who checked it.</param>
    public async Task<IReadOnlyList<Refusal>> Rule(long id, Person by, string path, PersonId reader)
    {
        if (by.Role is not Role.Lead)
            return [new("The workshop lead rules on this.", "Ask the lead.")];
        if (Find(id) is not { } now)
            return [Gone];
        if (now.Disputed.FirstOrDefault(d => d.Value.Path == path && (d.Reader == reader || d.Writer == reader)) is not { } disputed)
            return [new("Nothing is disputed there any more.", "Load the page again.")];
        var text = now.Text;
        if (disputed.Reader == reader)
        {
            var (written, wrong) = SheetForm.Apply(text, ThingOf(path), p => disputed.Typed.GetValueOrDefault(p));
            if (wrong.Count > 0)
                return wrong;
            text = written;
        }
        return await drafts.Rule(now.Draft, BlindCheck.Marked(text, path, CitedValue.Enough).ToString(), path, by.Id, clock.Now)
            ? [] : [Quicker];
    }

    /// <summary>The thing that a value belongs to; empty for what belongs to the sheet as a whole.</summary>
    /// <param name="path">The value's path.</param>
    public static string ThingOf(string path) => path.Split('.', '[') is [var table, var thing, ..]
        && SheetShape.Tables.Any(t => t.Name == table) ? $"{table}.{thing}" : "";

    /// <summary>Begins to walk a card of a draft in the practice bay, step by step, beside a vehicle made from it.</summary>
    /// <param name="id">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="jobs">Jobs of it.</param>
    /// <returns>The run, or what is wrong.</returns>
    public async Task<(CardNumber? Run, IReadOnlyList<Refusal> Wrong)> Walk(long id, Person by, IReadOnlyList<JobId> jobs)
    {
        if (Refused(by) is { } not)
            return (null, [not]);
        if (Find(id) is not { } now)
            return (null, [Gone]);
        if (now.Reading.Sheet is not { } sheet || jobs.Count == 0 || jobs.Any(j => !sheet.Jobs.ContainsKey(j)))
            return (null, [new("There is no such card yet.", "Put right what is wrong, and choose a job.")]);
        string Text(int revision) => now.Text.With("revision", JsonValue.Create(revision)).ToString();
        if (await sheets.KeepToWalk(now.Draft.Sheet, Text, clock.Now) is not { } kept)
            return (null, [new("This model has been walked too often.", "Put the sheet in use, and practise on it.")]);
        var (run, why) = await practice.Walk(sheets.Find(now.Draft.Sheet, kept)!, jobs, by);
        return (run, why is null ? [] : [why]);
    }

    /// <summary>Throws a draft away.</summary>
    public async Task<IReadOnlyList<Refusal>> ThrowAway(long id, Person by) =>
        Refused(by) is { } not ? [not]
        : Find(id) is not { } now ? [Gone]
        : now.Draft.StartedBy != by.Id && by.Role is not Role.Lead
            ? [new("Only who began a draft, or the lead, throws it away.", "Ask them.")]
        : await drafts.ThrowAway(id, by.Id, clock.Now) ? [] : [Gone];
}
