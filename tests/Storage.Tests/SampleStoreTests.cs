using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Storage.Tests;

/// <summary>Samples and their answers, in a real file.</summary>
public sealed class SampleStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static JudgedResult Answer(string code, LookOutcome leads) =>
        new(new(code, new(2026, 3, 16), new Dictionary<Analyte, decimal> { [Analyte.Copper] = 35.25m }, "As it came."), leads, "copper");

    // Works a card until it can be signed, with a sample of the old oil.
    private static async Task<string> Sampled(WorkshopDatabase database, CardStore cards, CardNumber id)
    {
        await new ShelfStore(database, new SettingStore(database)).WriteOilBook("""
            {"format": "anakyklos/oil-book/1", "products":
                [{"name": "Engine oil", "grades": ["SAE 5W-30"], "codes": ["Tarn T-41L"], "lowAsh": true}]}
            """);
        var (card, at, code) = (cards.Find(id)!, TemporaryWorkshop.Monday, "");
        while (card.Next is { } step)
        {
            at = at.AddMinutes(70);
            if (code.Length == 0 && card.CanBeSampled.Count > 0)
            {
                await cards.Handle(id, Guid.NewGuid(), new TakeSample("engine-oil"), TemporaryWorkshop.Iona, at);
                code = SampleCode.Of(id, 1);
            }
            var answer = (await cards.Handle(id, Guid.NewGuid(), UsualPress.Of(card, step), TemporaryWorkshop.Iona, at))!;
            Assert.True(answer.Decision is Accepted, $"{step.Id}: {answer.Decision}");
            card = answer.Card;
        }
        return code;
    }

    private static DoneJob Last(WorkshopDatabase database) => new VehicleStore(database).LastDone("HD-07")["HD-07"].Single();

    private static Task Sign(CardStore cards, CardNumber id) =>
        cards.Handle(id, Guid.NewGuid(), new Sign(), TemporaryWorkshop.Iona, TemporaryWorkshop.Monday.AddDays(4));

    [Fact]
    public async Task A_sample_knows_its_vehicle_and_how_far_that_ran_on_its_oil()
    {
        var (database, cards, id) = await _workshop.WithCard();
        await new VehicleStore(database).NoteDone("HD-07", new("engine-oil-and-filter", new(Km(138_000), new(2025, 9, 1))));
        await new VehicleStore(database).NoteDone("HD-07", new("cabin-filter", new(Km(147_000), new(2026, 1, 1))));
        var code = await Sampled(database, cards, id);
        var entry = new SampleStore(database).Find(code)!;
        Assert.Equal(("HD-07", "engine-oil", Km(148_200), Km(10_200)),
            (entry.Sample.Plate, entry.Sample.Fluid.Text, entry.Sample.Odometer, entry.Sample.OnOil));
        Assert.Equal((null, null, null), (entry.SentAt, entry.Result, entry.Leads));
    }

    [Theory]
    [InlineData(LookOutcome.CarryOn, false)]
    [InlineData(LookOutcome.Shorten, true)]
    [InlineData(LookOutcome.Specialist, true)]
    public async Task An_answer_halves_the_interval_whether_it_comes_before_the_signature_or_after(LookOutcome leads, bool shortened)
    {
        var (database, cards, id) = await _workshop.WithCard();
        var (samples, code) = (new SampleStore(database), await Sampled(database, cards, id));
        await Sign(cards, id);
        Assert.False(Last(database).Done.Shortened);
        Assert.Equal(1, await samples.Answer([Answer(code, leads)], TemporaryWorkshop.Monday.AddDays(7)));
        Assert.Equal(shortened, Last(database).Done.Shortened);

        // The other way round, in a file of its own.
        using var other = new TemporaryWorkshop();
        (database, cards, id) = await other.WithCard();
        (samples, code) = (new(database), await Sampled(database, cards, id));
        await samples.Answer([Answer(code, leads)], TemporaryWorkshop.Monday.AddDays(3));
        await Sign(cards, id);
        Assert.Equal(shortened, Last(database).Done.Shortened);
    }

    [Fact]
    public async Task An_answer_is_kept_as_it_came_once_and_waits_until_somebody_took_note()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var (samples, code) = (new SampleStore(database), await Sampled(database, cards, id));
        Assert.Equal(0, await samples.Seen(code, TemporaryWorkshop.Iona.Id));
        Assert.Equal(1, await samples.Send(code, TemporaryWorkshop.Monday.AddDays(1)));
        Assert.Equal(0, await samples.Send(code, TemporaryWorkshop.Monday.AddDays(2)));
        await samples.Answer([Answer(code, LookOutcome.Shorten)], TemporaryWorkshop.Monday.AddDays(7));
        Assert.Equal(0, await samples.Answer([Answer(code, LookOutcome.Specialist)], TemporaryWorkshop.Monday.AddDays(8)));
        var entry = Assert.Single(samples.Unseen());
        Assert.Equal((TemporaryWorkshop.Monday.AddDays(1), LookOutcome.Shorten, 35.25m, "As it came."),
            (entry.SentAt!.Value, entry.Leads!.Value, entry.Result!.Values[Analyte.Copper], entry.Result.Remark));
        Assert.Equal((1, 0), (await samples.Seen(code, TemporaryWorkshop.Iona.Id), await samples.Seen(code, "una")));
        Assert.Empty(samples.Unseen());
        Assert.Equal("iona", samples.Find(code)!.SeenBy!.Value.Text);
    }
}
