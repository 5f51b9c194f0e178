using System.Collections.Concurrent;
using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>The answer to a command that was brought to a stored card.</summary>
/// <param name="Decision">What the card decided. For a repeat, what it had decided then.</param>
/// <param name="Card">The card afterwards.</param>
/// <param name="Repeated">The command had been carried out before; nothing was written now.</param>
public sealed record CardAnswer(Decision Decision, JobCard Card, bool Repeated);

/// <summary>A command to a card, as somebody gave it.</summary>
/// <param name="Command">The command.</param>
/// <param name="By">Who.</param>
/// <param name="At">When it came, in the workshop's time zone.</param>
/// <param name="Kept">How long the screen says that it was kept there without a line; null where it came at once.</param>
public sealed record CardSaid(CardCommand Command, Person By, DateTimeOffset At, TimeSpan? Kept = null);

/// <summary>What is kept of a vehicle when a card is opened for it.</summary>
/// <param name="Newcomer">The vehicle, when it was not on the list yet; otherwise null.</param>
/// <param name="Reading">What its odometer showed.</param>
/// <param name="Identity">What it told a scan tool that it is; empty where no tool has read it, or that was known before.</param>
/// <param name="PutRight">The last reading, where this one shows that it was wrong; or null.</param>
/// <param name="Exchanged">The odometer before, where it was exchanged since; or null.</param>
public sealed record Arrival(Vehicle? Newcomer, OdometerReading Reading, string Identity = "", ReadingPutRight? PutRight = null,
    ExchangedClock? Exchanged = null);

/// <summary>A card in a list.</summary>
/// <param name="Id">Card number.</param>
/// <param name="Plate">Vehicle.</param>
/// <param name="Bay">Bay, or empty.</param>
/// <param name="OpenedAt">When it was opened.</param>
/// <param name="SignedAt">When it was signed, or null.</param>
/// <param name="VoidedAt">When it was made void, or null.</param>
public sealed record CardEntry(CardNumber Id, string Plate, string Bay, DateTimeOffset OpenedAt, DateTimeOffset? SignedAt,
    DateTimeOffset? VoidedAt = null)
{
    /// <summary>Whether it is still worked on: neither signed nor void.</summary>
    public bool IsOpen => SignedAt is null && VoidedAt is null;
}

/// <summary>Cards as chains of events in the database.</summary>
public sealed class CardStore(WorkshopDatabase database, SheetStore sheets) : ICardRoom
{
    private const long FirstNumber = 1001;

    // So many cards are kept ready; one that is asked for beyond that is read again from its events.
    private const int Kept = 200;

    private readonly ConcurrentDictionary<CardNumber, JobCard> _known = database.Remembered<CardNumber, JobCard>();

    // Which came first.
    private readonly Queue<CardNumber> _order = new();

    // Only the piece of writing at the desk touches these: what it has written in the transaction that is not on the disk yet.
    private readonly Dictionary<CardNumber, JobCard> _unsynced = [];
    private WriteScope? _scope;

    /// <summary>Raised after events of a card are on the disk, with its number and last seq.</summary>
    public event Action<CardNumber, int>? Changed;

    /// <summary>Opens a card, unless one of the vehicle is open.</summary>
    /// <param name="opened">The opening event.</param>
    /// <param name="bay">Bay, or empty.</param>
    /// <param name="by">Who opens it.</param>
    /// <param name="at">When.</param>
    /// <param name="command">The client's id; the same id gives the same card.</param>
    /// <param name="arrival">What is kept of the vehicle in the same piece of writing, or null.</param>
    /// <returns>The card's number; where another of the vehicle is open, that one's number and nothing is written.</returns>
    /// <exception cref="WorkshopFileException">The sheet revision is not in the database.</exception>
    public Task<(CardNumber Card, bool IsAnother)> TryOpen(CardOpened opened, string bay, Person by, DateTimeOffset at, Guid command,
        Arrival? arrival = null) => database.Writes.Run(scope =>
    {
        var earlier = scope.Connection.QuerySingleOrDefault<long?>("select card_id from command where id = @command",
            new { command = command.ToString() });
        if (earlier is { } known)
            return (new CardNumber(known), false);
        // Here and not before: of several who bring the same vehicle at once, only the first finds none.
        if (scope.Connection.QueryFirstOrDefault<long?>(
            "select id from card where plate = @Plate and signed_at is null and voided_at is null", new { opened.Plate }) is { } another)
            return (new CardNumber(another), true);
        var sheet = Sheet(opened);
        if (arrival is not null)
            VehicleStore.Arrive(scope, opened.Plate, arrival);
        CardNumber id = Math.Max(FirstNumber, (scope.Connection.ExecuteScalar<long?>("select max(id) from card") ?? 0) + 1);
        scope.Connection.Execute("""
            insert into card (id, plate, sheet_id, sheet_revision, bay, opened_at, head_seq, head_hash)
            values (@id, @Plate, @SheetId, @SheetRevision, @bay, @at, 0, '')
            """, new { id, opened.Plate, opened.SheetId, opened.SheetRevision, bay, at = Iso(at) });
        if (arrival is not null)
            VehicleStore.Read(scope, opened.Plate, arrival, by.Id, id);
        var card = JobCard.Replay(sheet, [new(1, at, by, command, opened)]);
        Append(scope, id, card, [.. card.History], "");
        StockBooking.Reserve(scope, id, card);
        return (id, false);
    });

    /// <summary>Opens a card of a vehicle that has none open; see <see cref="TryOpen"/>.</summary>
    /// <exception cref="InvalidOperationException">Another of the vehicle is open.</exception>
    public async Task<CardNumber> Open(CardOpened opened, string bay, Person by, DateTimeOffset at, Guid command,
        Arrival? arrival = null) =>
        await TryOpen(opened, bay, by, at, command, arrival) is (var card, false) ? card
            : throw new InvalidOperationException($"A card of {opened.Plate} is open.");

    /// <summary>Brings a command to a card and writes what it decides.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="command">The client's id of this command; the same id twice is one command.</param>
    /// <param name="wanted">The command.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When, in the workshop's time zone.</param>
    /// <returns>The answer, or null when there is no such card.</returns>
    public Task<CardAnswer?> Handle(CardNumber id, Guid command, CardCommand wanted, Person by, DateTimeOffset at) =>
        Handle(id, command, wanted, by, at, (_, _) => true);

    /// <summary>Brings a command to a card that may have been kept at a screen while there was no line.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="command">The client's id of this command; the same id twice is one command.</param>
    /// <param name="said">The command, by whom, when it came, and how long it was kept: at most <see cref="JobCard.KeptAtMost"/>.</param>
    /// <returns>The answer, or null when there is no such card.</returns>
    public Task<CardAnswer?> Handle(CardNumber id, Guid command, CardSaid said) =>
        database.Writes.Run(scope => Handle(scope, id, command, said, (_, _) => true));

    /// <summary>The same, with something else that is written in the same piece, where the card accepts.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="command">The client's id of this command.</param>
    /// <param name="wanted">The command.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When, in the workshop's time zone.</param>
    /// <param name="with">Writes it; where it has nothing to write any more it gives false, and then nothing at all is written.</param>
    /// <returns>The answer, or null when there is no such card or the other thing could not be written.</returns>
    internal Task<CardAnswer?> Handle(CardNumber id, Guid command, CardCommand wanted, Person by, DateTimeOffset at,
        Func<WriteScope, CardAnswer, bool> with) => database.Writes.Run(scope => Handle(scope, id, command, new(wanted, by, at), with));

    /// <summary>Works on a card in one piece of writing: command after command, each judged as <see cref="Handle(CardNumber, Guid,
    /// CardCommand, Person, DateTimeOffset)"/> judges it.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="next">The next command to the card as it stands; null when no more is to be done.</param>
    /// <returns>The last answer, which is the first that is not accepted; what was accepted before that is written. Null where there is
    /// no such card or nothing was to be done.</returns>
    public Task<CardAnswer?> Work(CardNumber id, Func<JobCard, CardSaid?> next) => database.Writes.Run(scope =>
    {
        CardAnswer? answer = null;
        while (Current(scope, id, Guid.Empty) is var (card, _, _) && next(card) is { } said)
        {
            answer = Handle(scope, id, Guid.CreateVersion7(), said, (_, _) => true);
            if (answer?.Decision is not Accepted)
                break;
        }
        return answer;
    });

    private CardAnswer? Handle(WriteScope scope, CardNumber id, Guid command, CardSaid said, Func<WriteScope, CardAnswer, bool> with)
    {
        if (Current(scope, id, command) is not var (card, hash, earlier))
            return null;
        if (earlier is { } e)
            return e.Card == id
                ? new CardAnswer(new Accepted([.. card.History.Where(h => h.Seq >= e.From && h.Seq <= e.To).Select(h => h.Event)]), card,
                    true)
                : new CardAnswer(new Refused([new("This command was sent to another card before.", "Load the page again.")]), card, false);
        var (wanted, by, came, kept) = said;
        var at = kept is { } time ? card.PressedAt(came, time) : came;
        var facts = wanted.AsksServer ? FactsOfCard.Read(scope.Connection, scope.Parts(id), id, card, DateOnly.FromDateTime(at.DateTime))
            : card.AsksWhoMay(wanted) ? FactsOfCard.WhoMay(scope.Connection) : CardFacts.None;
        var decision = card.Decide(wanted, by, at, facts);
        if (decision is not Accepted accepted)
            return new CardAnswer(decision, card, false);
        var (next, more) = card.Taking(accepted, command, by, at, kept is null ? null : came);
        var answer = new CardAnswer(decision, next, false);
        if (!with(scope, answer))
            return null;
        Append(scope, id, next, more, hash);
        return answer;
    }

    /// <summary>What a card would answer to a command, with what the workshop knows now. Nothing is written.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="card">The card as it stands.</param>
    /// <param name="wanted">The command.</param>
    /// <param name="by">Who would give it.</param>
    /// <param name="at">When, in the workshop's time zone.</param>
    public Decision WouldAnswer(CardNumber id, JobCard card, CardCommand wanted, Person by, DateTimeOffset at)
    {
        using var connection = database.Connect();
        return card.Decide(wanted, by, at, FactsOfCard.Read(connection, database.Parts.Read(connection, id, false), id, card,
            DateOnly.FromDateTime(at.DateTime)));
    }

    /// <summary>The lesson that is asked for before brakes, and who has done it well; null where none is.</summary>
    public BrakeLesson? BeforeBrakes()
    {
        using var connection = database.Connect();
        return FactsOfCard.Brakes(connection, SettingStore.Read(connection));
    }

    /// <summary>Notes that the vehicle of an open card stands in another bay now.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="bay">Where it stands.</param>
    /// <returns>1, or 0 when there is no such card or it is not open.</returns>
    public Task<int> MoveTo(CardNumber id, string bay) => database.Writes.Run(scope => scope.Connection.Execute(
        "update card set bay = @bay where id = @id and signed_at is null and voided_at is null", new { id, bay }));

    /// <summary>The card as it is on the disk, or null.</summary>
    /// <returns>The card as it stands on the disk, or null when there is none of this number.</returns>
    public JobCard? Find(CardNumber id)
    {
        using var connection = database.Connect();
        if (connection.QuerySingleOrDefault<int?>("select head_seq from card where id = @id", new { id }) is not { } head)
            return null;
        if (_known.TryGetValue(id, out var card) && card.History.Count == head)
            return card;
        var read = Load(connection, id, null);
        Keep(id, read);
        return read;
    }

    /// <summary>The hash of a card's last event; empty where there is no such card.</summary>
    public string HeadHash(CardNumber id)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select head_hash from card where id = @id", new { id }) ?? "";
    }

    /// <summary>The events of a card as they were written, each with its hash; empty where there is no such card.</summary>
    public IReadOnlyList<ChainLink> Chain(CardNumber id)
    {
        using var connection = database.Connect();
        return [.. connection.Query<EventRow>("select * from event where card_id = @id order by seq", new { id }).Select(ChainLink.Of)];
    }

    /// <summary>When something was noted last on any card; null where there is none.</summary>
    public DateTimeOffset? LastAt()
    {
        using var connection = database.Connect();
        return connection.ExecuteScalar<string?>("select max(at) from event") is { } at ? Time(at) : null;
    }

    /// <summary>Cards that are neither signed nor void, oldest first.</summary>
    /// <returns>By number.</returns>
    public IReadOnlyList<CardEntry> Unsigned() => List("where signed_at is null and voided_at is null order by id", new { });

    /// <summary>The cards that were signed last, newest first.</summary>
    /// <param name="most">So many at most.</param>
    /// <returns>By the time of the signature.</returns>
    public IReadOnlyList<CardEntry> LastSigned(int most) =>
        List("where signed_at is not null order by signed_at desc, id desc limit @most", new { most });

    /// <summary>All cards of a vehicle, newest first.</summary>
    /// <returns>The newest first.</returns>
    public IReadOnlyList<CardEntry> OfVehicle(string plate) => List("where plate = @plate order by id desc", new { plate });

    /// <summary>The signed cards of a vehicle on which a job was given up or left for later, the newest first.</summary>
    /// <param name="plate">Its plate.</param>
    public IReadOnlyList<CardNumber> WithJobsNotDone(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<long>("""
            select id from card where plate = @plate and signed_at is not null and exists (select 1 from event where card_id = card.id
                and (body like '{"event":"JobDropped"%' or seq = 1 and body like '%"leftForLater":[%'))
            order by id desc
            """, new { plate }).Select(id => new CardNumber(id))];
    }

    /// <summary>One card's entry, or null.</summary>
    /// <returns>The entry, or null when there is none of this number.</returns>
    public CardEntry? Entry(CardNumber id) => List("where id = @id", new { id }).FirstOrDefault();

    private List<CardEntry> List(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(long Id, string Plate, string Bay, string Opened, string? Signed, string? Voided)>(
            $"select id, plate, bay, opened_at, signed_at, voided_at from card {where}", values)
            .Select(r => new CardEntry(r.Id, r.Plate, r.Bay, Time(r.Opened), r.Signed is null ? null : Time(r.Signed), r.Voided is null
                ? null : Time(r.Voided)))];
    }

    /// <summary>The card as the transaction sees it, the hash of its last event, and what this command did if it was carried out
    /// before.</summary>
    private (JobCard Card, string Hash, (CardNumber Card, int From, int To)? Earlier)? Current(WriteScope scope, CardNumber id,
        Guid command)
    {
        var head = scope.First("""
            select head_seq, head_hash, command.card_id, first_seq, last_seq
            from card left join command on command.id = @command where card.id = @id
            """, r => (Seq: r.GetInt32(0), Hash: r.GetString(1),
                Earlier: r.IsDBNull(2) ? ((CardNumber, int, int)?)null : (r.GetInt64(2), r.GetInt32(3), r.GetInt32(4))),
            ("@command", command.ToString()), ("@id", id.Value));
        if (head.Hash is null)
            return null;
        var known = UnsyncedIn(scope).GetValueOrDefault(id) ?? _known.GetValueOrDefault(id);
        var card = known?.History.Count == head.Seq ? known : Load(scope.Connection, id, known?.History.Count < head.Seq ? known : null);
        return (card, head.Hash, head.Earlier);
    }

    private Dictionary<CardNumber, JobCard> UnsyncedIn(WriteScope scope)
    {
        if (!ReferenceEquals(scope, _scope))
            _unsynced.Clear();
        _scope = scope;
        return _unsynced;
    }

    private JobCard Load(SqliteConnection connection, CardNumber id, JobCard? known)
    {
        var after = known?.History.Count ?? 0;
        Recorded[] rows = [.. connection.Query<EventRow>("select * from event where card_id = @id and seq > @after order by seq",
            new { id, after }).Select(r => r.ToRecorded())];
        return known is null ? JobCard.Replay(Sheet((CardOpened)rows[0].Event), rows) : known.With(rows);
    }

    /// <summary>Takes in whole cards that were signed, each with its first event to its last: the reading it was opened with and the jobs
    /// it did are noted, nothing is booked in the stores.</summary>
    /// <param name="cards">Of each its bay and its events; the first opens it, the last signs it.</param>
    /// <returns>How many.</returns>
    /// <exception cref="ArgumentException">One is not signed.</exception>
    public Task<int> TakeIn(IReadOnlyList<(string Bay, IReadOnlyList<Recorded> Events)> cards) => database.Writes.Run(scope =>
    {
        long id = Math.Max(FirstNumber - 1, scope.Connection.ExecuteScalar<long?>("select max(id) from card") ?? 0);
        foreach (var (bay, events) in cards)
        {
            if (events is not [{ Event: CardOpened opened }, .., { Event: Signed } last])
                throw new ArgumentException("A card that is taken in begins with its opening and ends with its signature.");
            scope.Run("""
                insert into card (id, plate, sheet_id, sheet_revision, bay, opened_at, head_seq, head_hash, signed_at)
                values (@id, @plate, @sheet, @revision, @bay, @at, @head, '', @signed)
                """, ("@id", ++id), ("@plate", opened.Plate), ("@sheet", opened.SheetId.Text), ("@revision", opened.SheetRevision),
                ("@bay", bay), ("@at", Iso(events[0].At)), ("@head", events.Count), ("@signed", Iso(last.At)));
            var hash = Write(scope, id, events, "");
            scope.Run("update card set head_hash = @hash where id = @id", ("@hash", hash), ("@id", id));
            // One for all of them: nothing of it can be sent again.
            scope.Run("insert into command (id, card_id, first_seq, last_seq) values (@command, @id, 1, @last)",
                ("@command", events[0].Command.ToString()), ("@id", id), ("@last", events.Count));
            scope.Moved(id, events.Count, hash);
            VehicleStore.Read(scope, opened.Plate, new(null, new(events[0].At, opened.Odometer, "", opened.Hours)), events[0].By.Id, id);
            StockBooking.NoteDone(scope, id, JobCard.Replay(Sheet(opened), [.. events]), last.At);
        }
        return cards.Count;
    });

    private static string Write(WriteScope scope, CardNumber id, IReadOnlyList<Recorded> events, string hash)
    {
        foreach (var e in events)
        {
            var row = EventRow.From(id, e, hash);
            hash = row.hash;
            scope.Run("""
                insert into event (card_id, seq, at, person_id, person_name, person_role, command_id, body, hash)
                values (@card_id, @seq, @at, @person_id, @person_name, @person_role, @command_id, @body, @hash)
                """, ("@card_id", row.card_id), ("@seq", row.seq), ("@at", row.at), ("@person_id", row.person_id),
                ("@person_name", row.person_name),
                ("@person_role", row.person_role), ("@command_id", row.command_id), ("@body", row.body), ("@hash", hash));
        }
        return hash;
    }

    private void Append(WriteScope scope, CardNumber id, JobCard card, IReadOnlyList<Recorded> events, string hash)
    {
        hash = Write(scope, id, events, hash);
        scope.Run("insert into command (id, card_id, first_seq, last_seq) values (@command, @id, @first, @last)",
            ("@command", events[0].Command.ToString()), ("@id", id.Value), ("@first", events[0].Seq), ("@last", events[^1].Seq));
        scope.Run("update card set head_seq = @last, head_hash = @hash, signed_at = @signed, voided_at = @voided where id = @id",
            ("@last", events[^1].Seq), ("@hash", hash), ("@signed", card.Signature is { } s ? Iso(s.At) : null),
                ("@voided", card.Voided is { } v ? Iso(v.At) : null), ("@id", id.Value));
        scope.Moved(id, events[^1].Seq, hash);
        UnsyncedIn(scope)[id] = card;
        StockBooking.Book(scope, id, card, events);
        scope.OnCommit(() => Keep(id, card));
        foreach (var listener in Changed?.GetInvocationList().Cast<Action<CardNumber, int>>() ?? [])
            scope.OnCommit(() => listener(id, card.History.Count));
    }

    private void Keep(CardNumber id, JobCard card)
    {
        lock (_order)
        {
            // What was read may be older by now than what was written meanwhile.
            if (_known.TryGetValue(id, out var there) && there.History.Count > card.History.Count)
                return;
            if (there is null)
                _order.Enqueue(id);
            _known[id] = card;
            if (_order.Count > Kept)
                _known.TryRemove(_order.Dequeue(), out _);
        }
    }

    private ModelSheet Sheet(CardOpened opened) => sheets.Find(opened.SheetId, opened.SheetRevision)
        ?? throw new WorkshopFileException($"Sheet {opened.SheetId} revision {opened.SheetRevision} is not in this workshop. Bring "
            + "it in first.");

    internal static string Iso(DateTimeOffset at) => at.ToUniversalTime().ToString("O", CultureInfo.InvariantCulture);

    internal static DateTimeOffset Time(string iso) =>
        DateTimeOffset.Parse(iso, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind);
}
