using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>Practice of any vehicle with so much wrong: a hand that looks finds it, and one that does not is told.</summary>
public sealed class FreePracticeTests
{
    public static TheoryData<int> Seeds => [.. Enumerable.Range(0, 24)];

    private static Lesson Make(int seed)
    {
        var random = new Random(seed);
        var sheets = PracticeHand.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToList();
        var sheet = sheets[seed % sheets.Count];
        var jobs = sheet.Jobs.Keys.Where(j => FreePractice.MayBeWrong(sheet, [j]).Any()).OrderBy(j => j.Text, StringComparer.Ordinal)
            .ToList();
        return FreePractice.Of(sheet, [jobs[random.Next(jobs.Count)]], 1 + (seed % FreePractice.MostFaults), true, random.Next);
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void A_hand_that_looks_finds_all_of_it(int seed)
    {
        var lesson = Make(seed);
        Assert.NotEmpty(lesson.Faults);
        Assert.Equal(lesson.Faults.Count, lesson.Notice.Select(n => n.What).Distinct().Count());
        var debrief = new PracticeHand(lesson, hasEyes: true).Through();
        var words = $"{lesson.Name} [{string.Join("; ", lesson.Faults)}]: {string.Join(' ', debrief.Better)}";
        Assert.True(debrief.IsEnded, words);
        Assert.True(debrief.Claims.Count == 0, words);
        Assert.True(debrief.Noticed.All(n => n.IsWell), words);
        Assert.True(debrief.Harms.All(h => h.Harm.Kind == HarmKind.Strained), words);
    }

    [Theory]
    [MemberData(nameof(Seeds))]
    public void One_that_does_not_look_does_not_pass(int seed) =>
        Assert.False(new PracticeHand(Make(seed), hasEyes: false).Through().IsPassed);

    [Fact]
    public void So_much_is_never_wrong_at_once_and_nothing_may_be()
    {
        var sheet = PracticeHand.Sheets["tarn-courier-20d"];
        Assert.Empty(FreePractice.Of(sheet, ["engine-oil-and-filter"], 0, true, _ => 0).Faults);
        Assert.Throws<ArgumentOutOfRangeException>(() => FreePractice.Of(sheet, ["engine-oil-and-filter"], 5, true, _ => 0));
        Assert.Throws<ArgumentOutOfRangeException>(() => FreePractice.Of(sheet, ["engine-oil-and-filter"], -1, true, _ => 0));
    }
}
