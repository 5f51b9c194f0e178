using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>A little fresh fluid that is poured through before the plug goes in.</summary>
public sealed partial class JobCard
{
    /// <summary>The step that let out a fluid through which a little fresh one can be poured now; null for none.</summary>
    /// <param name="now">When, in the workshop's time zone.</param>
    public SheetStep? ToRinse(DateTimeOffset now) =>
        Steps.FirstOrDefault(s => s.Traits.LetsOut && MayRinse(s, now) is null);

    /// <summary>Why nothing can be poured through now.</summary>
    /// <param name="drain">The step that lets the fluid out.</param>
    /// <param name="now">When, in the workshop's time zone.</param>
    /// <returns>Null when it can be.</returns>
    internal Refusal? MayRinse(SheetStep drain, DateTimeOffset now)
    {
        var plug = Sheet.Fasteners[drain.What];
        var fluid = Sheet.Fluids[plug.Drains!.Value];
        var name = Words.Low(fluid.Name);
        if (fluid.Rinse?.Value is not { } rinse)
            return new($"The sheet does not have the {name} rinsed.", "Go on without.", Ground: Ground.Unknown);
        if (!HasOpen(plug) || !Fluid(fluid.Id).Out)
            return new($"The {Words.Low(plug.Name)} {plug.Is} not out.", "It is poured through while the plug is out, or not at all.",
                Ground: Ground.Opened);
        if (Fluid(fluid.Id).Rinsed > Quantity<Volume>.Zero)
            return new($"{Litres(Fluid(fluid.Id).Rinsed)} was poured through already.", "Let it drip, then put the plug in.",
                Ground: Ground.Already);
        if (Waits.FirstOrDefault(w => w.Id == drain.Id) is { } wait && wait.Until > now)
            return new($"The old {name} still runs.", "Wait until it only drips.", Ground: Ground.Wait);
        if (Remaining.FirstOrDefault(s => s.Traits.MeasuresOut && s.What == fluid.Id) is { } measure)
            return new("What came out has not been measured, and would be more after that.", "Measure it first.", measure.Id,
                Ground: Ground.Measured);
        if (Sheet.Fasteners.Values.Any(f => f.System == fluid.Id && f.HoldsBack && HasOpen(f)))
            return new("Something else is open below.", "It would run out there: close it first.", Ground: Ground.Shut);
        if (NeedsOpen(fluid.Through).FirstOrDefault() is { } shut)
            return shut;
        return _state.Pans.Count > 0 && PanWith(fluid.Id) is var pan && (pan is null || !_state.Pans[pan.Value].Takes(fluid, rinse))
            ? new("No pan that stands below has room for it.", "Go on without.", Ground: Ground.Pan) : null;
    }

    /// <summary>The pan in which a fluid is; null for none.</summary>
    /// <param name="fluid">Fluid id.</param>
    internal int? PanWith(FluidId fluid) =>
        _state.Pans.FindIndex(p => p.In.Any(c => c.Fluid.Id == fluid)) is >= 0 and var pan ? pan : null;
}
