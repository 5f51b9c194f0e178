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
    /// <summary>What it shows while it makes up its mind.</summary>
    public const string Busy = ". . .";

    /// <summary>What it shows when something was worked for which it has no word.</summary>
    public const string Wordless = "- - -";

    /// <summary>A dash that nobody has touched.</summary>
    public static DashStands Dark { get; } = new(null, 0, 0, "", null);

    /// <summary>When it answers what was worked last; null when it has.</summary>
    public DateTimeOffset? Answers { get; init; }
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
        return Display.Reset == reset && Display.Answers > Now ? DashStands.Busy
            : Display.Reset == reset && Display.Shows.Length > 0 ? Display.Shows
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
        // Who works something while it makes up its mind, or pulls the plug, is back at the move that it was at.
        if (dash.Answers > Now)
            return Fails(ritual, ritual.Moves[dash.Made - 1], dash,
                hand.Control == DashControl.Plug ? DashTrouble.HalfDone : DashTrouble.Early);
        var move = ritual.Moves[dash.Made];
        if (TroubleOf(ritual, move, hand) is var trouble and not DashTrouble.None)
            return Fails(ritual, move, dash, trouble);
        if (dash.Pressed + 1 < move.Times)
            return Well(this with { Display = dash with { Pressed = dash.Pressed + 1 } });
        var typed = dash.Next;
        if (move.Types == NextService.Distance)
        {
            if (Quantity<Distance>.Read(hand.Typed, out _) is not { } far || far.Value <= Quantity<Distance>.Zero
                || far.Value > ritual.Types!.Most.Value)
                return Fails(ritual, move, dash, DashTrouble.Value);
            typed = far;
        }
        var shown = new DashStands(ritual.Id, dash.Made + 1, 0, Says(ritual, move, typed, hand.Typed), typed) { Answers = Now + move.Wait };
        if (dash.Made + 1 < ritual.Moves.Count)
            return Well(this with { Display = shown });
        var once = new ResetFailsOnce(ritual.Id);
        return Faults.Contains(once) ? (this with { Faults = Faults.Remove(once) }).Fails(ritual, move, dash, DashTrouble.NotTaken)
            : Well(this with { Lit = Lit.Remove(ritual.Id), Display = shown with { Made = 0 } });
    }

    private DashTrouble TroubleOf(ResetRitual ritual, ResetMove move, WorksDash hand) =>
        hand.Control != move.Uses ? DashTrouble.Order
        : move.Hold is { } hold && hand.Held + Slack < hold ? DashTrouble.Early
        : hand.Trouble != DashTrouble.None ? hand.Trouble
        : Faults.OfType<DoorAjar>().Any() && move == MindedAt(ritual, DashTrouble.Door) ? DashTrouble.Door
        : (Runs || Charge < Physics.CrankNeeds) && move == MindedAt(ritual, DashTrouble.Refused) ? DashTrouble.Refused
        : DashTrouble.None;

    // The move at which a ritual minds something, as its sheet says.
    private static ResetMove? MindedAt(ResetRitual ritual, DashTrouble trouble) =>
        ritual.Moves.FirstOrDefault(m => m.Else.Any(e => e.When == trouble));

    private static string Says(ResetRitual ritual, ResetMove move, Typed<Distance>? typed, string said) => move switch
    {
        { Shows: NextService.Distance } => $"{typed ?? ritual.Next?.Distance}",
        { Shows: NextService.Months } => $"{ritual.Next?.Months} months",
        { Types: not NextService.None } => said,
        _ => move.Expect,
    };

    private Answer Fails(ResetRitual ritual, ResetMove move, DashStands dash, DashTrouble trouble)
    {
        var says = move.Else.FirstOrDefault(e => e.When == trouble);
        return Well(this with
        {
            Display = dash with
            {
                Made = Math.Min(dash.Made, (says is { Again: > 0 } ? says.Again : ritual.AgainAt) - 1),
                Pressed = 0,
                Shows = says?.Shows ?? DashStands.Wordless,
                Answers = null,
            },
        });
    }
}
