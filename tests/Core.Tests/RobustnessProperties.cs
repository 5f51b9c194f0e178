using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using CsCheck;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

public class RobustnessProperties
{
    private static readonly byte[] Sheet = Encoding.UTF8.GetBytes(SheetText);

    [Fact]
    public void Whatever_is_broken_in_a_sheet_file_the_reader_answers_with_lines_of_that_file() =>
        Gen.Select(Gen.Int[0, Sheet.Length - 1], Gen.Int[0, 60], Gen.Byte).Sample((at, cut, put) =>
        {
            byte[] broken = [.. Sheet.Take(at), put, .. Sheet.Skip(at + cut)];
            var reading = SheetReader.Read(broken);
            Assert.Equal(reading.Sheet is null, reading.Errors.Count > 0);
            Assert.All(reading.Errors, e => Assert.InRange(e.Line!.Value, 1, SheetText.Count(c => c == '\n') + 2));
            Assert.Equal(reading.Errors.Select(e => e.Line).Order(), reading.Errors.Select(e => e.Line));
        }, iter: 400);

    [Fact]
    public void Whatever_is_typed_as_an_amount_is_read_or_refused_in_words() =>
        Gen.Char["0123456789.,/ ½LmqtNgal-'e·²°"].Array[0, 14].Sample(typedKeys =>
        {
            var text = new string(typedKeys);
            var read = Quantity<Volume>.Read(text, out var problem);
            Assert.Equal(read is null, problem.Length > 0);
            if (read is { } typed)
                Assert.Contains(typed.Unit, Volume.Units);
        }, iter: 5000);

    [Fact]
    public void Taking_back_the_last_press_leaves_the_card_as_it_was_before_it() =>
        Gen.Int[0, 40].Sample(steps =>
        {
            var bench = new Workbench();
            bench.WorkUpTo(bench.Card.Steps[steps].Id);
            var before = bench.Card;
            bench.Wait(20);
            bench.WorkUpTo(bench.Card.Steps.SkipWhile(s => s.Id != before.Next!.Id).Skip(1).FirstOrDefault()?.Id);
            if (bench.Card.History[^1].Event is Signed || bench.Card.History.Count == before.History.Count)
                return;
            bench.Do(new TakeBack(bench.Card.History[^1].Seq));
            Assert.Equal(before.Open, bench.Card.Open);
            Assert.Equal(before.Next, bench.Card.Next);
            Assert.Equal(before.LiftUp, bench.Card.LiftUp);
            Assert.Equal(before.Waits.Select(w => w.Id), bench.Card.Waits.Select(w => w.Id));
            Assert.Equal(before.Steps.Select(s => before.State(s.Id).Status), bench.Card.Steps.Select(s => bench.Card.State(s.Id).Status));
        }, iter: 40);

    [Fact]
    public void Every_event_goes_through_json_and_comes_back_the_same()
    {
        var bench = new Workbench();
        bench.WorkUpTo("lay-out-kit");
        bench.Do(FullKit() with { Parts = new Dictionary<PartId,
            KitPart>(FullKit().Parts) { ["oil-filter"] = new(KitChoice.Other, "TC-0630-F", "Only one here") } });
        bench.WorkUpTo("look-at-joints");
        bench.Do(new ReportLeak("look-at-joints", "oil-filter-cap"));
        bench.Do(new RenewSeal("tighten-filter-cap", "TC-0622-R"));
        bench.Do(new TakeReading("tighten-filter-cap", Nm(25)));
        bench.Do(new MoveLift(false, true));
        bench.Do(new PutAside("label", "No labels"));
        bench.Do(new Countersign(bench.Card.WantingCountersignature.Single()), Una);
        foreach (var e in bench.Card.History.Select(h => h.Event))
            Assert.Equal(CardJson.Write(e), CardJson.Write(CardJson.Read(CardJson.Write(e))));
        var again = JobCard.Replay(Courier, [.. bench.Card.History.Select(h => h with { Event = CardJson.Read(CardJson.Write(h.Event)) })]);
        Assert.Equal(bench.Card.Open, again.Open);
        Assert.Throws<System.Text.Json.JsonException>(() => CardJson.Read("{\"event\":\"Nonsense\"}"));
        Assert.Throws<System.Text.Json.JsonException>(() =>
            CardJson.Read(CardJson.Write(new Poured("x", Litres(1))).Replace("1 L", "1 Nm")));
    }
}
