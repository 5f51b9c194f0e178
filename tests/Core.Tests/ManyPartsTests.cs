using Anakyklos.Core.Composing;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>Long lists of parts and long orders give what short and slow ways of reckoning give.</summary>
public sealed class ManyPartsTests
{
    private static readonly DateOnly Today = new(2026, 7, 1);

    private static readonly Gen<StockPart[]> Shelves = Gen.Select(Gen.Int[1, 9], Gen.Int[0, 3], Gen.Int[0, 9], Gen.Int[0, 9], Gen.Int[0, 1])
        .Select((n, count, next, same, reserved) => new StockPart($"A-{n}", $"Part {n}", count, reserved,
            next is 0 || next == n ? "" : $"a {next}", same == 0 ? [] : [$"A{same}", "X-1"])).Array[0, 12];

    [Fact]
    public void A_part_is_found_as_one_finds_it_by_looking_at_each() =>
        Gen.Select(Shelves, Gen.Int[0, 10]).Sample((parts, n) =>
        {
            var shelf = Shelf.Empty with { Parts = parts };
            foreach (var number in new[] { $"A-{n}", $"a{n}", "x1" })
                Assert.Equal(Slowly(parts, number), shelf.Find(number));
        });

    [Fact]
    public void With_another_count_it_is_as_if_the_list_had_been_made_so() =>
        Gen.Select(Shelves, Gen.Int[0, 11], Gen.Int[0, 3], Gen.Int[0, 10]).Sample((parts, at, count, n) =>
        {
            parts = [.. parts.DistinctBy(p => PartNumber.Bare(p.Number))];
            if (parts.Length == 0)
                return;
            var one = parts[at % parts.Length] with { OnShelf = count, Reserved = 0 };
            var changed = PartList.Of(parts).With(one);
            StockPart[] anew = [.. parts.Select(p => p.Number == one.Number ? one : p)];
            Assert.Equal(anew, changed);
            Assert.Equal(Slowly(anew, $"A-{n}"), (Shelf.Empty with { Parts = changed }).Find($"A-{n}"));
            Assert.Equal(parts, PartList.Of(parts));
        });

    [Fact]
    public void Only_a_part_that_stands_for_the_same_may_stand_instead()
    {
        var list = PartList.Of([new("A-1", "Ring", 2, 0, "", ["B-1"])]);
        Assert.True(list.MayStand(new("A-1", "Ring", 5, 1, "", ["B-1"])));
        Assert.False(list.MayStand(new("A-1", "Ring", 5, 1, "A-2", ["B-1"])));
        Assert.False(list.MayStand(new("A-1", "Ring", 5, 1, "", [])));
        Assert.False(list.MayStand(new("A-2", "Ring", 5, 1, "", ["B-1"])));
        Assert.Throws<ArgumentException>(() => list.With(new("A-2", "Ring", 5, 1, "", ["B-1"])));
    }

    /// <summary>Beside the order, worked out as the kit of each card in its turn, the shelf carried from one to the next.</summary>
    [Fact]
    public void An_order_is_what_every_card_in_its_turn_finds_missing()
    {
        var sheets = Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json").Order(StringComparer.Ordinal)
            .Select(f => SheetReader.Read(File.ReadAllText(f)).Sheet!).ToList();
        Gen.Select(Gen.Int[0, 1_000], Gen.Int[1, 12], Gen.Int[0, 4], Gen.Int[0, 6]).Sample((first, works, pieces, litres) =>
        {
            PlannedWork[] work = [.. Enumerable.Range(0, works).Select(n =>
            {
                var sheet = sheets[(first + n / 2) % sheets.Count];
                JobId[] jobs = [.. sheet.Jobs.Keys.Where((_, i) => (first >> (i % 8) & 1) == 1 || i == 0)
                    .Where(j => sheet.Jobs[j].Follows is null)];
                return new PlannedWork($"V-{n}", sheet, jobs, CardComposer.Compose(sheet, jobs).Steps);
            })];
            var shelf = Shelf.Empty with
            {
                Parts = [.. sheets.SelectMany(s => s.Parts.Values).DistinctBy(p => PartNumber.Bare(p.Number.Value))
                    .Select((p, i) => new StockPart(p.Number.Value, p.Name, (pieces + i) % 4, i % 2, "", []))],
                Containers = [.. sheets.SelectMany(s => s.Fluids.Values).Select(f => f.Name).Distinct().Select((name, i) =>
                    new OilContainer(i + 1, name, Litre(litres), Litre((litres + i) % 7), Volume.Litre, null, ""))],
                Oils = new([.. sheets.SelectMany(s => s.Fluids.Values).DistinctBy(f => f.Name)
                    .Select(f => new OilProduct(f.Name, f.Grades.Value, f.Approvals.Value, f.Additives, true))], CoverBook.Empty),
            };
            var order = OrderList.Of(work, shelf, Today, n => Today.AddDays(n.Length));
            Assert.Equal(Slowly(work, shelf), order.Select(l => $"{l.Number} {l.Count} {l.Amount?.In(Volume.Litre):0.###} "
                + string.Join(",", l.For)));
        }, iter: 40);
    }

    private static Quantity<Volume> Litre(decimal l) => Quantity<Volume>.Of(l, Volume.Litre);

    private static (StockPart, FoundAs)? Slowly(IReadOnlyList<StockPart> parts, string number)
    {
        var itself = parts.FirstOrDefault(p => PartNumber.Same(p.Number, number));
        var ways = new List<(StockPart Part, FoundAs As)>();
        if (itself is not null)
            ways.Add((itself, FoundAs.Itself));
        var seen = new HashSet<string> { PartNumber.Bare(number) };
        for (var next = itself?.SupersededBy ?? ""; next.Length > 0 && seen.Add(PartNumber.Bare(next));)
        {
            var part = parts.FirstOrDefault(p => PartNumber.Same(p.Number, next));
            if (part is not null)
                ways.Add((part, FoundAs.Successor));
            next = part?.SupersededBy ?? "";
        }
        // Of parts that share a number the first alone is on the shelf.
        ways.AddRange(parts.Where(p => !seen.Contains(PartNumber.Bare(p.Number)) && (p.Equivalents.Any(e => PartNumber.Same(e, number))
            || itself?.Equivalents.Any(e => PartNumber.Same(e, p.Number)) == true)).Select(p => (p, FoundAs.Equivalent)));
        return ways.Count == 0 ? null : ways.FirstOrDefault(w => w.Part.Free > 0) is { Part: not null } free ? free : ways[0];
    }

    private static List<string> Slowly(IEnumerable<PlannedWork> work, Shelf shelf)
    {
        var free = shelf with { Parts = [.. shelf.Parts.Select(p => p with { Reserved = 0 })] };
        var lines = new SortedDictionary<string, (decimal Count, List<string> For)>(StringComparer.Ordinal);
        foreach (var w in work)
        {
            var kit = KitCheck.Of(w.Sheet, w.Jobs, w.Steps, new Dictionary<PartId, int>(), free, null, Today);
            foreach (var line in kit.Parts)
            {
                free = free with { Parts = [.. free.Parts.Select(p => p == line.Found
                    ? p with { OnShelf = Math.Max(0, p.OnShelf - line.Wanted) } : p)] };
                Add($"1{line.Found?.Number ?? line.Number}", line.Missing, w.For);
            }
            foreach (var line in kit.Oils)
            {
                free = free with { Containers = [.. free.Containers.Select(c =>
                    line.Shares.FirstOrDefault(s => s.Container.Id == c.Id) is { } share ? c with { Left = share.Leaves } : c)] };
                var product = line.Chosen?.Product ?? free.Oils.Products.FirstOrDefault(p =>
                    OilMatch.Of(p, line.Wanted, free.Oils.Book, null).Fits);
                var name = product?.Name
                    ?? string.Join(" or ", line.Wanted.Approvals.Concat(line.Wanted.Grades.Select(g => g.Grade)).Take(2));
                Add($"2{name}", line.Short.In(Volume.Litre), w.For);
            }
        }
        return [.. lines.Select(l => $"{l.Key[1..]} {(l.Key[0] == '1' ? $"{l.Value.Count:0}" : "")} "
            + $"{(l.Key[0] == '2' ? $"{l.Value.Count:0.###}" : "")} {string.Join(",", l.Value.For.Distinct())}")];

        void Add(string what, decimal count, string forWhom)
        {
            if (count <= 0)
                return;
            var at = lines.GetValueOrDefault(what, (0, []));
            at.For.Add(forWhom);
            lines[what] = (at.Count + count, at.For);
        }
    }
}
