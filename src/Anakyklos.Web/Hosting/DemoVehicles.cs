using Anakyklos.Core.Readings;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Simulation;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>The simulated vehicles behind the open cards of a demo, on which all its stand-ins hang. A workshop of one's own has
/// none.</summary>
public sealed class DemoVehicles(CardStore cards)
{
    private readonly Dictionary<CardNumber, VehicleBehind> _behind = [];
    private readonly Lock _lock = new();

    /// <summary>Whether a demo is served.</summary>
    public bool IsServed { get; private set; }

    /// <summary>Every open card.</summary>
    public IReadOnlyList<CardInBay> All => [.. cards.Unsigned().Select(c => new CardInBay(c.Id, cards.Find(c.Id)!))];

    /// <summary>A demo is served from now on.</summary>
    public void Begin() => IsServed = true;

    /// <summary>The open cards of a bay.</summary>
    /// <param name="bay">Its name.</param>
    public IReadOnlyList<CardInBay> In(string bay) =>
        [.. cards.Unsigned().Where(c => c.Bay == bay).Select(c => new CardInBay(c.Id, cards.Find(c.Id)!))];

    /// <summary>The vehicle behind a card, up to now.</summary>
    /// <param name="card">An open card.</param>
    public VehicleBehind Behind(CardInBay card)
    {
        lock (_lock)
        {
            if (!_behind.TryGetValue(card.Number, out var behind))
                _behind[card.Number] = behind = new(card.Card);
            behind.Follow(card.Card);
            return behind;
        }
    }

    /// <summary>The vehicle behind a card as it stood last, also once that is signed; null where nobody looked at it.</summary>
    /// <param name="card">The card's number.</param>
    public Vehicle? Last(CardNumber card)
    {
        lock (_lock)
            return _behind.GetValueOrDefault(card)?.Vehicle;
    }

    /// <summary>Does something at the vehicle behind a card.</summary>
    /// <param name="card">An open card.</param>
    /// <param name="does">What; it has the vehicle to itself.</param>
    public T At<T>(CardInBay card, Func<VehicleBehind, T> does)
    {
        var behind = Behind(card);
        lock (_lock)
            return does(behind);
    }
}
