using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Desk.Files;

/// <summary>A kit as a comma-separated file.</summary>
public static class KitFile
{
    private static readonly string[] Columns = ["kind", "what", "number or size", "wanted", "in hand", "for"];

    /// <summary>The kit, a row a part, fluid or tool.</summary>
    public static string Write(KitList kit) => CsvTable.Write(Columns,
        kit.Parts.Select(p => new[] { "part", p.Name, p.Number, $"{p.Wanted}", $"{p.Wanted - p.Missing}",
            string.Join("; ", p.Uses.Select(u => u.Name)) })
            .Concat(kit.Oils.SelectMany(o => o.Shares.Count == 0
                ? [new[] { "oil", o.Fluid.Name, "", Litres(o.Fluid.Amount.Value), Litres(default), "" }]
                : o.Shares.Select(s => new[] { "oil", o.Fluid.Name, $"{s.Container.Product}, container {s.Container.Id}",
                    Litres(o.Fluid.Amount.Value), Litres(s.Takes), $"leaves {Litres(s.Leaves)}" })))
            .Concat(kit.Tools.Select(t => new[] { "tool", t.Tool?.Where ?? "", t.Size, "1", t.Tool is null ? "0" : "1",
                string.Join("; ", t.For) }))
            .Concat(kit.Torques.Select(t => new[] { "wrench", t.Wrench?.Wrench.Name ?? "none", $"{t.Spec.Target}", "1",
                t.Wrench is null ? "0" : "1", t.Fastener.Name }))
            .Concat(kit.Pan is { } pans ? pans.Pans.Zip(pans.Fluids)
                .Select(p => new[] { "pan", p.First.Name, "",
                Litres(p.Second.Aggregate(Quantity<Volume>.Zero, (sum, f) => sum + f.Amount.Value)),
                Litres(p.First.Holds), string.Join("; ", p.Second.Select(f => f.Name)) }) : [])
            .Concat(kit.Pan?.Short is { } small ? [new[] { "pan", "not enough", "", Litres(kit.Pan.ComesOut), "", small.What }] : []));

    private static string Litres(Quantity<Volume> v) => v.Print(Volume.Litre).ToString();
}
