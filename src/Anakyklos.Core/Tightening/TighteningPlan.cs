namespace Anakyklos.Core.Tightening;

/// <summary>One fastener in one pass: what the hands do at once.</summary>
/// <param name="Index">Its place in the whole, from 0.</param>
/// <param name="Place">Which fastener.</param>
/// <param name="Pass">In which pass of its wheel or cover, from 1.</param>
/// <param name="Passes">Of how many.</param>
/// <param name="Spec">To a torque, a turn, or by hand.</param>
public sealed record TighteningSlot(int Index, FastenerPlace Place, int Pass, int Passes, TighteningSpec Spec)
{
    /// <summary>Whether both are of the same pass of the same wheel or cover, and so done alike.</summary>
    public bool IsWith(TighteningSlot other) => Pass == other.Pass && Place.At == other.Place.At;
}

/// <summary>Everything that is done until a fastener, or a group of them, is tight: each once a pass, wheel by wheel.</summary>
public sealed class TighteningPlan
{
    private TighteningPlan(FastenerGroup group, IReadOnlyList<TighteningSlot> slots) => (Group, Slots) = (group, slots);

    /// <summary>The places.</summary>
    public FastenerGroup Group { get; }

    /// <summary>In the order in which they are done.</summary>
    public IReadOnlyList<TighteningSlot> Slots { get; }

    /// <summary>How fasteners are tightened.</summary>
    /// <param name="spec">How each of them is.</param>
    /// <param name="group">Where they sit, and in which passes.</param>
    /// <param name="isCheck">They stay in and only the last torque is checked.</param>
    public static TighteningPlan Of(TighteningSpec spec, FastenerGroup group, bool isCheck)
    {
        var passes = Passes(spec, group, isCheck);
        var slots = new List<TighteningSlot>();
        foreach (var wheel in group.Places.GroupBy(p => p.At))
        {
            for (var pass = 0; pass < passes.Count; pass++)
                foreach (var place in wheel)
                    slots.Add(new(slots.Count, place, pass + 1, passes.Count, passes[pass]));
        }
        return new(group, slots);
    }

    /// <summary>A fastener in a pass; null when there is no such fastener or pass.</summary>
    public TighteningSlot? Find(int pass, int place) => Slots.FirstOrDefault(s => s.Pass == pass && s.Place.Number == place);

    /// <summary>The torques that a wrench is set to on the way, in their order and each once.</summary>
    public IEnumerable<ToTorque> Torques => Slots.Select(s => s.Spec).OfType<ToTorque>().Distinct();

    private static IReadOnlyList<TighteningSpec> Passes(TighteningSpec spec, FastenerGroup group, bool isCheck) => spec switch
    {
        // A turn cannot be made once more to see whether it was; the last torque can be felt.
        InStages stages when isCheck => [stages.Stages.OfType<ToTorque>().Last()],
        InStages stages => group.Passes[0] == 0 ? [ByHand.UntilItSeats, .. stages.Stages] : stages.Stages,
        ToTorque torque => isCheck ? [torque]
            : [.. group.Passes.Select(p => p == 0 ? (TighteningSpec)ByHand.UntilItSeats : torque.Share(p))],
        _ => group.Passes[0] == 0 ? [ByHand.UntilItSeats, spec] : [spec],
    };
}
