using Anakyklos.Core.Cards;
using CsCheck;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>When something was pressed that a screen kept until there was a line again.</summary>
public sealed class KeepingTests
{
    [Fact]
    public void It_lies_between_what_the_card_had_heard_of_and_when_it_came()
    {
        var card = On("tarn-courier-20d", "engine-oil-and-filter");
        var last = card.History[^1].At;
        Gen.Select(Gen.Int[-600, 5000], Gen.Int[0, 720]).Sample((came, kept) =>
        {
            var (arrived, by) = (last.AddMinutes(came), TimeSpan.FromMinutes(kept));
            var at = card.PressedAt(arrived, by);
            // By hand: what the screen says, not before the last event, not after it came.
            var said = came - kept;
            var expected = said > 0 ? said : came > 0 ? 0 : came;
            Assert.Equal(last.AddMinutes(expected), at);
        });
    }

    [Fact]
    public void Nothing_is_kept_for_less_than_no_time_or_for_longer_than_anybody_stays_signed_in()
    {
        var card = On("tarn-courier-20d", "engine-oil-and-filter");
        var now = card.History[^1].At.AddDays(2);
        Assert.Throws<ArgumentOutOfRangeException>(() => card.PressedAt(now, TimeSpan.FromMilliseconds(-1)));
        Assert.Throws<ArgumentOutOfRangeException>(() => card.PressedAt(now, JobCard.KeptAtMost + TimeSpan.FromMilliseconds(1)));
        Assert.Equal(now - JobCard.KeptAtMost, card.PressedAt(now, JobCard.KeptAtMost));
    }

    [Theory]
    [InlineData("{}")]
    [InlineData("{\"event\":\"StepDone\",\"step\":\"raise\",\"frozen\":{\"rules\":7,\"effects\":[{\"up\":true}]}}")]
    [InlineData("{\"event\":\"Nobody\"}")]
    [InlineData("null")]
    public void What_is_no_event_is_said_to_be_none(string json) =>
        Assert.Throws<System.Text.Json.JsonException>(() => CardJson.Read(json));
}
