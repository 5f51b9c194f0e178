using Anakyklos.Core.Cards;
using Anakyklos.Core.Records;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>How a card ends: made void by two, or signed and then never changed, only amended beside.</summary>
public sealed class EndingTests
{
    private readonly Workbench _bench = new();

    private JobCard Card => _bench.Card;

    private Refusal Only(CardCommand command, Person? by = null) => Assert.Single(_bench.Refusals(command, by));

    [Fact]
    public void One_name_makes_no_card_void_and_nobody_puts_both()
    {
        _bench.Do(new VoidCard("Wrong van"));
        Assert.Null(Card.Ended);
        var asked = Card.ToVoid!.Seq;
        Assert.Contains("yourself", Only(new Countersign(asked)).What);
        Assert.Contains("lead countersigns", Only(new Countersign(asked), Tavish).What);
        _bench.Do(new Countersign(asked), Una);
        Assert.Equal((asked, "Wrong van"), (((CardVoided)Card.Voided!.Event).Asked, ((CardVoided)Card.Voided.Event).Reason));
        Assert.Equal("una", Card.Voided.By.Id.Text);
        Assert.Contains("made void", Only(new Amend(Amendable.Whole, "It was the right one"), Una).What);
    }

    [Fact]
    public void Work_that_goes_on_calls_it_off_and_words_do_not()
    {
        _bench.Do(new VoidCard("Wrong van"));
        var asked = Card.ToVoid!.Seq;
        _bench.Do(FullKit());
        Assert.Null(Card.ToVoid);
        Assert.Contains("nothing to countersign", Only(new Countersign(asked), Una).What);
        // Asked again, and taken back by the one who asked.
        _bench.Do(new VoidCard("It is the wrong van"));
        _bench.Do(new TakeBack(Card.History[^1].Seq));
        Assert.Null(Card.ToVoid);
        _bench.Do(new VoidCard("It is the wrong van"));
        var again = Card.ToVoid!.Seq;
        // Words are no work.
        _bench.Do(new LeaveWord("The right one stands outside"));
        _bench.Do(new Countersign(again), Una);
        Assert.NotNull(Card.Voided);
    }

    [Fact]
    public void A_signed_card_is_amended_beside_and_nothing_of_it_changes()
    {
        Assert.Contains("not signed yet", Only(new Amend(Amendable.Odometer, "It was 148,300 km")).What);
        _bench.WorkUpTo();
        _bench.Do(new Sign());
        var signed = Card;
        var before = ServiceRecord.Of(signed);
        var plug = before.Tightened.Single(t => t.Name == "Engine drain plug");
        Assert.Equal("line", Only(new Amend("torque/no-such-step", "It was 26")).Field);
        Assert.Equal("words", Only(new Amend(plug.Of, " ")).Field);
        Assert.Contains("not work on them", Only(new Amend(plug.Of, "It was 26 N·m"), Desk).What);
        _bench.Do(new Amend(plug.Of, " Read off as 26 N·m; seen on the photo "), Una);
        _bench.Do(new Amend(Amendable.Odometer, "It was 148,210 km"), Iona);
        Assert.Equal(signed.History, Card.History.Take(signed.History.Count));
        Assert.Equal(signed.Signature, Card.Signature);
        var after = ServiceRecord.Of(Card);
        Assert.Equal(CardJsonOf(before), CardJsonOf(after with { Amended = null }));
        Assert.Equal(("Read off as 26 N·m; seen on the photo", "Una B."),
            (after.AmendedOf(plug.Of).Single().Words, after.AmendedOf(plug.Of).Single().By));
        Assert.Equal("Odometer", after.AmendedOf(Amendable.Odometer).Single().Name);
        // It is no work: it cannot be taken back, and the card takes nothing else.
        Assert.Null(Card.LastPressOf("una"));
        Assert.Contains("was signed", Only(new VoidCard("No"), Una).What);
    }

    [Fact]
    public void Every_line_of_a_record_can_be_named_and_no_two_alike()
    {
        foreach (var (sheet, jobs) in new[]
        {
            ("hespin-16", new JobId[] { "engine-oil-and-filter", "brake-fluid" }),
            ("corran-fen-12", ["engine-oil-and-filter", "tyre-rotation", "wear-check"]),
        })
        {
            var hand = new CardAtHand(On(sheet, jobs));
            hand.UpTo(_ => false);
            var record = ServiceRecord.Of(hand.Card);
            var names = hand.Card.Amendables.Select(a => a.Of).ToList();
            Assert.Equal(names.Distinct().Count(), names.Count);
            IEnumerable<string> lines = [.. record.Tightened.Select(t => t.Of), .. record.Filled.Select(f => f.Of),
                .. record.Fitted.Select(f => f.Of),
                .. record.Seen.Select(s => s.Of), .. (record.Inspected ?? []).Select(i => i.Of)];
            Assert.All(lines, l => Assert.Contains(l, names));
        }
    }

    private static string CardJsonOf(ServiceRecord record) => System.Text.Json.JsonSerializer.Serialize(record, CardJson.Options);
}
