using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Filling;

/// <summary>Filling: how much goes in now and what that brings, or where the level is to be read.</summary>
public sealed class FillingScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["pour", "gauge"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        scene.Fluid = scene.Card.Sheet.Fluids[scene.Step.What];
        if (scene.Step.Traits.Levels)
            Gauge(scene, scene.Fluid, to);
        else
            Pour(scene, scene.Fluid, to);
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        Poured p => $"Poured {p.Amount}{(p.Device is { } meter ? $", metered by {meter}" : "")}"
            + $"{(p.AgainstWarning.Length > 0 ? $". Warned: {p.AgainstWarning}" : "")}",
        StoodBeforeRun b => $"Read before the first run: {b.Level}{(b.AgainstWarning is { } against ? $". Asked: {against}" : "")}",
        WasStripped => "Taken apart, dry inside: the book's other amount holds",
        TakenOut t => $"Took out {t.Amount}",
        RanOver r => $"It ran over{(r.AgainstWarning.Length > 0 ? $". Warned: {r.AgainstWarning}" : "")}",
        GaugeRead g when GaugeOf(card, g.Step) is var gauge =>
            $"{char.ToUpperInvariant(gauge[0])}{gauge[1..]}: {(g.Depth is { } depth ? $"{depth} below the filler, " : "")}{g.Level}"
                + (g.AgainstWarning is { } against ? $". Warned: {against}" : ""),
        _ => null,
    };

    // Also of a step that went with a job that was given up.
    private static string GaugeOf(JobCard card, StepId id) =>
        (card.Step(id) ?? card.Opened.Steps.FirstOrDefault(s => s.Id == id)) is { } step ? card.Sheet.Fluids[step.What].Gauge : "gauge";

    private static void Pour(LiftScene scene, FluidSystem fluid, Looker to)
    {
        scene.Fill = scene.Card.FillsByMarks(fluid.Id) ? scene.Card.FillOf(fluid.Id) : null;
        Drawn(scene);
        if (fluid.FillBy == FillBy.Overflow && scene.Card.Fluid(fluid.Id).Poured is var poured
            && poured >= scene.Card.BookOf(fluid.Id) - fluid.Tolerance.Value)
            UntilItRuns(scene, fluid, poured, to);
        else
            Offer(scene, fluid, scene.Card.Wanted(fluid.Id) - scene.Card.Fluid(fluid.Id).Poured, to, fluid.FillBy switch
        {
            FillBy.Overflow when scene.Card.Fluid(fluid.Id).Pours > 0 => "is left by the book; stop when it runs out of the hole",
            FillBy.Overflow => "is the book; stop when it runs out of the hole",
            FillBy.MeasuredReturn when scene.Card.Fluid(fluid.Id).CameOut is { } came && came < scene.Card.Wanted(fluid.Id) =>
                $"at least, to start: only {came.Print(to.Viewer.VolumeUnits[0])} came out",
            FillBy.MeasuredReturn when scene.Card.Fluid(fluid.Id).CameOut is null => "is the book: what came out was not measured",
            FillBy.MeasuredReturn when scene.Card.Fluid(fluid.Id).CameOut > scene.Card.Wanted(fluid.Id) => "is the book: more came out",
            FillBy.MeasuredReturn => "came out, so as much goes back",
            FillBy.Book when scene.Card.Fluid(fluid.Id).Stripped => "by the book after a full strip, exactly",
            FillBy.Book => "by the book, exactly",
            _ => fluid.Pumped ? "brings it to the bottom mark once the filter is full" : "brings it to the lower mark",
        });
        if (fluid.FillBy == FillBy.Overflow && scene.Card.Fluid(fluid.Id) is { Pours: > 0, Poured: var some }
            && some < scene.Card.BookOf(fluid.Id) - fluid.Tolerance.Value)
            scene.Others.Add(new("It runs over", "runOver", "r"));
        if (fluid.AfterStrip is { } dry && scene.Card.Fluid(fluid.Id) is { Stripped: false } state
            && state.Poured == Quantity<Volume>.Zero && !scene.IsDone)
            scene.Others.Add(new($"Dry inside: {dry.Value.Print(to.Viewer.VolumeUnits[0])}", "stripped", "d"));
        var approvals = fluid.Approvals.Value.Count > 0 ? $", {string.Join(" or ", fluid.Approvals.Value)}" : "";
        var additives = fluid.Additives.Count > 0 ? $", with the additive {string.Join(" and ", fluid.Additives)}" : "";
        scene.Facts.Add(new("Oil", $"{string.Join(" or ", fluid.Grades.Value)}{approvals}{additives}"));
        scene.Disputed(fluid.Amount);
    }

    private static void Gauge(LiftScene scene, FluidSystem fluid, Looker to)
    {
        var fill = scene.Card.FillOf(fluid.Id);
        var state = scene.Card.Fluid(fluid.Id);
        scene.Fill = fill;
        Drawn(scene);
        var read = state is { Level: { } level, Pours: > 0 } && state.SinceReading == Quantity<Volume>.Zero ? fill.After(level)
            : (FillAdvice?)null;
        if (read is { Verdict: FillVerdict.Pour or FillVerdict.TakeOut } advice && !scene.IsDone)
        {
            scene.Advice = advice;
            scene.InTheWay = [];
            Offer(scene, fluid, advice.Amount, to,
                advice.Verdict == FillVerdict.Pour ? Brings(fluid, fill, advice) : "it stands above the top mark");
            return;
        }
        scene.Facts.Add(new("Read", fluid.Reading!.Value));
        if (state.BeforeRun is { } before)
            scene.Facts.Add(new("Before it ran", $"{before}"));
        scene.Disputed(fluid.Amount);
        var lies = $"{fill.Between.Print(to.Viewer.VolumeUnits[0])} lie between the marks";
        scene.Facts.Add(new("Aim", fluid.Rod?.Value is { } rod
            ? $"{rod.DepthOf(fill.Target).Print(Length.Millimetre)} below the filler; {lies}"
            : $"{LiftWords.School(fill.School)}, {lies}"));
        scene.Offer("The oil stands here", fluid.Rod is null ? "gauge" : "rod");
    }

    // Beside what is poured stands what it is read on.
    private static void Drawn(LiftScene scene)
    {
        if (scene.Fill is not null)
            scene.Pictures = scene.Pictures with { Left = "/Coaches/Filling/_Gauge.cshtml" };
    }

    // The book's amount is in and nothing runs out yet: what is in, and the one press that ends it.
    private static void UntilItRuns(LiftScene scene, FluidSystem fluid, Quantity<Volume> poured, Looker to)
    {
        var units = to.Viewer.VolumeUnits;
        var printed = poured.Print(units[0]);
        (scene.Number, scene.Unit) = (printed.Number, printed.Unit);
        scene.Beside = ["are in", $"the book says {scene.Card.BookOf(fluid.Id).Print(units[0])}; go on until it runs out of the hole"];
        scene.Offer("It runs over", "runOver");
    }

    private static string Brings(FluidSystem fluid, DipstickFill fill, FillAdvice advice)
    {
        if (fluid.Rod?.Value is { } rod)
            return $"brings it to {rod.DepthOf(advice.Reaches).Print(Length.Millimetre)}";
        if (advice.Reaches.Fraction >= fill.Target.Fraction - 0.1m)
            return $"brings it {LiftWords.School(fill.School)}";
        var where = advice.Reaches.ToString();
        return $"brings it {(where.StartsWith("at", StringComparison.Ordinal) ? where : "to " + where)}";
    }

    // Less than the last digit that is said of a quart.
    private static readonly Quantity<Volume> Drops = Quantity<Volume>.Of(10, Volume.Millilitre);

    /// <summary>Offers to pour, or to take out, an amount: the number, where it comes from and the press.</summary>
    /// <param name="scene">The scene.</param>
    /// <param name="fluid">What is poured.</param>
    /// <param name="amount">How much at most.</param>
    /// <param name="to">Who looks.</param>
    /// <param name="why">What it does, in a few words.</param>
    internal static void Offer(LiftScene scene, FluidSystem fluid, Quantity<Volume> amount, Looker to, string why)
    {
        scene.PourOf = fluid.Id;
        var own = to.Viewer.VolumeUnits[0];
        // What is too little for the scale of a can is said in the unit of the cup that is in the hand.
        var cup = CupGauge.Measures(amount) ? CupGauge.UnitOf(own) : null;
        if (scene.Advice?.Verdict == FillVerdict.TakeOut)
        {
            var comes = new Typed<Volume>(amount.RoundDown(cup ?? own), cup ?? own);
            Say(scene, comes, to, why);
            scene.Main = new($"Took {scene.Number} {scene.Unit} out", "takeOut", ("amount", comes.Exact));
            return;
        }
        // What a rounding left over goes in with it, or it would be asked for again and again.
        if (cup is not null && scene.Step.Traits.Fills && amount < Drops)
            amount = amount.RoundUp(cup);
        scene.Plan = scene.Card.PlanOfPour(fluid.Id, amount, to.Shelf, to.Today, to.Can, cup);
        // What is said is never more than what is wanted: rounded up it would pass the mark.
        var goes = scene.Plan?.Amount ?? new(amount.RoundDown(cup ?? own), cup ?? own);
        Say(scene, goes, to, why);
        scene.Pours = goes.Value;
        scene.Pictures = scene.Pictures with
        {
            Right = cup is null ? "/Coaches/Filling/_Cans.cshtml" : "/Coaches/Filling/_Cup.cshtml",
        };
        scene.Main = new(cup is null && !IsWhole(scene.Plan) ? "Poured to the line" : $"Poured {scene.Number}\u00a0{scene.Unit} in", "pour",
            [("amount", goes.Exact), .. scene.Plan is { } plan ? [("from", $"{plan.From[0].Container.Id}")]
                : Array.Empty<(string, string)>()]);
    }

    // Nothing to stop at: bottles that are emptied, or a drum, which shows no level.
    private static bool IsWhole(PourPlan? plan) => plan?.From[^1] is { } last
        && (last.EmptiesIt || last.Container.Kind == ContainerKind.Drum);

    // Large in the unit of what is in the hand, beside it in the person's own, or the second of them.
    private static void Say(LiftScene scene, Typed<Volume> amount, Looker to, string why)
    {
        var printed = amount.Value.PrintDown(amount.Unit);
        (scene.Number, scene.Unit) = (printed.Number, printed.Unit);
        scene.Beside = [.. to.Viewer.VolumeUnits.Where(u => u != amount.Unit && !(CupGauge.Measures(amount.Value) && u == Volume.Litre))
            .Take(1).Select(u => amount.Value.PrintDown(u).ToString()), why];
    }
}
