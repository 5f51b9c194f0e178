using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Rotating;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Wheels change their places by the pattern for their tread.</summary>
public sealed class RotateTests
{
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private JobCard _card = On("corran-fen-12", "tyre-rotation");

    private Decision Say(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, UsualPress.Facts(_card.Sheet));
        if (decision is Accepted accepted)
        {
            var (seq, id) = (_card.History.Count, Guid.NewGuid());
            _card = _card.With([.. accepted.Events.Select(e => new Recorded(++seq, _now, Iona, id, e))]);
        }
        return decision;
    }

    [Fact]
    public void The_pattern_follows_from_the_tread_and_nobody_says_it_is_done_before_looking_at_it()
    {
        while (_card.Next!.Kind != StepKind.Rotate)
            if (Say(UsualPress.Of(_card, _card.Next)) is not Accepted)
                _now += TimeSpan.FromHours(1);
        var step = _card.Next;
        Assert.Contains("Nobody has looked", Assert.IsType<Refused>(Say(new ConfirmStep(step.Id))).Reasons[0].What);
        Assert.IsType<Accepted>(Say(new LookAtTread(step.Id, true)));
        Assert.DoesNotContain(Rotation.Of(_card, step).Moves, m => m.ChangesSide);
        Assert.IsType<Accepted>(Say(new TakeBack(_card.LastPressOf(Iona.Id)!.Seq)));
        Assert.Null(Rotation.Of(_card, step).Arrowed);
        Assert.IsType<Accepted>(Say(new LookAtTread(step.Id, true)));
        Assert.IsType<Accepted>(Say(new LookAtTread(step.Id, false)));
        Assert.Equal(2, Rotation.Of(_card, step).Moves.Count(m => m.ChangesSide));
        Assert.IsType<Accepted>(Say(new ConfirmStep(step.Id)));
        Assert.Equal(StepStatus.Done, _card.State(step.Id).Status);
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
