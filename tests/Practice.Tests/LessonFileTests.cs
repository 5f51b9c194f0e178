using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>Lessons as they are written, runs as they are kept, lessons made of what happened.</summary>
public sealed class LessonFileTests
{
    private static ModelSheet Courier => PracticeHand.Sheets["tarn-courier-20d"];

    private static readonly JobId[] Oil = ["engine-oil-and-filter"];

    [Theory]
    [MemberData(nameof(LessonTests.Every), MemberType = typeof(LessonTests))]
    public void What_is_written_of_a_lesson_reads_as_the_same_lesson(string id)
    {
        var lesson = LessonTests.Read(id);
        var (again, errors) = Lesson.Read(LessonFile.Write(lesson), PracticeHand.Sheets);
        Assert.Empty(errors);
        Assert.Equivalent(lesson, again, true);
    }

    [Fact]
    public void Each_fault_that_free_practice_knows_can_be_written()
    {
        foreach (var sheet in PracticeHand.Sheets.Values)
        {
            JobId[] jobs = [.. sheet.Jobs.Keys];
            var all = FreePractice.MayBeWrong(sheet, jobs).ToList();
            var lesson = FreePractice.Of(sheet, jobs, 0, true, n => n - 1) with
            {
                Faults = [.. all.Select(a => a.Fault)], Notice = [.. all.Select(a => a.Notice)],
            };
            var (again, errors) = Lesson.Read(LessonFile.Write(lesson), PracticeHand.Sheets);
            Assert.Empty(errors);
            Assert.Equal(lesson.Faults, again!.Faults);
            Assert.Equal(lesson.Notice, again.Notice);
        }
    }

    [Theory]
    [InlineData("ring-that-stayed-on", true)]
    [InlineData("hot-metal", false)]
    [InlineData("reset-that-will-not", true)]
    public void A_run_that_was_kept_is_told_again_as_it_was(string id, bool good)
    {
        var hand = LessonTests.HandOf(id, good);
        hand.Through();
        var run = hand.Run.Wait(PracticeHand.Tavish, TimeSpan.FromMinutes(5));
        var kept = run.Log.Select(e => PracticeLog.Write(e) is var (kind, body) ? (e.At, e.By, kind, body) : default).ToList();
        var again = PracticeLog.Read(run.Start, kept);
        Assert.Equal(run.Log.Count, again.Log.Count);
        Assert.Equal(Debrief.Of(run).Better, Debrief.Of(again).Better);
        Assert.Equal(run.Harms, again.Harms);
        Assert.Equal(run.Card.History.Count, again.Card.History.Count);
        Assert.Equal(run.Known.OrderBy(k => k.Key.Text), again.Known.OrderBy(k => k.Key.Text));
        Assert.Equal(run.Log.OfType<GateStopped>().Select(g => (g.Reasons[0].What, g.Saved.Count)),
            again.Log.OfType<GateStopped>().Select(g => (g.Reasons[0].What, g.Saved.Count)));
        Assert.Throws<System.Text.Json.JsonException>(() => PracticeLog.Read(run.Start,
            [(run.Now, PracticeHand.Tavish, "hologram", "{}")]));
    }

    [Fact]
    public void Time_goes_by_what_is_done_and_by_what_is_waited()
    {
        var run = PracticeRun.Begin(LessonTests.Read("first-oil-change"), PracticeHand.Sheets["corran-fen-12"],
            new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero), PracticeHand.Tavish);
        var who = PracticeHand.Tavish.Name;
        var chocks = run.Card.Steps.First(s => s.Id == "wheel-chocks-set");
        Assert.Equal(chocks.Takes, run.Takes(who, "access:wheel-chocks/set", ""));
        Assert.Equal(TimeSpan.FromSeconds(10), run.Takes(who, "ground/look", ""));
        Assert.Equal(TimeSpan.FromSeconds(15), run.Takes(who, "feet/cab", ""));
        Assert.Equal(TimeSpan.FromSeconds(30), run.Takes(who, "doors/shut", ""));
        Assert.Equal(TimeSpan.Zero, run.Takes(who, "hologram/shut", ""));
        var waited = run.Wait(PracticeHand.Tavish, TimeSpan.FromMinutes(7));
        Assert.Equal(TimeSpan.FromMinutes(7), waited.Now - run.Now);
        Assert.Throws<ArgumentOutOfRangeException>(() => run.Wait(PracticeHand.Tavish, TimeSpan.Zero));
        Assert.Throws<ArgumentOutOfRangeException>(() => run.Wait(PracticeHand.Tavish, TimeSpan.FromHours(13)));
    }

    [Theory]
    [InlineData("HD-07 came with Iona R. at the wheel", "the vehicle came with somebody at the wheel")]
    [InlineData("hd 07 and HD07: iona, and IONA R.", "the vehicle and the vehicle: somebody, and somebody")]
    [InlineData("Ionaros HD-071 stays", "Ionaros HD-071 stays")]
    [InlineData("Not hd-07 but ab12 cd, of 7 that came: AB-12-CD", "Not the vehicle but the vehicle, of 7 that came: the vehicle")]
    [InlineData("HD-0 7 stood by HD-0", "the vehicle stood by the vehicle")]
    [InlineData("The Council pool's hose", "The somebody's hose")]
    public void Plate_and_names_are_left_out(string said, string bare) =>
        Assert.Equal(bare, LessonMaking.Without(said, ["HD-07", "HD-0", "AB 12 CD", "7", ""], ["Iona R.", "Council pool"]));

    [Fact]
    public void A_lesson_of_what_happened_can_be_worked_and_what_it_lacks_is_told_by_its_field()
    {
        var faults = LessonMaking.Faults(Courier, Oil, "oil-filter-cap");
        Assert.Equal("oil-filter-cap", faults[0].Notice.What.Text);
        var ring = faults.First(f => f.Fault is OldRingStays { What.Text: "oil-filter-cap" });
        var draft = new LessonDraft("Two rings", "It was late.", ring.Key, "The old ring sat there.", "Wipe and look.", true);
        var (lesson, wrong) = LessonMaking.Make(draft, Courier, Oil);
        Assert.Empty(wrong);
        Assert.Equal(("own-two-rings", "The old ring sat there"), (lesson!.Id.Text, lesson.Notice[0].Says));
        Assert.True(new PracticeHand(lesson, hasEyes: true).Through().IsPassed);
        Assert.False(new PracticeHand(lesson, hasEyes: false).Through().IsPassed);
        foreach (var (bad, field) in new[] { (draft with { Name = " " }, "name"), (draft with { Name = "°°" }, "name"),
            (draft with { Fault = "hologram" }, "fault"), (draft with { Says = "" }, "says"),
                (draft with { Right = new('x', 401) }, "right"),
            (draft with { Story = "" }, "story") })
            Assert.Equal(field, Assert.Single(LessonMaking.Make(bad, Courier, Oil).Wrong).Field);
    }
}
