using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>The drain pans of a card: what is in each, which fluid runs into which, and when one must be emptied.</summary>
public sealed partial class JobCard
{
    /// <summary>The pans that were laid out, with what ran into them on this card; empty before the kit was confirmed.</summary>
    public IReadOnlyList<PanInUse> Pans => _state.Pans;

    /// <summary>The pan that stands below while a step is done that lets a fluid out, or fills one until it runs over: the one that the
    /// fluid is in already, or else the one that is planned for it.</summary>
    /// <param name="step">A step of this card.</param>
    /// <returns>Its place among <see cref="Pans"/>; null when none is wanted, none has room, or none was laid out.</returns>
    public int? PanFor(SheetStep step) => RunsBelow(step) is not { } comes ? null
        : _state.Pans.FindIndex(p => p.In.Any(c => c.Fluid == comes.Fluid) && p.Takes(comes.Fluid, comes.Amount)) is >= 0 and var there
        ? there
        : PanPlan.Into(comes, Later(comes.Fluid, soon: true), Later(comes.Fluid, soon: false), _state.Pans,
            p => p.In.Any(c => Unready(c.Fluid) is not null));

    /// <summary>The pan that is emptied before a step lets its fluid out, or fills one until it runs over.</summary>
    /// <param name="step">A step of this card.</param>
    /// <returns>Its place among <see cref="Pans"/>; null when nothing must be emptied for it, or nothing may be yet.</returns>
    public int? PanToEmpty(SheetStep step) => _state.Pans.Count > 0 && Step(step.Id) is not null && IsLeft(step.Id)
        && RunsBelow(step) is { } comes && PanFor(step) is null ? PanPlan.ToEmpty(comes, _state.Pans, f => Unready(f) is not null) : null;

    /// <summary>How much a step lets run into its pan.</summary>
    /// <param name="step">A step of this card.</param>
    /// <returns>The book's amount, or what went in since; zero where nothing runs, or only what runs over.</returns>
    public Quantity<Volume> ComesInto(SheetStep step) => RunsBelow(step)?.Amount ?? Quantity<Volume>.Zero;

    /// <summary>How a pan is called, such as "the pan" or "pan 2".</summary>
    /// <param name="pan">Its place among <see cref="Pans"/>.</param>
    public string PanName(int pan) => _state.Pans.Count == 1 ? "the pan" : $"pan {pan + 1}";

    /// <summary>What is in a pan, in words, such as "pan 1 holds 8.00 L, and 6.40 L of engine oil is in it".</summary>
    /// <param name="pan">Its place among <see cref="Pans"/>.</param>
    public string InPan(int pan)
    {
        var stands = _state.Pans[pan];
        var caught = string.Join(" and ", stands.In.GroupBy(c => c.Fluid.Name)
            .Select(g => $"{Litres(g.Aggregate(Quantity<Volume>.Zero, (sum, c) => sum + c.Amount))} of {Words.Low(g.Key)}"));
        return $"{PanName(pan)} holds {Litres(stands.Holds)}, and {(caught.Length == 0 ? "it is empty" : $"{caught} is in it")}";
    }

    /// <summary>What stands in the way of a step whose fluid finds no room, where emptying a pan does not help yet.</summary>
    internal IEnumerable<Refusal> BeforeRunningBelow(SheetStep step)
    {
        if (_state.Pans.Count == 0 || RunsBelow(step) is not { } comes || PanFor(step) is not null || PanToEmpty(step) is not null)
            yield break;
        if (PanPlan.Short([[comes.Fluid]], [.. _state.Pans.Select(p => p.Holds)]) is { } small)
            yield return new(small.What, small.Do, Steps.FirstOrDefault(s => s.Traits.LaysOut)?.Id);
        foreach (var r in BeforeEmptying())
            yield return r;
    }

    /// <summary>What it does to the pans that a step lets a fluid out, or fills one until it runs over.</summary>
    internal IEnumerable<Effect> RunningInto(SheetStep step)
    {
        if (RunsBelow(step) is not { } comes || PanFor(step) is not { } pan)
            yield break;
        // What runs over is part of what is booked already where the old fluid is in the pan.
        var amount = comes.Amount > Quantity<Volume>.Zero || _state.Pans[pan].In.Any(c => c.Fluid == comes.Fluid) ? comes.Amount
            : PanPlan.RunsOver(comes.Fluid);
        if (amount > Quantity<Volume>.Zero)
            yield return new FillsPan(comes.Fluid.Id, pan, amount);
    }

    /// <summary>What stands in the way of emptying all pans.</summary>
    internal IEnumerable<Refusal> BeforeEmptying() =>
        _state.Pans.SelectMany(p => p.In).Select(c => c.Fluid).Distinct().Select(Unready).OfType<Refusal>();

    // A full pan is emptied where the work stands: nothing else is done first for its sake, so that it counts only when somebody is there.
    private IEnumerable<Refusal> PanInTheWay(SheetStep step, DateTimeOffset? now)
    {
        if (now is null || PanToEmpty(step) is not { } pan)
            yield break;
        var (fluid, amount) = RunsBelow(step)!.Value;
        var comes = amount > Quantity<Volume>.Zero ? $"{Litres(amount)} of {Words.Low(fluid.Name)}"
            : $"what runs over of the {Words.Low(fluid.Name)}";
        yield return new($"No pan has room for {comes}: {InPan(pan)}.", $"Empty {PanName(pan)} into its drum and say so.",
            Ground: Ground.Pan);
    }

    private Decision Empty(EmptyPan c)
    {
        if (c.Pan < 0 || c.Pan >= _state.Pans.Count)
            return No("There is no such pan.", "Choose one of those that were laid out.", field: "pan");
        if (_state.Pans[c.Pan].In.Count == 0)
            return No($"Nothing is in {PanName(c.Pan)}.", "Go on with the next step.", Next?.Id, ground: Ground.Already);
        IReadOnlyList<Refusal> reasons = [.. _state.Pans[c.Pan].In.Select(i => i.Fluid).Distinct().Select(Unready).OfType<Refusal>()];
        return reasons.Count > 0 ? new Refused(reasons) : Yes(new PanEmptied(c.Pan));
    }

    // What comes of it: at a drain plug what went in since it was last let out, or the book's amount while nobody touched it; at a hole
    // that it is filled to, nothing but what runs over.
    private (FluidSystem Fluid, Quantity<Volume> Amount)? RunsBelow(SheetStep step)
    {
        if (step.Traits.Fills && Sheet.Fluids[step.What] is { FillBy: FillBy.Overflow } filled)
            return (filled, Quantity<Volume>.Zero);
        if (!step.Traits.LetsOut)
            return null;
        var fluid = Sheet.Fluids[Sheet.Fasteners[step.What].Drains!.Value];
        return (fluid, Fluid(fluid.Id) is { Pours: > 0 } again ? again.Poured
            : Fluid(fluid.Id).Out ? Quantity<Volume>.Zero : fluid.Amount.Value);
    }

    // What else is to run out: before any pan can be emptied that this fluid or one that is still running is in, or after that.
    private IReadOnlyList<(FluidSystem Fluid, Quantity<Volume> Amount)> Later(FluidSystem fluid, bool soon)
    {
        var runs = _state.Pans.SelectMany(p => p.In).Select(c => c.Fluid).Where(f => Unready(f) is not null).Append(fluid).ToList();
        var with = PanPlan.Together(Sheet, Steps).Where(g => g.Intersect(runs).Any()).SelectMany(g => g).ToHashSet();
        return [.. Remaining.Where(s => s.Traits.LetsOut).Select(s => RunsBelow(s)!.Value)
            .Where(l => l.Fluid != fluid && with.Contains(l.Fluid) == soon).DistinctBy(l => l.Fluid.Id)];
    }

    private const string AndEmpty = ", then empty the pan; or say at the kit that there is one more.";

    // Why a fluid stays in its pan: it still runs into it, or it is measured there. Null when it may go.
    private Refusal? Unready(FluidSystem fluid) => Sheet.Fasteners.Values.FirstOrDefault(f =>
        (f.Drains == fluid.Id || (f.System == fluid.Id && f.HoldsBack)) && HasOpen(f)) is { } plug
        ? new($"The {Words.Low(plug.Name)} {plug.Is} still out above the pan.", "Tighten it" + AndEmpty,
             First(s => s.Traits.Fastens && s.What == plug.Id), Ground: Ground.Pan)
        : Remaining.FirstOrDefault(s => s.Traits.MeasuresOut && s.What == fluid.Id) is { } measure
        ? new($"The {Words.Low(fluid.Name)} in the pan has not been measured yet.", "Measure it" + AndEmpty,
             measure.Id, Ground: Ground.Pan) : null;
}
