using Anakyklos.Core.Cards;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A tightening: what the wrench in the hand is set to, in its own unit, what passes, and which of a group comes next.</summary>
public sealed class TighteningScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["tighten", "retighten"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to) => DrawAt(scene, to);

    /// <summary>Draws a step at which a fastener is tightened, whatever was done to it before.</summary>
    internal static void DrawAt(LiftScene scene, Looker to)
    {
        var fastening = Fastening.Of(scene.Card, scene.Step);
        var (fastener, sheet) = (fastening.Fastener, scene.Card.Sheet);
        if (fastener.Count > 1)
            scene.Facts.Add(new("How many", $"{fastener.Count}{(fastener.Order.Length > 0 ? $", {fastener.Order}" : "")}"));
        scene.Facts.Add(new("Thread", $"{(fastener.Thread.Length > 0 ? fastener.Thread + " in " : "")}{fastener.Material}"));
        if (fastener.Seal is { } seal)
            scene.Facts.Add(new("Seal",
                $"{sheet.Parts[seal].Name}, {scene.Card.Kit?.Parts.GetValueOrDefault(seal) ?? sheet.Parts[seal].Number.Value}"));
        scene.Facts.Add(new("Source", fastener.Tightening.From.ToString()));
        scene.Disputed(fastener.Tightening);
        if (scene.IsDone)
        {
            scene.Torque = fastener.LastTorque;
            return;
        }
        if (scene.Card.SealAt(fastener.Id) is SealAfterLeak.Leaked or SealAfterLeak.LeakedAgain)
        {
            Leaked(scene, fastener);
            return;
        }
        if (fastening.Next is not { } next)
            return;
        var slots = fastening.Plan.Slots.Count;
        switch (next.Spec)
        {
            case ToTorque torque:
                Torqued(scene, fastening, next, torque, to);
                break;
            case TurnAfterContact turn:
                (scene.Number, scene.Unit) = (Turns(turn.Turns), turn.Turns > 1 ? "turns after contact" : "turn after contact");
                scene.Beside = [$"{turn.Turns * 360:0}° from where the ring touches"];
                Offer(scene, fastening, next, $"turned {Turns(turn.Turns)} after contact");
                break;
            case TurnFurther further:
                (scene.Number, scene.Unit) = ($"{further.Degrees}°", "further");
                scene.Beside = ["Mark it before it turns"];
                Offer(scene, fastening, next, $"turned {further.Degrees}° further");
                break;
            case ByHand hand when next.Passes > 1:
                (scene.Number, scene.Unit) = ($"{fastening.InThisPass.Count}", "in by hand");
                scene.Beside = ["None is drawn down before all are in"];
                scene.Facts.Insert(0, new("By hand", hand.How));
                Offer(scene, fastening, next, "in by hand");
                break;
            case ByHand hand:
                scene.Facts.Insert(0, new("By hand", hand.How));
                Offer(scene, fastening, next, "tight by hand");
                break;
            default:
                throw new InvalidOperationException($"Nobody has said how {fastener.Name} is drawn.");
        }
        if (slots > 1 || next.Spec is TurnAfterContact or TurnFurther)
            scene.Pictures = scene.Pictures with { Middle = "~/Coaches/Tightening/_Fasten.cshtml" };
    }

    // Loose, or its seal does not hold: which, the wrench says, and then a person.
    private static void Leaked(LiftScene scene, Fastener fastener)
    {
        (scene.Number, scene.Unit) = ("", "");
        scene.Pictures = scene.Pictures with { Middle = "~/Coaches/Tightening/_Leaked.cshtml", Facts = 0 };
        scene.Sends = ("new-seal", fastener.Drains is not null || fastener.HoldsBack ? "New seal in, the same oil back" : "New seal in");
        if (scene.Card.SealAt(fastener.Id) == SealAfterLeak.Leaked)
            scene.Others.Add(new("It turned: its seal stays", "wasLoose", "l"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        JointWasLoose j => $"{NameAt(card, j.Step)} turned under the wrench: its seal stays",
        SealRenewed s => $"{NameAt(card, s.Step)}: new seal, {s.Number}",
        ReadingTaken { Corrects: { } of } r => $"Reading {of} put right: {r.Reading}, {LiftWords.Outcome(r.Outcome)} ({r.Reason})",
        ReadingTaken r => $"{Named(card, r.Step, r.Pass, r.Places)}: {(r.Wrench is { } by ? $"{by} clicked at " : "")}{r.Reading}"
            + (r.AtFastener is { } at ? $" with a {r.With}, which makes {at}" : "") + $", {LiftWords.Outcome(r.Outcome)}"
            + (r.Device is { } wrench ? $", sent by {wrench}" : ""),
        FastenersDrawn d => $"{Named(card, d.Step, d.Pass, d.Places)}: done as the pass wants it",
        WrenchTaken w => w.Wrench.Length == 0 && w.With is null ? "The wrench that the card says was taken up"
            : $"{(w.Wrench.Length > 0 ? w.Wrench : "The wrench that the card says")} was taken up"
                + (w.With is { } with ? $" with a {with}" : ""),
        OverTorqueSettled s => $"After too much torque: {s.What}",
        _ => null,
    };

    /// <summary>Which pass it is, as long as there are several.</summary>
    public static string PassOf(TighteningSlot slot, Fastening fastening) => slot.Passes == 1 ? ""
        : $"Pass {slot.Pass} of {slot.Passes}" + slot.Spec switch
        {
            ToTorque torque when fastening.Fastener.Tightening.Value is ToTorque whole && torque != whole =>
                $", {torque.Target / whole.Target * 100:0} %",
            ByHand => ", all in",
            _ => "",
        };

    private static string NameAt(JobCard card, StepId step) => card.Sheet.Fasteners[card.StepEver(step)!.What].Name;

    private static string Named(JobCard card, StepId step, int pass, IReadOnlyList<int>? places)
    {
        var fastening = Fastening.Of(card, card.StepEver(step)!);
        if (places is null || fastening.Plan.Slots.Count == 1)
            return fastening.Fastener.Name;
        var group = fastening.Plan.Group;
        var which = places.Count == 1 ? group.Named(places[0])
            : group.Named(places[0]).Replace("number ", "", StringComparison.Ordinal) + $" to {group.Turn(places[^1])}";
        return $"{fastening.Fastener.Name}, {which}"
            + (fastening.Plan.Slots.Any(s => s.Pass > 1) ? $", pass {pass}" : "");
    }

    private static void Torqued(LiftScene scene, Fastening fastening, TighteningSlot next, ToTorque to, Looker looker)
    {
        var units = looker.Viewer.TorqueUnits;
        var hand = fastening.Wrench(looker.Wrenches, to);
        var scale = hand?.Wrench.Scale ?? units[0];
        var shown = (hand?.Setting ?? to.Target).Print(scale);
        (scene.Number, scene.Unit) = hand is null && to.IsRange
            ? ($"{to.Low.Print(scale).Number} to {to.High.Print(scale).Number}", scale.Symbol) : (shown.Number, shown.Unit);
        scene.Beside =
        [
            (hand?.Setting ?? to.Target).Print(units.First(u => u != scale)).ToString(),
            .. hand?.With is null ? [] : new[] { $"{hand.Reaches(hand.Setting).Print(scale)} at the fastener" },
            $"{to.Low.Print(scale).Number} to {to.High.Print(scale).Number} passes",
        ];
        (scene.Torque, scene.CrowFoot) = (to, fastening.With);
        scene.WrenchName = hand?.Wrench.Name ?? "";
        scene.Facts.Insert(0, new("Tool", $"{DriveWords.Tool(fastening.Fastener.Drive)}, " + (hand is null
            ? $"and no wrench here in calibration can be set for {to.Target}"
            : $"{hand.Wrench.Name} set to {shown}{(hand.With is { } with ? $" with a {with}" : "")}")));
        if (hand is null)
            scene.Asks = new("Type what another wrench said", "reading");
        else
            Offer(scene, fastening, next, $"clicked at {shown.Number}", ("wrench", hand.Wrench.Name),
                ("setting", new Typed<Torque>(hand.Setting, scale).Exact));
        scene.Pictures = scene.Pictures with { Under = "~/Coaches/Tightening/_OtherWrench.cshtml" };
    }

    // What the hands did: the only one; all that are left of the pass; or the next, where each is said by itself.
    private static void Offer(LiftScene scene, Fastening fastening, TighteningSlot next, string did,
        params (string Name, string Value)[] fields)
    {
        var last = fastening.Plan.Group.Together ? fastening.InThisPass[^1] : next;
        var left = fastening.InThisPass.Count;
        var words = fastening.Plan.Slots.All(s => s.Place == next.Place) ? $"{char.ToUpperInvariant(did[0])}{did[1..]}"
            : last == next ? $"Number {fastening.Plan.Group.Turn(next.Place.Number)} {did}"
            : $"{(fastening.Plan.Slots.Count(s => s.IsWith(next)) == left ? "All" : "The other")} {left} {did}, in order";
        scene.Main = new(words, "drawn", [("pass", $"{next.Pass}"), ("place", $"{last.Place.Number}"), .. fields]);
    }

    private static string Turns(decimal turns) => turns switch
    {
        0.25m => "1/4",
        0.5m => "1/2",
        0.75m => "3/4",
        1.25m => "1 1/4",
        1.5m => "1 1/2",
        _ => $"{turns:0.##}",
    };
}
