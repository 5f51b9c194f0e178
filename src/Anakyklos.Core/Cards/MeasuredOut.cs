using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>What came out is measured in its pan by whoever wants to know, also where the filling does not ask for it.</summary>
public sealed partial class JobCard
{
    /// <summary>The step that let out a fluid which can be measured in its pan now; null for none.</summary>
    /// <param name="now">When, in the workshop's time zone.</param>
    public SheetStep? ToMeasure(DateTimeOffset now) => Steps.FirstOrDefault(s => s.Traits.LetsOut && MayMeasure(s, now) is null);

    /// <summary>Why what a step let out cannot be measured now.</summary>
    /// <param name="drain">The step that lets the fluid out.</param>
    /// <param name="now">When, in the workshop's time zone.</param>
    /// <returns>Null when it can be.</returns>
    internal Refusal? MayMeasure(SheetStep drain, DateTimeOffset now)
    {
        var plug = Sheet.Fasteners[drain.What];
        var fluid = Sheet.Fluids[plug.Drains!.Value];
        var name = Words.Low(fluid.Name);
        if (State(drain.Id).Status != StepStatus.Done)
            return new($"The {name} is not out yet.", "Let it out first.", drain.Id, Ground: Ground.Measured);
        if (Remaining.FirstOrDefault(s => s.Traits.MeasuresOut && s.What == fluid.Id) is { } own)
            return new("That is measured at a step of its own.", "Measure it there.", own.Id, Ground: Ground.Measured);
        if (Fluid(fluid.Id).CameOut is { } known)
            return new($"{Litres(known)} was measured already.", "Take that back if it was wrong.", Ground: Ground.Already);
        if (HasOpen(plug) || (Waits.FirstOrDefault(w => w.Id == drain.Id) is { } wait && wait.Until > now))
            return new($"The {name} still runs into its pan.", $"Tighten the {Words.Low(plug.Name)} first.",
                First(s => s.Traits.Fastens && s.What == plug.Id), Ground: Ground.Measured);
        if (Fluid(fluid.Id).Rinsed > Quantity<Volume>.Zero)
            return new("What was poured through is in the pan as well.", "It cannot be told apart any more.", Ground: Ground.Measured);
        if (_state.Pans.Count == 0)
            return First(s => s.Traits.EmptiesPans) is null ? new("The pan has been emptied.", "It cannot be measured any more.",
                Ground: Ground.Measured) : null;
        return PanWith(fluid.Id) is not { } pan ? new("The pan has been emptied.", "It cannot be measured any more.",
            Ground: Ground.Measured)
            : _state.Pans[pan].In.FirstOrDefault(c => c.Fluid.Id != fluid.Id) is { Fluid: { } other }
                ? new($"{other.Name} is in the same pan.", "Neither can be measured any more.", Ground: Ground.Measured) : null;
    }
}
