using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Rotating;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Wheels change their places by the pattern for their tread.</summary>
public sealed class RotateTests
{
    private readonly CardAtHand _hand = new(On("corran-fen-12", "tyre-rotation"));

    [Fact]
    public void The_pattern_follows_from_the_tread_and_nobody_says_it_is_done_before_looking_at_it()
    {
        var step = _hand.UpTo(s => s.Kind == StepKind.Rotate);
        Assert.Contains("Nobody has looked", _hand.No(new ConfirmStep(step.Id)));
        _hand.Do(new LookAtTread(step.Id, true));
        Assert.DoesNotContain(Rotation.Of(_hand.Card, step).Moves, m => m.ChangesSide);
        _hand.Do(new TakeBack(_hand.Card.LastPressOf(Iona.Id)!.Seq));
        Assert.Null(Rotation.Of(_hand.Card, step).Arrowed);
        _hand.Do(new LookAtTread(step.Id, true));
        _hand.Do(new LookAtTread(step.Id, false));
        Assert.Equal(2, Rotation.Of(_hand.Card, step).Moves.Count(m => m.ChangesSide));
        _hand.Do(new ConfirmStep(step.Id));
        Assert.Equal(StepStatus.Done, _hand.Card.State(step.Id).Status);
    }

    [Theory]
    [InlineData("\"moves\": [{\"from\": \"front-left\", \"to\": \"rear-left\"}",
        "\"moves\": [{\"from\": \"front-left\", \"to\": \"front-left\"}",
        "Each place is left by one wheel")]
    [InlineData("\"arrowed\": [{\"from\": \"front-left\", \"to\": \"rear-left\"}, {\"from\": \"rear-left\", \"to\": \"front-left\"}",
        "\"arrowed\": [{\"from\": \"front-left\", \"to\": \"rear-right\"}, {\"from\": \"rear-left\", \"to\": \"front-left\"}",
        "stays on its side")]
    public void A_pattern_that_cannot_be_is_refused(string right, string wrong, string says)
    {
        var text = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "sheets", "corran-fen-12.json"));
        Assert.Contains(right, text);
        Assert.Contains(SheetReader.Read(text.Replace(right, wrong, StringComparison.Ordinal)).Errors,
            e => e.Line > 1 && e.What.Contains(says, StringComparison.Ordinal));
    }
}
