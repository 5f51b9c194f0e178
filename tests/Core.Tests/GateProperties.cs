using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Looks;
using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using CsCheck;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Random commands in any order: whatever the card accepts, the dangerous things do not happen.</summary>
public class GateProperties
{
    // Fewer when many bent programs are to be walked one after another.
    private static readonly int Walks =
        int.Parse(Environment.GetEnvironmentVariable("ANAKYKLOS_WALKS") ?? "400", CultureInfo.InvariantCulture);

    // An independent account of the workshop, kept from accepted events alone and without any of the card's own state.
    private sealed class Ledger
    {
        private readonly HashSet<ThingId> _out = ["lamp"], _joints = [], _dry = [];
        private decimal _oil = 6;
        private bool _drained, _looked, _ran, _up, _kit;

        internal void Book(CardEvent e, IReadOnlyList<SheetStep> steps)
        {
            SheetStep Of(StepId id) => steps.Single(s => s.Id == id);
            switch (e)
            {
                case KitConfirmed: _kit = true; break;
                case StepDone d: Step(Of(d.Step)); break;
                case ReadingTaken { Outcome: TorqueOutcome.Passes } r: _out.Remove(Of(r.Step).What); break;
                case ReadingTaken { Corrects: not null } r: _out.Add(Of(r.Step).What); break;
                case DeviationTaken { Kind: DeviationKind.NoReading } d: _out.Remove(Of(d.Step).What); break;
                case DeviationTaken { Kind: DeviationKind.StepLeftOut } d when Of(d.Step).Kind == StepKind.Reset:
                    _out.Remove("lamp");
                    break;
                case ResetShown s when Of(s.Step).EndsReset: _out.Remove("lamp"); break;
                case EngineCaught c: Step(Of(c.Step)); break;
                case JointDry d: _dry.Add(d.Fastener); _looked |= _joints.IsSubsetOf(_dry); break;
                case LeakFound l: _out.Add(l.Fastener); _dry.Clear(); (_looked, _ran) = (false, false); break;
                case LiftMoved l: _up = l.Up; break;
                case Poured p: Assert.DoesNotContain(_out, IsPlug); _oil += p.Amount.Value.In(Volume.Litre); break;
                case TakenOut t: _oil -= t.Amount.Value.In(Volume.Litre); break;
                case Signed:
                    Assert.Empty(_out);
                    Assert.True(_looked || _joints.Count == 0, "signed with a joint that nobody looked at after the last run");
                    Assert.False(_up);
                    break;
            }
        }

        private void Opened(ThingId what)
        {
            _out.Add(what);
            if (IsPlug(what) && Courier.Fasteners[what].IsJoint)
                _joints.Add(what);
        }

        private static bool IsPlug(ThingId what) => Courier.Fasteners.ContainsKey(what);

        private void Step(SheetStep s)
        {
            switch (s.Kind)
            {
                case StepKind.Drain:
                    Assert.True(_kit && _up && _out.Contains("undertray"), "drained without kit, lift or way");
                    (_oil, _drained) = (0, true);
                    Opened(s.What);
                    break;
                case StepKind.Open or StepKind.Secure when !s.What.IsEmpty: Opened(s.What); break;
                case StepKind.Close:
                    if (s.What == "undertray" && _drained) Assert.True(_looked, "undertray on before the joints were looked at");
                    _out.Remove(s.What);
                    break;
                case StepKind.Raise: Assert.Contains("wheel-chocks", _out); _up = true; break;
                case StepKind.Lower: Assert.DoesNotContain(_out, IsPlug); _up = false; break;
                case StepKind.Warm or StepKind.Run:
                    Assert.True(_oil >= 4.6m, $"started with {_oil} L");
                    Assert.DoesNotContain(_out, w => IsPlug(w) || w.Text is "oil-filler-cap" or "dipstick");
                    (_ran, _looked) = (true, false);
                    _dry.Clear();
                    break;
                case StepKind.Reset when s.EndsReset: _out.Remove("lamp"); break;
                case StepKind.Look: Assert.True(_ran); _looked = true; break;
            }
        }
    }

    private static CardCommand Command(JobCard card, int a, int b, Workbench bench)
    {
        var steps = card.Steps;
        // Half of the time what the book has next, so that random runs come far; otherwise anything at all.
        var step = a % 2 == 0 && card.Next is { } next ? next : steps[b % steps.Count];
        if (a % 7 == 3)
            bench.Wait(b % 12);
        return (a % 80) switch
        {
            1 => new PutAside(step.Id, "later"),
            3 => new TakeBack(card.History.Count),
            5 => new MoveLift(b % 2 == 0, b % 3 != 0),
            7 => new Deviate(step.Id, b % 2 == 0 ? DeviationKind.NoReading : DeviationKind.StepLeftOut, "so"),
            21 => new FeelCold(),
            9 => new CutWait(step.Awaits.Append(step.Id).First(), "so"),
            11 => new ReportLeak("look-at-joints", b % 2 == 0 ? "engine-drain-plug" : "oil-filter-cap"),
            13 => new FailReset(step.Id, b % 2 == 0 ? "" : "SERVICE NOW"),
            23 => new ReportWeep("look-at-joints", b % 2 == 0 ? "engine-drain-plug" : "oil-filter-cap"),
            25 => new ReportDry("look-at-joints", b % 2 == 0 ? "engine-drain-plug" : "oil-filter-cap"),
            27 => new LightStaysOn("start"),
            29 => new LightWentOut("start", b % 2 == 0),
            31 => new SayJointWasLoose(step.Id),
            33 => new RenewSeal(step.Id, b % 3 == 0 ? "TC-0001-R" : "TC-0714-R"),
            15 => new Sign(),
            17 => new SettleOverTorque(step.Id, "so"),
            19 => new CorrectReading(card.History.LastOrDefault(h => h.Event is ReadingTaken)?.Seq ?? 1, Nm(b % 60), "so"),
            _ => step.Kind switch
            {
                StepKind.Kit => b % 4 == 0 ? FullKit(b % 10, 3 + b % 6) : FullKit(),
                StepKind.Tighten when b % 3 > 0 && card.SealAt(step.What) is SealAfterLeak.Leaked or SealAfterLeak.LeakedAgain =>
                    UsualPress.Of(card, step),
                StepKind.Tighten => new TakeReading(step.Id, Nm(step.What == "engine-drain-plug" ? 36 + b % 7 : 24 + b % 5), b % 2 == 0),
                StepKind.Pour or StepKind.Gauge when a % 3 == 0 => new Pour(step.Id, Litres(b % 60 / 10m), b % 2 == 0),
                StepKind.Pour => new Pour(step.Id, Litres(5)),
                StepKind.Gauge => new ReadGauge(step.Id, new(b % 2 == 0 ? 0.8m : b % 30 / 10m - 1)),
                StepKind.Run or StepKind.Reset when b % 9 != 0 => UsualPress.Of(card, step),
                StepKind.Inspect or StepKind.Fit when b % 9 != 0 && card.Next == step => UsualPress.Of(card, step),
                StepKind.Fit => new FitPart(step.Id, card.Sheet.Parts[step.What].Asks?.Answers[^1].Says ?? "so"),
                StepKind.Inspect => new AnswerPoint(step.Id, "filter", "they differ"),
                StepKind.Read => new See(step.Id, new(LookSubject.Magnet, b % 9 == 0 ? Appearance.Lumps : Appearance.Paste)),
                _ => new ConfirmStep(step.Id, LookedAbove: step.Kind == StepKind.Warm && card.ToolsAbove.Count > 0),
            },
        };
    }

    [Fact]
    public void No_sequence_of_accepted_commands_starts_the_engine_dry_or_signs_with_something_open()
    {
        var (signed, drained, started) = (0, 0, 0);
        Gen.Select(Gen.Int[0, 9999], Gen.Int[0, 9999]).Array[160, 400].Sample(choices =>
        {
            var bench = new Workbench();
            foreach (var (a, b) in choices)
            {
                bench.Wait(a % 4);
                bench.Try(Command(bench.Card, a, b, bench), b % 5 == 0 ? Una : Iona);
            }
            var taken = bench.Card.History.Select(h => h.Event).OfType<TakenBack>()
                .SelectMany(t => Enumerable.Range(t.From, t.To - t.From + 1)).ToHashSet();
            var ledger = new Ledger();
            // A look at the lifting points that was void before the lift went up is in the plan no more.
            IReadOnlyList<SheetStep> steps = [.. bench.Card.History.Select(h => h.Event).OfType<PlanChanged>().SelectMany(p => p.Steps)
                .Concat(bench.Card.Opened.Steps).DistinctBy(s => s.Id)];
            foreach (var h in bench.Card.History.Where(h => !taken.Contains(h.Seq)))
                ledger.Book(h.Event, steps);
            if (bench.Card.Signature is not null)
            {
                Assert.Empty(bench.Card.Open);
                Assert.All(bench.Card.Steps, s => Assert.True(bench.Card.State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut));
                Interlocked.Increment(ref signed);
            }
            if (bench.Card.History.Any(h => h.Event is StepDone d && d.Step == "drain")) Interlocked.Increment(ref drained);
            if (bench.Card.History.Any(h => h.Event is Coaches.Running.EngineCaught)) Interlocked.Increment(ref started);
        }, iter: Walks);
        // The property would be empty if the random runs never got that far.
        Assert.True(Walks < 400 || (drained > 100 && started > 40 && signed > 5), $"{drained} drained, {started} started, {signed} signed");
    }

    [Fact]
    public void A_card_is_the_same_however_its_events_are_fed() =>
        Gen.Int[0, 9999].Array[60, 200].Sample(choices =>
        {
            var bench = new Workbench();
            foreach (var c in choices)
                bench.Try(Command(bench.Card, c, c / 3, bench));
            var again = JobCard.Replay(Courier, bench.Card.History);
            Assert.Equal(bench.Card.Open, again.Open);
            Assert.Equal(bench.Card.Next, again.Next);
            Assert.Equal(bench.Card.LiftUp, again.LiftUp);
        }, iter: 60);
}
