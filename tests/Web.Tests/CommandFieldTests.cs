using System.Globalization;
using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Web.Commands;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Primitives;

namespace Anakyklos.Web.Tests;

/// <summary>One declaration a command: form and JSON give the same one.</summary>
public sealed class CommandFieldTests
{
    // What only the server says, since its other half is known to nobody else.
    private static readonly Type[] OnlyHere = [typeof(AwaitPart), typeof(PartIsHere), typeof(Core.Coaches.Resetting.HearTool)];

    public static TheoryData<string> Names => [.. CommandBook.All.Select(c => c.Name)];

    [Fact]
    public void Every_command_is_declared_once_and_nothing_else_is()
    {
        var made = CommandBook.All
            .Select(c => c.Read(new FormFields(new FormCollection(Form(c, new Random(5)))), out _)!.GetType()).ToList();
        Assert.Equal(made.Distinct().Count(), made.Count);
        var all = typeof(CardCommand).Assembly.GetTypes()
            .Where(t => !t.IsAbstract && t.IsAssignableTo(typeof(CardCommand))).Except(OnlyHere);
        Assert.Equal(all.Select(t => t.Name).Order(), made.Select(t => t.Name).Order());
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void A_form_and_json_that_say_the_same_are_read_as_the_same(string name)
    {
        var command = CommandBook.Find(name)!;
        for (var seed = 1; seed <= 40; seed++)
        {
            var form = new FormFields(new FormCollection(Form(command, new Random(seed))));
            var json = new JsonFields(JsonSerializer.SerializeToElement(Json(command.Fields, new Random(seed), "")));
            var (a, b) = (command.Read(form, out var wrong), command.Read(json, out var also));
            Assert.True(wrong.Count == 0 && also.Count == 0, $"{name}, seed {seed}: {string.Join(' ', wrong.Concat(also))}");
            Assert.Equal(JsonSerializer.Serialize(a, a!.GetType(), CardJson.Options), JsonSerializer.Serialize(b, b!.GetType(),
                CardJson.Options));
        }
    }

    [Fact]
    public void What_is_typed_reaches_the_command_as_it_was_typed()
    {
        var form = new FormFields(new FormCollection(new Dictionary<string, StringValues>
        {
            ["step"] = "lay-out-kit",
            ["parts.oil-filter.choice"] = "InHand",
            ["parts.drain-washer.choice"] = "old-again",
            ["parts.drain-washer.reason"] = " boat late ",
            ["pan"] = "8 L + 12 L",
            ["oils.engine-oil.amount"] = "7.5 L",
            ["oils.engine-oil.product"] = "Gannet",
            ["oils.engine-oil.reason"] = "",
        }));
        var kit = Assert.IsType<ConfirmKit>(CommandBook.Read("KIT", form, out _));
        Assert.Equal(["oil-filter", "drain-washer"], kit.Parts.Keys);
        Assert.Equal(new KitPart(KitChoice.OldAgain, "", "boat late"), kit.Parts["drain-washer"]);
        Assert.Equal(["8.00 L", "12.00 L"], kit.Pans.Select(p => $"{p}"));
        Assert.Equal(("7.50 L", "Gannet"), ($"{kit.Oils["engine-oil"].Amount}", kit.Oils["engine-oil"].Product));
    }

    [Fact]
    public void Every_field_that_cannot_be_read_is_named_at_once()
    {
        var form = new FormFields(new FormCollection(new Dictionary<string, StringValues>
        {
            ["step"] = "lay-out-kit",
            ["parts.oil-filter.choice"] = "7",
            ["pan"] = "8 L + 12",
            ["oils.engine-oil.amount"] = "lots",
        }));
        Assert.Null(CommandBook.Read("kit", form, out var problems));
        Assert.Equal(["oils.engine-oil.amount", "pan", "parts.oil-filter.choice"], problems.Select(p => p.Field).Order());
    }

    private static Dictionary<string, StringValues> Form(CommandDeclaration command, Random random) =>
        Json(command.Fields, random, "").SelectMany(f => f.Value switch
        {
            Dictionary<string, Dictionary<string, object>> entries => entries.SelectMany(e =>
                e.Value.Select(m => KeyValuePair.Create($"{f.Key}.{e.Key}.{m.Key}", Text(m.Value)))),
            var plain => [KeyValuePair.Create(f.Key, Text(plain))],
        }).ToDictionary(f => f.Key, f => new StringValues(f.Value));

    private static string Text(object said) => said switch
    {
        bool yes => yes ? "yes" : "no",
        string[] several => string.Join(" + ", several),
        IFormattable number => number.ToString(null, CultureInfo.InvariantCulture),
        _ => $"{said}",
    };

    // What might be said in each field, by its shape; the entries of a field have ids of their own, so that no two are the same.
    private static Dictionary<string, object> Json(IEnumerable<CommandField> fields, Random random, string of) =>
        fields.ToDictionary(f => f.Name, f => f.Shape switch
        {
            FieldShape.Text => $"words {random.Next(1000)}{of}",
            FieldShape.Whole => random.Next(-5, 500),
            FieldShape.Yes => random.Next(2) == 1,
            FieldShape.Place => Math.Round((decimal)random.NextDouble() * 2 - 0.5m, 3),
            FieldShape.Choice => f.Words[random.Next(f.Words.Count)],
            FieldShape.Amount => $"{random.Next(1, 900)}.{random.Next(10, 99)} {f.Words[random.Next(f.Words.Count)]}",
            FieldShape.Amounts => Enumerable.Range(0, random.Next(1, 4))
                .Select(n => $"{random.Next(1, 30)} {f.Words[n % f.Words.Count]}").ToArray(),
            FieldShape.Entries => (object)Enumerable.Range(0, random.Next(3))
                .ToDictionary(n => $"{f.Name}-{n}", n => Json(f.Members, random, $"{f.Name}{n}")),
            _ => throw new InvalidOperationException($"Nobody has said what stands in a field of shape {f.Shape}."),
        });
}
