using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A model with nothing in common with the Courier but the format: no rule may know a particular vehicle.</summary>
public class OtherModelTests
{
    private const string Text = """
        {
          "format": "anakyklos/model-sheet/1", "id": "curlew-80", "revision": 1, "stands": "ground", "make": "Curlew", "name": "80 tractor",
          "sources": { "plate": { "title": "Plate on the bonnet", "byMaker": true } },
          "access": {
            "blocks": { "name": "Wooden blocks", "place": "side", "tool": "two blocks", "holdsVehicle": true, "from": "plate",
              "at": "left" },
            "air-box": { "name": "Air box lid", "place": "top", "tool": "T25 bit", "count": 3, "countOf": "screws", "intake": true,
              "from": "plate", "at": "left" }
          },
          "fluids": {
            "engine-oil": {
              "name": "Engine oil", "pumped": true, "settleAfterPour": "1 min", "target": "top-mark",
              "amount": { "is": "3 US qt", "from": "plate", "at": "left" }, "tolerance": { "is": "100 mL", "from": "plate", "at": "left" },
              "safeToStart": { "is": "1.8 L", "from": "plate", "at": "left" }, "betweenMarks": { "is": "1 US qt", "from": "plate",
                "at": "left" },
              "reading": { "is": "Cold", "from": "plate", "at": "left" }, "grades": { "is": ["SAE 30"], "from": "plate",
                "at": "left" }, "approvals": { "is": [], "from": "plate", "at": "left" }
            }
          },
          "fasteners": {
            "plug": { "name": "Drain plug", "thread": "M22", "material": "iron", "drive": "Hex 27", "torque": { "is": "60 lbf·ft",
              "low": "55 lbf·ft", "high": "65 lbf·ft", "from": "plate", "at": "left" }, "seal": "ring", "tooMuch": "new-part",
                "drains": "engine-oil" },
            "filter": { "name": "Spin-on filter", "material": "steel", "drive": "by hand", "torque": { "turnAfterContact": 270,
              "from": "plate", "at": "left" }, "holds": ["can"], "system": "engine-oil", "tooMuch": "new-part" },
            "breather": { "name": "Breather cap", "material": "brass", "drive": "by hand",
              "torque": { "byHand": "until the ring touches", "from": "plate", "at": "left" }, "system": "engine-oil",
                "tooMuch": "slacken-and-repeat" }
          },
          "parts": {
            "ring": { "name": "Copper ring", "number": { "is": "CU-22", "from": "plate", "at": "left" }, "reusableTimes": 2 },
            "can": { "name": "Filter", "number": { "is": "CU-80-F", "from": "plate", "at": "left" } }
          },
          "intervals": { "oil": { "normal": { "distance": "3000 mi", "months": 24 }, "harsh": { "distance": "1500 mi", "months": 12 },
            "from": "plate", "at": "left" } },
          "steps": {
            "kit": { "kind": "kit", "title": "Lay it out", "phase": "A", "place": "side", "takes": "1 min" },
            "block": { "kind": "secure", "what": "blocks", "title": "Block it", "phase": "A", "place": "side", "takes": "1 min" },
            "lid-off": { "kind": "open", "what": "air-box", "title": "Lid off", "phase": "A", "place": "top", "takes": "1 min" },
            "breather-off": { "kind": "open", "what": "breather", "title": "Breather off", "phase": "A", "place": "top", "takes": "1 min" },
            "filter-off": { "kind": "open", "what": "filter", "title": "Filter off", "phase": "A", "place": "side", "takes": "1 min" },
            "drain": { "kind": "drain", "what": "plug", "title": "Drain", "phase": "B", "place": "side", "takes": "1 min",
              "wait": { "for": "Drip", "lasts": "30 s" } },
            "ring-on": { "kind": "fit", "what": "ring", "title": "Ring on", "phase": "B", "place": "side", "takes": "1 min",
              "awaits": ["drain"] },
            "plug-in": { "kind": "tighten", "what": "plug", "title": "Plug in", "phase": "B", "place": "side", "takes": "1 min" },
            "can-on": { "kind": "fit", "what": "can", "title": "Filter up to contact", "phase": "B", "place": "side", "takes": "1 min" },
            "filter-on": { "kind": "tighten", "what": "filter", "title": "Filter on", "phase": "B", "place": "side", "takes": "1 min" },
            "fill": { "kind": "pour", "what": "engine-oil", "title": "Fill", "phase": "C", "place": "top", "takes": "1 min" },
            "breather-on": { "kind": "tighten", "what": "breather", "title": "Breather on", "phase": "C", "place": "top",
              "takes": "1 min" },
            "lid-on": { "kind": "close", "what": "air-box", "title": "Lid on", "phase": "C", "place": "top", "takes": "1 min" },
            "start": { "kind": "run", "what": "engine-oil", "title": "Start", "phase": "C", "place": "cab", "takes": "1 min" },
            "stop": { "kind": "settle", "title": "Stop", "phase": "C", "place": "cab", "takes": "1 min", "wait": { "for": "Settle",
              "lasts": "1 min" } },
            "level": { "kind": "gauge", "what": "engine-oil", "title": "Level", "phase": "C", "place": "top", "takes": "1 min",
              "awaits": ["stop"] },
            "unblock": { "kind": "close", "what": "blocks", "title": "Blocks away", "phase": "D", "place": "side", "takes": "1 min" },
            "grease": { "kind": "do", "title": "Grease it", "phase": "D", "place": "side", "takes": "1 min" }
          },
          "jobs": {
            "oil": { "name": "Oil", "worksOn": ["engine-oil"], "parts": ["ring", "can"], "interval": "oil",
              "steps": ["lid-off", "breather-off", "filter-off"] },
            "grease": { "name": "Grease", "interval": "oil", "steps": ["grease"] }
          }
        }
        """;

    private static readonly ModelSheet Tractor = Read();

    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private JobCard _card;

    public OtherModelTests() => _card = JobCard.Replay(Tractor, [new(1, _now, Iona, Guid.NewGuid(),
        new CardOpened("T-1", Tractor.Id, 1, ["oil", "grease"], CardPlanner.Compose(Tractor, ["oil", "grease"]), Km(1000), Use.Normal, null,
            new Dictionary<PartId, int>()))]);

    private static readonly CardFacts Facts = new(Shelf.Empty with { Oils = new([new("Any SAE 30", ["SAE 30"], [], [], false)],
        CoverBook.Empty) });

    private static ModelSheet Read()
    {
        var reading = SheetReader.Read(Text);
        return reading.Sheet ?? throw new InvalidOperationException(string.Join("\n", reading.Errors));
    }

    private Decision Give(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, Facts);
        if (decision is Accepted accepted)
        {
            var seq = _card.History.Count;
            var id = Guid.NewGuid();
            _card = _card.With([.. accepted.Events.Select(e => new Recorded(++seq, _now, Iona, id, e))]);
        }
        _now += TimeSpan.FromMinutes(1.5);
        return decision;
    }

    private void Do(CardCommand command) => Assert.True(Give(command) is Accepted, Describe(_card.Decide(command, Iona, _now, Facts)));

    private void Done(params StepId[] steps)
    {
        foreach (var step in steps)
        {
            if (_card.Step(step)!.Kind != StepKind.Run)
            {
                Do(new ConfirmStep(step));
                continue;
            }
            Do(new EngineRunsNow(step));
            Do(new LightWentOut(step, true));
        }
    }

    private string Refused(CardCommand command) => Describe(Assert.IsType<Refused>(Give(command)));

    private void UpToFilling()
    {
        Do(new ConfirmKit("kit", Tractor.Parts.Keys.ToDictionary(p => p, _ => new KitPart(KitChoice.InHand)), [L(5)],
            EngineOil(4, "Any SAE 30")));
        Done("block", "lid-off", "breather-off", "drain", "filter-off", "ring-on");
        Do(new TakeReading("plug-in", new Core.Quantities.NumberSaid<Core.Quantities.Torque>(60, Core.Quantities.Torque.PoundFoot)));
    }

    [Fact]
    public void Two_jobs_share_their_steps_and_the_card_closes()
    {
        Assert.Equal(22, _card.Steps.Count);
        UpToFilling();
        Done("can-on", "filter-on", "breather-on");
        Do(new Pour("fill", new(_card.FillOf("engine-oil").FirstPour, Core.Quantities.Volume.Litre)));
        Done("lid-on", "clear-top", "start", "stop", "look-at-joints");
        Do(new ReadGauge("level", new(0.95m)));
        Done("used-oil", "grease", "unblock", "label");
        Do(new Sign());
        Assert.Equal(["oil", "grease"], ((Signed)_card.Signature!.Event).Due.Select(d => d.Job));
        Assert.Equal(new DateOnly(2028, 3, 9), ((Signed)_card.Signature!.Event).Due[0].Next.By);
    }

    [Fact]
    public void An_open_intake_and_a_loose_filter_keep_the_engine_off()
    {
        UpToFilling();
        Assert.Contains("spin-on filter is not tightened", Refused(new Pour("fill", Litres(2))));
        Assert.Contains("filter has not been fitted", Refused(new ConfirmStep("filter-on")));
        Done("can-on", "filter-on");
        Assert.Contains("breather cap is not tightened", Refused(new Pour("fill", Litres(2))));
        Done("breather-on");
        Do(new Pour("fill", Litres(2)));
        Assert.Contains("air box lid is still open", Refused(new ConfirmStep("start")));
    }

    [Fact]
    public void A_turn_after_contact_takes_no_torque_and_no_missing_reading()
    {
        UpToFilling();
        Done("can-on");
        Assert.Contains("has no torque", Refused(new TakeReading("filter-on", Nm(20))));
        Assert.Contains("cannot be left out", Refused(new Deviate("filter-on", DeviationKind.NoReading, "so")));
        Assert.Equal(new TurnAfterContact(0.75m), Tractor.Fasteners["filter"].Tightening.Value);
        Assert.Equal(new ByHand("until the ring touches"), Tractor.Fasteners["breather"].Tightening.Value);
    }

    [Fact]
    public void After_too_much_a_new_part_is_asked_for_and_the_technician_may_say_so()
    {
        UpToFilling();
        var reading = _card.History.Last(h => h.Event is ReadingTaken);
        Do(new CorrectReading(reading.Seq, Nm(120), "It was the other scale"));
        Assert.Contains("Fit a new part", Refused(new TakeReading("plug-in", Nm(81))));
        Do(new SettleOverTorque("plug-in", "New plug and ring"));
        Do(new TakeReading("plug-in", Nm(81)));
        Assert.DoesNotContain(_card.Open, o => o.Id == "plug");
    }

    [Fact]
    public void While_the_engine_runs_nothing_is_opened_and_the_lift_stays()
    {
        UpToFilling();
        Done("can-on", "filter-on", "breather-on");
        Do(new Pour("fill", Litres(1.9m)));
        Done("lid-on", "clear-top", "start");
        Assert.Contains("engine is running", Refused(new ConfirmStep("unblock")));
        Assert.Contains("engine is running", Refused(new MoveLift(true, true)));
        Assert.Contains("“Stop” comes first", Refused(new ReadGauge("level", new(1))));
        Assert.Contains("Engine running: still open", Refused(new Sign()));
    }

    [Fact]
    public void The_kit_can_be_laid_out_again_while_something_is_open()
    {
        var kit = new ConfirmKit("kit", Tractor.Parts.Keys.ToDictionary(p => p, _ => new KitPart(KitChoice.InHand)), [L(6)],
            EngineOil(4, "Any SAE 30"));
        Do(kit);
        Done("block", "lid-off", "breather-off", "drain", "filter-off");
        Do(kit with { Pans = [L(2), L(5)] });
        Assert.Equal(2, _card.Kit!.AllPans.Count);
        Assert.Contains("pans hold is missing or cannot be", Refused(kit with { Pans = [L(-1)] }));
        Assert.Contains("The pan holds 1.00 L, but", Refused(kit with { Pans = [L(1)] }));
    }

    [Fact]
    public void A_seal_that_lasts_twice_needs_no_second_name_the_second_time()
    {
        _card = JobCard.Replay(Tractor, [new(1, _now, Iona, Guid.NewGuid(),
            _card.Opened with { SealsUsedAgain = new Dictionary<PartId, int> { ["ring"] = 1 } })]);
        var parts = new Dictionary<PartId, KitPart> { ["can"] = new(KitChoice.InHand),
            ["ring"] = new(KitChoice.OldAgain, "", "Still flat") };
        Do(new ConfirmKit("kit", parts, [L(5)], EngineOil(4, "Any SAE 30")));
        Assert.Equal(("Copper ring used again, the second time", false),
            (_card.Deviations[0].Event.What, _card.Deviations[0].Event.NeedsCountersignature));
    }

    [Fact]
    public void A_history_with_a_gap_or_no_opening_is_no_card()
    {
        Do(new NoteFinding("grease", FindingGrade.Sound, "fine"));
        Assert.Throws<ArgumentException>(() => JobCard.Replay(Tractor, [.. _card.History.Skip(1)]));
        Assert.Throws<ArgumentException>(() => JobCard.Replay(Tractor, [_card.History[0], _card.History[1] with { Seq = 3 }]));
        Assert.Throws<ArgumentException>(() => _card.With([_card.History[1]]));
        Assert.Throws<KeyNotFoundException>(() => CardPlanner.Compose(Tractor, ["paint"]));
    }
}
