using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Torques;

/// <summary>The wrench in the hand, and what it is set to.</summary>
/// <param name="Wrench">The wrench.</param>
/// <param name="With">What is across its head, or null.</param>
/// <param name="Setting">A graduation of its scale.</param>
public sealed record SetWrench(TorqueWrench Wrench, CrowFoot? With, Quantity<Torque> Setting)
{
    /// <summary>What comes to the fastener when the wrench says so much.</summary>
    public Quantity<Torque> Reaches(Quantity<Torque> reading) => reading * Wrench.Gain(With)!.Value;
}

/// <summary>How a tightening stands: what is done, what comes next.</summary>
/// <param name="Fastener">What is tightened.</param>
/// <param name="Plan">Everything that is done until it is tight.</param>
/// <param name="Drawn">What is done of it.</param>
/// <param name="TakenUp">The wrench that somebody took in place of the one that the card says; null for none.</param>
public sealed record Fastening(Fastener Fastener, TighteningPlan Plan, IReadOnlySet<PlaceDrawn> Drawn, WrenchTakenUp? TakenUp)
{
    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that tightens, or checks a tightening.</param>
    public static Fastening Of(JobCard card, SheetStep step)
    {
        var fastener = card.Sheet.Fasteners[step.What];
        return new(fastener, fastener.Plan(step.Traits.Checks), card.DrawnAt(step.Id), card.InHand(step.Id));
    }

    /// <summary>What the hands do next; null when every fastener is drawn down in every pass.</summary>
    public TighteningSlot? Next => Plan.Slots.FirstOrDefault(s => !IsDone(s));

    /// <summary>Those that are left in the pass that is next, on its wheel or cover, in their order.</summary>
    public IReadOnlyList<TighteningSlot> InThisPass =>
        Next is { } next ? [.. Plan.Slots.Where(s => s.IsWith(next) && !IsDone(s))] : [];

    /// <summary>What is across the head of the wrench, or null.</summary>
    public CrowFoot? With => TakenUp is { } taken ? taken.With : Fastener.CrowFoot;

    /// <summary>Whether a fastener was drawn down in a pass.</summary>
    public bool IsDone(TighteningSlot slot) => Drawn.Contains(new(slot.Pass, slot.Place.Number));

    /// <summary>Whether nothing is left once these are done.</summary>
    internal bool EndsWith(int pass, IReadOnlyList<int> places) =>
        Plan.Slots.All(s => IsDone(s) || (s.Pass == pass && places.Contains(s.Place.Number)));

    /// <summary>The wrench that is in the hand for a torque: the one that somebody took up, or the best of the crib.</summary>
    /// <param name="crib">The wrenches of the workshop that are in calibration.</param>
    /// <param name="spec">The torque wanted.</param>
    /// <returns>The wrench with its setting, or null when none of them can be set for it.</returns>
    public SetWrench? Wrench(IEnumerable<TorqueWrench> crib, ToTorque spec)
    {
        var usable = crib.Where(w => TakenUp is not { Name.Length: > 0 } taken || w.Name == taken.Name);
        return TorqueWrench.For(usable, spec, With) is { } best ? new(best, With, best.Setting(spec, With)!.Value) : null;
    }
}
