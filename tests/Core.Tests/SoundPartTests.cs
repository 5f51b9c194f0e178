using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>What of an unfinished sheet is sound, so that its card can be seen while it is written.</summary>
public class SoundPartTests
{
    private static readonly SheetText Courier = SheetText.Read(Workbench.SheetText, out _)!;

    [Fact]
    public void A_sheet_without_errors_is_sound_as_a_whole()
    {
        var sound = SoundPart.Of(Courier)!;
        Assert.Empty(sound.Without);
        Assert.Equal(Workbench.Courier.Jobs.Keys, sound.Sheet.Jobs.Keys);
    }

    [Fact]
    public void What_is_wrong_is_left_out_with_what_needs_it_and_nothing_else()
    {
        var sound = SoundPart.Of(Courier.With("parts.air-filter.number.is", JsonValue.Create(7)))!;
        Assert.Equal("parts.air-filter", sound.Without[0]);
        Assert.DoesNotContain(sound.Sheet.Jobs.Keys, j => j.Text == "air-filter");
        Assert.Contains(sound.Sheet.Jobs.Keys, j => j.Text == "engine-oil-and-filter");
        Assert.NotEmpty(CardComposer.Compose(sound.Sheet, ["engine-oil-and-filter"]).Steps);
    }

    [Fact]
    public void A_field_that_its_thing_can_be_without_goes_alone()
    {
        var sound = SoundPart.Of(Courier.With("fluids.engine-oil.mayUse", JsonValue.Create("much")))!;
        Assert.Equal(["fluids.engine-oil.mayUse"], sound.Without);
        Assert.Equal(Workbench.Courier.Jobs.Count, sound.Sheet.Jobs.Count);
    }

    [Fact]
    public void Without_a_job_or_with_something_wrong_that_belongs_to_no_thing_there_is_no_card()
    {
        Assert.Null(SoundPart.Of(SheetText.New("dunlin-trike", "Dunlin", "Trike", "ground")));
        Assert.Null(SoundPart.Of(Courier.With("revision", JsonValue.Create("three"))));
    }

    [Fact]
    public void Whatever_thing_is_spoilt_the_rest_reads_without_an_error()
    {
        foreach (var table in SheetShape.Tables)
            foreach (var id in Courier.Names(table.Name))
            {
                var spoilt = Courier.With($"{table.Name}.{id}.nobody-knows", JsonValue.Create(1));
                var sound = SoundPart.Of(spoilt);
                if (sound is null)
                    continue;
                Assert.NotEmpty(sound.Without);
                Assert.Empty(SheetReader.Read(sound.Without.Aggregate(spoilt, (t, p) => t.Without(p)).ToString()).Errors);
            }
    }

    [Fact]
    public void An_interval_is_called_by_how_often_it_is_and_by_the_jobs_that_go_by_it()
    {
        Assert.Equal("20000 km or 12 months: Engine oil and filter", SheetGroup.Name(Courier,
            $"intervals.{Courier.Said("jobs.engine-oil-and-filter.interval")}"));
        var bare = Courier.With("intervals.brand-new", new JsonObject());
        Assert.Equal("Brand new", SheetGroup.Name(bare, "intervals.brand-new"));
        var unused = bare.With("intervals.brand-new.normal", new JsonObject { ["hours"] = 250 });
        Assert.Equal("250 h: Brand new", SheetGroup.Name(unused, "intervals.brand-new"));
    }
}
