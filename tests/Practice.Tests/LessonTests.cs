using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;
using NJsonSchema;

namespace Anakyklos.Practice.Tests;

/// <summary>Each lesson that ships: a good hand passes it, and the hand that it is about does not.</summary>
public sealed class LessonTests
{
    private static readonly IReadOnlyDictionary<string, string> Texts =
        Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "lessons"), "*.json")
            .ToDictionary(f => Path.GetFileNameWithoutExtension(f), File.ReadAllText);

    // What the hand of a lesson does wrong, where it is more than not to look.
    private static readonly Dictionary<string, Func<Happening, Happening?>> Wrong = new()
    {
        ["first-oil-change"] = h => h is Tightens { To: { } to } t ? t with { To = to * 0.7m } : h,
        ["washer-that-is-not-there"] = h => h is Fits { What.Text: "drain-washer" } ? null : h,
        ["clip-that-fell"] = h => h is PutsOn { What.Text: "undertray" } p ? p with { Count = 10 } : h,
        ["started-unprimed"] = h => h is Primes ? null : h,
        ["air-in-the-rear-right"] = h => h is TopsUp ? null : h,
        ["reset-that-will-not"] = h => h is PutsOut ? null : h,
        ["two-fluids-in-one-pan"] = h => h is SlidesPanUnder p ? p with { Pan = "Pan 1" } : h is EmptiesPan ? null : h,
        ["plug-that-looks-the-same"] = h => h is Undoes { What.Text: "engine-drain-plug" } u ? u with { What = "gearbox-drain-plug" } : h,
        ["drained-before-it-was-proven"] = h => h is Undoes { What.Text: "final-drive-fill-plug" } or Loosens ? null : h,
        ["sensor-left-off"] = h => h is PutsOn { What.Text: "air-mass-sensor" } ? null : h,
    };

    // What each hand is told first of all.
    private static readonly Dictionary<string, string> Told = new()
    {
        ["first-oil-change"] = "Engine drain plug: it is loose",
        ["filter-that-also-fits"] = "Oil filter cartridge: it lets too little through",
        ["ring-that-stayed-on"] = "Oil filter cap: two seals under it",
        ["washer-that-is-not-there"] = "nobody had fitted a new washer for the drain plug",
        ["twenty-eight-of-what"] = "engine drain plug stood at 51.5 N·m",
        ["clip-that-fell"] = "Undertray: 1 of 11 screws are missing",
        ["fill-plug-that-will-not-move"] = "It was seen, and the card does not know: the fill plug does not move",
        ["captive-nut"] = "the drain plug turns on and on and does not get tight",
        ["glitter"] = "Nobody looked where it was to be seen: slivers hang on the magnet",
        ["brown-froth"] = "Nobody looked where it was to be seen: the old oil is milky",
        ["oil-that-is-nearly-right"] = "Engine oil: another oil went in",
        ["started-unprimed"] = "Fuel filter: it cranks on air",
        ["belt-beside-its-groove"] = "Drive belt: it runs off its pulleys",
        ["reset-that-will-not"] = "the indicator was still lit",
        ["air-in-the-rear-right"] = "Brake fluid: the reservoir is empty",
        ["stick-on-a-slope"] = "Nobody looked where it was to be seen: it does not stand level",
        ["two-fluids-in-one-pan"] = "another fluid had run into the same pan",
        ["plug-that-looks-the-same"] = "Gearbox oil: 1.74 L on the floor",
        ["drained-before-it-was-proven"] = "nobody had undone the final drive fill plug",
        ["hot-metal"] = "Radiator drain plug: hot metal and what is under pressure",
        ["sensor-left-off"] = "nobody had put the air mass sensor plug back",
        ["pad-that-will-not-last"] = "Nobody looked where it was to be seen: one brake pad is almost worn out",
    };

    public static TheoryData<string> Every => [.. Texts.Keys.Order(StringComparer.Ordinal)];

    internal static Lesson Read(string id)
    {
        var (lesson, errors) = Lesson.Read(Texts[id], PracticeHand.Sheets);
        Assert.Empty(errors);
        Assert.Equal(id, lesson!.Id.Text);
        return lesson;
    }

    [Theory]
    [MemberData(nameof(Every))]
    public void A_good_hand_passes_it(string id)
    {
        var debrief = new PracticeHand(Read(id), hasEyes: true).Through();
        Assert.True(debrief.IsPassed, string.Join(' ', debrief.Better));
        Assert.Empty(debrief.Better);
        Assert.All(debrief.Noticed, n => Assert.NotNull(n.ShownAt));
    }

    internal static PracticeHand HandOf(string id, bool good) => good ? new(Read(id), hasEyes: true) : new(Read(id), hasEyes: false)
    {
        MindsScales = false, IsHasty = id == "hot-metal", Means = Wrong.GetValueOrDefault(id, h => h),
    };

    [Theory]
    [MemberData(nameof(Every))]
    public void The_hand_that_it_is_about_does_not(string id)
    {
        var hand = new PracticeHand(Read(id), hasEyes: false)
        {
            MindsScales = false, IsHasty = id == "hot-metal", Means = Wrong.GetValueOrDefault(id, h => h),
        };
        var debrief = hand.Through();
        Assert.False(debrief.IsPassed);
        Assert.InRange(debrief.Better.Count, 1, 3);
        Assert.Contains(Told[id], string.Join(' ', debrief.Better));
    }

    [Fact]
    public void The_card_knows_of_the_wrenches_that_lie_there_and_of_no_others() => Assert.All(Texts.Keys.Select(Read), lesson =>
        Assert.Equal(lesson.Ready.Select(w => w.Name),
            PracticeBench.Facts(lesson, PracticeHand.Sheets[lesson.Sheet]).Shelf.Wrenches.Select(w => w.Wrench.Name)));

    [Fact]
    public async Task The_schema_takes_every_lesson_and_knows_every_word_of_the_reader()
    {
        var schema = await JsonSchema.FromFileAsync(Path.Combine(AppContext.BaseDirectory, "lesson.schema.json"));
        foreach (var (id, text) in Texts)
            Assert.True(schema.Validate(text).Count == 0, $"{id}: {string.Join("; ", schema.Validate(text))}");
        foreach (var spoilt in (string[])["\"road\": 0", "\"road\": 1, \"hologram\": 1", "\"road\": 1, \"people\": 3"])
            Assert.NotEmpty(schema.Validate(Texts["first-oil-change"].Replace("\"road\": 1", spoilt, StringComparison.Ordinal)));
        var refused = Lesson.Read(Texts["first-oil-change"].Replace("\"hot\": true", "\"faults\": [{\"kind\": \"hologram\"}]",
            StringComparison.Ordinal), PracticeHand.Sheets).Errors;
        var kinds = schema.Properties["faults"].Item!.Properties["kind"].Enumeration.Select(k => $"{k}");
        Assert.Contains(refused, e => $"{e}".Contains($"Use {string.Join(", ", kinds)}", StringComparison.Ordinal));
        Assert.Equal(Enum.GetValues<HarmKind>().Length, schema.Properties["never"].Item!.Enumeration.Count);
    }

    [Fact]
    public void The_road_goes_from_one_lesson_to_the_next() =>
        Assert.Equal(Enumerable.Range(1, Texts.Count), Texts.Keys.Select(Read).Select(l => l.Road).Order());

    [Theory]
    [InlineData("\"corran-fen-12\"", "\"hologram\"", "There is no model of this id here", "sheet")]
    [InlineData("[\n    \"engine-oil-and-filter\"", "[\n    \"hologram\"", "The model has no job “hologram”", "jobs")]
    [InlineData("\"leak\"", "\"hologram\"", "“hologram” is not known here", "never")]
    [InlineData("\"road\": 1", "\"road\": 0", "from 1 to 999", "road")]
    [InlineData("\"hot\": true", "\"hot\": true, \"hologram\": 1", "hologram", "hologram")]
    [InlineData("\"hot\": true", "\"faults\": [{\"kind\": \"hologram\"}]", "“hologram” is not known here. Use seized", "faults[0].kind")]
    [InlineData("\"hot\": true", "\"faults\": [{\"kind\": \"seized\", \"what\": \"x\"}]", "The model has no “x”", "faults[0].what")]
    [InlineData("\"hot\": true", "\"notice\": [{\"what\": \"x\", \"says\": \"y\"}]", "The model has no “x”", "notice[0].what")]
    [InlineData("\"hot\": true", "\"wrenches\": [{\"name\": \"x\", \"scale\": \"bar\"}]", "no unit of torque", "wrenches[0].scale")]
    public void A_lesson_that_cannot_be_is_told_with_line_and_place(string good, string bad, string says, string at)
    {
        Assert.Contains(good, Texts["first-oil-change"]);
        var (lesson, errors) = Lesson.Read(Texts["first-oil-change"].Replace(good, bad, StringComparison.Ordinal), PracticeHand.Sheets);
        Assert.Null(lesson);
        Assert.Contains(errors, e => $"{e}".Contains(says, StringComparison.Ordinal) && $"{e}".Contains(at, StringComparison.Ordinal));
    }

    [Fact]
    public void The_same_things_at_the_same_times_make_the_same_run_again()
    {
        var run = new PracticeHand(Read("ring-that-stayed-on"), hasEyes: true);
        run.Through();
        var (before, last) = run.Run.Moments().Last();
        Assert.Equal(run.Run.Log.Count - 1, before.Log.Count);
        Assert.IsType<CardTold>(last);
        Assert.Equal(run.Run.Vehicle.Joints.Select(j => (j.Key, j.Value.IsTight, j.Value.Torque)).ToHashSet(),
            before.Vehicle.Joints.Select(j => (j.Key, j.Value.IsTight, j.Value.Torque)).ToHashSet());
        Assert.Equal(run.Run.Harms.Count, before.Harms.Count);
    }
}
