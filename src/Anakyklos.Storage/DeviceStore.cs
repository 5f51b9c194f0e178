using System.Collections.Concurrent;
using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Wording;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>A device as it is stored.</summary>
/// <param name="Id">What is painted on it.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Bay">Where the workshop has it.</param>
/// <param name="SaidBay">Where it last said it is; empty before it said anything.</param>
/// <param name="ClockOff">How far its clock goes before ours; negative when it is slow.</param>
/// <param name="SeenAt">When it was last heard; null when never.</param>
/// <param name="DrawsFrom">The container of the stores in which a dispenser hangs; null for none.</param>
public sealed record DeviceEntry(DeviceId Id, DeviceKind Kind, string Bay, string SaidBay, TimeSpan ClockOff, DateTimeOffset? SeenAt,
    int? DrawsFrom = null);

/// <summary>What became of a reading.</summary>
public enum ReadingState
{
    /// <summary>It stands on a card.</summary>
    Placed,

    /// <summary>A person must say where it belongs.</summary>
    Waiting,

    /// <summary>A person said that it belongs nowhere.</summary>
    Discarded,
}

/// <summary>A reading that came.</summary>
/// <param name="Reading">What came.</param>
/// <param name="ReceivedAt">When it came.</param>
/// <param name="State">What became of it.</param>
/// <param name="Why">Why it waits or waited, and what to do; null when it was placed by itself.</param>
/// <param name="Card">The card it stands on, or null.</param>
/// <param name="Seq">The seq of its event there, or null.</param>
/// <param name="Step">The step it went to; empty for none.</param>
/// <param name="By">Who placed or discarded it, or in whose name it was placed; null while it waits.</param>
/// <param name="Words">Why it was discarded; empty otherwise.</param>
public sealed record KeptReading(DeviceReading Reading, DateTimeOffset ReceivedAt, ReadingState State, Refusal? Why, CardNumber? Card,
    int? Seq, StepId Step, PersonId? By, string Words);

/// <summary>Devices that measure, and what they sent.</summary>
public sealed class DeviceStore(WorkshopDatabase database, CardStore cards)
{
    private static readonly TimeSpan SameClock = TimeSpan.FromSeconds(1), WrittenEvery = TimeSpan.FromHours(6);

    private readonly ConcurrentDictionary<DeviceId, (TimeSpan ClockOff, DateTimeOffset At)> _heard = new();

    private readonly ConcurrentDictionary<DeviceId, DateTimeOffset> _written = new();

    /// <summary>Raised with the name of a bay after something of its devices or their readings is on the disk.</summary>
    public event Action<string>? Changed;

    /// <summary>Takes a device in, or gives one that is known a new key and bay.</summary>
    /// <param name="id">What is painted on it.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="bay">Where it is.</param>
    /// <param name="keyHash">What its key is compared with.</param>
    public Task<int> Pair(DeviceId id, DeviceKind kind, string bay, string keyHash) => database.Writes.Run(scope =>
    {
        Tell(scope, bay);
        return scope.Connection.Execute("""
            insert into device (id, kind, bay, key_hash) values (@id, @kind, @bay, @keyHash)
            on conflict (id) do update set kind = @kind, bay = @bay, key_hash = @keyHash
            """, new { id, kind = Word(kind), bay, keyHash });
    });

    /// <summary>Notes that a device stands in another bay now.</summary>
    /// <returns>1, or 0 when there is no such device.</returns>
    public Task<int> Move(DeviceId id, string bay) => database.Writes.Run(scope =>
    {
        if (scope.Connection.QuerySingleOrDefault<string>("select bay from device where id = @id", new { id }) is not { } before)
            return 0;
        Tell(scope, before);
        Tell(scope, bay);
        return scope.Connection.Execute("update device set bay = @bay where id = @id", new { id, bay });
    });

    /// <summary>Notes in which container a dispenser hangs.</summary>
    /// <param name="id">The dispenser.</param>
    /// <param name="container">Number of the container; null for none.</param>
    /// <returns>1, or 0 when there is no such dispenser.</returns>
    public Task<int> Hang(DeviceId id, int? container) => database.Writes.Run(scope =>
    {
        if (scope.Connection.QuerySingleOrDefault<string>("select bay from device where id = @id", new { id }) is { } bay)
            Tell(scope, bay);
        return scope.Connection.Execute("update device set draws_from = @container where id = @id and kind = @kind",
            new { id, container, kind = Word(DeviceKind.Dispenser) });
    });

    /// <summary>Notes that a device was heard.</summary>
    /// <param name="id">Which.</param>
    /// <param name="saidBay">Where it says it is.</param>
    /// <param name="clockOff">How far its clock goes before ours.</param>
    /// <param name="at">When.</param>
    /// <returns>1, or 0 when there is no such device.</returns>
    public async Task<int> Heard(DeviceId id, string saidBay, TimeSpan clockOff, DateTimeOffset at)
    {
        // A device says every few seconds that it is there. That is remembered; written down is what is new, and now and then the rest.
        if (Devices("where id = @id", new { id }) is not [var known])
            return 0;
        var isNew = known.SeenAt is null || known.SaidBay != saidBay || (known.ClockOff - clockOff).Duration() > SameClock
            || at - Written(id) > WrittenEvery;
        _heard[id] = (clockOff, at);
        if (!isNew)
            return 1;
        _written[id] = at;
        return await database.Writes.Run(scope =>
        {
            var before = scope.Connection.QuerySingleOrDefault<(string Bay, string Said, string? Seen)>(
                "select bay, said_bay, seen_at from device where id = @id", new { id });
            // Who looks at the bay is told when a device comes or moves, not each time it says that it is still there.
            if (before.Seen is null || before.Said != saidBay)
                Tell(scope, before.Bay);
            return scope.Connection.Execute("update device set said_bay = @saidBay, clock_off_s = @off, seen_at = @at where id = @id",
                new { id, saidBay, off = clockOff.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture), at = CardStore.Iso(at) });
        });
    }

    private DateTimeOffset Written(DeviceId id) => _written.GetValueOrDefault(id, DateTimeOffset.MinValue);

    /// <summary>All devices, by name.</summary>
    /// <returns>By name.</returns>
    public IReadOnlyList<DeviceEntry> All() => Devices("order by id", new { });

    /// <summary>The device whose key compares with this, or null.</summary>
    /// <param name="keyHash">As it is stored.</param>
    /// <returns>The device, or null when the key is nobody's.</returns>
    public DeviceEntry? WithKey(string keyHash) => Devices("where key_hash = @keyHash", new { keyHash }).FirstOrDefault();

    /// <summary>A reading that came before, or null.</summary>
    /// <returns>The reading as it stands, or null when this device sent none of this id.</returns>
    public KeptReading? Find(DeviceId device, Guid id) =>
        Readings("where device_id = @device and id = @id", new { device, id = id.ToString() }).FirstOrDefault();

    /// <summary>What waits in a bay, oldest first: also what a device sent that says it is here and that the workshop has
    /// elsewhere.</summary>
    /// <returns>By the time it came.</returns>
    public IReadOnlyList<KeptReading> Waiting(string bay) =>
        Readings("where (bay = @bay or said_bay = @bay) and state = 'waiting' order by received_at, id", new { bay });

    /// <summary>What of a bay was placed or discarded, newest first.</summary>
    /// <param name="bay">The bay.</param>
    /// <param name="most">So many at most.</param>
    /// <returns>The newest first.</returns>
    public IReadOnlyList<KeptReading> Settled(string bay, int most) =>
        Readings("where (bay = @bay or said_bay = @bay) and state <> 'waiting' order by settled_at desc, id limit @most",
            new { bay, most });

    /// <summary>What a device had placed last, by itself or by a person.</summary>
    /// <returns>The step and when it was measured, or null when nothing of it was placed yet.</returns>
    public LandedBefore? LastPlaced(DeviceId device) =>
        Readings("where device_id = @device and state = 'placed' order by at desc limit 1", new { device })
            .Select(r => new LandedBefore(r.Step, r.Reading.At)).FirstOrDefault();

    /// <summary>Keeps a reading that waits for a person.</summary>
    /// <param name="reading">What came.</param>
    /// <param name="bay">Where the workshop has the device.</param>
    /// <param name="why">Why it waits.</param>
    /// <param name="at">When it came.</param>
    /// <returns>1, or 0 when it is kept already.</returns>
    public Task<int> Wait(DeviceReading reading, string bay, Refusal why, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var kept = Insert(scope, reading, bay, at, "waiting", why, null);
        TellOf(scope, reading.Device, reading.Id);
        return kept;
    });

    /// <summary>Brings a reading that just came to a card; where the card accepts, both are kept in one piece of writing.</summary>
    /// <param name="reading">What came.</param>
    /// <param name="bay">Where the workshop has the device.</param>
    /// <param name="lands">The card, the step and what the card is told.</param>
    /// <param name="at">When it came.</param>
    /// <returns>What the card answers; null when there is no such card.</returns>
    public Task<CardAnswer?> Land(DeviceReading reading, string bay, LandsAt lands, DateTimeOffset at) =>
        cards.Handle(lands.Card, CommandOf(reading), lands.Command, lands.By, at, (scope, answer) =>
        {
            Insert(scope, reading, bay, at, "placed", null, (lands, answer.Card.History.Count));
            Tell(scope, bay);
            return true;
        });

    /// <summary>Brings a reading that waits to a step that a person chose.</summary>
    /// <param name="kept">The reading.</param>
    /// <param name="lands">The card, the step and what the card is told, in the name of that person.</param>
    /// <param name="at">When.</param>
    /// <returns>What the card answers; null when it was settled meanwhile, or there is no such card.</returns>
    public Task<CardAnswer?> Place(KeptReading kept, LandsAt lands, DateTimeOffset at) =>
        cards.Handle(lands.Card, CommandOf(kept.Reading), lands.Command, lands.By, at, (scope, answer) =>
        {
            TellOf(scope, kept.Reading.Device, kept.Reading.Id);
            return scope.Connection.Execute("""
                update device_reading set state = 'placed', card_id = @card, seq = @seq, step = @step, person_id = @by, settled_at = @at
                where device_id = @device and id = @id and state = 'waiting'
                """, new
            {
                card = lands.Card, seq = answer.Card.History.Count, step = lands.Step, by = lands.By.Id, at = CardStore.Iso(at),
                device = kept.Reading.Device, id = kept.Reading.Id.ToString(),
            }) == 1;
        });

    /// <summary>Notes that a reading belongs nowhere.</summary>
    /// <param name="device">Its device.</param>
    /// <param name="id">Its id.</param>
    /// <param name="by">Who says so.</param>
    /// <param name="words">Why.</param>
    /// <param name="at">When.</param>
    /// <returns>1, or 0 when it does not wait any more.</returns>
    public Task<int> Discard(DeviceId device, Guid id, PersonId by, string words, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        TellOf(scope, device, id);
        return scope.Connection.Execute("""
            update device_reading set state = 'discarded', person_id = @by, settled_at = @at, words = @words
            where device_id = @device and id = @id and state = 'waiting'
            """, new { device, id = id.ToString(), by, words, at = CardStore.Iso(at) });
    });

    /// <summary>Tells a card what a scan tool shows; the same message again changes nothing.</summary>
    /// <param name="message">What it shows.</param>
    /// <param name="lands">The card, the move and what the card is told.</param>
    /// <param name="at">When.</param>
    /// <returns>What the card answers, or answered then; null when there is no such card.</returns>
    public Task<CardAnswer?> Tell(ToolMessage message, LandsAt lands, DateTimeOffset at) =>
        cards.Handle(lands.Card, CommandOf(message.Device, message.Id), lands.Command, lands.By, at);

    /// <summary>The card that a message of a scan tool was told to before.</summary>
    /// <param name="message">The message.</param>
    /// <returns>The card and the seq of the event there; null when the message is new, or no card took it.</returns>
    public (CardNumber Card, int Seq)? Told(ToolMessage message)
    {
        using var connection = database.Connect();
        var (card, seq) = connection.QueryFirstOrDefault<(long Card, int Seq)>("select card_id, first_seq from command where id = @id",
            new { id = CommandOf(message.Device, message.Id).ToString() });
        return seq > 0 ? (new(card), seq) : null;
    }

    // A reading carried out twice is one command; ids of two devices that happen to be the same are two.
    private static Guid CommandOf(DeviceReading reading) => CommandOf(reading.Device, reading.Id);

    private static Guid CommandOf(DeviceId device, Guid id) =>
        new(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes($"{device}/{id}"))[..16]);

    private static int Insert(WriteScope scope, DeviceReading reading, string bay, DateTimeOffset at, string state, Refusal? why,
        (LandsAt At, int Seq)? placed) => scope.Connection.Execute("""
        insert or ignore into device_reading
            (device_id, id, bay, said_bay, number, unit, container, at, received_at, state, why, then_do, card_id, seq, step, person_id,
            settled_at)
        values (@device, @id, @bay, @said, @number, @unit, @container, @at, @received, @state, @why, @then, @card, @seq, @step, @by,
            @settled)
        """, new
    {
        device = reading.Device, id = reading.Id.ToString(), bay, said = reading.Bay,
        number = reading.Read.Number.ToString(CultureInfo.InvariantCulture), unit = reading.Read.Unit,
        container = (reading.Read as MeasuredVolume)?.From, at = CardStore.Iso(reading.At), received = CardStore.Iso(at), state,
        why = why?.What ?? "", then = why?.Do ?? "", card = placed?.At.Card, seq = placed?.Seq,
        step = placed?.At.Step.Text ?? "", by = placed?.At.By.Id, settled = placed is null ? null : CardStore.Iso(at),
    });

    // Both where the workshop has the device and where it says it is, a reading that waits is seen.
    private void TellOf(WriteScope scope, DeviceId device, Guid id)
    {
        foreach (var bay in scope.Connection.Query<string>("""
            select bay from device_reading where device_id = @device and id = @id
            union select said_bay from device_reading where device_id = @device and id = @id
            """, new { device, id = id.ToString() }))
            Tell(scope, bay);
    }

    private void Tell(WriteScope scope, string bay) => scope.OnCommit(() => Changed?.Invoke(bay));

    private List<DeviceEntry> Devices(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, string Kind, string Bay, string Said, string Off, string? Seen, long? From)>(
            $"select id, kind, bay, said_bay, clock_off_s, seen_at, draws_from from device {where}", values)
            .Select(r => new DeviceEntry(r.Id, KindOf(r.Kind), r.Bay, r.Said,
                TimeSpan.FromSeconds(double.Parse(r.Off, CultureInfo.InvariantCulture)), r.Seen is null ? null : CardStore.Time(r.Seen),
                (int?)r.From)).Select(d => _heard.TryGetValue(d.Id, out var heard) && (d.SeenAt is null || d.SeenAt < heard.At)
                    ? d with { ClockOff = heard.ClockOff, SeenAt = heard.At } : d)];
    }

    private List<KeptReading> Readings(string where, object values)
    {
        using var connection = database.Connect();
        return [.. connection.Query<ReadingRow>($"select * from device_reading {where}", values).Select(r => r.ToReading())];
    }

    private static string Word(DeviceKind kind) => kind switch
    {
        DeviceKind.TorqueWrench => "torque-wrench",
        DeviceKind.Dispenser => "dispenser",
        DeviceKind.ScanTool => "scan-tool",
        DeviceKind.LabelPrinter => "label-printer",
        _ => throw new InvalidOperationException($"Nobody has said how a {kind} is stored."),
    };

    private static DeviceKind KindOf(string word) => word switch
    {
        "torque-wrench" => DeviceKind.TorqueWrench,
        "dispenser" => DeviceKind.Dispenser,
        "scan-tool" => DeviceKind.ScanTool,
        "label-printer" => DeviceKind.LabelPrinter,
        _ => throw new WorkshopFileException($"The workshop file has a device of the kind “{word}”, which this program does not know."),
    };

    private sealed class ReadingRow
    {
        public string device_id { get; set; } = "";
        public string id { get; set; } = "";
        public string said_bay { get; set; } = "";
        public string number { get; set; } = "";
        public string unit { get; set; } = "";
        public long? container { get; set; }
        public string at { get; set; } = "";
        public string received_at { get; set; } = "";
        public string state { get; set; } = "";
        public string why { get; set; } = "";
        public string then_do { get; set; } = "";
        public long? card_id { get; set; }
        public int? seq { get; set; }
        public string step { get; set; } = "";
        public string? person_id { get; set; }
        public string words { get; set; } = "";

        public KeptReading ToReading() => new(new(Guid.Parse(id), device_id, said_bay,
            MeasuredValue.Read(decimal.Parse(number, CultureInfo.InvariantCulture), unit, (int?)container,
                out var problem) ?? throw new WorkshopFileException($"The reading {id} of {device_id} cannot be read: {problem}"),
                CardStore.Time(at)), CardStore.Time(received_at), Enum.Parse<ReadingState>(state, true),
            why.Length > 0 ? new Refusal(why, then_do) : null,
            card_id is { } card ? new CardNumber(card) : null, seq, step, person_id is { } by ? new PersonId(by) : null, words);
    }
}
