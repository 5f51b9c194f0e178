namespace Anakyklos.Core.Sheets;

/// <summary>One step of the sheet, or of a card.</summary>
public sealed record SheetStep
{
    /// <summary>Id.</summary>
    public required StepId Id { get; init; }

    /// <summary>The word for its kind of work; <see cref="StepKinds"/> has them all.</summary>
    public required string Kind { get; init; }

    /// <summary>Id of the access, fastener, fluid, part or reset it works on; empty where it has none.</summary>
    public ThingId What { get; init; }

    /// <summary>What to do, as a sentence without a full stop.</summary>
    public required string Title { get; init; }

    /// <summary>The phase of the work it belongs to; phases are the arcs of the ring.</summary>
    public required string Phase { get; init; }

    /// <summary>Where the person stands.</summary>
    public required Place Place { get; init; }

    /// <summary>Where the lift has to be.</summary>
    public LiftNeed Lift { get; init; }

    /// <summary>About how long it takes a person.</summary>
    public required TimeSpan Takes { get; init; }

    /// <summary>A wait that runs by itself once the step is done, or null.</summary>
    public StepWait? Wait { get; init; }

    /// <summary>Steps whose wait must be over before this one.</summary>
    public IReadOnlyList<StepId> Awaits { get; init; } = [];

    /// <summary>What the big button says: what the hands did. Empty for the usual words.</summary>
    public string Said { get; init; } = "";

    /// <summary>The value that the hands need when it is neither torque nor amount, such as "60 °C". Empty for none.</summary>
    public string Value { get; init; } = "";

    /// <summary>Short lines beside the step: label and text.</summary>
    public IReadOnlyList<StepNote> Notes { get; init; } = [];

    /// <summary>The step's own warning, or empty.</summary>
    public string Warning { get; init; } = "";

    /// <summary>Keys of the usual cautions (see <see cref="Caution"/>).</summary>
    public IReadOnlyList<string> Cautions { get; init; } = [];

    /// <summary>Map to show, or empty.</summary>
    public string Map { get; init; } = "";

    /// <summary>Where the step's words come from.</summary>
    public Citation? From { get; init; }

    /// <summary>Steps that come before this one, wherever both are on a card.</summary>
    public IReadOnlyList<StepId> After { get; init; } = [];

    /// <summary>Accesses and fasteners that must be open for it.</summary>
    public IReadOnlyList<ThingId> Needs { get; init; } = [];

    /// <summary>How many people it takes.</summary>
    public int People { get; init; } = 1;

    /// <summary>The engine must be cold for it.</summary>
    public bool Cold { get; init; }

    /// <summary>The vehicle moves on its own wheels: it is ridden or driven.</summary>
    public bool Moves { get; init; }

    /// <summary>The engine runs and the wheels or shafts turn, as when a gearbox is taken through its gears.</summary>
    public bool WheelsTurn { get; init; }

    /// <summary>It concerns brakes, steering, wheels or lifting: it is never left out by one person alone.</summary>
    public bool Essential { get; init; }

    /// <summary>The jobs it serves; empty in a sheet.</summary>
    public IReadOnlyList<JobId> Jobs { get; init; } = [];

    /// <summary>A hold time of a reset move, or null.</summary>
    public TimeSpan? Hold { get; init; }

    /// <summary>What the display should answer to a reset move, or empty.</summary>
    public string Expect { get; init; } = "";

    /// <summary>What the sheet says of it for its kind of work alone; null where that kind asks for nothing more.</summary>
    public WorkSpec? Spec { get; init; }

    /// <summary>What it does to the vehicle.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public StepTraits Traits => StepKinds.Of(Kind).Traits(this);

    /// <summary>Whether it is one of the moves of the lift, with the look before it; those follow from the order and not from a
    /// job.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool MovesLift => Traits.Lift != LiftMove.None;

    /// <summary>Whether the vehicle is ridden or driven.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsDriven => Moves || Traits.Engine == EngineUse.Drives;

    /// <summary>Whether the engine runs in it.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool RunsEngine => Moves || WheelsTurn || Traits.Engine is EngineUse.Warms or EngineUse.Starts or EngineUse.Drives;

    /// <summary>Whether nobody else may be at, in or under the vehicle meanwhile.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool Alone => IsDriven || WheelsTurn;

    /// <summary>Whether the label with the next service is put up in it.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool PutsLabelUp => Id == LabelId;

    /// <summary>The id of the step that puts the label up, on any sheet.</summary>
    public const string LabelId = "label";

    /// <summary>The last move of a reset: the indicator is out.</summary>
    public bool EndsReset { get; init; }
}

/// <summary>A wait that nobody stands beside.</summary>
/// <param name="For">What it waits for, such as "Oil runs out".</param>
/// <param name="Lasts">How long.</param>
public sealed record StepWait(string For, TimeSpan Lasts);

/// <summary>A short line beside a step.</summary>
/// <param name="Label">One or two words.</param>
/// <param name="Text">The line.</param>
public sealed record StepNote(string Label, string Text);

/// <summary>The cautions that are always shown where they apply.</summary>
public static class Caution
{
    /// <summary>All of them by key. They come before anything else on the step and never replace the maker's manual or local
    /// rules.</summary>
    public static IReadOnlyDictionary<string, string> ByKey { get; } = new Dictionary<string, string>
    {
        ["hot"] = "Oil, plug and exhaust burn. Gloves and sleeves.",
        ["crushing"] = "Keep everybody out from under it while it moves. Never work under a vehicle held by a jack alone.",
        ["exhaust-gas"] = "Engine running indoors: extraction on, doors open.",
        ["moving-parts"] = "Belts and fan turn. Keep hair, cuffs and rags away.",
        ["solvent"] = "Spray solvent: eye protection, gloves, air, no sparks.",
        ["fuel"] = "Fuel vapour: no sparks, no flame, rags ready.",
        ["battery-off"] = "The battery stays off while fuel is open.",
        ["coolant"] = "Hot coolant scalds: open the cap only when it is cold.",
        ["brakes"] = "Brakes decide lives. Test the pedal before the vehicle moves.",
        ["brake-fluid"] = "Brake fluid eats paint and skin. Nothing but fresh fluid from a sealed can goes in.",
        ["springs"] = "A spring lies behind the cover: hold it until it is free.",
        ["acid"] = "Battery acid: gloves and eye protection.",
        ["waste"] = "Used oil, other fluids, filters and rags go where local law says.",
        ["high-voltage"] = "High voltage: only by those licensed. The engine may start by itself.",
    };
}
