using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Wording;

/// <summary>The words of the trade for what the core says in types.</summary>
public static class LiftWords
{
    public static string Place(Place place) => place switch
    {
        Core.Sheets.Place.Cab => "in the cab",
        Core.Sheets.Place.Top => "above",
        Core.Sheets.Place.Side => "beside it",
        _ => "below",
    };

    /// <summary>Where the hands are, and where the lift must be for it.</summary>
    public static string Where(SheetStep step) => Place(step.Place) + step.Lift switch
    {
        LiftNeed.Up => ", lift up",
        LiftNeed.Down => ", lift down",
        _ => "",
    };

    /// <summary>How a step stands; empty while it waits.</summary>
    public static string Status(StepStatus status) => status switch
    {
        StepStatus.Done => "done",
        StepStatus.Aside => "for later",
        StepStatus.LeftOut => "left out",
        _ => "",
    };

    /// <summary>The keys at the lift, and what they press.</summary>
    public static IReadOnlyList<(string Key, string Presses)> Keys { get; } =
    [
        ("Enter", "the big button"), ("O", "the other one beside it"), ("B", "back"), ("J", "jump to a step"), ("S", "saw something"),
        ("C", "can't finish this"), ("U", "take back what you pressed last"), ("P", "the plan"), ("H", "hand over"),
        ("M", "the drawing, large"), ("Z", "as it stands"), ("Esc", "never mind"), ("?", "these keys"),
    ];

    /// <summary>How a workshop drains, such as "Drained plug first, then the filler cap, and left to run for 40 minutes".</summary>
    public static string School(DrainedBy by) => "Drained" + (by.Air switch
    {
        DrainSchool.AirFirst => " with the filler cap loose first",
        DrainSchool.PlugFirst => " plug first, then the filler cap",
        _ => "",
    }) + (by.DripMinutes > 0 ? $"{(by.Air is null ? "" : ",")} left to run for {by.DripMinutes} minutes" : "");

    public static string School(TargetSchool school) => school switch
    {
        TargetSchool.TopMark => "to the top mark",
        TargetSchool.ThreeQuarters => "to three quarters",
        _ => "to a little under the top mark",
    };

    public static string Grade(FindingGrade grade) => grade switch
    {
        FindingGrade.Sound => "sound",
        FindingGrade.KeepAnEye => "keep an eye on it",
        FindingGrade.PlanIt => "plan it",
        _ => "stop",
    };

    /// <summary>How something strayed, in a few words.</summary>
    public static string Strayed(Stray how) => how switch
    {
        Stray.Leak => "leak",
        Stray.TooMuch => "too much torque",
        Stray.PutRight => "put right afterwards",
        Stray.Warned => "against a warning",
        Stray.WaitCut => "not waited for",
        Stray.Light => "oil light",
        Stray.NoStart => "did not fire",
        Stray.Reset => "reset",
        Stray.LetStay => "let stay",
        _ => throw new ArgumentOutOfRangeException(nameof(how), how, "Nobody has said what that is called."),
    };

    public static string Outcome(TorqueOutcome outcome) => outcome switch
    {
        TorqueOutcome.Passes => "passes",
        TorqueOutcome.TooLittle => "too little, again",
        _ => "too much, stopped",
    };

    /// <summary>Minutes and seconds, 00:00 when it is over; hours only when there are any.</summary>
    public static string Clock(TimeSpan left) => left <= TimeSpan.Zero ? "00:00" : left.TotalHours >= 1 ? left.ToString(@"h\:mm\:ss")
        : left.ToString(@"mm\:ss");

    public static string Spent(TimeSpan time) => time.TotalHours >= 1 ? $"{(int)time.TotalHours} h {time.Minutes:00}"
        : $"{Math.Max(0, (int)time.TotalMinutes)} min";

    public static string Hold(TimeSpan hold) => hold.TotalSeconds % 60 == 0 ? $"{hold.TotalMinutes:0} min" : $"{hold.TotalSeconds:0} s";

    /// <summary>A due date, distance or both.</summary>
    public static string Due(NextDue due, Unit<Distance> unit) => string.Join(" or ", new[]
    {
        due.By is { } by ? $"{by:d MMM yyyy}" : "", due.At is { } at ? $"at {OdometerText.Of(at, unit)}" : "",
            due.AtHours is { } hours ? $"at {hours} h" : "",
    }.Where(t => t.Length > 0).DefaultIfEmpty("by running hours"));

    /// <summary>What a change of order costs, as the end of a sentence; empty when nothing.</summary>
    public static string Later(TimeSpan costs) => costs > TimeSpan.Zero ? $": {Spent(costs)} later" : costs < TimeSpan.Zero
        ? $": {Spent(-costs)} earlier" : "";

    /// <summary>An interval in a line: normal, harsh, and how often of it, or of the job whose times it counts.</summary>
    /// <param name="rule">The interval.</param>
    /// <param name="counted">The name of that job; null where it counts none.</param>
    public static string Every(IntervalRule rule, string? counted = null)
    {
        static string One(ServiceInterval i) => string.Join(" or ",
            new[] { i.Every is { } km ? OdometerText.Of(km, Distance.Kilometre) : "", i.Months is { } m ? $"{m} months" : "",
            i.Hours is { } h ? $"{h} h" : "" }.Where(t => t.Length > 0));
        var harsh = rule.Harsh == rule.Normal ? "" : $", harsh {One(rule.Harsh)}";
        var times = rule.EveryTime switch { <= 1 => "", 2 => ", every second time", _ => $", every {rule.EveryTime}th time" }
            + (counted is null ? "" : $", and with every {(rule.EveryTime == 2 ? "second" : $"{rule.EveryTime}th")} time of “{counted}”");
        return $"every {One(rule.Normal)}{harsh}{times}";
    }

    /// <summary>How a fluid is brought to its level.</summary>
    public static string FillBy(FluidSystem fluid) => fluid.FillBy switch
    {
        Core.Sheets.FillBy.Dipstick => "by dipstick",
        Core.Sheets.FillBy.SightGlass => "by the window",
        Core.Sheets.FillBy.Rod => "by the rod",
        Core.Sheets.FillBy.Part => $"to the {Words.Low(fluid.Part)}",
        Core.Sheets.FillBy.Overflow => "until it runs over",
        Core.Sheets.FillBy.MeasuredReturn => "as much as came out, then by dipstick",
        _ => "measured out",
    };

    /// <summary>Where the hands go after a step, as a sentence without a full stop; empty when nothing is left, or when the next step says
    /// it itself.</summary>
    public static string Stay(HandsGo hands)
    {
        var go = hands switch { { LiftUp: true } => "then raise it", { LiftUp: false } => "then lower it",
            { Then: { } place } => $"then {Go(place)}", _ => "" };
        string[] numbers = ["", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
        return hands is { More: 0, LiftUp: not null } ? ""
            : hands.More == 0 ? go.Length > 0 ? char.ToUpperInvariant(go[0]) + go[1..] : ""
            : $"Stay {Place(hands.Here)}: {(hands.More < numbers.Length ? numbers[hands.More] : $"{hands.More}")} more "
                + $"here{(go.Length > 0 ? ", " + go : "")}";
    }

    /// <summary>The way of a belt in words.</summary>
    public static string Route(BeltRoute belt) =>
        string.Join(", then ", belt.Pulleys.Select(p => p.Back ? $"{p.Name} with its back" : p.Name));

    private static string Go(Place place) => place switch
    {
        Core.Sheets.Place.Cab => "into the cab",
        Core.Sheets.Place.Top => "to the engine bay",
        Core.Sheets.Place.Side => "to the side",
        _ => "below",
    };

    /// <summary>Hours and minutes as 2:24.</summary>
    public static string Span(TimeSpan time) => $"{(int)time.TotalHours}:{time.Minutes:00}";

    /// <summary>A container with what is left in it, such as "Can 12, 1.30 L left, batch M388".</summary>
    public static string Can(OilContainer can) => $"{Upper(can.Name)}, {can.Left.Print(can.Scale)} left"
        + (can.Opened is null ? ", still shut" : "") + (can.Batch.Length > 0 ? $", batch {can.Batch}" : "");

    /// <summary>With a capital letter.</summary>
    public static string Upper(string words) => $"{char.ToUpperInvariant(words[0])}{words[1..]}";
}
