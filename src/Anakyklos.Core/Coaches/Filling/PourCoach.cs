using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>A fluid goes in: the first pour by marks, or the whole amount where nothing is read.</summary>
internal sealed class PourCoach : Coach
{
    public override string Kind => "pour";

    public override StepTraits Traits(SheetStep step) => new() { Fills = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var (id, sheet) = (step.What, card.Sheet);
        if (card.Fluid(id) is { Out: false, Pours: 0 } && card.Steps.Any(Drains))
            yield return new("The old oil has not been drained.", "Drain it first.", card.First(Drains), Ground: Ground.Opened);
        if (sheet.Fluids[id].FillBy == FillBy.MeasuredReturn && card.Fluid(id).CameOut is null
            && card.Remaining.Any(s => s.Traits.MeasuresOut && s.What == id))
            yield return new("What came out has not been measured.", "Measure it first: the same amount goes back.",
                card.First(s => s.Traits.MeasuresOut && s.What == id), Ground: Ground.Measured);
        foreach (var r in card.OpenPlugs("New oil would run straight out. Tighten it first.", f => IsJointOf(f, id)))
            yield return r;
        foreach (var r in card.NeedsOpen(sheet.Fluids[id].Through))
            yield return r;
        foreach (var r in ShutFillPlugs(card, id, "It is filled through it. Open it first."))
            yield return r;
        foreach (var r in card.BeforeRunningBelow(step))
            yield return r;

        bool Drains(SheetStep s) => s.Traits.LetsOut && sheet.Fasteners[s.What].Drains == id;
    }

    /// <summary>The plugs of a fluid's filling hole that are in it.</summary>
    /// <param name="card">The card.</param>
    /// <param name="fluid">The fluid.</param>
    /// <param name="what">What to do about it.</param>
    internal static IEnumerable<Refusal> ShutFillPlugs(JobCard card, FluidId fluid, string what) => card.Sheet.Fasteners.Values
        .Where(f => f.Fills == fluid && !card.IsOut(f)).Select(plug => new Refusal($"The {Words.Low(plug.Name)} {plug.Is} shut.", what,
            card.First(s => s.Traits is { Opens: true, LetsOut: false } && s.What == plug.Id), Ground: Ground.Opened));

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        Pour c => at.NotNow() ?? Implausible(c.Amount)
            ?? Pouring.Warned(at, at.Step.What, c, Strays(at, c.Amount), RunsOver(at.Card, at.Step.What)),
        SayStripped => at.NotNow() ?? Dry(at),
        RunOver c => at.NotNow() ?? Over(at, c),
        ConfirmStep => at.NotNow() ?? No("This one needs an amount or a level.", "Enter what you poured or read.", ground: Ground.Measured),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened)
    {
        if (happened is RanOver)
            return [new StepEnds(step.Id), new FluidIsIn(step.What), new Closes(new(OpenKind.Fluid, step.What))];
        if (happened is WasStripped)
            return [new FluidMeetsDry(step.What)];
        if (happened is not Poured poured)
            throw Foreign(happened);
        var sum = card.Fluid(step.What).Poured + poured.Amount.Value;
        IEnumerable<Effect> goesIn = [new FluidGoesIn(step.What, poured.Amount.Value), .. card.RunningInto(step)];
        if (poured.OneOfSeveral || !IsEnough(card, step.What, sum))
            return [.. goesIn];
        return card.Steps.Any(s => s.Traits.Levels && s.What == step.What) ? [.. goesIn, new StepEnds(step.Id)]
            : [.. goesIn, new StepEnds(step.Id), new FluidIsIn(step.What), new Closes(new(OpenKind.Fluid, step.What))];
    }

    internal override CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) =>
        Pouring.By(device, step, measured);

    internal override DeviceId? ReadBy(CardEvent happened) => Pouring.Metered(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        card.Wanted(step.What) - card.Fluid(step.What).Poured is var missing && missing > Quantity<Volume>.Zero
            ? new Pour(step.Id, new(missing, Volume.Litre)) : new RunOver(step.Id);

    /// <summary>Whether a fastener keeps a fluid in; the one through which it is filled does not.</summary>
    internal static bool IsJointOf(Fastener f, FluidId fluid) => f.System == fluid && f.Fills != fluid;

    private static string Strays(StepAt at, Typed<Volume> amount)
    {
        if (at.Card.FillsByMarks(at.Step.What))
            return Pouring.ByMarks(at.Card, at.Step.What, amount);
        var fluid = at.Sheet.Fluids[at.Step.What];
        var (target, tolerance) = (at.Card.Wanted(fluid.Id), fluid.Tolerance.Value);
        var sum = at.Card.Fluid(fluid.Id).Poured + amount.Value;
        var book = fluid.FillBy != FillBy.MeasuredReturn ? "the book says"
            : at.Card.Fluid(fluid.Id).CameOut == target ? "what came out was" : target == at.Card.BookOf(fluid.Id) ? "the book says"
            : "to start it needs";
        return sum > target + tolerance
            ? $"{amount} makes {JobCard.Litres(sum)} in all; {book} {JobCard.Litres(target)}. Look for what does not agree." : "";
    }

    // More goes in where even the last corner is dry; what lies ready must be enough for it.
    private static Decision Dry(StepAt at)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        if (fluid.AfterStrip?.Value is not { } book)
            return No($"The sheet has one amount of {Words.Low(fluid.Name)} only.", "Pour that.");
        if (at.Card.Fluid(fluid.Id) is { Stripped: true })
            return No($"The book's {JobCard.Litres(book)} after a full strip hold already.", "Pour them.");
        if (at.Card.Fluid(fluid.Id).Poured > Quantity<Volume>.Zero)
            return No($"{JobCard.Litres(at.Card.Fluid(fluid.Id).Poured)} went in already.",
                "Take that back first if it was dry inside.", ground: Ground.Already);
        return at.Card.OilInHand(fluid.Id) is { } oil && oil.Amount < book
            ? No($"Only {JobCard.Litres(oil.Amount)} is in hand, and {JobCard.Litres(book)} must go in.",
                "Fetch the rest and say so at the kit.", at.Card.Steps.FirstOrDefault(s => s.Traits.LaysOut)?.Id, ground: Ground.Kit)
            : Yes(new WasStripped(at.Id));
    }

    // Bottle after bottle goes in, and none of them is the end: it is full when it runs out of the hole.
    private static Decision Over(StepAt at, RunOver said)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        var poured = at.Card.Fluid(fluid.Id).Poured;
        if (!RunsOver(at.Card, fluid.Id))
            return No($"The {Words.Low(fluid.Name)} is not filled until it runs over.", "Say how much went in.");
        if (poured == Quantity<Volume>.Zero)
            return No("Nothing has been poured yet.", "Say how much went in, then that it runs over.", ground: Ground.Measured);
        var book = at.Card.BookOf(fluid.Id);
        var warning = poured < book - fluid.Tolerance.Value
            ? $"It runs over at {JobCard.Litres(poured)}, but the book says {JobCard.Litres(book)}. Is it level, and is all "
                + "the old oil out?" : "";
        return warning.Length > 0 && !said.WarningSeen ? new Asked(new RunOverQuestion(warning)) : Yes(new RanOver(at.Id, warning));
    }

    private static bool RunsOver(JobCard card, FluidId fluid) => card.Sheet.Fluids[fluid].FillBy == FillBy.Overflow;

    private static bool IsEnough(JobCard card, FluidId id, Quantity<Volume> poured)
    {
        var fluid = card.Sheet.Fluids[id];
        return (fluid.SafeToStart is not { } safe || poured >= safe.Value)
            && (card.FillsByMarks(id) || fluid.FillBy == FillBy.Overflow || poured >= card.Wanted(id) - fluid.Tolerance.Value);
    }
}
