using System.Diagnostics;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Wording;

/// <summary>What a refusal rests on, so that it can say more than what is in the way now: why the card asks for that at all. Written as
/// small letters and hyphens.</summary>
[JsonConverter(typeof(GroundJson))]
public enum Ground
{
    /// <summary>A step that relies on another one.</summary>
    Order,

    /// <summary>A vehicle on the road, an engine that was just started or runs warm.</summary>
    UnderWay,

    /// <summary>A stop, or a job that holds the vehicle.</summary>
    Stop,

    /// <summary>The height at which a step is done.</summary>
    Lift,

    /// <summary>An engine that runs, or does not.</summary>
    Engine,

    /// <summary>A wait that has not run out.</summary>
    Wait,

    /// <summary>A step that is held, or waited for, by the clock.</summary>
    Held,

    /// <summary>Work that is done cold.</summary>
    Heat,

    /// <summary>Room in a pan, and what is in it.</summary>
    Pan,

    /// <summary>Something that must be open, off or out.</summary>
    Opened,

    /// <summary>Something that must be shut, tight or in place.</summary>
    Shut,

    /// <summary>What must be in before the engine turns.</summary>
    Filled,

    /// <summary>A value that somebody must measure.</summary>
    Measured,

    /// <summary>A look that nobody has taken.</summary>
    Looked,

    /// <summary>A card whose ring is open.</summary>
    Ring,

    /// <summary>A deviation that wants a second name.</summary>
    SecondName,

    /// <summary>What only the lead says.</summary>
    Lead,

    /// <summary>What the asker's role does not do.</summary>
    Role,

    /// <summary>What was done already.</summary>
    Already,

    /// <summary>A card that was signed or made void.</summary>
    Ended,

    /// <summary>What others stand on.</summary>
    TakenBack,

    /// <summary>A step that is never left out.</summary>
    NeverLeftOut,

    /// <summary>A value on which sources disagree.</summary>
    Disputed,

    /// <summary>What the stores' book says of a container.</summary>
    Container,

    /// <summary>What must lie there before the work begins.</summary>
    Kit,

    /// <summary>A wrench, meter or tool whose word does not count.</summary>
    Tool,

    /// <summary>Something that nobody here knows.</summary>
    Unknown,
}

/// <summary>Writes grounds as their code; no number stands for one.</summary>
public sealed class GroundJson() : JsonStringEnumConverter<Ground>(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false);

/// <summary>What a ground is called and why it is one.</summary>
public static class Grounds
{
    /// <summary>A few words, as a heading.</summary>
    public static string Name(this Ground ground) => Of(ground).Name;

    /// <summary>Why the card asks for it, and what it looks at; two or three sentences.</summary>
    public static string More(this Ground ground) => Of(ground).More;

    /// <summary>The word by which addresses and programs know it: small letters and hyphens.</summary>
    public static string Code(this Ground ground) => JsonNamingPolicy.KebabCaseLower.ConvertName($"{ground}");

    private static (string Name, string More) Of(Ground ground) => ground switch
    {
        Ground.Order => ("Another step comes first", "The sheet ties these two together: the later one relies on what the earlier one "
            + "does or shows. The rest of the card may be put in another order, these two not."),
        Ground.UnderWay => ("Something is under way", "While a vehicle is on the road, or its engine was just started or runs to get warm, "
            + "nobody's hands are at anything else. The card goes on when somebody says that it is back, or off."),
        Ground.Stop => ("A stop holds", "Something was graded stop, or work on brakes, steering, wheels or lifting was begun and not "
            + "ended. Nothing is started, driven or signed until the lead has said what is done about it. The stop stays on the record."),
        Ground.Lift => ("The vehicle stands at another height", "The lift moves only by a step of its own: its points, its locks and the "
            + "space underneath are looked at there, and what is open underneath is known."),
        Ground.Engine => ("The engine", "Hands stay away from an engine that runs, and some readings need one that does. The card knows it "
            + "from the steps that start and stop it, and from nothing else."),
        Ground.Wait => ("A wait has not run out", "Oil drips, a filter fills, a pan has to drain. The clock began with the step before. A "
            + "wait can be ended sooner with a reason, and the reason stands on the record."),
        Ground.Held => ("It is held by the clock", "The sheet says for how long. The clock begins when somebody says so, and counts "
            + "nothing that nobody waited for: too short a time is the usual reason why it has to be done again."),
        Ground.Heat => ("It is done cold", "A screw in warm metal is torn out or tightened wrong, and a hot sump burns. The card counts "
            + "from when the engine last ran; where nobody knows that, it counts from when the vehicle came in, until a hand has felt it."),
        Ground.Pan => ("Pans", "What runs out must fit into what stands below, and two fluids in one pan can be neither measured nor "
            + "handed over apart. The card adds up what is in each pan since it was last emptied."),
        Ground.Opened => ("Something is still shut or in the way", "The step works on what lies behind it. The card goes by what was "
            + "opened on it, and by nothing that somebody only meant to open."),
        Ground.Shut => ("Something is still open", "What has been opened must be closed before anything is put under pressure, covered, "
            + "lowered, started or driven. Putting a plug in does not close it: its torque does."),
        Ground.Filled => ("Not enough is in", "An engine turned without oil is lost in seconds. The sheet says how much must be in before "
            + "it turns at all, and what has to be filled or turned by hand first."),
        Ground.Measured => ("A value is wanted", "The card writes down no measurement that nobody made. The number comes from a wrench, a "
            + "meter or a person who says it, and what is no longer there cannot be measured any more."),
        Ground.Looked => ("Nobody has looked yet", "It is found by looking, at the right moment: a leak shows after the engine has run, a "
            + "rag before it is covered, a person under the lift before it comes down."),
        Ground.Ring => ("The ring is open", "A card is signed when everything that was opened on it has been closed by a step of its own, "
            + "and no step is left. Whoever signs says that with a name."),
        Ground.SecondName => ("A second name", "Whoever strays from the book says why, and somebody else looks at it before the vehicle "
            + "goes. Nobody countersigns what they did themselves."),
        Ground.Lead => ("The lead says so", "Some things are decided by one person of the workshop, whose name then stands beside them: "
            + "what becomes of a stop, and what strayed on brakes, steering, wheels or lifting."),
        Ground.Role => ("A role that looks", "Some people see everything and work on nothing. The lead gives the roles."),
        Ground.Already => ("It was done already", "Somebody was there before, perhaps on another device, or it was pressed twice. Nothing "
            + "is written down twice, and nothing was lost."),
        Ground.Ended => ("The card is closed", "A signed record is not changed by anybody. What was noted wrong is put right beside it, "
            + "with a name and a reason, and both stay readable."),
        Ground.TakenBack => ("It cannot be taken back", "The last press can be taken back by whoever made it, as long as nobody went on "
            + "from it or put a name to it. Later it is put right instead, and both stay readable."),
        Ground.NeverLeftOut => ("It is never left out", "It opens, closes or proves something that other steps rely on. It can be left for "
            + "later, or the whole job given up; then the card says what has to be closed first."),
        Ground.Disputed => ("Sources disagree", "The sheet has two values for it, from two sources, and nobody has ruled which one holds. "
            + "Somebody says so with a reason; it stands on the record, and the lead can settle it for all cards."),
        Ground.Container => ("The stores' book", "What is poured is taken off the book of the container that it comes from. A number that "
            + "is not in the book, another oil, or more than is left in it means that the book or the hand is wrong."),
        Ground.Kit => ("What lies there", "A vehicle is not opened when a washer is missing. What the jobs need lies beside it first, by "
            + "number, or somebody says what is missing and what will be done about it."),
        Ground.Tool => ("A tool whose word does not count", "A reading counts where the tool belongs to the workshop, is in calibration, "
            + "reads in that range and stands at that vehicle. Otherwise it is kept and shown, and a person decides."),
        Ground.Unknown => ("Nobody here knows it", "What the card does not know it refuses: a guess would stand on the record as if "
            + "somebody had done it. Load the page again; it may have been drawn before something changed."),
        _ => throw new UnreachableException(),
    };
}
