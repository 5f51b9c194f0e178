using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Kit;

/// <summary>What a card asks its kit for, and what of an earlier kit is in the vehicle already.</summary>
/// <param name="Sheet">The sheet.</param>
/// <param name="Parts">The parts that it uses up.</param>
/// <param name="Fluids">The fluids that it fills.</param>
/// <param name="Drained">The fluids that it lets out, in groups that are out at the same time.</param>
/// <param name="SealsUsedAgain">How often the seals that sit in the vehicle were used again, by part id.</param>
/// <param name="Fitted">The number as it was laid out of each part that is fitted, by part id.</param>
/// <param name="Poured">The product as it was laid out of each fluid of which some is in, by fluid id.</param>
public sealed record KitWanted(ModelSheet Sheet, IReadOnlyList<Part> Parts, IReadOnlyList<FluidSystem> Fluids,
    IReadOnlyList<IReadOnlyList<FluidSystem>> Drained, IReadOnlyDictionary<PartId, int> SealsUsedAgain,
    IReadOnlyDictionary<PartId, string> Fitted,
    IReadOnlyDictionary<FluidId, string> Poured);

/// <summary>How a kit strays from the sheet.</summary>
public enum KitStrayOf
{
    /// <summary>An old seal goes back.</summary>
    OldSealAgain,

    /// <summary>A part with another number.</summary>
    OtherPart,

    /// <summary>An oil that lacks something, or that the book does not know.</summary>
    OtherOil,
}

/// <summary>One thing in which a kit strays from the sheet, answered for with a reason.</summary>
/// <param name="Of">How.</param>
/// <param name="What">The part or fluid, by id.</param>
/// <param name="Says">What strays, in words.</param>
/// <param name="Reason">Why.</param>
/// <param name="NeedsSecondName">Whether another person must put a name to it.</param>
public sealed record KitStray(KitStrayOf Of, ThingId What, string Says, string Reason, bool NeedsSecondName);

/// <summary>A kit that was judged.</summary>
/// <param name="Refusals">What stands in the way; empty when the kit can be used.</param>
/// <param name="Strays">In what it strays.</param>
/// <param name="Numbers">The number in hand by part id.</param>
/// <param name="Oils">What is in hand of each fluid, by fluid id.</param>
public sealed record KitJudged(IReadOnlyList<Refusal> Refusals, IReadOnlyList<KitStray> Strays,
    IReadOnlyDictionary<PartId, string> Numbers, IReadOnlyDictionary<FluidId, KitOil> Oils);

/// <summary>
/// Judges what somebody laid out for a card: parts by number, oils by book, pans by sum. Page, lift and endpoint all come through here.
/// </summary>
public sealed class KitJudgement
{
    private readonly KitWanted _wanted;
    private readonly LaidOut _said;
    private readonly Shelf _shelf;
    private readonly Climate? _climate;
    private readonly bool _underWarranty;
    private readonly DateOnly _today;
    private readonly List<Refusal> _refusals = [];
    private readonly List<KitStray> _strays = [];

    private KitJudgement(KitWanted wanted, LaidOut said, Shelf shelf, Climate? climate, bool underWarranty, DateOnly today) =>
        (_wanted, _said, _shelf, _climate, _underWarranty, _today) = (wanted, said, shelf, climate, underWarranty, today);

    /// <summary>Judges a kit.</summary>
    /// <param name="wanted">What the card asks for.</param>
    /// <param name="said">What lies there.</param>
    /// <param name="shelf">What the stores know.</param>
    /// <param name="climate">The weather that oils must bear, or null.</param>
    /// <param name="underWarranty">Whether the maker's warranty holds today.</param>
    /// <param name="today">The day, for containers that do not keep once they are open.</param>
    /// <returns>Every refusal, what strays, and the numbers and oils as they will be kept.</returns>
    public static KitJudged Of(KitWanted wanted, LaidOut said, Shelf shelf, Climate? climate, bool underWarranty,
        DateOnly today)
    {
        var judgement = new KitJudgement(wanted, said, shelf, climate, underWarranty, today);
        var numbers = wanted.Parts.ToDictionary(p => p.Id, judgement.Judge);
        judgement.JudgePans();
        var oils = wanted.Fluids.ToDictionary(f => f.Id, judgement.Judge);
        return new(judgement._refusals, judgement._strays, numbers, oils);
    }

    private void Refuse(string field, string what, string @do) => _refusals.Add(new(what, @do, Field: field));

    private void Stray(KitStrayOf how, ThingId what, string says, string reason, bool second) =>
        _strays.Add(new(how, what, says, reason, second));

    private bool Unsaid(string reason, string field, string what, string @do)
    {
        if (Reason.Wrong(reason, field, "The reason") is not { } wrong)
            return false;
        _refusals.Add(string.IsNullOrWhiteSpace(reason) ? wrong with { What = what, Do = @do } : wrong);
        return true;
    }

    private string Judge(Part part)
    {
        // What is in the vehicle already is not laid out a second time.
        if (_wanted.Fitted.TryGetValue(part.Id, out var fitted))
            return fitted;
        var lies = _said.Parts.GetValueOrDefault(part.Id) ?? new(KitChoice.Missing);
        var (field, name, number) = ($"parts.{part.Id}", Words.Low(part.Name), lies.Number.Trim());
        if (number.Length > 40)
            Refuse(field, $"The number on the {name} is too long.", "Keep numbers to 40 characters.");
        else
            JudgeChoice(part, lies, number, field, name);
        return lies.Choice == KitChoice.OldAgain ? KitPart.OldOneAgain : number.Length > 0 ? number : part.Number.Value;
    }

    private void JudgeChoice(Part part, KitPart lies, string number, string field, string name)
    {
        var own = number.Length == 0 || PartNumber.Same(number, part.Number.Value);
        var good = own || _shelf.IsGoodFor(number, part.Number.Value);
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
                    Stray(KitStrayOf.OtherPart, part.Id, $"{part.Name} {number} in place of {part.Number.Value}", lies.Reason, true);
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
        var uses = _wanted.SealsUsedAgain.GetValueOrDefault(part.Id) + 1;
        var times = uses switch { 1 => "the first time", 2 => "the second time", _ => $"{uses} times by now" };
        Stray(KitStrayOf.OldSealAgain, part.Id, $"{part.Name} used again, {times}", reason, uses > part.ReusableTimes);
    }

    private void JudgePans()
    {
        if (_wanted.Drained.Count == 0)
            return;
        if (_said.Pans.Count is 0 or > 12 || _said.Pans.Any(p => !IsAmount(p)))
            Refuse("pan", "What the pans hold is missing or cannot be.",
                "Type what each holds with its unit, with a plus between two: 8 L + 12 L.");
        else if (PanPlan.Short(_wanted.Drained, _said.Pans) is { } small)
            Refuse("pan", small.What, small.Do);
    }

    private KitOil Judge(FluidSystem fluid)
    {
        var lies = _said.Oils.GetValueOrDefault(fluid.Id) ?? new(Quantity<Volume>.Zero, "");
        var (name, product, poured) = (Words.Low(fluid.Name), lies.Product.Trim(), _wanted.Poured.GetValueOrDefault(fluid.Id));
        if (!IsAmount(lies.Amount))
            Refuse($"oils.{fluid.Id}.amount", $"{lies.Amount} cannot be how much {name} is in hand.",
                "Type an amount above zero with its unit, such as 8 L.");
        else if (lies.Amount < fluid.Amount.Value)
            Refuse($"oils.{fluid.Id}.amount", $"Only {lies.Amount} of {name} is in hand, and {fluid.Amount.Value} must go in.",
                "Fetch the rest, and say how much it is in all.");
        if (Reason.Wrong(product, $"oils.{fluid.Id}.product", $"What is printed on the {name}") is { } nameless)
        {
            _refusals.Add(nameless);
            return new(lies.Amount, product);
        }
        if (poured is not null && !KitOil.NamesIn(poured).All(p => KitOil.NamesIn(product).Any(q => PartNumber.Same(p, q))))
            Refuse($"oils.{fluid.Id}.product", $"Some of {poured} is in already.",
                $"Write what is added with a plus: {poured} + {product}.");
        var lacks = Lacks(fluid, product);
        // What is poured already was judged when it was laid out; its deviation stands.
        if (lacks.Length > 0 && (poured is null || !PartNumber.Same(poured, product)))
            JudgeLacks(fluid, product, lacks, lies.Reason);
        return new(lies.Amount, product, lacks, lacks.Length > 0 ? lies.Reason : "");
    }

    private void JudgeLacks(FluidSystem fluid, string product, string lacks, string reason)
    {
        var unknown = KitOil.NamesIn(product).Any(p => _shelf.Oils.Find(p) is null);
        if (_underWarranty && !unknown)
            Refuse($"oils.{fluid.Id}.product", $"{product} lacks {lacks}, and the vehicle is under warranty.", "Take one that fits.");
        else if (!Unsaid(reason, $"oils.{fluid.Id}.reason", unknown ? $"{product}: {lacks}." : $"{product} lacks {lacks}.",
            unknown ? "Take one of the book, or say why it goes in all the same; another person puts a second name to it."
                : "Take one that fits, or say why it goes in all the same."))
            Stray(KitStrayOf.OtherOil, fluid.Id, $"{fluid.Name}: {product}, {(unknown ? lacks : $"which lacks {lacks}")}", reason, true);
    }

    // Two that go into one fill are written with a plus between them; each must fit by itself.
    private string Lacks(FluidSystem fluid, string product)
    {
        var wanted = OilRequirement.Of(_wanted.Sheet, fluid);
        return string.Join("; ", KitOil.NamesIn(product).Select(name => _shelf.Oils.Find(name) is { } known
            ? string.Join("; ", ((string[])[OilMatch.Of(known, wanted, _shelf.Oils.Book, _climate).Lacking, Stale(known)])
                .Where(t => t.Length > 0))
            : KitOil.NamesIn(product).Length > 1 ? $"{name} is not in the oil book" : "it is not in the oil book")
            .Where(t => t.Length > 0));
    }

    // Only where the stores have some of it, and none of that may be poured any more.
    private string Stale(OilProduct product)
    {
        var there = _shelf.Containers
            .Where(c => PartNumber.Same(c.Product, product.Name) && c.Left > Quantity<Volume>.Zero).ToList();
        return there.Count > 0 && there.All(c => _shelf.IsOpenTooLong(c, _today))
            ? $"a container opened at most {product.OpenDays} days ago" : "";
    }

    private static bool IsAmount(Quantity<Volume> amount) => amount > Quantity<Volume>.Zero
        && amount <= Quantity<Volume>.Of(1000, Volume.Litre);
}
