using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Sheets;

/// <summary>By what an indicator is put out.</summary>
public enum ResetBy
{
    /// <summary>A button that is held.</summary>
    Button,

    /// <summary>Pedals and key.</summary>
    Pedals,

    /// <summary>A menu on the display.</summary>
    Menu,

    /// <summary>A menu into which the next distance is typed.</summary>
    MenuWithValue,

    /// <summary>A scan tool on the diagnostic socket.</summary>
    ScanTool,

    /// <summary>A cable or lead that is plugged in.</summary>
    CableTool,
}

/// <summary>What of the next service is typed in or shown at a move.</summary>
public enum NextService
{
    /// <summary>Nothing.</summary>
    None,

    /// <summary>The distance to it.</summary>
    Distance,

    /// <summary>The months to it.</summary>
    Months,
}

/// <summary>What hands or feet work at a dash.</summary>
public enum DashControl
{
    /// <summary>Key, or the power button.</summary>
    Key,

    /// <summary>A button on the dash.</summary>
    Button,

    /// <summary>Brake pedal.</summary>
    Brake,

    /// <summary>Accelerator.</summary>
    Accelerator,

    /// <summary>The end of a stalk.</summary>
    Stalk,

    /// <summary>The screen.</summary>
    Screen,

    /// <summary>What is pressed on a scan tool, or typed into it.</summary>
    Tool,

    /// <summary>A service lead.</summary>
    Lead,

    /// <summary>The plug of a scan tool.</summary>
    Plug,

    /// <summary>The vehicle that is chosen on a scan tool.</summary>
    Choice,
}

/// <summary>Why a display says something else than it should.</summary>
public enum DashTrouble
{
    /// <summary>Nobody has said.</summary>
    None,

    /// <summary>Let go, or gone on, too early.</summary>
    Early,

    /// <summary>Something else was worked.</summary>
    Order,

    /// <summary>A door is open; on a motorcycle, its side stand is up.</summary>
    Door,

    /// <summary>It did not take, as it often does the first time.</summary>
    NotTaken,

    /// <summary>It does not take what was typed in.</summary>
    Value,

    /// <summary>A scan tool finds no vehicle.</summary>
    NoLink,

    /// <summary>Another vehicle was chosen on a scan tool.</summary>
    OtherVehicle,

    /// <summary>The link to a scan tool broke off on the way.</summary>
    HalfDone,

    /// <summary>The vehicle refuses: its battery is low, its engine runs, its stand is up.</summary>
    Refused,
}

/// <summary>The reset of an indicator.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name of what is lit.</param>
/// <param name="By">By what.</param>
/// <param name="Moves">What the hands do, in order.</param>
/// <param name="Again">What to do when the display does not answer.</param>
/// <param name="From">Source.</param>
public sealed record ResetRitual(ResetId Id, string Name, ResetBy By, IReadOnlyList<ResetMove> Moves, string Again, Citation From)
{
    /// <summary>How often it may fail before somebody looks why.</summary>
    public int Fails { get; init; } = 3;

    /// <summary>The move at which it begins again, from 1.</summary>
    public int AgainAt { get; init; } = 1;

    /// <summary>How distance and months are typed in; null where nothing is.</summary>
    public ResetTyping? Types { get; init; }

    /// <summary>What the display counts from by itself; null where that is typed in or not shown.</summary>
    public ResetNext? Next { get; init; }

    /// <summary>What the way of doing it could spoil, such as settings that are lost with the battery off; empty for nothing.</summary>
    public string Spoils { get; init; } = "";

    internal static ResetRitual Read(ResetId id, SheetCursor c)
    {
        var ritual = new ResetRitual(id, c.Text("name"), c.Word<ResetBy>("by", required: false), c.List("moves", ReadMove, true),
            c.Text("again"), c.Cited())
        {
            Fails = c.Whole("fails", 1, 9, 3, false), AgainAt = c.Whole("againAt", 1, 99, 1, false),
            Types = c.Part("types", ResetTyping.Read, false), Next = c.Part("next", ResetNext.Read, false),
            Spoils = c.Text("spoils", false),
        };
        if (ritual.AgainAt > ritual.Moves.Count)
            c.Complain("againAt", $"There are {ritual.Moves.Count} moves.");
        if (ritual.Moves.Any(m => m.Types != NextService.None) && ritual.Types is null)
            c.Complain("types", "A move types something in; say in which unit and steps.");
        if (ritual.Moves.SelectMany(m => m.Else).Any(e => e.Again > ritual.Moves.Count))
            c.Complain("moves", $"A message begins again at a move that is not there; there are {ritual.Moves.Count}.");
        return ritual;
    }

    private static ResetMove ReadMove(SheetCursor m) => new(m.Text("do"), m.Duration("hold", false), m.Text("expect", false))
    {
        Wait = Waited(m),
        Uses = m.Word<DashControl>("uses", required: false),
        Times = m.Whole("times", 1, 20, 1, false),
        Types = m.Word<NextService>("types", required: false),
        Shows = m.Word<NextService>("shows", required: false),
        Else = m.List("else", e => new ResetMessage(e.Text("shows"), e.Text("means"), e.Whole("again", 1, 99, 0, false))
        {
            When = e.Word<DashTrouble>("when", required: false),
        }),
    };

    private static TimeSpan? Waited(SheetCursor m)
    {
        if (m.Has("hold") && m.Has("wait"))
            m.Complain("wait", "A move is held, or waited at, not both.");
        return m.Duration("wait", false);
    }
}

/// <summary>One move of a reset.</summary>
/// <param name="Do">What to do.</param>
/// <param name="Hold">For how long, or null.</param>
/// <param name="Expect">What the display answers, or empty.</param>
public sealed record ResetMove(string Do, TimeSpan? Hold, string Expect) : WorkSpec
{
    /// <summary>How long it takes to answer, with hands off; null where nothing is waited for.</summary>
    public TimeSpan? Wait { get; init; }

    /// <summary>How long the clock runs at it, held or waited; null where none does.</summary>
    public TimeSpan? Timed => Hold ?? Wait;

    /// <summary>What is worked.</summary>
    public DashControl Uses { get; init; }

    /// <summary>How often.</summary>
    public int Times { get; init; } = 1;

    /// <summary>What is typed in.</summary>
    public NextService Types { get; init; }

    /// <summary>What the display shows of the next service when it is done.</summary>
    public NextService Shows { get; init; }

    /// <summary>What else the display may say.</summary>
    public IReadOnlyList<ResetMessage> Else { get; init; } = [];
}

/// <summary>What a display may say in place of what is expected.</summary>
/// <param name="Shows">The message.</param>
/// <param name="Means">What it means, and what is done about it.</param>
/// <param name="Again">The move at which it begins again; 0 for that of the ritual.</param>
public sealed record ResetMessage(string Shows, string Means, int Again)
{
    /// <summary>When the display says so.</summary>
    public DashTrouble When { get; init; }
}

/// <summary>How the next service is typed into a display.</summary>
/// <param name="Step">The step in which distances go, in the display's unit.</param>
/// <param name="Most">The longest distance that it takes.</param>
public sealed record ResetTyping(Typed<Distance> Step, Typed<Distance> Most)
{
    internal static ResetTyping Read(SheetCursor c)
    {
        var typing = new ResetTyping(c.Typed<Distance>("step"), c.Typed<Distance>("most"));
        if (typing.Step.Value <= Quantity<Distance>.Zero || typing.Most.Value < typing.Step.Value)
            c.Complain("step", "A step is longer than nothing, and no longer than the most.");
        return typing;
    }
}

/// <summary>What a display counts from by itself after a reset.</summary>
/// <param name="Distance">Distance to the next service; null where it shows none.</param>
/// <param name="Months">Months to it; null where it shows none.</param>
public sealed record ResetNext(Typed<Distance>? Distance, int? Months)
{
    internal static ResetNext Read(SheetCursor c) => new(c.Has("distance") ? c.Typed<Distance>("distance") : null,
        c.Has("months") ? c.Whole("months", 1, 120) : null);
}
