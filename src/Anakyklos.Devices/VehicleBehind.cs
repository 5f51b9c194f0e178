using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>
/// The simulated vehicle behind a card: what the card is told happens to it, and what a stand-in of a device does to it happens as well, so
/// that all of them tell the same story. What a device did to it is forgotten when the program ends; what the card was told is not.
/// </summary>
public sealed class VehicleBehind
{
    private readonly List<Own> _own = [];
    private readonly List<(FluidId What, Quantity<Volume> Shown)> _dispensed = [];
    private readonly List<(DateTimeOffset At, Harm Harm)> _harms = [];
    private JobCard _card;
    private DateTimeOffset _last;

    // What a device did, after which event of the card, and what the meter of a dispenser showed.
    private sealed record Own(int After, DateTimeOffset At, Happening What, Quantity<Volume>? Shown);

    /// <summary>The vehicle of a card, as the card tells it.</summary>
    /// <param name="card">The card as it stands.</param>
    public VehicleBehind(JobCard card)
    {
        (_card, Vehicle, _last) = (Begun(card), Come(card), card.History[0].At);
        Follow(card);
    }

    /// <summary>The vehicle as it stands.</summary>
    public Vehicle Vehicle { get; private set; }

    /// <summary>What should not have happened to it, and when, oldest first.</summary>
    public IReadOnlyList<(DateTimeOffset At, Harm Harm)> Harms => _harms;

    /// <summary>Where the card and the vehicle tell different stories.</summary>
    public IReadOnlyList<Difference> Differences => [.. Difference.Between(_card, Vehicle)];

    /// <summary>Lets happen what the card was told since. What was taken back was never done; what a device did stays.</summary>
    /// <param name="card">The same card, later.</param>
    public void Follow(JobCard card)
    {
        var fresh = card.History.Skip(_card.History.Count).ToList();
        if (fresh.Any(h => h.Event is TakenBack))
        {
            (_card, Vehicle, _last) = (Begun(card), Come(card), card.History[0].At);
            _harms.Clear();
            _dispensed.Clear();
            foreach (var own in _own.Where(o => o.After <= 1))
                Happens(own);
            fresh = [.. card.History.Skip(1)];
        }
        var never = card.History.Select(h => h.Event).OfType<TakenBack>()
            .SelectMany(t => Enumerable.Range(t.From, t.To - t.From + 1)).ToHashSet();
        var again = fresh.Count > 0 && _card.History.Count == 1;
        foreach (var said in fresh)
        {
            if (!never.Contains(said.Seq) && !HasRunAlready(said.Event))
                foreach (var what in HandsOf.Event(_card, said, Vehicle))
                    Happens(what, said.At);
            _card = _card.With([said]);
            if (again)
                foreach (var own in _own.Where(o => o.After == said.Seq))
                    Happens(own);
        }
    }

    /// <summary>Something is done to it that no card was told.</summary>
    /// <param name="what">What.</param>
    /// <param name="at">When.</param>
    /// <returns>How it stands, and what harm came of it.</returns>
    public Answer Do(Happening what, DateTimeOffset at) => Happens(Kept(new(_card.History.Count, at, what, null)));

    /// <summary>A dispenser runs into it; what its meter showed comes to the card later, and then it has happened already.</summary>
    /// <param name="what">What ran in.</param>
    /// <param name="shown">What the meter showed.</param>
    /// <param name="at">When.</param>
    /// <returns>How it stands, and what harm came of it.</returns>
    public Answer Dispense(Dispenses what, Quantity<Volume> shown, DateTimeOffset at) =>
        Happens(Kept(new(_card.History.Count, at, what, shown)));

    private Own Kept(Own own)
    {
        _own.Add(own);
        return own;
    }

    private Answer Happens(Own own)
    {
        if (own is { What: Dispenses ran, Shown: { } shown })
            _dispensed.Add((ran.What, shown));
        return Happens(own.What, own.At);
    }

    // What a dispenser sent that ran into this vehicle since the program began is in it.
    private bool HasRunAlready(CardEvent e) => e is Poured { Device: not null } p && _card.Step(p.Step) is { } step
        && _dispensed.Remove((step.What, p.Amount.Value));

    /// <summary>The vehicle as it stands at a time: an oil that drains has drained on, a dash has answered.</summary>
    /// <param name="now">By the workshop's clock.</param>
    public Vehicle AsOf(DateTimeOffset now) => Now(now) is var at && at > Vehicle.Now ? Vehicle.Until(at).Vehicle : Vehicle;

    // An engine that was run warm at one press took longer than the press: from then on the vehicle's own clock is ahead, and goes on.
    private DateTimeOffset Now(DateTimeOffset at) =>
        at >= Vehicle.Now ? at : at > _last ? Vehicle.Now + (at - _last) : Vehicle.Now;

    private Answer Happens(Happening what, DateTimeOffset at)
    {
        var answer = Vehicle.Answer(what, Now(at));
        _last = at > _last ? at : _last;
        Vehicle = answer.Vehicle;
        _harms.AddRange(answer.Harms.Select(h => (Vehicle.Now, h)));
        return answer;
    }

    private static JobCard Begun(JobCard card) => JobCard.Replay(card.Sheet, [card.History[0]]);

    private static Vehicle Come(JobCard card) => Vehicle.AsItComes(card.Sheet, card.History[0].At, hot: true);
}
