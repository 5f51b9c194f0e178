using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Simulation;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The simulated vehicle behind a card: how it stands, what could be seen and felt of it, what happened to it, and where it
/// tells another story than the card.</summary>
public sealed class BehindModel(DemoVehicles vehicles, WorkshopClock clock) : PageModel, ISentAsOftenAsLiked
{
    public IReadOnlyList<CardInBay> Cards { get; private set; } = [];
    public CardInBay Card { get; private set; } = null!;
    public VehicleBehind Behind { get; private set; } = null!;

    /// <summary>The vehicle as it stands this moment.</summary>
    public Vehicle Vehicle { get; private set; } = null!;

    public IReadOnlyList<Vessel> Vessels { get; private set; } = [];

    /// <summary>The fluids that this card has nothing to do with.</summary>
    public string Untouched { get; private set; } = "";

    /// <summary>What could be made wrong with it, each with its number, by what is wrong.</summary>
    public IReadOnlyList<IGrouping<string, (int Number, string Thing)>> Possible { get; private set; } = [];

    public string Heat => Vehicle.EngineHeat.Print(TemperatureScale.Celsius).ToString();

    /// <summary>What is off, out or set.</summary>
    public IReadOnlyList<string> Open => [.. Vehicle.Off.Keys.Select(a => Vehicle.Sheet.Access[a].Name)
        .Concat(Vehicle.Joints.Where(j => !j.Value.IsIn).Select(j => Vehicle.Sheet.Fasteners[j.Key].Name)).Order(StringComparer.Ordinal)];

    /// <summary>The lowest air in a tyre.</summary>
    public string Tyres => Vehicle.Tyres.MinBy(t => t.Value) is var low ? low.Value.Print(Pressure.Bar).ToString() : "";

    public IActionResult OnGet(long? card) => Load(card) ? Page() : NotFound();

    /// <summary>Something goes wrong with the vehicle.</summary>
    public IActionResult OnPostSpoil(long card, int fault) => Act(card, v => Vehicle.FaultsOf(v.Sheet).ElementAtOrDefault(fault));

    /// <summary>A hand puts something right.</summary>
    public IActionResult OnPostMend(long card, int hand) => Act(card, v => v.Remedies.ElementAtOrDefault(hand));

    private IActionResult Act(long card, Func<Vehicle, Happening?> what)
    {
        if (!Load(card) || Card.Number != card || what(Vehicle) is not { } happens)
            return NotFound();
        vehicles.At(Card, b => b.Do(happens, clock.Now));
        return Redirect($"/stand-ins/vehicle?card={card}");
    }

    private bool Load(long? card)
    {
        if (!vehicles.IsServed)
            return false;
        Cards = vehicles.All;
        if ((card is null ? Cards.FirstOrDefault() : Cards.FirstOrDefault(c => c.Number == card)) is not { } found)
            return false;
        Card = found;
        Behind = vehicles.Behind(Card);
        Vehicle = vehicles.At(Card, b => b.AsOf(clock.Now));
        var touched = Card.Card.Opened.Steps.Select(s => s.What.Text).ToHashSet();
        bool IsTouched(Vessel v) => touched.Contains(v.Fluid.Id.Text) || v.InPan + v.OnFloor > Quantity<Volume>.Zero
            || Vehicle.Sheet.Fasteners.Values.Any(f => f.Drains == v.Fluid.Id && touched.Contains(f.Id.Text));
        Vessels = [.. Vessel.Of(Vehicle).Where(IsTouched)];
        Untouched = string.Join(", ", Vessel.Of(Vehicle).Where(v => !IsTouched(v)).Select(v => Words.Low(v.Fluid.Name)));
        Possible = [.. Vehicle.FaultsOf(Vehicle.Sheet).Select((f, i) => (Number: i, Words: Wording.StandInWords.Of(f, Vehicle.Sheet)))
            .GroupBy(f => f.Words.Wrong, f => (f.Number, f.Words.Thing))];
        return true;
    }
}
