using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>
/// What hands did so far and what the card was told of it: for what leaves no trace at the vehicle, or less of it with every other hand.
/// One hand is told once; what nobody did since the card was told last is told again for nothing.
/// </summary>
/// <param name="run">The run before the card is told.</param>
internal sealed class Tally(PracticeRun run)
{
    // A hundredth of a litre is what runs down a can.
    private static readonly Quantity<Volume> Drops = Quantity<Volume>.Of(0.06m, Volume.Litre);

    /// <summary>Whether a hand did something since the card was told of it last.</summary>
    /// <param name="choice">Whether a choice does it.</param>
    /// <param name="tells">Whether an event of the card tells it.</param>
    internal bool Did(Predicate<string> choice, Predicate<CardEvent> tells) => run.Log
        .Skip(run.Log.FindLastIndex(e => e is CardTold told && tells(told.Said.Event)) + 1)
        .Any(e => e is HandDid did && choice(did.Choice) && CouldDo(did));

    /// <summary>Whether less went somewhere by hand than the card is told now and was told before.</summary>
    /// <param name="choice">Whether a choice does it; an amount is typed beside it.</param>
    /// <param name="told">The amounts that the card was told, by its events; null for what does not tell it.</param>
    /// <param name="now">What it is told now.</param>
    /// <returns>How much was told and how much went, in words; null where it is so.</returns>
    internal string? Fell(Predicate<string> choice, Func<CardEvent, Quantity<Volume>?> told, Quantity<Volume> now)
    {
        var all = Told(told).Aggregate(now, (sum, amount) => sum + amount);
        var went = Hands(choice).Aggregate(Quantity<Volume>.Zero, (sum, d) => sum + Figures.Volume(d.Typed).Volume!.Value);
        return all <= went + Drops ? null : went == Quantity<Volume>.Zero ? $"{all} was told, none went in"
            : $"{all} was told, {went} went in";
    }

    /// <summary>Whether fewer strokes were made at a bleed screw than the card is told now and was told before.</summary>
    /// <param name="screw">The bleed screw.</param>
    /// <param name="told">The strokes that the card was told, by its events; null for what does not tell them.</param>
    /// <param name="now">What it is told now.</param>
    /// <returns>How many were told and made, in words; null where it is so.</returns>
    internal string? Strokes(FastenerId screw, Func<CardEvent, int?> told, int now)
    {
        var all = Told(told).Sum() + now;
        var made = Hands(c => c == $"fastener:{screw}/strokes").Sum(d => Figures.Strokes(d.Typed).Count!.Value);
        return all <= made ? null : made == 0 ? $"{all} strokes were told, none made" : $"{all} strokes were told, {made} made";
    }

    private IEnumerable<HandDid> Hands(Predicate<string> choice) => run.Log.OfType<HandDid>().Where(d => choice(d.Choice) && CouldDo(d));

    private IEnumerable<T> Told<T>(Func<CardEvent, T?> told)
        where T : struct => run.Log.OfType<CardTold>().Select(t => told(t.Said.Event)).OfType<T>();

    private static bool CouldDo(HandDid did) => did.Harms.All(PracticeRun.IsHarm);
}
