using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Priming;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Coaches.Rotating;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Coaches.Bleeding;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Every kind of step for itself: what it claims, what it refuses, and that what it judged once stays judged.</summary>
public sealed class CoachTests
{
    // Written out by hand: a kind that claims more, or less, than it does would pass a gate that is not its own.
    public static TheoryData<string, string> Claims => new()
    {
        { nameof(StepTraits.Opens), "drain open" },
        { nameof(StepTraits.LetsOut), "drain" },
        { nameof(StepTraits.Sets), "secure" },
        { nameof(StepTraits.Closes), "close" },
        { nameof(StepTraits.Tightens), "tighten" },
        { nameof(StepTraits.ShutsAgain), "bleed" },
        { nameof(StepTraits.Checks), "retighten" },
        { nameof(StepTraits.Fits), "fit" },
        { nameof(StepTraits.Fills), "pour refill" },
        { nameof(StepTraits.Levels), "gauge" },
        { nameof(StepTraits.MeasuresOut), "measure" },
        { nameof(StepTraits.EmptiesPans), "empty" },
        { nameof(StepTraits.Reads), "read" },
        { nameof(StepTraits.SucksOut), "suck" },
        { nameof(StepTraits.LaysOut), "kit" },
        { nameof(StepTraits.LooksOver), "clear" },
        { nameof(StepTraits.LooksAtJoints), "look" },
        { nameof(StepTraits.Primes), "prime" },
        { nameof(StepTraits.PutsOut), "reset" },
        { nameof(StepTraits.IsMeasured), "bleed gauge inspect kit measure pedal pour read refill run" },
        { nameof(StepTraits.MayBeLeftOut), "do drive empty inspect pedal read reset rotate suck warm" },
    };

    [Theory]
    [MemberData(nameof(Claims))]
    public void A_kind_claims_what_it_does_and_nothing_else(string trait, string kinds) => Assert.Equal(kinds,
        string.Join(' ', StepKinds.Words.Where(w => (bool)typeof(StepTraits).GetProperty(trait)!.GetValue(Some(w).Traits)!)));

    [Fact]
    public void Engine_and_lift_are_claimed_by_those_that_move_them()
    {
        const string Engines = "do Either, drive Drives, empty Either, look Either, read Either, run Starts, settle Stops, warm Warms";
        Assert.Equal(Engines, string.Join(", ",
            StepKinds.Words.Where(w => Some(w).Traits.Engine != EngineUse.Off).Select(w => $"{w} {Some(w).Traits.Engine}")));
        Assert.Equal("clear ReadyToLower, lower Lowers, raise Raises, secure ReadyToRaise", string.Join(", ",
            StepKinds.Words.Select(w => Some(w) with { What = "", Place = Place.Below }).Where(s => s.Traits.Lift != LiftMove.None)
                .Select(s => $"{s.Kind} {s.Traits.Lift}")));
        Assert.Equal(StepKind.All.Order(StringComparer.Ordinal), StepKinds.Words);
    }

    private static Typed<Mass> Kilograms(decimal kg) => new(Quantity<Mass>.Of(kg, Mass.Kilogram), Mass.Kilogram);

    private static SheetStep Some(string kind) => new()
    {
        Id = "some", Kind = kind, What = "thing", Title = "Something", Phase = "Phase", Place = Place.Top, Takes = TimeSpan.FromMinutes(1),
    };

    [Fact]
    public void Whatever_does_not_belong_to_a_step_is_refused_in_words()
    {
        foreach (var sheet in ComposerTests.Sheets.Values)
        {
            var card = On(sheet.Id.Text, [.. sheet.Jobs.Keys]);
            for (var now = card.History[^1].At; card.Next is { } step;)
            {
                now += step.Takes;
                foreach (var wait in card.Waits.Where(w => w.Until > now))
                    now = wait.Until;
                now += step.Cold ? sheet.CoolsIn : default;
                foreach (var foreign in Everything(step.Id).Where(c => !Belongs(card, step, c)))
                {
                    var answer = card.Decide(foreign, Iona, now, UsualPress.Facts(sheet));
                    Assert.True(answer is Refused { Reasons.Count: > 0 }, $"{step.Kind} “{step.Title}” takes {foreign}: {answer}");
                    Assert.All(((Refused)answer).Reasons, r => Assert.True(r.What.Length > 0 && r.Do.Length > 0));
                }
                var accepted = Assert.IsType<Accepted>(card.Decide(UsualPress.Of(card, step), Iona, now, UsualPress.Facts(sheet)));
                Assert.All(accepted.Events, e => Assert.True(e is not IStepEvent
                    || e.Frozen is { Rules: FrozenEffects.Now }));
                var seq = card.History.Count;
                card = card.With([.. accepted.Events.Select(e => new Recorded(++seq, now, Iona, Guid.NewGuid(), e))]);
            }
        }
    }

    internal static IEnumerable<CardCommand> Everything(StepId step) =>
    [
        new ConfirmStep(step), new ConfirmStep(step, 3),
            new ConfirmKit(step, new Dictionary<PartId, KitPart>(), [], new Dictionary<FluidId, OilLaidOut>()),
        new DrawInOrder(step, 1, 1), new TakeWrench(step, "Any"),
            new TakeReading(step, Nm(20), true), new SettleOverTorque(step, "Slackened"), new Pour(step, Litres(1), true),
            new TakeOut(step, Litres(0.1m)),
        new See(step, new(LookSubject.Magnet, Appearance.Paste)), new Measure(step, Litres(1)),
        new Rinse(step, Litres(0.1m)), new SayStripped(step), new FillPart(step, Litres(0.5m)), new Weigh(step, Kilograms(3), Kilograms(1)),
            new ReadGauge(step, new Level(0.5m)),
            new ReadRod(step, new(Quantity<Length>.Of(69, Length.Millimetre), Length.Millimetre)), new RunOver(step, true),
            new Dip(step, new Level(0.5m), true), new ReadBeforeRun(step, new Level(0.5m), true),
        new ReportLeak(step, "engine-drain-plug"), new ReportDry(step, "engine-drain-plug"), new ReportWeep(step, "engine-drain-plug"),
            new FailReset(step), new HoldReset(step), new ShowReset(step, Kilometres(9000), null), new ShowReset(step, null, 6),
            new LookIntoReset(step, "Fuse"), new CrankEngine(step), new MakeStartMove(step), new EngineRunsNow(step),
            new SweepOne(step, "Rags, foil and lamp"), new SetOff(step), new SayTried(step, 0, TryWent.Well),
            new ComeBack(step, Kilometres(4), "Harbour road"),
            new SayJointWasLoose(step), new RenewSeal(step, "TC-0714-R"), new HearTool(step, "LINK", "ST-1"),
            new LightWentOut(step), new LightStaysOn(step), new LookIntoLight(step, "Lead off"),
        new MakeStrokes(step, 1), new SeeHose(step, Runs.Dark), new FillReservoir(step), new PressPedal(step),
            new FeelPedal(step, Pedal.Soft), new MeasurePoint(step, "front-left", "5"), new AnswerPoint(step, "teeth", "whole"),
            new AnswerTheRest(step), new LetPointStay(step, "front-left"), new HoldPrimer(step), new CountPrimer(step, 2),
            new LookAtTread(step, true), new BeginWarming(step), new SwitchOffDry(step),
        new Deviate(step, DeviationKind.StepLeftOut, "No time"), new Deviate(step, DeviationKind.NoReading, "No wrench"),
        new Deviate(step, DeviationKind.OldSealAgain, "None here"), new CorrectReading(1, Nm(20), "Misread"), new Unheard(step),
            new UnheardOf(),
    ];

    private sealed record Unheard(StepId Step) : StepCommand(Step);

    private sealed record UnheardOf : CardCommand;

    // What may be said at a step, told from the sheet.
    private static bool Belongs(JobCard card, SheetStep step, CardCommand command)
    {
        var clear = step.Kind == "bleed" && BleedState.Of(card, step).IsClear;
        var fastening = clear || step.Kind is "tighten" or "retighten" ? Fastening.Of(card, step) : null;
        var torque = fastening?.Next?.Spec is ToTorque;
        var counted = step.Kind is "open" or "close" && card.Sheet.Access.GetValueOrDefault(step.What)?.Count > 0;
        return command switch
        {
            ConfirmStep { Count: not null } => counted,
            MakeStrokes or SeeHose => step.Kind == "bleed",
            FillReservoir => step.Kind is "bleed" or "refill",
            MeasurePoint or AnswerPoint or AnswerTheRest or LetPointStay => step.Kind == "inspect",
            LookAtTread => step.Kind == "rotate",
            ConfirmStep when step.Kind == "drive" => step.Spec is not DriveSpec,
            BeginWarming => step.Spec is WarmSpec && card.Away is null,
            ConfirmStep when step.Spec is WarmSpec => card.Away is not null,
            ConfirmStep when step.Kind == "rotate" => Rotation.Of(card, step).Arrowed is not null,
            HoldPrimer or CountPrimer => step.Spec is PrimeSpec,
            ConfirmStep when step.Spec is PrimeSpec => Priming.Of(card, step).Left == 0,
            PressPedal or FeelPedal => step.Kind == "pedal",
            ConfirmStep when step.Kind == "reset" => IsHeld(card, step),
            ConfirmStep when fastening is not null => !torque && fastening.Plan.Slots.Count == 1,
            DrawInOrder c => fastening?.InThisPass.Any(s => s.Pass == c.Pass && s.Place.Number == c.Place
                && (fastening.Plan.Group.Together || s == fastening.Next)) == true,
            TakeWrench => fastening?.Fastener.LastTorque is not null,
            ConfirmStep => step.Kind is not ("kit" or "pour" or "gauge" or "measure" or "bleed" or "read" or "refill" or "pedal"
                or "inspect" or "run"),
            TakeReading => torque,
            Pour => step.Kind == "pour",
            Measure or Weigh => step.Kind == "measure",
            See => step.Kind == "read",
            ReadGauge => step.Kind == "gauge" && card.Sheet.Fluids[step.What].FillBy != FillBy.Rod,
            ReadRod => step.Kind == "gauge" && card.Sheet.Fluids[step.What].FillBy == FillBy.Rod,
            Dip => card.ToDip?.Id == step.Id,
            RunOver => step.Kind == "pour" && card.Sheet.Fluids[step.What].FillBy == FillBy.Overflow
                && card.Fluid(step.What).Poured > Quantity<Volume>.Zero,
            ReportLeak { Fastener: var joint } when step.Kind == "settle" => card.JointsInSight.Any(f => f.Id == joint),
            SwitchOffDry => step.Kind == "settle" && card.JointsInSight.Any(),
            ReportLeak or ReportDry or ReportWeep => step.Kind == "look",
            FailReset => step.Kind == "reset",
            // What is held must be held first, and again if it is let go.
            HearTool => step is { Kind: "reset", Spec: ResetMove { Uses: DashControl.Tool or DashControl.Plug or DashControl.Choice } },
            HoldReset => step is { Kind: "reset", Hold: not null },
            ShowReset c => step.Kind == "reset" && IsHeld(card, step)
                && Resetting.Of(card, step).Tells == (c.Months is null ? NextService.Distance : NextService.Months),
            SweepOne c => step.Kind == "clear" && SweepItem.Of(card, step).Any(i => i.What == c.What && !i.Seen),
            SetOff => step.Spec is DriveSpec && card.Away is null,
            SayTried => step.Spec is DriveSpec && card.Away is not null,
            ComeBack => step.Spec is DriveSpec && card.Away is not null && RoadTest.Of(card, step).Next is null,
            CrankEngine => step.Kind == "run" && card.Sheet.Starter is not null && !card.EngineRuns,
            MakeStartMove => step.Kind == "run" && !card.EngineRuns && Starting.Of(card, step).Next is not null,
            EngineRunsNow => step.Kind == "run" && !card.EngineRuns && Starting.Of(card, step).Next is null,
            LightWentOut or LightStaysOn => step.Kind == "run" && card.EngineRuns,
            ConfirmKit => step.Kind == "kit",
            Deviate { Kind: DeviationKind.StepLeftOut } => step.Kind is "do" or "warm" or "drive" or "reset" or "empty" or "read" or "suck"
                or "pedal" or "inspect" or "rotate",
            Deviate { Kind: DeviationKind.NoReading } => fastening?.Fastener.LastTorque is not null || step.Kind is "bleed" or "measure",
            _ => false,
        };
    }

    private static bool IsHeld(JobCard card, SheetStep step) => step.Hold is null || Resetting.Of(card, step).HeldUntil is not null;

    private static Typed<Distance> Kilometres(decimal km) => new(Km(km), Distance.Kilometre);

    [Fact]
    public void A_later_change_of_tolerance_torque_or_school_leaves_a_signed_card_as_it_was()
    {
        var bench = new Workbench();
        bench.WorkUpTo();
        bench.Do(new Sign());
        var fluid = Courier.Fluids["engine-oil"];
        var other = Courier with
        {
            Fluids = new Dictionary<FluidId, FluidSystem>(Courier.Fluids)
            {
                ["engine-oil"] = fluid with { SafeToStart = fluid.SafeToStart! with { Value = L(6) },
                    BetweenMarks = fluid.BetweenMarks! with { Value = L(9) },
                    Target = TargetSchool.TopMark, SettleAfterPour = TimeSpan.FromHours(1) },
            },
        };
        var history = bench.Card.History;
        Assert.Equal(CardDigest.Of(bench.Card), CardDigest.Of(JobCard.Replay(other, history)));
        // From events alone, without what was written down with them, the card would read otherwise today.
        List<Recorded> bare = [.. history.Select(r => r with { Event = r.Event with { Frozen = null } })];
        Assert.NotEqual(CardDigest.Of(bench.Card), CardDigest.Of(JobCard.Replay(other, bare)));
        Assert.Equal(CardDigest.Of(bench.Card), CardDigest.Of(JobCard.Replay(Courier, bare)));
    }

    [Fact]
    public void What_was_written_down_is_read_back_and_an_effect_that_nobody_knows_is_not_read_as_nothing()
    {
        var bench = new Workbench();
        bench.WorkUpTo("start");
        foreach (var recorded in bench.Card.History)
            Assert.Equal(CardJson.Write(recorded.Event), CardJson.Write(CardJson.Read(CardJson.Write(recorded.Event))));
        var text = CardJson.Write(bench.Card.History.First(r => r.Event is StepDone).Event);
        Assert.Contains("\"effect\":\"StepEnds\"", text);
        Assert.Throws<JsonException>(() => CardJson.Read(text.Replace("StepEnds", "StepVanishes")));
    }

    [Fact]
    public void A_kind_of_a_newer_program_allows_nothing_and_says_so()
    {
        SheetStep[] steps = [Some("bless") with { What = "" }, Some("do") with { Id = "label", What = "" }];
        var card = CardWalk.Open(Courier, ["engine-oil-and-filter"], steps);
        var now = card.History[0].At;
        Assert.Contains("Nobody has said how", Assert.Single(card.InTheWay(steps[0], now)).What);
        foreach (var said in Everything("some"))
            Assert.Contains(Assert.IsType<Refused>(card.Decide(said, Iona, now)).Reasons,
                r => r.What.StartsWith("Nobody has said how") || said is CorrectionCommand or not StepCommand);
        Assert.IsType<Accepted>(card.Decide(new PutAside("some", "Nobody knows how"), Iona, now));
        Assert.Equal("label", card.Next!.Id);
    }
}
