using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Reading;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;
using Xunit;

namespace Anakyklos.Core.Tests;

/// <summary>A sample is of the old fluid: taken while that is out, and before any of the new is in.</summary>
public sealed class SampleTests
{
    private static string Why(Decision decision) => Assert.IsType<Refused>(decision).Reasons[0].What;

    [Fact]
    public void It_can_be_taken_from_the_moment_it_runs_until_new_oil_goes_in()
    {
        var bench = new Workbench();
        Assert.Equal("The engine oil is not out.", Why(bench.Try(new TakeSample("engine-oil"))));
        bench.WorkUpTo("look-at-plug");
        Assert.Equal(["engine-oil"], bench.Card.CanBeSampled.Select(f => f.Id.Text));
        Assert.Equal("This model has no such fluid.", Why(bench.Try(new TakeSample("gearbox-oil"))));
        Assert.IsType<Accepted>(bench.Try(new TakeSample("engine-oil")));
        Assert.IsType<Accepted>(bench.Try(new TakeSample("engine-oil")));
        Assert.Equal([1, 2], bench.Card.Samples.Select(s => s.Number));
        bench.WorkUpTo("filler-cap-on");
        Assert.Equal("New engine oil is in already.", Why(bench.Try(new TakeSample("engine-oil"))));
    }

    [Fact]
    public void One_that_was_taken_back_was_never_taken_and_its_number_comes_again()
    {
        var bench = new Workbench();
        bench.WorkUpTo("look-at-plug");
        bench.Try(new TakeSample("engine-oil"));
        Assert.IsType<Accepted>(bench.Try(new TakeBack(bench.Card.History.Count)));
        Assert.Empty(bench.Card.Samples);
        bench.Try(new TakeSample("engine-oil"));
        Assert.Equal(1, bench.Card.Samples.Single().Number);
    }

    [Fact]
    public void Glitter_asks_for_one_until_it_is_taken()
    {
        var bench = new Workbench();
        bench.WorkUpTo("look-at-plug");
        Assert.Empty(bench.Card.SamplesAsked);
        bench.Try(new See("look-at-plug", new(LookSubject.Magnet, Appearance.Glitter)));
        Assert.Equal(["engine-oil"], bench.Card.SamplesAsked.Select(f => f.Id.Text));
        bench.Try(new TakeSample("engine-oil"));
        Assert.Empty(bench.Card.SamplesAsked);
    }

    [Fact]
    public void Nine_are_enough()
    {
        var bench = new Workbench();
        bench.WorkUpTo("look-at-plug");
        for (var i = 0; i < 9; i++)
            Assert.IsType<Accepted>(bench.Try(new TakeSample("engine-oil")));
        Assert.Equal("9 samples were taken on this card.", Why(bench.Try(new TakeSample("engine-oil"))));
    }
}
