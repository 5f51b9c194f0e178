using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Torques;

namespace Anakyklos.Core.Records;

/// <summary>Fasteners that were tightened with a wrench which was found to be off later.</summary>
/// <param name="Name">The fastener.</param>
/// <param name="Count">How many of them.</param>
/// <param name="Said">What is taken to have come to each.</param>
/// <param name="Was">What came to each, if the wrench was off by as much then.</param>
/// <param name="Book">What the book asks.</param>
/// <param name="Outcome">How what came to it compares; what passes needs nothing.</param>
public sealed record SuspectLine(string Name, int Count, Typed<Torque> Said, Typed<Torque> Was, ToTorque Book, TorqueOutcome Outcome);

/// <summary>What readings were worth when their wrench turns out to have been off.</summary>
public static class FoundOff
{
    /// <summary>The furthest that a wrench is found to be off and still called a wrench, in percent either way.</summary>
    public const decimal Furthest = 50;

    /// <summary>The last readings of each fastener of a card that came from a wrench, as what really came to the fasteners.</summary>
    /// <param name="card">A card.</param>
    /// <param name="wrench">What is painted on the wrench.</param>
    /// <param name="percent">By how much it gave more than it said, in percent of what it said; below zero where it gave less.</param>
    /// <returns>In the order of the card, alike ones of a group together; what the book gives no torque for is left out.</returns>
    public static IReadOnlyList<SuspectLine> Of(JobCard card, string wrench, decimal percent) =>
    [
        .. from step in card.Steps
           where card.Sheet.Fasteners.ContainsKey(step.What)
           let fastener = card.Sheet.Fasteners[step.What]
           where fastener.LastTorque is not null
           let book = fastener.LastTorque!
           from alike in Last(card, step).Where(r => r.Wrench == wrench || r.Device?.Text == wrench).GroupBy(r => r.Reached)
           let was = new Typed<Torque>(alike.Key.Value * (1 + percent / 100), alike.Key.Unit)
           select new SuspectLine(fastener.Name, alike.Count(), alike.Key, was, book, book.Judge(was).Outcome),
    ];

    // A reading that came later stands in place of an earlier one.
    private static IEnumerable<ReadingTaken> Last(JobCard card, SheetStep step) => card.HappenedAt(step.Kind)
        .Where(h => h.Step.Id == step.Id).Select(h => h.Event).OfType<ReadingTaken>()
        .SelectMany(r => r.Of.Select(place => (place, r))).GroupBy(r => r.place).Select(p => p.Last().r);
}
