using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>The parts that the jobs of this card use up, in the sheet's order.</summary>
    public IEnumerable<Part> PartsWanted => Opened.Jobs.SelectMany(j => Sheet.Jobs[j].Parts).Distinct().Select(id => Sheet.Parts[id]);

    /// <summary>The fluids that this card fills.</summary>
    public IEnumerable<FluidSystem> FluidsWanted => Steps.Where(s => s.Kind == StepKind.Pour).Select(s => Sheet.Fluids[s.What]).Distinct();

    /// <summary>Seals that this card left in once more, by part id, and how often each has been used again by now; the next card starts from here.</summary>
    public IReadOnlyDictionary<string, int> SealsLeftIn => _deviations.Where(d => d.Event.Kind == DeviationKind.OldSealAgain)
        .GroupBy(d => d.Event.Part).ToDictionary(g => g.Key, g => Opened.SealsUsedAgain.GetValueOrDefault(g.Key) + 1);

    private Decision ConfirmKitParts(ConfirmKit c, SheetStep step)
    {
        var refusals = new List<Refusal>();
        var deviations = new List<CardEvent>();
        var numbers = new Dictionary<string, string>();
        foreach (var part in PartsWanted)
        {
            var lies = c.Parts.GetValueOrDefault(part.Id) ?? new(KitChoice.Missing);
            numbers[part.Id] = lies.Choice == KitChoice.OldAgain ? KitConfirmed.OldOneAgain : lies.Number.Length > 0 ? lies.Number.Trim() : part.Number.Value;
            if (JudgePart(part, lies, step) is var (refusal, deviation))
            {
                if (refusal is not null)
                    refusals.Add(refusal);
                if (deviation is not null)
                    deviations.Add(deviation);
            }
        }
        if (Steps.Any(s => s.Kind == StepKind.Drain))
            Amount(c.Pan, "pan", "what the pan holds");
        var oils = new Dictionary<string, KitOil>();
        foreach (var fluid in FluidsWanted)
        {
            var lies = c.Oils.GetValueOrDefault(fluid.Id) ?? new(Quantity<Volume>.Zero, "");
            Amount(lies.Amount, $"oil-{fluid.Id}", $"how much {Low(fluid.Name)} is in hand");
            if (Wordless(lies.Product, $"product-{fluid.Id}", $"What is printed on the {Low(fluid.Name)}") is { } nameless)
                refusals.AddRange(nameless.Reasons);
            else if (lies.Lacks.Length > 0 && Wordless(lies.Reason, $"reason-{fluid.Id}", $"The reason for the {Low(fluid.Name)}") is { } unsaid)
                refusals.AddRange(unsaid.Reasons.Select(r => r with { What = $"{lies.Product.Trim()} lacks {lies.Lacks}.", Do = "Take one that fits, or say why it goes in all the same." }));
            else if (lies.Lacks.Length > 0)
                deviations.Add(new DeviationTaken(step.Id, DeviationKind.OtherOil, fluid.Id, $"{fluid.Name}: {lies.Product.Trim()}, which lacks {lies.Lacks}", lies.Reason, true));
            oils[fluid.Id] = lies with { Product = lies.Product.Trim() };
        }
        return refusals.Count > 0 ? new Refused(refusals) : Yes([.. deviations, new KitConfirmed(step.Id, numbers, c.Pan, oils)]);

        void Amount(Quantity<Volume> amount, string field, string what)
        {
            if (amount <= Quantity<Volume>.Zero || amount > Quantity<Volume>.Of(1000, Volume.Litre))
                refusals.Add(new($"{amount} cannot be {what}.", "Type an amount above zero with its unit, such as 8 L.", Field: field));
        }
    }

    private (Refusal? Refusal, CardEvent? Deviation) JudgePart(Part part, KitPart lies, SheetStep step)
    {
        var field = $"part-{part.Id}";
        var own = PartNumber.Same(lies.Number, part.Number.Value);
        var tooLong = lies.Number.Length > 40 || lies.Reason.Length > LongestText;
        if (tooLong)
            return (new($"The number or reason for the {Low(part.Name)} is too long.", $"Keep numbers to 40 characters and reasons to {LongestText}.", Field: field), null);
        switch (lies.Choice)
        {
            case KitChoice.InHand when lies.Number.Trim().Length == 0 || own:
                return (null, null);
            case KitChoice.InHand or KitChoice.Other or KitChoice.StandsIn when part.WrongButFits.FirstOrDefault(w => PartNumber.Same(w.Key, lies.Number)) is { Key: not null } wrong:
                return (new($"{wrong.Key} is the wrong {Low(part.Name)}: {wrong.Value}.", $"It needs {part.Number.Value}.", Field: field), null);
            case KitChoice.InHand:
                return (new($"{lies.Number.Trim()} is not the number of the {Low(part.Name)}.", $"It needs {part.Number.Value}. If it is to be used all the same, choose “another number” and say why.", Field: field), null);
            case KitChoice.StandsIn when lies.Number.Trim().Length > 0:
                return (null, null);
            case KitChoice.Missing or KitChoice.StandsIn:
                return (new($"The {Low(part.Name)} ({part.Number.Value}) is not in hand.", part.IsSeal ? "Fetch it, or use the old one again with a reason." : "Fetch it, or give the number of another that is to be used.", Field: field), null);
            case KitChoice.OldAgain when !part.IsSeal:
                return (new($"The {Low(part.Name)} is not a seal.", "The old one cannot go back.", Field: field), null);
            case KitChoice.Other when own || lies.Number.Trim().Length == 0:
                return (new($"Which {Low(part.Name)} is it?", "Type the number printed on it.", Field: field), null);
        }
        if (string.IsNullOrWhiteSpace(lies.Reason))
            return (new($"The reason for the {Low(part.Name)} is missing.", "Say why in a few words.", Field: field), null);
        if (lies.Choice == KitChoice.Other)
            return (null, new DeviationTaken(step.Id, DeviationKind.OtherPart, part.Id, $"{part.Name} {lies.Number.Trim()} in place of {part.Number.Value}", lies.Reason, true));
        var uses = Opened.SealsUsedAgain.GetValueOrDefault(part.Id) + 1;
        var what = $"{part.Name} used again, {(uses == 1 ? "the first time" : uses == 2 ? "the second time" : $"{uses} times by now")}";
        return (null, new DeviationTaken(step.Id, DeviationKind.OldSealAgain, part.Id, what, lies.Reason, uses > part.ReusableTimes));
    }

    private Decision Stray(Deviate c, SheetStep step)
    {
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        return c.Kind switch
        {
            DeviationKind.NoReading when step.Kind is StepKind.Tighten or StepKind.Retighten && Sheet.Fasteners[step.What] is { Tightening.Value: ToTorque } f =>
                Yes(new DeviationTaken(step.Id, c.Kind, "", $"{f.Name}: tightened without a reading", c.Reason, true)),
            DeviationKind.StepLeftOut when step.Kind is StepKind.Do or StepKind.Warm or StepKind.Drive =>
                Yes(new DeviationTaken(step.Id, c.Kind, "", $"Left out: {step.Title}", c.Reason, false)),
            DeviationKind.StepLeftOut when step.Kind is StepKind.Reset =>
                Yes(new DeviationTaken(step.Id, c.Kind, "", $"{Sheet.Resets[step.What].Name} left lit", c.Reason, true)),
            _ => No("This cannot be left out.", "It opens, closes or proves something that others rely on. Leave it for later instead."),
        };
    }

    private Decision SecondName(Countersign c, Person by)
    {
        if (!WantingCountersignature.Contains(c.Of))
            return No("There is nothing to countersign there.", "Choose one from the list.");
        var of = _history[c.Of - 1];
        if (of.By.Id == by.Id)
            return No("You cannot countersign what you did yourself.", "Another person does that.");
        if (by.Role != Role.Lead && of.By.Role != Role.Lead)
            return No("The workshop lead countersigns this.", "Ask the lead.");
        return Yes(new Countersigned(c.Of));
    }
}
