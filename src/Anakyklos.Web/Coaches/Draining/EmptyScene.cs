using Anakyklos.Core.Booking;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;

namespace Anakyklos.Web.Coaches.Draining;

/// <summary>The pans and the bottle are emptied: what is in each of them, and into which drum it goes.</summary>
public sealed class EmptyScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["empty"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        scene.Pictures = scene.Pictures with { Under = "~/Coaches/Draining/_Pans.cshtml", Facts = 4 };
        scene.Offer(Said(scene.Step));
        if (to.Drums is not { } drums || scene.IsDone)
            return;
        var bottle = WasteMoves.InTheBottle(scene.Card).GroupBy(m => m.Waste).ToDictionary(g => g.Key, g =>
            $"{g.Aggregate(Quantity<Volume>.Zero, (sum, m) => sum + m.Amount).Print(to.Viewer.VolumeUnits[0])} in the bottle, ");
        foreach (var waste in scene.Card.Pans.SelectMany(p => p.In).Select(c => DrumStand.Of(c.Fluid)).Concat(bottle.Keys).Distinct()
            .Append(Waste.Filters).Where(w => w != Waste.Filters || scene.Card.FiltersOut.Any()))
            scene.Facts.Add(new(Says(waste), bottle.GetValueOrDefault(waste) + (DrumStand.For(waste, drums
                .Select(d => (d.Drum, d.Stand.Full))) is { } drum
                ? $"into “{drum.Name}”, {Math.Round(drums.First(d => d.Drum == drum).Stand.Full * 100)} % full"
                : "no drum is put up for it: ask the stores")));
    }

    private static string Says(Waste waste) => waste switch
    {
        Waste.Oil => "Old oil",
        Waste.Coolant => "Coolant",
        Waste.BrakeFluid => "Brake fluid",
        Waste.Filters => "Filters",
        _ => "The rest",
    };
}
