using Anakyklos.Core.Balance;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>What was in a fluid system before this card and after it, and what was used in between.</summary>
public sealed partial class JobCard
{
    /// <summary>Whether a level is read without opening what would let the fluid out: on a stick or in a window.</summary>
    /// <param name="fluid">The fluid.</param>
    public static bool IsReadFromOutside(FluidSystem fluid) =>
        fluid.BetweenMarks is not null && fluid.FillBy is FillBy.Dipstick or FillBy.SightGlass;

    /// <summary>The step that lets out what could be dipped now, before it; null when nothing could, or it was.</summary>
    public SheetStep? ToDip => LiftUp || EngineRuns ? null : Remaining.FirstOrDefault(s => s.Traits.LetsOut
        && Sheet.Fluids[Sheet.Fasteners[s.What].Drains!.Value] is var fluid && IsReadFromOutside(fluid) && Fluid(fluid.Id).Found is null);

    /// <summary>The step that brings to its mark what was poured and could be read now, before the first run; null when nothing could, or
    /// it was.</summary>
    public SheetStep? ToReadBeforeRun => LiftUp || EngineRuns || HasRun ? null : Remaining.FirstOrDefault(s => s.Traits.Levels
        && Sheet.Fluids[s.What] is { Pumped: true } fluid && IsReadFromOutside(fluid)
        && Fluid(fluid.Id) is { Pours: > 0, BeforeRun: null });

    /// <summary>What was used of a fluid since it was filled last.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="today">The day.</param>
    /// <returns>Null where it is not known what was filled then, or what is left of it.</returns>
    public FluidUse? UseOf(FluidSystem fluid, DateOnly today) => Fluid(fluid.Id).Found is { } level ? UseOf(fluid, level, today)
        : Fluid(fluid.Id).CameOut is { } came && Opened.FilledBefore?.GetValueOrDefault(fluid.Id) is { } before
            ? before.Until(today, Opened.Odometer, came, false) : null;

    private FluidUse? UseOf(FluidSystem fluid, Level found, DateOnly today) =>
        Opened.FilledBefore?.GetValueOrDefault(fluid.Id) is { } before
            ? before.Until(today, Opened.Odometer, FillOf(fluid.Id).InAt(found), true) : null;

    /// <summary>What there is to ask about where a fluid stands before it is let out.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="found">Where it stands.</param>
    /// <param name="today">The day.</param>
    /// <returns>The question with what may be behind it, the likeliest first; empty for none.</returns>
    internal string AsksOfFound(FluidSystem fluid, Level found, DateOnly today)
    {
        if (UseOf(fluid, found, today) is not { } use)
            return "";
        return FluidBalance.Judge(use, fluid.MayUse?.Value, fluid.BetweenMarks?.Value) switch
        {
            UseVerdict.Gained => $"It stands {Litres(Quantity<Volume>.Zero - use.Used)} higher than it was filled. Was it topped up, does "
                + $"fuel or water run in, or was the {Words.Low(fluid.Gauge)} misread?",
            UseVerdict.Much => $"It used {Litres(use.Used)} in {use.Over.Print(Distance.Kilometre)}: more than "
                + $"{Litres(fluid.MayUse?.Value ?? FluidBalance.UsualLimit)} in 1,000 km. Does it leak, does it burn it, or was the "
                + $"{Words.Low(fluid.Gauge)} misread?",
            _ => "",
        };
    }

    /// <summary>What this card was to a fluid, as one of the services of its vehicle.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="day">The day on which it was signed.</param>
    /// <returns>Null where nothing was done to it.</returns>
    public FluidService? ServiceOf(FluidSystem fluid, DateOnly day)
    {
        var state = Fluid(fluid.Id);
        var drained = Steps.Any(s => s.Traits.LetsOut && WasDone(s) && Sheet.Fasteners[s.What].Drains == fluid.Id);
        if (!drained && state.Pours == 0)
            return null;
        var marked = fluid.BetweenMarks is not null;
        // What never runs quite empty is held against what went back, not against its marks: as much as came out stays comparable.
        Quantity<Volume>? stands = fluid.FillBy == FillBy.MeasuredReturn || !marked ? drained ? state.Poured : null
            : state.Level is { } end ? FillOf(fluid.Id).InAt(end) : null;
        return new(day, Opened.Odometer, drained, marked && state.Found is { } found ? FillOf(fluid.Id).InAt(found) : null, state.CameOut,
            state.Poured, stands);
    }
}
