using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>Whatever a card asks for can be done by the choices of the bay, and a card that was worked so is signed without harm.</summary>
public sealed class EveryCardTests
{
    public static TheoryData<string, string> EveryJob => [.. PracticeHand.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal)
        .SelectMany(s => s.Jobs.Keys.OrderBy(j => j.Text, StringComparer.Ordinal)
            .Select(j => new TheoryDataRow<string, string>(s.Id.Text, j.Text)))];

    [Theory]
    [MemberData(nameof(EveryJob))]
    public void Every_job_is_worked_by_the_choices_of_the_bay_alone(string sheet, string job)
    {
        var lesson = new Lesson("no-fault", "Nothing wrong", 1, "All of it", "", sheet, [job], true, 1, [], [],
            [.. Enum.GetValues<HarmKind>().Where(h => h != HarmKind.Strained)], "",
            [], null, []);
        var hand = new PracticeHand(lesson, hasEyes: true);
        var debrief = hand.Through();
        Assert.Empty(hand.Missing);
        Assert.Empty(debrief.Harms.Where(h => h.Harm.Kind != HarmKind.Strained).Select(h => h.Harm.ToString()));
        Assert.Empty(debrief.Claims);
        Assert.True(debrief.IsPassed, string.Join(' ', debrief.Better));
    }
}
