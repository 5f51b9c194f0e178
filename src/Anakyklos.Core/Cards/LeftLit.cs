using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

/// <summary>An indicator that a card left lit, though its service was done.</summary>
/// <param name="Card">The number of that card.</param>
/// <param name="Reset">The reset that was not possible.</param>
/// <param name="Name">Name of what is lit.</param>
/// <param name="Reason">Why.</param>
public sealed record IndicatorLit(CardNumber Card, ResetId Reset, string Name, string Reason);

/// <summary>Indicators that stay lit from card to card until one is put out.</summary>
public sealed partial class JobCard
{
    /// <summary>What the next card of this vehicle is told of indicators that are still lit, here or from before.</summary>
    /// <param name="card">The number of this card.</param>
    /// <returns>Each indicator once, by the last card that left it; empty when none is.</returns>
    public IReadOnlyList<IndicatorLit> LitAfter(CardNumber card) =>
    [
        .. StillLit.Where(lit => Steps.All(s => !LeftLit(s) || s.What != lit.Reset)),
        .. Steps.Where(LeftLit).Select(s => new IndicatorLit(card, s.What, Sheet.Resets[s.What].Name, State(s.Id).Reason)),
    ];

    /// <summary>Indicators that earlier cards left lit and that were not put out on this one.</summary>
    public IEnumerable<IndicatorLit> StillLit => (Opened.LeftLit ?? [])
        .Where(lit => !Steps.Any(s => s.EndsReset && s.What == lit.Reset && State(s.Id).Status == StepStatus.Done));

    private bool LeftLit(SheetStep step) => step.EndsReset && State(step.Id).Status == StepStatus.LeftOut;
}
