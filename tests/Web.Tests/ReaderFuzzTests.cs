using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Weeks;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Commands;
using Anakyklos.Web.Pages;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// Whatever a reader is given it answers with what it read or with what is wrong, never by falling over: files, tables, quantities,
/// commands and lines of devices, each as it should be and then spoilt. 2,000 in the usual run; with ANAKYKLOS_FUZZ_READERS=N so many.
/// </summary>
public sealed class ReaderFuzzTests : IAsyncLifetime
{
    private const int From = 20261130;

    private static readonly int Count =
        int.TryParse(Environment.GetEnvironmentVariable("ANAKYKLOS_FUZZ_READERS"), out var n) ? n : 2_000;

    private static readonly string[] Nasty =
    [
        "", "0", "-1", "1e400", "79228162514264337593543950335", "79228162514264337593543950336", "-0", "1e-400", "0.1.2", "1/0",
        "١٢٣", "½", "NaN", "null", "true", "[]", "{}", "[[[[", "\"", "\\", "\0", "\u202e", "\ud83d\ude97", "\ufeff", "\n", "\r\n",
        "\t", ",", ";", ":", "-", "–", "2026-02-30", "9999-12-31", "0001-01-01", "24:00", "Mo-Su", "9999999999999999999999 km",
        "1e28 L", "-5 °C", "N·m", "lbf·ft", "HD-07", new string('9', 70), new string('x', 3000), new string('[', 500), new string(',', 300),
    ];

    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.Demo();

    public ValueTask DisposeAsync() => _host.DisposeAsync();

    private T Get<T>() where T : notnull => _host.Services.GetRequiredService<T>();

    private async Task<IReadOnlyList<(string Name, string[] Seeds, Func<string, Task> Read)>> Readers()
    {
        var (clock, today) = (Get<WorkshopClock>(), new DateOnly(2026, 3, 9));
        var shelf = Get<ShelfStore>().Read();
        string[] products = [.. shelf.Oils.Products.Select(p => p.Name)];
        var lead = await _host.SignedIn("una");
        var record = await lead.Content("/record/1003/record.json");
        var sheets = Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json").Select(File.ReadAllText).ToArray();
        var events = Get<CardStore>().Chain(1003).Select(l => l.Body).ToArray();
        var (key, protocol) = ((await Get<DeviceDesk>().Pair("TW-2", "Bay 1")).Key, Get<DeviceProtocol>());
        Func<string, Task> Plain(Action<string> read) => text =>
        {
            read(text);
            return Task.CompletedTask;
        };
        string[] quantities = ["38 N·m", "28 lbf·ft", "7 1/2 qt", "1,5 L", "148300", "92,150 mi", "-5 °C", "2.1 bar", "3/8", "14 mm"];
        return
        [
            ("torque", quantities, Plain(t => Quantity<Torque>.Read(t, out _, Torque.NewtonMetre))),
            ("volume", quantities, Plain(t => Quantity<Volume>.Read(t, out _))),
            ("distance", quantities, Plain(t => Quantity<Distance>.Read(t, out _, Distance.Mile))),
            ("temperature", quantities, Plain(t => Temperature.Read(t, out _))),
            ("level", ["3/4", "0.25", "-1/4", "1"], Plain(t => Level.Read(t, out _))),
            ("weekly times", ["Mo-Fr 08:00-16:30", "Mo-Fr 07:30-09:00, 14:45-16:00; Sa 09:00-12:00"],
                Plain(t => WeeklyTimes.Read(t, out _))),
            ("code of a sample", ["1048-1P", "1003-2K"], Plain(t => SampleCode.Read(t))),
            ("own list", ["Tread: 4 to 8 mm\nWipers: yes, no\nTow bar", "Fire extinguisher: in date, out of date"],
                Plain(t => OwnPoints.Read(t, out _))),
            ("oil book", [File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "stock", "oils.json"))], Plain(t => OilBook.Read(t))),
            ("parts", [StockFiles.Write("parts", shelf)], Plain(t => StockFiles.Read("parts", t, today, products))),
            ("containers", [StockFiles.Write("containers", shelf)], Plain(t => StockFiles.Read("containers", t, today, products))),
            ("tools", [StockFiles.Write("tools", shelf)], Plain(t => StockFiles.Read("tools", t, today, products))),
            ("vehicles", ["plate,model,task,year,day,odometer,hours\nHD-50,tarn-courier-20d,Post,2019,2026-03-01,12345 km,\n"], Plain(t =>
                FleetFile.Read(t, new Dictionary<string, SheetId> { ["tarn-courier-20d"] = "tarn-courier-20d" }, ["HD-07"], clock))),
            ("laboratory", ["code,day,iron,water\n1048-1P,2026-03-01,45,0.1\n",
                "[{\"code\":\"1048-1P\",\"day\":\"2026-03-01\",\"values\":{\"iron\":45}}]"],
                Plain(t => LabFiles.Read(t, today))),
            ("record", [record], Plain(t => RecordFile.Read(t))),
            ("sheet", sheets, Plain(t => SheetReader.Read(t))),
            ("draft of a sheet", sheets, Plain(t => Written(t))),
            ("command as a form", ["handler=reading&step=tighten-drain-plug&torque=38", "handler=saw&grade=KeepAnEye&text=A+nick&photo=",
                "handler=kit&oils.engine-oil.product=Gannet&oils.engine-oil.amount=5+L&pan=20+L&parts.oil-filter.choice=InHand"],
                Plain(t => Ahead.Read(JsonSerializer.Serialize(new[] { t })))),
            ("the way ahead", ["[\"handler=done&step=label\",\"passes=420001\"]", "[]"], Plain(t => Ahead.Read(t))),
            ("command as JSON", ["{\"say\":\"reading\",\"step\":\"tighten-drain-plug\",\"torque\":\"38 N·m\"}",
                "{\"say\":\"gauge\",\"step\":\"level\",\"level\":0.75,\"words\":[\"a\",\"b\"],\"places\":[1,2]}"], Plain(t =>
                {
                    // What is no JSON is refused before anything of ours reads it.
                    JsonElement body;
                    try
                    {
                        body = JsonSerializer.Deserialize<JsonElement>(t);
                    }
                    catch (Exception e) when (e is JsonException or ArgumentException)
                    {
                        return;
                    }
                    if (body.ValueKind == JsonValueKind.Object)
                        foreach (var name in CommandBook.All)
                            CommandBook.Read(name.Name, new JsonFields(body), out _);
                })),
            ("an event on the disk", events, Plain(t => NoEvent(() => CardJson.Read(t)))),
            ("lines of a device", ["{\"hello\":\"TW-2\",\"now\":\"2026-03-09T09:00:00Z\"}\n"
                + "{\"reading\":\"0190a0a0-0000-7000-8000-000000000001\",\"torque\":\"25 N·m\"}"], t => protocol.Answer(key, t)),
        ];
    }

    // What is on the disk was written by the program: to whoever reads it there, it is an event or it is not.
    private static void NoEvent(Action read)
    {
        try
        {
            read();
        }
        catch (JsonException)
        {
            // Said in words by verify.
        }
    }

    [Fact]
    public async Task What_is_spoilt_is_read_or_refused()
    {
        var (readers, chance, faults) = (await Readers(), new Random(From), new List<string>());
        var tried = new SortedDictionary<string, int>(StringComparer.Ordinal);
        // What is as it should be is read at all.
        foreach (var (_, seeds, read) in readers)
            foreach (var seed in seeds)
                await read(seed);
        for (var i = 0; i < Count; i++)
        {
            // Large files take long: one in ten.
            var (name, seeds, read) = readers[chance.Next(readers.Count)];
            if (seeds[0].Length > 20_000 && chance.Next(10) > 0)
                (name, seeds, read) = readers[chance.Next(8)];
            var text = seeds[chance.Next(seeds.Length)];
            for (var spoil = chance.Next(1, 5); spoil > 0; spoil--)
                text = Spoilt(text, chance);
            tried[name] = tried.GetValueOrDefault(name) + 1;
            try
            {
                await read(text);
            }
            catch (Exception e)
            {
                faults.Add($"{i}, {name}: {e.GetType().Name}: {e.Message} at {e.StackTrace?.Split('\n')[0].Trim()}\n  {text[..Math.Min(300,
                    text.Length)]}");
            }
        }
        TestContext.Current.SendDiagnosticMessage($"readers: {Count} tried from {From}, {faults.Count} faults; "
            + string.Join(", ", tried.Select(t => $"{t.Key} {t.Value}")));
        Assert.True(faults.Count == 0, $"{faults.Count} of {Count}, from {From}:\n{string.Join('\n', faults.Take(20))}");
        Assert.Equal(readers.Count, tried.Count);
    }

    private static string Spoilt(string text, Random chance)
    {
        var (at, most) = (chance.Next(text.Length + 1), Math.Min(60, text.Length));
        var far = Math.Min(text.Length - at, chance.Next(most + 1));
        var nasty = Nasty[chance.Next(Nasty.Length)];
        switch (chance.Next(6))
        {
            case 0:
                return text.Remove(at, far);
            case 1:
                return text.Insert(at, nasty);
            case 2:
                return text[..at];
            case 3:
                return text.Insert(at, text.Substring(at, far));
            case 4:
                var numbers = Regex.Matches(text, "[0-9]+([.,][0-9]+)?");
                return numbers.Count == 0 ? nasty : Put(text, numbers[chance.Next(numbers.Count)], nasty);
            default:
                var words = Regex.Matches(text, "[^\\s,;:\"{}\\[\\]]+");
                return words.Count == 0 ? nasty : Put(text, words[chance.Next(words.Count)], nasty);
        }
    }

    private static string Put(string text, Match old, string @new) =>
        new StringBuilder(text).Remove(old.Index, old.Length).Insert(old.Index, @new).ToString();

    // As the desk does: everything is found in it, and a thing of it is typed anew.
    private static object? Written(string text)
    {
        if (SheetText.Read(text, out var wrong) is not { } sheet)
            return wrong;
        if (SheetIds.Wrong(sheet) is { Count: > 0 } names)
            return names;
        foreach (var path in sheet.Names("fasteners").Take(1).Select(id => $"fasteners.{id}"))
            Assert.NotNull(SheetForm.Apply(sheet, path, p => p.EndsWith(".name", StringComparison.Ordinal) ? "Other" : null).Sheet);
        return CitedValue.AllOf(sheet);
    }
}
