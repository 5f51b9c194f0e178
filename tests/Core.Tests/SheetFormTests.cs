using Anakyklos.Core.Authoring;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>What is typed at the sheet desk, field by field, and what a second person types blind.</summary>
public class SheetFormTests
{
    private static readonly SheetText Courier = SheetText.Read(Workbench.SheetText, out _)!;

    private static (SheetText Sheet, IReadOnlyList<Anakyklos.Core.Wording.Refusal> Wrong) Typed(string path,
        params (string Field, string Text)[] fields) =>
        SheetForm.Apply(Courier, path, p => fields.Where(f => $"{path}.{f.Field}" == p).Select(f => f.Text).FirstOrDefault());

    // What the desk sends when nobody changed anything: every field as it stands there.
    private static string? AsItStands(SheetText sheet, string path)
    {
        var shape = SheetShape.At(path)!;
        if (path.LastIndexOf('[') is > 0 and var list && !sheet.Has(path[..(path.LastIndexOf(']') + 1)])
            && path[(list + 1)..path.LastIndexOf(']')] != $"{sheet.Count(path[..list])}")
            return null;
        return shape.Kind == EntryKind.Tick ? (sheet.Said(path) == "true" ? "yes" : "no") : CitedValue.Typed(sheet, path);
    }

    [Fact]
    public void A_form_that_is_sent_as_it_stands_changes_no_byte()
    {
        var things = 0;
        foreach (var text in Directory.GetFiles(AppContext.BaseDirectory, "*-*.json", SearchOption.AllDirectories).Select(File.ReadAllText)
            .Where(t => t.Contains(ModelSheet.Format, StringComparison.Ordinal)))
        {
            var sheet = SheetText.Read(text, out _)!;
            foreach (var path in SheetShape.Tables.SelectMany(t => sheet.Names(t.Name).Select(id => $"{t.Name}.{id}")))
            {
                var (after, wrong) = SheetForm.Apply(sheet, path, p => AsItStands(sheet, p));
                Assert.Empty(wrong);
                Assert.Equal(text, after.ToString());
                things++;
            }
        }
        Assert.InRange(things, 400, 4000);
    }

    [Theory]
    [InlineData("38 nm", "38 N·m")]
    [InlineData("6,4 l", "6.4 L")]
    [InlineData("  20000km ", "20000 km")]
    [InlineData("about right", "about right")]
    public void Amounts_are_written_in_their_usual_spelling(string typed, string written) => Assert.Equal(written, AmountText.Tidy(typed));

    [Theory]
    [InlineData("90s", "90 s")]
    [InlineData("5 minutes", "5 min")]
    [InlineData("1h", "1 h")]
    [InlineData("2 Hours", "2 h")]
    [InlineData("soon", "soon")]
    public void Times_are_written_in_their_usual_spelling(string typed, string written) => Assert.Equal(written,
        AmountText.TidyTime(typed));

    // 28 lbf·ft are 37.96 N·m, and no 38: what the source prints is compared, not what is near.
    [Theory]
    [InlineData(EntryKind.Amount, "38 N·m", "38Nm", true)]
    [InlineData(EntryKind.Amount, "1.5 L", "1500 mL", true)]
    [InlineData(EntryKind.Amount, "38 N·m", "28 lbf·ft", false)]
    [InlineData(EntryKind.Amount, "38 N·m", "83 N·m", false)]
    [InlineData(EntryKind.Amount, "38 N·m", "", false)]
    [InlineData(EntryKind.Amount, "1 L", "1 kg", false)]
    [InlineData(EntryKind.Duration, "60 s", "1 min", true)]
    [InlineData(EntryKind.Duration, "60 s", "10 min", false)]
    [InlineData(EntryKind.Text, "TC-0621-F", "tc0621f", true)]
    [InlineData(EntryKind.Text, "TC-0621-F", "TC-0612-F", false)]
    [InlineData(EntryKind.Whole, "12", "012", true)]
    [InlineData(EntryKind.Whole, "12", "twelve", false)]
    [InlineData(EntryKind.Texts, "SAE 5W-30\nSAE 0W-30", "sae 0w-30\nsae 5w-30", true)]
    [InlineData(EntryKind.Texts, "SAE 5W-30\nSAE 0W-30", "SAE 5W-30", false)]
    public void Two_readings_are_the_same_when_they_say_the_same(EntryKind kind, string one, string other, bool same)
    {
        Assert.Equal(same, AmountText.Same(kind, one, other));
        Assert.Equal(same, AmountText.Same(kind, other, one));
    }

    [Fact]
    public void A_changed_torque_touches_one_line_and_is_no_longer_checked_by_two()
    {
        var (after, wrong) = Typed("fasteners.engine-drain-plug", ("torque.is", "39 nm"));
        Assert.Empty(wrong);
        Assert.Equal("39 N·m", after.Said("fasteners.engine-drain-plug.torque.is"));
        Assert.Equal("1", after.Said("fasteners.engine-drain-plug.torque.checkedBy"));
        var (old, now) = (Workbench.SheetText.Split('\n'), after.ToString().Split('\n'));
        Assert.Equal(old.Length, now.Length);
        Assert.InRange(old.Zip(now).Count(l => l.First != l.Second), 1, 2);
        Assert.Equal(["fasteners.engine-drain-plug.torque"], SheetForm.Changed(Courier, after).Select(c => c.Path));
    }

    [Fact]
    public void Nobody_says_of_themselves_by_how_many_a_value_was_compared()
    {
        var path = "fasteners.engine-drain-plug.torque.checkedBy";
        var one = BlindCheck.Marked(Courier, "fasteners.engine-drain-plug.torque", 1);
        Assert.Equal("1", SheetForm.Unchecked(one, Courier).Said(path));
        Assert.Equal("2", SheetForm.Unchecked(Courier, one).Said(path));
        Assert.Equal(Workbench.SheetText, SheetForm.Unchecked(Courier, Courier).ToString());
    }

    [Fact]
    public void What_is_no_number_is_told_at_its_field_and_nothing_is_taken()
    {
        var (after, wrong) = Typed("parts.drain-washer", ("name", "Other"), ("reusableTimes", "often"));
        Assert.Equal("parts.drain-washer.reusableTimes", Assert.Single(wrong).Field);
        Assert.Equal(Workbench.SheetText, after.ToString());
    }

    [Fact]
    public void An_empty_field_takes_away_what_it_said_and_an_empty_part_goes_with_it()
    {
        var (after, _) = Typed("fasteners.engine-drain-plug", ("seal", ""), ("torque.is", ""), ("torque.low", ""), ("torque.high", ""),
            ("torque.from", ""), ("torque.at", ""), ("torque.disputed[0].says", ""), ("torque.disputed[0].from", ""),
            ("torque.disputed[0].at", ""));
        Assert.False(after.Has("fasteners.engine-drain-plug.seal"));
        Assert.False(after.Has("fasteners.engine-drain-plug.torque"));
        Assert.True(after.Has("fasteners.engine-drain-plug.drains"));
    }

    [Fact]
    public void Several_are_added_at_once_and_one_left_empty_makes_no_hole()
    {
        var (after, wrong) = Typed("fasteners.engine-drain-plug", ("notes[0].label", ""), ("notes[0].text", ""),
            ("notes[1].label", "Mind"), ("notes[1].text", "the thread"), ("notes[2].label", "And"), ("notes[2].text", "the washer"));
        Assert.Empty(wrong);
        Assert.Equal(2, after.Count("fasteners.engine-drain-plug.notes"));
        Assert.Equal("Mind", after.Said("fasteners.engine-drain-plug.notes[0].label"));
        var (without, _) = SheetForm.Apply(after, "fasteners.engine-drain-plug", p => p.Contains("notes[0]", StringComparison.Ordinal) ? ""
            : null);
        Assert.Equal("And", without.Said("fasteners.engine-drain-plug.notes[0].label"));
    }

    [Fact]
    public void A_thing_that_is_not_there_is_not_written()
    {
        var (after, wrong) = Typed("fasteners.no-such", ("name", "x"));
        Assert.Single(wrong);
        Assert.Equal(Workbench.SheetText, after.ToString());
    }

    [Fact]
    public void All_that_stands_in_a_source_is_found()
    {
        var values = CitedValue.AllOf(Courier);
        var plug = Assert.Single(values, v => v.Path == "fasteners.engine-drain-plug.torque");
        Assert.Equal(("fasteners", "torque", true), (plug.Table, plug.Of, plug.IsChecked));
        Assert.Contains(plug.Fields, f => f.Path == "fasteners.engine-drain-plug.torque.is");
        // Counted in the file: everything that says from where it is, but for what other sources say instead.
        var cited = System.Text.RegularExpressions.Regex.Count(Workbench.SheetText, "\"from\": \"[a-z]+\"");
        var disputed = System.Text.RegularExpressions.Regex.Count(Workbench.SheetText, "\"says\": \"[^\"]+\", \"from\"");
        Assert.Equal(cited - disputed, values.Count);
    }

    [Fact]
    public void Nobody_checks_what_they_wrote_themselves()
    {
        var value = CitedValue.AllOf(Typed("fasteners.engine-drain-plug", ("torque.is", "39 N·m")).Sheet)
            .Single(v => v.Path == "fasteners.engine-drain-plug.torque");
        Assert.False(BlindCheck.May(value, "una", "una"));
        Assert.True(BlindCheck.May(value, "una", "iona"));
        Assert.False(BlindCheck.May(value with { CheckedBy = 2 }, "una", "iona"));
    }

    [Fact]
    public void A_blind_reading_says_which_numbers_differ()
    {
        var value = CitedValue.AllOf(Courier).Single(v => v.Path == "fasteners.engine-drain-plug.torque");
        var same = value.Fields.ToDictionary(f => f.Path, f => f.Says);
        Assert.Empty(BlindCheck.Differing(value, same));
        Assert.Equal(["fasteners.engine-drain-plug.torque.is"], BlindCheck.Differing(value,
            new Dictionary<string, string>(same) { ["fasteners.engine-drain-plug.torque.is"] = "83 N·m" }).Select(f => f.Path));
        Assert.Equal(value.Fields.Count, BlindCheck.Differing(value, new Dictionary<string, string>()).Count);
        Assert.Equal("2", BlindCheck.Marked(Courier, value.Path, 2).Said($"{value.Path}.checkedBy"));
    }
}
