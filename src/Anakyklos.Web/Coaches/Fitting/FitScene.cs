using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Coaches.Filling;

namespace Anakyklos.Web.Coaches.Fitting;

/// <summary>A part goes in: its number, large enough to be held against the box; a filter that is filled first, with what goes into
/// it.</summary>
public sealed class FitScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["fit"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var part = scene.Card.Sheet.Parts[scene.Step.What];
        var number = scene.Card.Kit?.Parts.GetValueOrDefault(part.Id) ?? part.Number.Value;
        var mayFill = scene.Card.MayFillFirst(scene.Step) && !scene.IsDone;
        if (mayFill && scene.Card.Opened.Schools is { Filter: FilterSchool.Filled })
        {
            FillingScene.Offer(scene, scene.Card.Sheet.Pours(scene.Step)!, part.Prefill!.Value, to,
                $"into the new {Words.Low(part.Name)} first: it hangs open side up");
            scene.Main = scene.Main! with { Command = "fillPart" };
            scene.Facts.Add(new("Part", $"{part.Name}, {number}"));
            if (part.Asks is { } dry)
                scene.Others.AddRange(dry.Right.Take(1).Select(a => new LiftScene.Other($"Fitted dry: {a.Says}", "fitted", "d",
                    Fields: [("says", a.Says)])));
            else
                scene.Others.Add(new("Fitted dry", "done", "d"));
            return;
        }
        scene.Number = number;
        if (part.Asks is null || part.IsSeal)
            scene.Facts.Add(new("Part", $"{part.Name}{Again(part)}"));
        if (part.Prefill is not null && scene.Card.Sheet.Pours(scene.Step) is { } fluid
            && scene.Card.Fluid(fluid.Id).InPart is var holds && holds > Quantity<Volume>.Zero)
            scene.Facts.Add(new("In it", $"{holds.Print(to.Viewer.VolumeUnits[0])} of {Words.Low(fluid.Name)}; it counts"));
        if (part.Asks is { } asks)
        {
            if (!scene.IsDone)
                scene.Pictures = new(Middle: "~/Coaches/Fitting/_Fit.cshtml", Facts: 3);
            scene.Main = new(AnswerForm.High(asks.Right.First().Says), "fitted", ("says", asks.Right.First().Says));
        }
        else
            scene.Offer(Said(scene.Step));
        if (mayFill)
            scene.Others.Add(new("Oil went into it first", "amount", "o", Asks: true));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        PartFilled f => $"Filled with {f.Amount} before it was fitted",
        PartFitted f => $"{card.TitleOf(f.Step)}: {f.Says}",
        _ => null,
    };

    private static string Again(Part part) => part.ReusableTimes switch
    {
        null => "",
        0 => ", one use",
        1 => ", may be used again once",
        { } times => $", may be used again {times} times",
    };
}
