using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Priming;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>An engine that does not fire: HD-07's may be cranked three times for 10 s with a minute between, then its starter cools for
/// 15 min and the fuel filter is primed again.</summary>
public sealed class CrankingTests
{
    private CardAtHand _hand = null!;

    private SheetStep Start(string sheet = "tarn-courier-20d", string job = "fuel-filter")
    {
        _hand = new(On(sheet, job));
        return _hand.UpTo(s => s.Kind == StepKind.Run);
    }

    [Fact]
    public void It_rests_after_each_try_and_is_not_started_meanwhile()
    {
        var start = Start();
        Assert.Equal((3, 0), (Cranking.Of(_hand.Card, start).Left, Cranking.Of(_hand.Card, start).Times));
        _hand.Do(new CrankEngine(start.Id));
        Assert.Equal(("Starter rests", _hand.Now.AddMinutes(1)), (_hand.Card.Waits.Single(w => w.Id == start.Id).For,
            _hand.Card.Waits.Single(w => w.Id == start.Id).Until));
        _hand.Now += TimeSpan.FromSeconds(59);
        Assert.Contains("Starter rests", _hand.No(new CrankEngine(start.Id)));
        Assert.Contains("Starter rests", _hand.No(new EngineRunsNow(start.Id)));
        _hand.Now += TimeSpan.FromSeconds(1);
        _hand.Do(new EngineRunsNow(start.Id));
        Assert.True(_hand.Card.EngineRuns);
    }

    [Fact]
    public void After_so_many_tries_it_cools_and_is_primed_again_from_nothing()
    {
        var start = Start();
        for (var tries = 1; tries <= 3; tries++)
        {
            _hand.Do(new CrankEngine(start.Id));
            if (tries < 3)
                _hand.Now += TimeSpan.FromMinutes(1);
        }
        Assert.Equal("Starter cools", _hand.Card.Waits.Single(w => w.Id == start.Id).For);
        var prime = _hand.Card.Next!;
        Assert.Equal(("prime-fuel", 0), (prime.Id.Text, Priming.Of(_hand.Card, prime).Made));
        Assert.Equal(3, Cranking.Of(_hand.Card, start).Left);
        Assert.Contains("Only 0 of 5", _hand.No(new ConfirmStep(prime.Id)));
        // Once the starter is cool it is still not primed.
        _hand.Now += TimeSpan.FromMinutes(15);
        Assert.Contains("is not done yet", _hand.No(new EngineRunsNow(start.Id)));
        _hand.UpTo(s => s.Kind == StepKind.Run);
        Assert.Equal(StepStatus.Done, _hand.Card.State(prime.Id).Status);
        _hand.Do(new EngineRunsNow(start.Id));
    }

    [Fact]
    public void What_was_taken_back_counts_no_more()
    {
        var start = Start();
        _hand.Do(new CrankEngine(start.Id));
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Equal((3, 0), (Cranking.Of(_hand.Card, start).Left, Cranking.Of(_hand.Card, start).Times));
        Assert.DoesNotContain(_hand.Card.Waits, w => w.Id == start.Id);
    }

    [Fact]
    public void Where_nothing_is_primed_it_only_cools()
    {
        var start = Start("corran-fen-12", "engine-oil-and-filter");
        for (var tries = 1; tries <= 4; tries++, _hand.Now += TimeSpan.FromSeconds(30))
            _hand.Do(new CrankEngine(start.Id));
        Assert.Equal(start.Id, _hand.Card.Next!.Id);
        Assert.Contains("Starter cools", _hand.No(new EngineRunsNow(start.Id)));
        _hand.Now += TimeSpan.FromMinutes(10);
        _hand.Do(new EngineRunsNow(start.Id));
    }

    [Fact]
    public void Without_limits_in_the_sheet_nothing_is_counted()
    {
        var start = Start("lumen-ardent", "engine-oil-and-filter");
        Assert.Contains("does not say", _hand.No(new CrankEngine(start.Id)));
        Assert.Equal(0, Cranking.Of(_hand.Card, start).Left);
    }

    [Fact]
    public void Cranking_survives_writing_and_reading()
    {
        var start = Start();
        _hand.Do(new CrankEngine(start.Id));
        var cranked = Assert.IsType<EngineCranked>(_hand.Card.History[^1].Event);
        var read = Assert.IsType<EngineCranked>(CardJson.Read(CardJson.Write(cranked)));
        Assert.Equal((cranked.Step, cranked.Cools, cranked.Rests), (read.Step, read.Cools, read.Rests));
    }

    [Theory]
    [InlineData("\"longest\": \"10 s\"", "\"longest\": \"ten\"")]
    [InlineData("\"tries\": 3", "\"tries\": 0")]
    [InlineData("\"cools\": \"15 min\", ", "")]
    public void Limits_with_a_fault_are_refused(string old, string now)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "tarn-courier-20d.json"));
        Assert.Contains(old, text, StringComparison.Ordinal);
        Assert.Contains(SheetReader.Read(text.Replace(old, now, StringComparison.Ordinal)).Errors,
            e => $"{e.Field}".StartsWith("starter", StringComparison.Ordinal));
    }
}
