using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.LayingOut;

/// <summary>
/// Judges what somebody laid out for a card: parts by number, oils by book, pans by sum. Page, lift and endpoints all come through here.
/// </summary>
internal sealed class KitJudgement
{
    private readonly JobCard _card;
    private readonly ConfirmKit _said;
    private readonly CardFacts _facts;
    private readonly List<Refusal> _refusals = [];
    private readonly List<CardEvent> _deviations = [];

    private KitJudgement(JobCard card, ConfirmKit said, CardFacts facts) => (_card, _said, _facts) = (card, said, facts);

    /// <summary>The events that follow, the kit last; or everything that stands in the way.</summary>
    internal static Decision Of(JobCard card, ConfirmKit said, CardFacts facts)
    {
        var judgement = new KitJudgement(card, said, facts);
        var numbers = card.PartsWanted.ToDictionary(p => p.Id, judgement.Judge);
        judgement.JudgePans();
        var oils = card.FluidsWanted.ToDictionary(f => f.Id, judgement.Judge);
        var all = said.Pans.Aggregate(Quantity<Volume>.Zero, (sum, pan) => sum + pan);
        return judgement._refusals.Count > 0 ? new Refused(judgement._refusals)
            : new Accepted([.. judgement._deviations, new KitConfirmed(said.Step, numbers, all, oils, said.Pans)]);
    }

    private void Refuse(string field, string what, string @do) => _refusals.Add(new(what, @do, Field: field));

    private void Stray(DeviationKind kind, string part, string what, string reason, bool second) =>
        _deviations.Add(new DeviationTaken(_said.Step, kind, part, what, reason, second));

    private bool Unsaid(string reason, string field, string what, string @do)
    {
        if (Decision.Wordless(reason, field, "The reason") is not { } missing)
            return false;
        _refusals.AddRange(missing.Reasons.Select(r => string.IsNullOrWhiteSpace(reason) ? r with { What = what, Do = @do } : r));
        return true;
    }

    private string Judge(Part part)
    {
        // What is in the vehicle already is not laid out a second time.
        if (_card.IsFitted(part.Id) && _card.Kit?.Parts.GetValueOrDefault(part.Id) is { } fitted)
            return fitted;
        var lies = _said.Parts.GetValueOrDefault(part.Id) ?? new(KitChoice.Missing);
        var (field, name, number) = ($"part-{part.Id}", Words.Low(part.Name), lies.Number.Trim());
        if (number.Length > 40)
            Refuse(field, $"The number on the {name} is too long.", "Keep numbers to 40 characters.");
        else
            JudgeChoice(part, lies, number, field, name);
        return lies.Choice == KitChoice.OldAgain ? KitConfirmed.OldOneAgain : number.Length > 0 ? number : part.Number.Value;
    }

    private void JudgeChoice(Part part, KitPart lies, string number, string field, string name)
    {
        var own = number.Length == 0 || PartNumber.Same(number, part.Number.Value);
        var good = own || _facts.Shelf.IsGoodFor(number, part.Number.Value);
        var wrong = part.WrongButFits.FirstOrDefault(w => PartNumber.Same(w.Key, number));
        switch (lies.Choice)
        {
            case KitChoice.InHand or KitChoice.Other when wrong.Key is not null:
                Refuse(field, $"{wrong.Key} is the wrong {name}: {wrong.Value}.", $"It needs {part.Number.Value}.");
                break;
            case KitChoice.Other when own:
                Refuse(field, $"Which {name} is it?", "Type the number printed on it.");
                break;
            case KitChoice.InHand or KitChoice.Other when good:
                break;
            case KitChoice.InHand:
                Refuse(field, $"{number} is not the number of the {name}.",
                    $"It needs {part.Number.Value}. If it is to be used all the same, choose “another number” and say why.");
                break;
            case KitChoice.Other:
                if (!Unsaid(lies.Reason, field, $"The reason for the {name} is missing.", "Say why in a few words."))
                    Stray(DeviationKind.OtherPart, part.Id, $"{part.Name} {number} in place of {part.Number.Value}", lies.Reason, true);
                break;
            case KitChoice.OldAgain when !part.IsSeal:
                Refuse(field, $"The {name} is not a seal.", "The old one cannot go back.");
                break;
            case KitChoice.OldAgain:
                if (!Unsaid(lies.Reason, field, $"The reason for the {name} is missing.", "Say why in a few words."))
                    OldAgain(part, lies.Reason);
                break;
            case KitChoice.Missing:
                Refuse(field, $"The {name} ({part.Number.Value}) is not in hand.",
                    part.IsSeal ? "Fetch it, or use the old one again with a reason."
                        : "Fetch it, or give the number of another that is to be used.");
                break;
            default:
                Refuse(field, $"Nobody knows what lies there for the {name}.", "Say new, old again, another number or not here.");
                break;
        }
    }

    private void OldAgain(Part part, string reason)
    {
        var uses = _card.Opened.SealsUsedAgain.GetValueOrDefault(part.Id) + 1;
        var times = uses switch { 1 => "the first time", 2 => "the second time", _ => $"{uses} times by now" };
        Stray(DeviationKind.OldSealAgain, part.Id, $"{part.Name} used again, {times}", reason, uses > part.ReusableTimes);
    }

    private void JudgePans()
    {
        var drained = _card.FluidsDrained.ToList();
        if (drained.Count == 0)
            return;
        if (_said.Pans.Count is 0 or > 12 || _said.Pans.Any(p => !IsAmount(p)))
            Refuse("pan", "What the pans hold is missing or cannot be.",
                "Type what each holds with its unit, with a plus between two: 8 L + 12 L.");
        else if (PanPlan.Short(drained, _said.Pans) is { } small)
            Refuse("pan", small.What, small.Do);
    }

    private KitOil Judge(FluidSystem fluid)
    {
        var lies = _said.Oils.GetValueOrDefault(fluid.Id) ?? new(Quantity<Volume>.Zero, "");
        var (name, product, before) = (Words.Low(fluid.Name), lies.Product.Trim(), _card.OilInHand(fluid.Id));
        if (!IsAmount(lies.Amount))
            Refuse($"amount-{fluid.Id}", $"{lies.Amount} cannot be how much {name} is in hand.",
                "Type an amount above zero with its unit, such as 8 L.");
        else if (lies.Amount < fluid.Amount.Value)
            Refuse($"amount-{fluid.Id}", $"Only {lies.Amount} of {name} is in hand, and {fluid.Amount.Value} must go in.",
                "Fetch the rest, and say how much it is in all.");
        if (Decision.Wordless(product, $"product-{fluid.Id}", $"What is printed on the {name}") is { } nameless)
        {
            _refusals.AddRange(nameless.Reasons);
            return new(lies.Amount, product);
        }
        if (before is not null && _card.Fluid(fluid.Id).Pours > 0 && !Products(before.Product).All(p =>
            Products(product).Any(q => PartNumber.Same(p, q))))
            Refuse($"product-{fluid.Id}", $"Some of {before.Product} is in already.",
                $"Write what is added with a plus: {before.Product} + {product}.");
        var lacks = Lacks(fluid, product);
        if (lacks.Length > 0 && !IsSettled(fluid, before, product))
            JudgeLacks(fluid, product, lacks, lies.Reason);
        return new(lies.Amount, product, lacks, lacks.Length > 0 ? lies.Reason : "");
    }

    // What is poured already was judged when it was laid out; its deviation stands.
    private bool IsSettled(FluidSystem fluid, KitOil? before, string product) => before is not null && _card.Fluid(fluid.Id).Pours > 0
        && PartNumber.Same(before.Product, product);

    private void JudgeLacks(FluidSystem fluid, string product, string lacks, string reason)
    {
        var unknown = Products(product).Any(p => _facts.Shelf.Oils.Find(p) is null);
        if (_facts.UnderWarranty && !unknown)
            Refuse($"product-{fluid.Id}", $"{product} lacks {lacks}, and the vehicle is under warranty.", "Take one that fits.");
        else if (!Unsaid(reason, $"reason-{fluid.Id}", unknown ? $"{product}: {lacks}." : $"{product} lacks {lacks}.",
            unknown ? "Take one of the book, or say why it goes in all the same; another person puts a second name to it."
                : "Take one that fits, or say why it goes in all the same."))
            Stray(DeviationKind.OtherOil, fluid.Id, $"{fluid.Name}: {product}, {(unknown ? lacks : $"which lacks {lacks}")}", reason, true);
    }

    // Two that go into one fill are written with a plus between them; each must fit by itself.
    private string Lacks(FluidSystem fluid, string product)
    {
        var wanted = OilRequirement.Of(_card.Sheet, fluid);
        return string.Join("; ", Products(product).Select(name => _facts.Shelf.Oils.Find(name) is { } known
            ? OilMatch.Of(known, wanted, _facts.Shelf.Oils.Book, _facts.Climate).Lacking
            : Products(product).Length > 1 ? $"{name} is not in the oil book" : "it is not in the oil book").Where(t => t.Length > 0));
    }

    private static string[] Products(string product) =>
        product.Split('+', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    private static bool IsAmount(Quantity<Volume> amount) => amount > Quantity<Volume>.Zero
        && amount <= Quantity<Volume>.Of(1000, Volume.Litre);
}
