using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>
/// The engine is started and runs on: it runs, and the oil light is out within so many seconds, or it is off at once and not started again
/// before somebody has looked why. One that does not fire is not cranked for longer than its starter bears.
/// </summary>
internal sealed class RunCoach : PressedCoach
{
    // A light that stayed twice is not tried a third time by the one who stands there.
    private const int StopsAfter = 2;

    public override string Kind => "run";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Starts, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("start", StartSpec.Read, false);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        CrankEngine => at.NotNow() ?? Untried(at) ?? Running(at) ?? Cranked(at),
        MakeStartMove => at.NotNow() ?? Untried(at) ?? Running(at) ?? Moved(at),
        EngineRunsNow => at.NotNow() ?? Untried(at) ?? Running(at) ?? Caught(at),
        // What the light does is so, whatever else came up while the engine runs.
        LightWentOut c => NotRunning(at) ?? WentOut(at, c.Meant),
        LightStaysOn => NotRunning(at) ?? Stayed(at),
        LookIntoLight c => Starting.Of(at.Card, at.Step).Untried ? LookedInto(at, c)
            : at.NotNow() ?? (Decision)No("The light did not stay on.", "Go on with the step."),
        ConfirmStep => at.NotNow() ?? No("This one is started, and its oil light watched.", "Say that it runs, then what the light does."),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        EngineCranked e => [new WaitBegins(step.Id, e.Cools ? "Starter cools" : "Starter rests", e.Rests),
            .. e.Again.Select(a => new StepBeginsAgain(a))],
        EngineCaught => [new EngineStarts(step.Id), Running(step)],
        OilLightOut => [new StepEnds(step.Id)],
        OilLightStayed => [new EngineStops(), new Closes(OpenRef.Engine)],
        StartMoveMade or LightLookedInto => [],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => Starting.Of(card, step) switch
    {
        { Untried: true } => new LookIntoLight(step.Id, "All of it is as it should be"),
        { CaughtAt: not null } => new LightWentOut(step.Id, true),
        { Next: not null } => new MakeStartMove(step.Id),
        _ => new EngineRunsNow(step.Id),
    };

    // On cards from before the light was timed one press said all of it.
    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new EngineStarts(), Running(step)];

    private static Opens Running(SheetStep step) => new(OpenRef.Engine, "Engine running", "until it is switched off", step.Id);

    private static Refused? Untried(StepAt at) => Starting.Of(at.Card, at.Step).Untried
        ? No("The oil light stayed on, and nobody has said what was found.", "Look at what stands there first, then say so.") : null;

    private static Refused? Running(StepAt at) => Starting.Of(at.Card, at.Step).CaughtAt is null ? null
        : No("It runs already.", "Look at the oil light, and say what it does.");

    private static Refused? NotRunning(StepAt at) => Starting.Of(at.Card, at.Step).CaughtAt is not null ? null
        : at.NotNow() ?? No("The engine has not been started.", "Start it, say that it runs, then watch the light.");

    private static Decision Moved(StepAt at) => Starting.Of(at.Card, at.Step) is { Next: not null } starting
        ? Yes(new StartMoveMade(at.Id, starting.Made + 1)) : No("All the moves were made.", "Start it, and say that it runs.");

    private static Decision Caught(StepAt at) => Starting.Of(at.Card, at.Step).Next is { } move
        ? No($"“{move.Do}” comes first.", "It would not run on by itself. Do that, then say so.") : Yes(new EngineCaught(at.Id));

    // Who presses late may have seen it go out in time; nobody else knows.
    private static Decision WentOut(StepAt at, bool meant)
    {
        var (after, light) = (SinceCaught(at), StartSpec.Of(at.Step).Light);
        return after <= light || meant ? Yes(new OilLightOut(at.Id, after, after <= light))
            : new Asked(new LightQuestion(
                $"You pressed {after.TotalSeconds:0} s after the start. Was the light out within {light.TotalSeconds:0} s?", after));
    }

    private static Decision Stayed(StepAt at)
    {
        var starting = Starting.Of(at.Card, at.Step);
        var again = starting.Stayed + 1 >= StopsAfter;
        return Yes(new OilLightStayed(at.Id, SinceCaught(at)), new FindingNoted(at.Id, again ? FindingGrade.Stop : FindingGrade.PlanIt,
            again ? $"The oil light stayed on after the start, {starting.Stayed + 1} times" : "The oil light stayed on after the start"));
    }

    private static TimeSpan SinceCaught(StepAt at) => TimeSpan.FromSeconds(
        Math.Ceiling(Math.Max(0, (at.Now - Starting.Of(at.Card, at.Step).CaughtAt!.Value).TotalSeconds)));

    private static Decision LookedInto(StepAt at, LookIntoLight said) =>
        Wordless(said.Found, "found", "What was found") ?? (Decision)Yes(new LightLookedInto(at.Id, said.Found.Trim()));

    // What does not fire after so many tries is dry, or has another fault: what was primed is primed again.
    private static Decision Cranked(StepAt at)
    {
        if (at.Sheet.Starter is not { } starter)
            return No("The sheet does not say how long it may be cranked.", "Note what it did as something seen, and ask the lead.");
        var cools = Cranking.Of(at.Card, at.Step).Left <= 1;
        IReadOnlyList<StepId> again = cools
            ? [.. at.Card.Steps.Where(s => s.Traits.Primes && at.Card.State(s.Id).Status == StepStatus.Done).Select(s => s.Id)] : [];
        return Yes(new EngineCranked(at.Id, cools, cools ? starter.Cools : starter.Rest, again));
    }
}
