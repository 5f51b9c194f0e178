using Anakyklos.Core.Cards;
using Anakyklos.Core.Booking;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Records;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Fresh oil that goes another way than through the filler: into the filter, through an open plug, into what was taken apart; and
/// what came out, measured by whoever wants to know.</summary>
public sealed class FreshFluidTests
{
    private const string Drain = "drain-engine-oil";
    private const string Fit = "fit-oil-filter", RingOff = "came off with the old filter";

    private JobCard _card = Of("corran-fen-12", FilterSchool.Filled, "engine-oil-and-filter"); // 3.40 L, 0.2 L in the filter, rinse 0.2 L
    private readonly ModelSheet _corran = ComposerTests.Sheets["corran-fen-12"];
    private DateTimeOffset _now;
    private CardFacts _facts;

    public FreshFluidTests()
    {
        _now = _card.History[0].At;
        _facts = UsualPress.Facts(_card.Sheet);
    }

    private static JobCard Of(string sheet, FilterSchool filter, params JobId[] jobs)
    {
        var schools = new WorkSchools(Filter: filter);
        var model = ComposerTests.Sheets[sheet];
        return CardWalk.Open(model, jobs, CardPlanner.Plan(model, jobs, schools: schools).Steps, schools);
    }

    private void On(JobCard card)
    {
        (_card, _now) = (card, card.History[0].At);
        _facts = UsualPress.Facts(card.Sheet);
    }

    private Decision Give(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, _facts);
        if (decision is Accepted accepted)
            _card = _card.Taking(accepted, Guid.NewGuid(), Iona, _now).Card;
        return decision;
    }

    private void Do(CardCommand command)
    {
        var decision = Give(command);
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
    }

    private string No(CardCommand command) => Assert.IsType<Refused>(Give(command)).Reasons[0].What;

    // By the usual press with a pan that is one litre larger than it must be, and an hour between two steps.
    private void UpTo(StepId? stop)
    {
        for (var presses = 0; _card.Next is { } step && step.Id != stop; presses++)
        {
            Assert.True(presses < 200, $"{stop} does not come: {step.Title}");
            _now += TimeSpan.FromHours(1);
            var press = UsualPress.Of(_card, step);
            Do(press is ConfirmKit kit ? kit with { Pans = [.. kit.Pans.Select(p => p + L(1))] } : press);
        }
    }

    private FluidState Oil => _card.Fluid("engine-oil");

    [Fact]
    public void What_goes_into_the_filter_counts_and_the_first_pour_is_so_much_less()
    {
        UpTo(Fit);
        var dry = _card.Wanted("engine-oil");
        Assert.Equal(new FillPart(Fit, Litres(0.2m)), UsualPress.Of(_card, _card.Next!));
        Do(new FillPart(Fit, Litres(0.18m)));
        Assert.Equal((L(0.18m), L(0.18m), 0), (Oil.Poured, Oil.InPart, Oil.Pours));
        Assert.Equal(Fit, _card.Next!.Id.Text);
        Assert.Equal("0.18 L is in it already.", No(new FillPart(Fit, Litres(0.1m))));
        Do(new FitPart(Fit, RingOff));
        UpTo("fill-engine-oil");
        Assert.Equal(dry, _card.Wanted("engine-oil"));
        Do(new Pour("fill-engine-oil", new(dry - L(0.18m), Volume.Litre)));
        Assert.Equal(dry, Oil.Poured);
        UpTo(null);
        var line = Assert.Single(ServiceRecord.Of(_card).Filled);
        Assert.Equal(L(0.18m), line.InPart);
    }

    [Fact]
    public void It_can_be_fitted_dry_all_the_same_and_filled_where_the_school_is_dry()
    {
        UpTo(Fit);
        Do(new FitPart(Fit, RingOff));
        Assert.Equal(Quantity<Volume>.Zero, Oil.InPart);
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo(Fit);
        Assert.Equal(new FitPart(Fit, RingOff), UsualPress.Of(_card, _card.Next!));
        Do(new FillPart(Fit, Litres(0.2m)));
        Assert.Equal(L(0.2m), Oil.InPart);
        // What is more than it holds runs over its edge: 0.25 L is the most.
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo(Fit);
        Assert.Equal("The oil filter takes 0.20 L; 0.26 L would run over.", No(new FillPart(Fit, Litres(0.26m))));
        Do(new FillPart(Fit, Litres(0.25m)));
    }

    [Fact]
    public void Where_it_does_not_hang_open_side_up_it_is_fitted_dry()
    {
        On(Of("lumen-ardent", FilterSchool.Filled, "engine-oil-and-filter"));
        UpTo(Fit);
        Assert.Equal("The oil filter is fitted dry.", No(new FillPart(Fit, Litres(0.2m))));
        Assert.Equal(new FitPart(Fit, RingOff), UsualPress.Of(_card, _card.Next!));
    }

    [Fact]
    public void A_filling_that_is_taken_back_was_never_made()
    {
        UpTo(Fit);
        Do(new FillPart(Fit, Litres(0.2m)));
        Do(new TakeBack(_card.History[^1].Seq));
        Assert.Equal((Quantity<Volume>.Zero, Quantity<Volume>.Zero), (Oil.Poured, Oil.InPart));
        Do(new FillPart(Fit, Litres(0.2m)));
        Assert.Equal(L(0.2m), Oil.Poured);
    }

    [Fact]
    public void A_little_is_poured_through_before_the_plug_goes_in_and_stays_nowhere()
    {
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo("look-at-engine-plug");
        Assert.Equal("The old engine oil still runs.", No(new Rinse(Drain, Litres(0.2m))));
        Assert.Null(_card.ToRinse(_now));
        UpTo("tighten-engine-drain-plug");
        Assert.Equal(Drain, _card.ToRinse(_now)!.Id.Text);
        Assert.StartsWith("0.41 L is more than a little: the sheet has 0.20 L", No(new Rinse(Drain, Litres(0.41m))));
        var pan = _card.Pans[0].Filled;
        Do(new Rinse(Drain, Litres(0.2m)));
        Assert.Equal((L(0.2m), Quantity<Volume>.Zero, pan + L(0.2m)), (Oil.Rinsed, Oil.Poured, _card.Pans[0].Filled));
        Assert.Null(_card.ToRinse(_now));
        Assert.Equal("0.20 L was poured through already.", No(new Rinse(Drain, Litres(0.1m))));
        // It drips for two minutes; until then the plug stays out.
        Assert.Equal(_now.AddMinutes(2), _card.Waits.Single(w => w.Id == Drain).Until);
        var stray = StockMoves.Of(_card, _card.History[^1].Event);
        Assert.Equal(new OilPoured("Engine oil", L(0.2m)), stray);
        UpTo(null);
        Assert.Equal(L(0.2m), Assert.Single(ServiceRecord.Of(_card).Filled).Rinsed);
    }

    [Fact]
    public void Nothing_is_poured_through_where_the_sheet_does_not_say_so_nor_once_the_plug_is_in()
    {
        UpTo("fill-engine-oil");
        Assert.Equal("The engine drain plug is not out.", No(new Rinse(Drain, Litres(0.2m))));
        On(Of("lumen-ardent", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo("tighten-engine-drain-plug");
        Assert.Equal("The sheet does not have the engine oil rinsed.", No(new Rinse(Drain, Litres(0.2m))));
    }

    // The minibus measures its gearbox oil to pour as much back: what is poured through would be measured with it.
    [Fact]
    public void Nothing_is_poured_through_before_it_is_measured_through_what_is_shut_or_into_a_full_pan()
    {
        const string drain = "drain-gearbox-oil";
        var sheet = ComposerTests.Sheets["hespin-16"];
        var oil = sheet.Fluids["gearbox-oil"];
        oil = oil with { Rinse = new(L(0.2m), oil.Amount.From, []) };
        sheet = sheet with { Fluids = new Dictionary<FluidId, FluidSystem>(sheet.Fluids) { [oil.Id] = oil } };
        On(CardWalk.Open(sheet, ["gearbox-oil"], CardPlanner.Plan(sheet, ["gearbox-oil"]).Steps));
        UpTo("tighten-gearbox-drain-plug");
        Assert.StartsWith("What came out has not been measured", No(new Rinse(drain, Litres(0.2m))));
        // The plug first, the filler afterwards: it is shut yet.
        On(CardWalk.Open(_corran, ["engine-oil-and-filter"], CardPlanner.Plan(_corran, ["engine-oil-and-filter"],
            schools: new(Drain: DrainSchool.PlugFirst)).Steps, new(Drain: DrainSchool.PlugFirst)));
        UpTo(Drain);
        Do(new ConfirmStep(Drain));
        _now += TimeSpan.FromHours(1);
        Assert.Equal("The oil filler cap is in the way.", No(new Rinse(Drain, Litres(0.2m))));
        // A pan of the book's 3.40 L and 0.19 L more.
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        var kit = (ConfirmKit)UsualPress.Of(_card, _card.Steps.First(s => s.Traits.LaysOut));
        Do(kit with { Pans = [L(3.59m)] });
        UpTo("tighten-engine-drain-plug");
        Assert.Equal("No pan that stands below has room for it.", No(new Rinse(Drain, Litres(0.2m))));
    }

    [Fact]
    public void What_is_named_is_looked_up_in_the_stores_for_filter_and_rinse_alike()
    {
        OilContainer Can(int id, string product, decimal left) => new(id, product, L(5), L(left), Volume.Litre, null, $"B{id}");
        _facts = _facts with { Shelf = _facts.Shelf with { Containers = [Can(1, "Engine oil", 4), Can(2, "Coolant", 5)] } };
        UpTo(Fit);
        Assert.Equal("Can 2 holds Coolant, and Engine oil was laid out.", No(new FillPart(Fit, Litres(0.2m), 2)));
        Assert.Equal("There is no container 9 in the stores.", No(new FillPart(Fit, Litres(0.2m), 9)));
        Do(new FillPart(Fit, Litres(0.2m), 1));
        Assert.Equal((1, L(0.2m)), (Assert.Single(_card.CansOf("engine-oil")).Can, _card.CansOf("engine-oil")[0].Takes));
        Do(new FitPart(Fit, RingOff));
        UpTo("tighten-engine-drain-plug");
        Assert.Equal("Can 2 holds Coolant, and Engine oil was laid out.", No(new Rinse(Drain, Litres(0.2m), 2)));
        Do(new Rinse(Drain, Litres(0.2m), 1));
        Assert.Equal(new PouredOut([new(1, "Engine oil", "B1", L(0.2m))]).From, ((PouredOut)StockMoves.Of(_card,
            _card.History[^1].Event)!).From);
    }

    [Fact]
    public void What_came_out_is_measured_once_the_plug_is_in_and_before_the_pan_is_emptied()
    {
        UpTo("tighten-engine-drain-plug");
        Assert.Equal("The engine oil still runs into its pan.", No(new Measure(Drain, Litres(3.2m))));
        UpTo("fill-engine-oil");
        Assert.Equal(Drain, _card.ToMeasure(_now)!.Id.Text);
        var asked = Assert.IsType<MeasureQuestion>(Assert.IsType<Asked>(Give(new Measure(Drain, Litres(2.5m)))).Question);
        Assert.Equal(Drain, asked.Step.Text);
        Assert.StartsWith("Only 2.50 L came out, and the book has 3.40 L.", asked.Text);
        Do(new Measure(Drain, Litres(2.5m), true));
        Assert.Equal(L(2.5m), Oil.CameOut);
        Assert.Null(_card.ToMeasure(_now));
        Assert.Equal("2.50 L was measured already.", No(new Measure(Drain, Litres(2.6m))));
        // The filling goes by its marks, whatever came out.
        Assert.Equal(_card.FillOf("engine-oil").FirstPour, _card.Wanted("engine-oil"));
        UpTo(null);
        Assert.Equal(L(2.5m), Assert.Single(ServiceRecord.Of(_card).Filled).CameOut);
    }

    [Fact]
    public void Two_in_one_pan_an_emptied_pan_and_a_rinse_cannot_be_measured()
    {
        UpTo("tighten-engine-drain-plug");
        Do(new Rinse(Drain, Litres(0.2m)));
        UpTo("fill-engine-oil");
        Assert.Equal("What was poured through is in the pan as well.", No(new Measure(Drain, Litres(3.2m))));
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo("fill-engine-oil");
        Do(new EmptyPan(0));
        Assert.Equal("The pan has been emptied.", No(new Measure(Drain, Litres(3.2m))));
    }

    [Fact]
    public void What_shares_a_pan_or_has_a_step_of_its_own_is_not_measured_at_its_drain()
    {
        On(Of("ostler-brae-28d", FilterSchool.Dry, "front-axle-oil", "rear-axle-oil"));
        var kit = (ConfirmKit)UsualPress.Of(_card, _card.Steps.First(s => s.Traits.LaysOut));
        Do(kit with { Pans = [L(10)] });
        UpTo("fill-front-axle-oil");
        Assert.Equal("Rear axle oil is in the same pan.", No(new Measure("drain-front-axle-oil", Litres(1.5m))));
        On(Of("hespin-16", FilterSchool.Dry, "gearbox-oil"));
        UpTo("measure-gearbox-oil");
        Assert.Equal("That is measured at a step of its own.", No(new Measure("drain-gearbox-oil", Litres(7))));
    }

    // 0.83 L on its own, 0.90 L where it was taken apart; the kit's usual hand lays the book's amount out.
    [Fact]
    public void What_is_dry_inside_takes_the_other_amount_of_the_book()
    {
        On(Of("maelor-ridge-900", FilterSchool.Dry, "gearbox-oil"));
        UpTo("fill-gearbox-oil");
        Assert.StartsWith("Only 0.83 L is in hand, and 0.90 L must go in.", No(new SayStripped("fill-gearbox-oil")));
        var kit = _card.Steps.First(s => s.Traits.LaysOut);
        var laid = (ConfirmKit)UsualPress.Of(_card, kit);
        Do(laid with { Oils = laid.Oils.ToDictionary(o => o.Key, o => o.Value with { Amount = L(1) }) });
        Assert.Contains("the book says 0.83 L", Assert.IsType<Asked>(Give(new Pour("fill-gearbox-oil", Litres(0.9m)))).Question.Text);
        Do(new SayStripped("fill-gearbox-oil"));
        Assert.Equal((L(0.9m), L(0.9m)), (_card.Wanted("gearbox-oil"), _card.BookOf("gearbox-oil")));
        Assert.StartsWith("The book's 0.90 L after a full strip hold already", No(new SayStripped("fill-gearbox-oil")));
        Do(new Pour("fill-gearbox-oil", Litres(0.9m)));
        UpTo(null);
        Assert.Equal((L(0.9m), L(0.9m)), (ServiceRecord.Of(_card).Filled[0].In, ServiceRecord.Of(_card).Filled[0].Book));
    }

    [Fact]
    public void After_the_first_drop_it_is_not_dry_any_more_and_most_have_one_amount_only()
    {
        On(Of("maelor-ridge-900", FilterSchool.Dry, "gearbox-oil"));
        UpTo("fill-gearbox-oil");
        Do(new Pour("fill-gearbox-oil", Litres(0.3m)));
        Assert.Equal("0.30 L went in already.", No(new SayStripped("fill-gearbox-oil")));
        On(Of("corran-fen-12", FilterSchool.Dry, "engine-oil-and-filter"));
        UpTo("fill-engine-oil");
        Assert.Equal("The sheet has one amount of engine oil only.", No(new SayStripped("fill-engine-oil")));
    }

    // By the chain: 0.95 L reaches the upper edge, 1.10 L where it is dry; 0.10 L lies between the edges.
    [Fact]
    public void Marks_are_reckoned_from_the_amount_that_holds()
    {
        On(Of("maelor-ridge-900", FilterSchool.Dry, "primary-oil"));
        UpTo("fill-primary-oil");
        Assert.Equal(L(0.85m), _card.FillOf("primary-oil").FirstPour);
        var kit = _card.Steps.First(s => s.Traits.LaysOut);
        var laid = (ConfirmKit)UsualPress.Of(_card, kit);
        Do(laid with { Oils = laid.Oils.ToDictionary(o => o.Key, o => o.Value with { Amount = L(2) }) });
        Do(new SayStripped("fill-primary-oil"));
        Assert.Equal((L(1), L(1.1m)), (_card.FillOf("primary-oil").FirstPour, _card.FillOf("primary-oil").InAt(new(1))));
    }

    [Theory]
    [InlineData("afterStrip", "3.3 L", "afterStrip")]
    [InlineData("afterStrip", "7 L", "at most twice as much")]
    [InlineData("rinse", "0.5 L", "at most a tenth")]
    [InlineData("rinse", "0 L", "at most a tenth")]
    public void A_sheet_with_an_amount_that_cannot_be_is_not_taken(string field, string amount, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"))
            .Replace("\"rinse\": { \"is\": \"0.2 L\"", $"\"{field}\": {{ \"is\": \"{amount}\"", StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text).Errors, e => $"{e.Field} {e.What}".Contains(says, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("0.9 L", "at most a quarter of it")]
    [InlineData("0 L", "above 0")]
    public void A_filter_takes_what_a_filter_can(string amount, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"))
            .Replace("\"prefill\": { \"is\": \"0.2 L\"", $"\"prefill\": {{ \"is\": \"{amount}\"", StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text).Errors, e => e.What.Contains(says, StringComparison.Ordinal));
    }
}
