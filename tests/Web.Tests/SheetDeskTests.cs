using System.Net;
using System.Text.RegularExpressions;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The desk at which sheets are written: by whom, what is kept, what is checked blind, and how a revision comes into
/// use.</summary>
public sealed class SheetDeskTests() : InTheDemo("una")
{
    private static readonly Person Una = new("una", "Una B.", Role.Lead);
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
    private static readonly Person Effie = new("effie", "Effie S.", Role.Stores);
    private static readonly SheetId Fen = "corran-fen-12";
    private const string Plug = "fasteners.engine-drain-plug";
    private const string Torque = $"{Plug}.torque";

    private SheetDesk Desk => Host.Services.GetRequiredService<SheetDesk>();

    private RevisionDesk Revisions => Host.Services.GetRequiredService<RevisionDesk>();

    private SheetStore Sheets => Host.Services.GetRequiredService<SheetStore>();

    private int Newest => Sheets.Newest(Fen)!.Revision;

    private async Task<long> Begun(Person? by = null) => (await Desk.Revise(by ?? Una, Fen, Newest)).Draft!.Value;

    private DraftNow Now(long draft) => Desk.Find(draft)!;

    private Task<IReadOnlyList<Core.Wording.Refusal>> Write(long draft, Person by, string field, string value) =>
        Desk.Change(draft, by, Plug, SheetDesk.Mark(Now(draft).Text.Raw(Plug)!), p => p == $"{Plug}.{field}" ? value : null);

    private static Dictionary<string, string> Read(string torque) => new()
    {
        [$"{Torque}.is"] = torque, [$"{Torque}.low"] = "33 N·m", [$"{Torque}.high"] = "39 N·m",
    };

    private async Task<long> Changed()
    {
        var draft = await Begun();
        Assert.Empty(await Desk.Change(draft, Una, Plug, SheetDesk.Mark(Now(draft).Text.Raw(Plug)!), p => p switch
        {
            $"{Torque}.is" => "36 Nm",
            $"{Torque}.low" => "33 Nm",
            $"{Torque}.high" => "39 Nm",
            _ => null,
        }));
        return draft;
    }

    [Fact]
    public async Task What_is_typed_on_the_page_stands_in_the_file_and_nothing_else_is_touched()
    {
        await Me.Get("/library/corran-fen-12");
        await Me.Submit("form[action*='Revise']");
        var draft = long.Parse(Regex.Match(Me.Address.AbsolutePath, @"\d+$").Value, System.Globalization.CultureInfo.InvariantCulture);
        var before = Now(draft).Text.ToString();
        await Me.Get($"/library/draft/{draft}?at={Plug}");
        await Me.Submit("form[action*='Write']");
        Assert.Equal(before, Now(draft).Text.ToString());
        await Me.Get($"/library/draft/{draft}?at={Plug}");
        await Me.Submit("form[action*='Write']", ($"{Torque}.is", "36 nm"));
        Assert.Equal(before.Replace("\"35 N·m\"", "\"36 N·m\"").Length, Now(draft).Text.ToString().Length);
        Assert.Equal("1", Now(draft).Text.Said($"{Torque}.checkedBy"));
        await Me.Get($"/library/draft/{draft}?at={Plug}");
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("form[action*='Write']", ($"{Torque}.is", "360 Nm")));
        Assert.Contains("nine times what an M14 plug takes", Me.Page.QuerySelector(".write-writing .problem")!.TextContent);
    }

    [Fact]
    public async Task What_is_no_number_is_told_at_its_field_and_what_was_typed_stays()
    {
        var draft = await Begun();
        await Me.Get($"/library/draft/{draft}?at=parts.drain-washer");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form[action*='Write']", ("parts.drain-washer.name", "Ring"),
            ("parts.drain-washer.reusableTimes", "often")));
        Assert.Equal("often", Me.Page.QuerySelector("[name='parts.drain-washer.reusableTimes']")!.GetAttribute("value"));
        Assert.Equal("Ring", Me.Page.QuerySelector("[name='parts.drain-washer.name']")!.GetAttribute("value"));
        Assert.NotEqual("Ring", Now(draft).Text.Said("parts.drain-washer.name"));
    }

    [Fact]
    public async Task Only_those_who_work_on_vehicles_write_and_only_the_lead_rules_and_puts_in_use()
    {
        Assert.NotEmpty((await Desk.Start(Effie, "Dunlin", "Cart", "ground", "")).Wrong);
        var draft = await Changed();
        Assert.NotEmpty(await Write(draft, Effie, "drive", "Hex 19"));
        Assert.NotEmpty((await Desk.Look(draft, Effie, Torque, Read("36 N·m"))).Wrong);
        Assert.NotEmpty((await Desk.Walk(draft, Effie, ["engine-oil-and-filter"])).Wrong);
        Assert.False((await Desk.Look(draft, Iona, Torque, Read("63 N·m"))).Same);
        Assert.NotEmpty(await Desk.Rule(draft, Iona, Torque, Iona.Id));
        Assert.NotEmpty((await Revisions.PutInUse(draft, Iona, Now(draft).Draft.Edition, Newest, "why")).Wrong);
        Assert.NotEmpty(await Revisions.Withdraw(Fen, Newest, Iona, "why"));
        var stores = await Host.SignedIn("effie");
        await stores.Get($"/library/draft/{draft}?at={Plug}");
        Assert.DoesNotContain(stores.Page.QuerySelectorAll("form[action*='/draft/']"), f => f.QuerySelector("button") is not null);
        await stores.Get("/library");
        Assert.Null(stores.Page.QuerySelector("form[action*='handler=Write']"));
    }

    [Fact]
    public async Task Nobody_checks_their_own_value_and_what_differs_waits_for_the_lead()
    {
        var draft = await Changed();
        Assert.Contains("yourself", (await Desk.Look(draft, Una, Torque, Read("36 N·m"))).Wrong[0].What);
        var empty = (await Desk.Look(draft, Iona, Torque, Read(""))).Wrong;
        Assert.Equal($"{Torque}.is", Assert.Single(empty).Field);
        var (same, wrong) = await Desk.Look(draft, Iona, Torque, Read("63 Nm"));
        Assert.True(!same && wrong.Count == 0);
        Assert.Equal("1", Now(draft).Text.Said($"{Torque}.checkedBy"));
        Assert.DoesNotContain(Now(draft).ToCheck(Iona.Id), v => v.Path == Torque);
        var refused = await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, Newest, "New manual");
        Assert.Contains("read a value otherwise", refused.Wrong[0].What);
        Assert.Empty(await Desk.Rule(draft, Una, Torque, Una.Id));
        Assert.Equal(("36 N·m", "2"), (Now(draft).Text.Said($"{Torque}.is"), Now(draft).Text.Said($"{Torque}.checkedBy")));
        Assert.Empty(Now(draft).Disputed);
        Assert.NotEmpty(await Desk.Rule(draft, Una, Torque, Una.Id));
    }

    [Fact]
    public async Task The_reading_that_the_lead_takes_becomes_the_value()
    {
        var draft = await Changed();
        await Desk.Look(draft, Iona, Torque, Read("37 Nm"));
        Assert.Empty(await Desk.Rule(draft, Una, Torque, Iona.Id));
        Assert.Equal(("37 N·m", "2"), (Now(draft).Text.Said($"{Torque}.is"), Now(draft).Text.Said($"{Torque}.checkedBy")));
    }

    [Fact]
    public async Task Nobody_types_into_the_text_that_a_value_was_read_by_two()
    {
        var draft = await Changed();
        var forged = Core.Authoring.BlindCheck.Marked(Now(draft).Text, Torque, 2).ToString();
        Assert.Empty(await Desk.Rewrite(draft, Una, Now(draft).Draft.Edition, forged));
        Assert.Equal("1", Now(draft).Text.Said($"{Torque}.checkedBy"));
    }

    [Fact]
    public async Task Equal_readings_count_as_two_and_a_later_change_counts_as_one_again()
    {
        var draft = await Changed();
        Assert.True((await Desk.Look(draft, Iona, Torque, Read("36,0 Nm"))).Same);
        Assert.Equal("2", Now(draft).Text.Said($"{Torque}.checkedBy"));
        Assert.Contains("not to be checked any more", (await Desk.Look(draft, Iona, Torque, Read("36 Nm"))).Wrong[0].What);
        Assert.Empty(await Write(draft, Iona, "torque.is", "35 Nm"));
        Assert.Equal("1", Now(draft).Text.Said($"{Torque}.checkedBy"));
        // Now it is Iona's, and Una reads it.
        Assert.Contains(Now(draft).ToCheck(Una.Id), v => v.Path == Torque);
        Assert.DoesNotContain(Now(draft).ToCheck(Iona.Id), v => v.Path == Torque);
    }

    [Fact]
    public async Task What_was_disputed_and_is_written_anew_is_read_anew()
    {
        var draft = await Changed();
        await Desk.Look(draft, Iona, Torque, Read("63 Nm"));
        Assert.Empty(await Write(draft, Una, "torque.is", "35 Nm"));
        Assert.Empty(Now(draft).Disputed);
        Assert.Contains(Now(draft).ToCheck(Iona.Id), v => v.Path == Torque);
    }

    [Fact]
    public async Task What_another_changed_meanwhile_is_not_written_over()
    {
        var draft = await Begun();
        var was = SheetDesk.Mark(Now(draft).Text.Raw(Plug)!);
        Assert.Empty(await Write(draft, Iona, "drive", "Hex 19"));
        var wrong = await Desk.Change(draft, Una, Plug, was, p => p == $"{Plug}.drive" ? "Hex 21" : null);
        Assert.Contains("Somebody else", Assert.Single(wrong).What);
        Assert.Equal("Hex 19", Now(draft).Text.Said($"{Plug}.drive"));
        // Another thing of the same draft may be written all the same.
        Assert.Empty(await Desk.Change(draft, Una, "parts.drain-washer", SheetDesk.Mark(Now(draft).Text.Raw("parts.drain-washer")!),
            p => p == "parts.drain-washer.name" ? "Ring" : null));
    }

    [Fact]
    public async Task The_page_of_the_second_person_says_nothing_of_the_value()
    {
        var draft = await Changed();
        var iona = await Host.SignedIn("iona");
        await iona.Get($"/library/draft/{draft}/check?path={Torque}");
        Assert.Contains("Engine drain plug", iona.Text);
        Assert.DoesNotContain("36 N·m", iona.Page.DocumentElement.OuterHtml);
        Assert.All(iona.Page.QuerySelectorAll("form.stack input[name*='.']"), i => Assert.Equal("", i.GetAttribute("value") ?? ""));
        await iona.Submit("form.stack", ($"{Torque}.is", "36 Nm"), ($"{Torque}.low", "33 Nm"), ($"{Torque}.high", "39 Nm"));
        Assert.Contains("Both read the same", iona.Text);
    }

    [Fact]
    public async Task A_revision_comes_into_use_once_what_it_changes_was_seen_and_open_cards_keep_theirs()
    {
        var (old, draft) = (Newest, await Changed());
        await Desk.Look(draft, Iona, Torque, Read("36 Nm"));
        await Me.Get($"/library/draft/{draft}/use");
        Assert.Contains("36 N·m (33 to 39 N·m)", Me.Text);
        Assert.Contains("HD-02", Me.Text);
        Assert.Contains("Card 1057", Me.Text);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit("form.stack", ("reason", "")));
        Assert.Equal(old, Newest);
        await Me.Submit("form.stack", ("reason", "New manual"));
        Assert.Equal(old + 1, Newest);
        Assert.Equal("36 N·m", SheetTextOf(old + 1).Said($"{Torque}.is"));
        Assert.Equal("35 N·m", SheetTextOf(old).Said($"{Torque}.is"));
        Assert.Equal(old, Host.Services.GetRequiredService<CardStore>().Find(1057)!.Sheet.Revision);
        Assert.Null(Desk.Find(draft));
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get($"/library/draft/{draft}"));
        await Me.Get("/library/corran-fen-12");
        Assert.Contains("New manual", Me.Page.QuerySelector("#history")!.TextContent);
    }

    private Core.Authoring.SheetText SheetTextOf(int revision) =>
        Core.Authoring.SheetText.Read(Sheets.Text(Fen, revision)!, out _)!;

    [Fact]
    public async Task A_draft_that_changed_since_it_was_looked_at_is_not_put_in_use()
    {
        var draft = await Changed();
        var seen = Now(draft).Draft.Edition;
        await Write(draft, Iona, "drive", "Hex 19");
        Assert.Contains("changed since", (await Revisions.PutInUse(draft, Una, seen, Newest, "New manual")).Wrong[0].What);
        var another = await Changed();
        var newest = Newest;
        Assert.Empty((await Revisions.PutInUse(another, Una, Now(another).Draft.Edition, newest, "New manual")).Wrong);
        Assert.Contains("changed since", (await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, newest, "Late")).Wrong[0].What);
    }

    [Fact]
    public async Task A_sheet_with_something_wrong_in_it_is_not_put_in_use()
    {
        var draft = await Changed();
        await Write(draft, Una, "torque.is", "360 Nm");
        Assert.Contains("wrong in this sheet", (await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, Newest,
            "New")).Wrong[0].What);
        Assert.Equal(HttpStatusCode.OK, await Me.Get($"/library/draft/{draft}/use"));
        Assert.EndsWith($"/library/draft/{draft}", Me.Address.AbsolutePath);
    }

    [Fact]
    public async Task A_withdrawn_revision_gives_way_to_the_one_before_and_its_number_is_not_given_again()
    {
        var (old, draft) = (Newest, await Changed());
        Assert.NotEmpty(await Revisions.Withdraw(Fen, old, Una, "It is the only one"));
        await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, old, "New manual");
        Assert.NotEmpty(await Revisions.Withdraw(Fen, old, Una, "Not the newest"));
        Assert.Equal("withdrawn", Assert.Single(await Revisions.Withdraw(Fen, old + 1, Una, "")).Field);
        Assert.Empty(await Revisions.Withdraw(Fen, old + 1, Una, "A slip"));
        Assert.Equal(old, Newest);
        var back = (await Desk.Revise(Una, Fen, old + 1)).Draft!.Value;
        Assert.Equal(old + 2, (await Revisions.PutInUse(back, Una, Now(back).Draft.Edition, old, "It was right")).Revision);
    }

    [Fact]
    public async Task A_file_for_a_model_in_use_becomes_a_draft_until_the_lead_has_seen_what_it_changes()
    {
        var text = Sheets.Text(Fen, Newest)!.Replace($"\"revision\": {Newest}", $"\"revision\": {Newest + 1}").Replace("\"3.4 L\"",
            "\"3.3 L\"");
        var old = Newest;
        await Me.Get("/library");
        await Me.Submit("button[formaction='/library?handler=Add']", ("text", text));
        Assert.Matches(@"/library/draft/\d+/use$", Me.Address.AbsolutePath);
        Assert.Equal(old, Newest);
        Assert.Contains("3.30 L", Me.Text);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_file_of_a_new_model_that_says_its_values_were_read_is_looked_at_before_it_is_in_use(bool says)
    {
        var text = Sheets.Text(Fen, Newest)!.Replace("\"corran-fen-12\"", "\"corran-fen-14\"").Replace("\"Fen 1.2\"", "\"Fen 1.4\"");
        if (!says)
            text = Regex.Replace(text, @",\s*""checkedBy"": \d+", "");
        await Me.Get("/library");
        await Me.Submit("button[formaction='/library?handler=Add']", ("text", text));
        if (!says)
        {
            Assert.NotNull(Sheets.Newest("corran-fen-14"));
            return;
        }
        Assert.Matches(@"/library/draft/\d+/use$", Me.Address.AbsolutePath);
        Assert.Null(Sheets.Newest("corran-fen-14"));
        Assert.Contains("Nobody here has.", Me.Text);
        await Me.Submit("form.elsewhere");
        var draft = Desk.Open().Single();
        Assert.DoesNotContain(draft.Values, v => v.IsChecked);
    }

    [Theory]
    [InlineData("{", "well-formed")]
    [InlineData("[]", "one JSON object")]
    [InlineData("{\"format\": \"other\", \"id\": \"x\"}", "as its format")]
    [InlineData("{\"format\": \"anakyklos/model-sheet/1\", \"id\": \"x\", \"parts\": {\"a.b\": {}}}", "no id: parts: “a.b”")]
    [InlineData("{\"format\": \"anakyklos/model-sheet/1\", \"id\": \"x\", \"fluids\": {\"\": {}}}", "no id")]
    public async Task What_cannot_be_written_on_is_not_taken_in(string text, string says)
    {
        var (draft, wrong) = await Desk.TakeIn(Una, text);
        Assert.Null(draft);
        Assert.Contains(says, wrong[0].ToString());
    }

    [Fact]
    public async Task An_unfinished_file_is_taken_in_and_says_what_it_lacks()
    {
        var draft = (await Desk.TakeIn(Iona, "{\"format\": \"anakyklos/model-sheet/1\", \"id\": \"cart\", \"fluids\": {\"oil\": {}}}"))
            .Draft!.Value;
        await Me.Get($"/library/draft/{draft}?at=fluids.oil");
        Assert.Contains("things are wrong", Me.Text);
        Assert.NotNull(Me.Page.QuerySelector("[name='fluids.oil.amount.is']"));
        Assert.Equal(HttpStatusCode.OK, await Me.Submit("form[action*='Write']", ("fluids.oil.amount.is", "0,9 l")));
        Assert.Equal("0.9 L", Now(draft).Text.Said("fluids.oil.amount.is"));
    }

    [Fact]
    public async Task A_copy_of_a_model_counts_as_read_by_nobody()
    {
        var draft = (await Desk.Start(Iona, "Corran", "Fen 1.4", "lift", "corran-fen-12")).Draft!.Value;
        Assert.Equal("corran-fen-1-4", Now(draft).Draft.Sheet.Text);
        Assert.NotEmpty(Now(draft).Values);
        Assert.All(Now(draft).Values, v => Assert.Equal(0, v.CheckedBy));
        Assert.NotNull(Now(draft).Reading.Sheet);
    }

    [Fact]
    public async Task What_two_have_not_read_is_marked_at_the_lift_and_a_workshop_may_refuse_it()
    {
        var draft = await Changed();
        await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, Newest, "New manual");
        var sheet = Sheets.Newest(Fen)!;
        Assert.Equal(["Engine drain plug, tightening torque"], sheet.Unchecked().Select(u => u.Of));
        await Me.Get("/workshop");
        await Me.Submit("form[action*='ReadByTwo']", ("only", "yes"));
        var desk = Host.Services.GetRequiredService<IntakeDesk>();
        IntakeForm Form(string job) => new() { Plate = "HD-02", Job = [job], Odometer = "40100 km", Bay = "Bay 1" };
        async Task<string> Refused(string job) => string.Join(" ", (await desk.Open(Form(job), Core.Quantities.Distance.Kilometre,
            Una)).Visit.Refusals);
        Assert.Contains("Not read by two yet: Engine drain plug, tightening torque", await Refused("engine-oil-and-filter"));
        Assert.DoesNotContain("Not read by two yet", await Refused("air-filter"));
        await Me.Get("/workshop");
        await Me.Submit("form[action*='ReadByTwo']", ("only", ""));
        Assert.DoesNotContain("Not read by two yet", await Refused("engine-oil-and-filter"));
    }

    [Fact]
    public async Task A_draft_is_worked_in_the_practice_bay_and_is_in_use_nowhere()
    {
        var (old, draft) = (Newest, await Changed());
        var (run, wrong) = await Desk.Walk(draft, Una, ["engine-oil-and-filter"]);
        Assert.Empty(wrong);
        await Me.Get($"/lift/{run}");
        Assert.Contains("Corran", Me.Page.DocumentElement.OuterHtml);
        Assert.Equal(old, Newest);
        Assert.Equal(old + 1, Sheets.NextRevision(Fen));
        Assert.NotEmpty((await Desk.Walk(draft, Una, [])).Wrong);
        Assert.NotEmpty((await Desk.Walk(draft, Una, ["no-such-job"])).Wrong);
        // The same draft walked again keeps no second copy.
        var first = Host.Services.GetRequiredService<PracticeDesk>().Of(run!.Value)!.Revision;
        var again = await Desk.Walk(draft, Una, ["air-filter"]);
        Assert.Equal(first, Host.Services.GetRequiredService<PracticeDesk>().Of(again.Run!.Value)!.Revision);
    }

    [Fact]
    public async Task A_table_of_torques_is_taken_as_a_whole_or_not_at_all()
    {
        var (table, draft) = (Host.Services.GetRequiredService<TorqueTable>(), await Begun());
        var (rows, wrong) = await table.TakeIn(draft, Una, "name\tdrive\tmaterial\ttorque\tsource\tpage\nEngine drain plug\tHex 17\t"
            + "aluminium sump\t36 nm\tWorkshop manual\tp. 33\nTow hook\tHex 24\tsteel\t90 Nm\tNo such book\tp. 1\n");
        Assert.Equal(0, rows);
        Assert.Contains("Row 3, source: There is no source “No such book”", Assert.Single(wrong).What);
        Assert.Equal("35 N·m", Now(draft).Text.Said($"{Torque}.is"));
        (rows, wrong) = await table.TakeIn(draft, Una, "name;drive;material;torque;source;page\nEngine drain plug;Hex 17;aluminium sump;"
            + "36 nm;Workshop manual;p. 33\nTow hook;Hex 24;steel;90 Nm;wm;p. 1\n");
        Assert.Equal((2, 0), (rows, wrong.Count));
        Assert.Equal(("36 N·m", "p. 33"), (Now(draft).Text.Said($"{Torque}.is"), Now(draft).Text.Said($"{Torque}.at")));
        Assert.Equal("90 N·m", Now(draft).Text.Said("fasteners.tow-hook.torque.is"));
        Assert.NotEmpty((await table.TakeIn(draft, Una, "name;torque\nx;1 Nm\n")).Wrong);
    }

    [Fact]
    public async Task A_thing_is_added_under_an_id_of_its_own_and_taken_out_again()
    {
        var draft = await Begun();
        var (first, _) = await Desk.Add(draft, Una, "fasteners", "Engine drain plug");
        Assert.Equal("fasteners.engine-drain-plug-2", first);
        Assert.Equal("called", Assert.Single((await Desk.Add(draft, Una, "fasteners", " ")).Wrong).Field);
        Assert.NotEmpty((await Desk.Add(draft, Una, "wheels", "x")).Wrong);
        Assert.Empty(await Desk.Remove(draft, Una, first!));
        Assert.NotEmpty(await Desk.Remove(draft, Una, first!));
        Assert.NotEmpty(await Desk.Remove(draft, Una, "sources"));
        Assert.Equal(Sheets.Text(Fen, Newest), Now(draft).Text.ToString());
    }

    [Fact]
    public async Task Only_who_began_a_draft_or_the_lead_throws_it_away()
    {
        var draft = await Begun(Una);
        Assert.NotEmpty(await Desk.ThrowAway(draft, Iona));
        Assert.Empty(await Desk.ThrowAway(draft, Una));
        Assert.Null(Desk.Find(draft));
        await Me.Get("/library");
        Assert.Null(Me.Page.QuerySelector(".draft-card"));
    }

    [Fact]
    public async Task The_card_of_what_is_sound_stands_beside_what_is_wrong()
    {
        var draft = await Begun();
        await Me.Get($"/library/draft/{draft}");
        Assert.Equal("Its card", Me.Page.QuerySelector("h2:has(+ form.write-jobs)")!.TextContent);
        var jobs = Me.Page.QuerySelectorAll(".write-jobs input[name=job]").Length;
        // A wrong value at something that one job needs leaves the others their card.
        var washer = "parts.air-filter";
        Assert.Empty(await Desk.Change(draft, Una, washer, SheetDesk.Mark(Now(draft).Text.Raw(washer)!),
            p => p == $"{washer}.number.is" ? "" : null));
        await Me.Get($"/library/draft/{draft}");
        Assert.Contains(Me.Page.QuerySelectorAll("h2"), h => h.TextContent == "Its card, without what is wrong");
        Assert.Contains(Me.Page.QuerySelectorAll(".write-left a"), a => a.TextContent == Now(draft).Text.Said($"{washer}.name"));
        Assert.InRange(Me.Page.QuerySelectorAll(".write-jobs input[name=job]").Length, 1, jobs - 1);
        Assert.NotEmpty(Me.Page.QuerySelectorAll(".write-card li"));
        Assert.Null(Me.Page.QuerySelector("form[action*='handler=Walk']"));
        Assert.Null(Me.Page.QuerySelector($"a[href='/library/draft/{draft}/use']"));
    }

    [Fact]
    public async Task What_a_file_says_of_who_has_read_it_is_told_and_can_count_for_nothing()
    {
        var text = Sheets.Text(Fen, Newest)!;
        // Nothing is otherwise: what is in use was seen by the lead.
        var same = (await Desk.TakeIn(Una, text)).Draft!.Value;
        Assert.Empty(Desk.ReadElsewhere(Now(same)));
        var other = (await Desk.TakeIn(Una, text.Replace("\"35 N·m\"", "\"36 N·m\"", StringComparison.Ordinal))).Draft!.Value;
        var elsewhere = Desk.ReadElsewhere(Now(other));
        Assert.Contains(Torque, elsewhere);
        Assert.True(Now(other).Values.First(v => v.Path == Torque).IsChecked);
        await Me.Get($"/library/draft/{other}/use");
        Assert.Contains($"{elsewhere.Count} of its values came in with a file that says that two have read them. Nobody here has.", Me.Text,
            StringComparison.Ordinal);
        await Me.Submit("form.elsewhere");
        Assert.Equal(0, Now(other).Values.First(v => v.Path == Torque).CheckedBy);
        Assert.Empty(Desk.ReadElsewhere(Now(other)));
        // Who took the file in does not read it, somebody else does.
        Assert.DoesNotContain(Now(other).ToCheck(Una.Id), v => v.Path == Torque);
        var says = Now(other).Values.First(v => v.Path == Torque).Fields.ToDictionary(f => f.Path, f => f.Says);
        Assert.True((await Desk.Look(other, Iona, Torque, says)).Same);
        Assert.Empty(Desk.ReadElsewhere(Now(other)));
        Assert.NotEmpty(await Desk.ReadHere(other, Effie));
    }

    [Fact]
    public async Task Whose_a_value_is_stands_at_the_sheet_once_it_is_in_use()
    {
        var draft = await Changed();
        Assert.True((await Desk.Look(draft, Iona, Torque, Read("36 N·m"))).Same);
        Assert.Empty(Revisions.Hands(Fen));
        Assert.Empty((await Revisions.PutInUse(draft, Una, Now(draft).Draft.Edition, Newest, "Another torque")).Wrong);
        var hands = Assert.Single(Revisions.Hands(Fen));
        Assert.Equal((Torque, Una.Id), (hands.Key, hands.Value.Writer));
        Assert.Equal([Iona.Id], hands.Value.Readers);
        await Me.Get("/library/corran-fen-12");
        Assert.Contains("written by Una B., read by Iona R.", Me.Text, StringComparison.Ordinal);
        // Written anew it is the next writer's, and nobody has read it yet.
        var next = (await Desk.Revise(Iona, Fen, Newest)).Draft!.Value;
        Assert.Empty(await Desk.Change(next, Iona, Plug, SheetDesk.Mark(Now(next).Text.Raw(Plug)!),
            p => p == $"{Torque}.is" ? "37 Nm" : null));
        Assert.Empty((await Revisions.PutInUse(next, Una, Now(next).Draft.Edition, Newest, "And another")).Wrong);
        Assert.Equal(Iona.Id, Revisions.Hands(Fen)[Torque].Writer);
        Assert.Empty(Revisions.Hands(Fen)[Torque].Readers);
    }
}
