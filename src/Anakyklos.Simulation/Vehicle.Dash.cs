using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>What the dash shows, and how far the ritual is that puts an indicator out.</summary>
/// <param name="Reset">The ritual that was begun; null for none.</param>
/// <param name="Made">How many of its moves were made.</param>
/// <param name="Pressed">How often what the next move wants was pressed.</param>
/// <param name="Shows">What the display shows; empty while it is dark.</param>
/// <param name="Next">The distance to the next service that was typed in; null where nobody typed any.</param>
public sealed record DashStands(ResetId? Reset, int Made, int Pressed, string Shows, Typed<Distance>? Next)
{
    /// <summary>A dash that nobody has touched.</summary>
    public static DashStands Dark { get; } = new(null, 0, 0, "", null);
}

/// <summary>The dash obeys the ritual of the sheet: the right thing, held for so long, in order; all else shows another message.</summary>
public sealed partial record Vehicle
{
    // Nobody lets go to the tenth of a second.
    private static readonly TimeSpan Slack = TimeSpan.FromMilliseconds(300);

    /// <summary>How the dash stands.</summary>
    public DashStands Display { get; private init; } = DashStands.Dark;

    /// <summary>What the display shows of an indicator.</summary>
    /// <param name="reset">A reset of the sheet.</param>
    public string ShowsOf(ResetId reset)
    {
        var ritual = Known(Sheet.Resets, reset);
        return Display.Reset == reset && Display.Shows.Length > 0 ? Display.Shows
            : Lit.Contains(reset) ? ritual.Moves[^1].Else.FirstOrDefault()?.Shows ?? ritual.Name.ToUpperInvariant()
            : $"{Display.Next ?? ritual.Next?.Distance}";
    }

    private Answer Work(WorksDash hand)
    {
        var ritual = Known(Sheet.Resets, hand.What);
        if (!Lit.Contains(ritual.Id))
            return Well(this);
        if (WithoutCurrent(ritual.Name) is { } dead)
            return dead;
        var dash = Display.Reset == ritual.Id ? Display : DashStands.Dark with { Reset = ritual.Id };
        var move = ritual.Moves[dash.Made];
        if (dash.Made == 0 && Faults.OfType<DoorAjar>().Any())
            return Fails(ritual, move, dash);
        if (hand.Control != move.Uses || (move.Hold is { } hold && hand.Held + Slack < hold))
            return Fails(ritual, move, dash);
        if (dash.Pressed + 1 < move.Times)
            return Well(this with { Display = dash with { Pressed = dash.Pressed + 1 } });
        var typed = dash.Next;
        if (move.Types == NextService.Distance)
        {
            if (Quantity<Distance>.Read(hand.Typed, out _) is not { } far || far.Value <= Quantity<Distance>.Zero
                || far.Value > ritual.Types!.Most.Value)
                return Fails(ritual, move, dash);
            typed = far;
        }
        if (dash.Made + 1 < ritual.Moves.Count)
            return Well(this with { Display = new(ritual.Id, dash.Made + 1, 0, Says(ritual, move, typed, hand.Typed), typed) });
        var once = new ResetFailsOnce(ritual.Id);
        return Faults.Contains(once) ? (this with { Faults = Faults.Remove(once) }).Fails(ritual, move, dash)
            : Well(this with { Lit = Lit.Remove(ritual.Id), Display = new(ritual.Id, 0, 0, Says(ritual, move, typed, hand.Typed), typed) });
    }

    private static string Says(ResetRitual ritual, ResetMove move, Typed<Distance>? typed, string said) => move switch
    {
        { Shows: NextService.Distance } => $"{typed ?? ritual.Next?.Distance}",
        { Shows: NextService.Months } => $"{ritual.Next?.Months} months",
        { Types: not NextService.None } => said,
        _ => move.Expect,
    };

    private Answer Fails(ResetRitual ritual, ResetMove move, DashStands dash)
    {
        var says = move.Else.FirstOrDefault();
        return Well(this with
        {
            Display = dash with
            {
                Made = Math.Min(dash.Made, (says is { Again: > 0 } ? says.Again : ritual.AgainAt) - 1),
                Pressed = 0,
                Shows = says?.Shows ?? "- - -",
            },
        });
    }
}
