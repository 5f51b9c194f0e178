using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>What strays from the book, and who puts a second name to it.</summary>
public sealed partial class JobCard
{
    /// <summary>
    /// The parts that this card uses up, in the sheet's order: those of its jobs, and of a job that was given up those that a step fits
    /// all the same, because what they belong to is open, or has fitted already.
    /// </summary>
    public IEnumerable<Part> PartsWanted => Opened.Jobs.SelectMany(j => Sheet.Jobs[j].Parts).Distinct()
        .Where(p => Jobs.Any(j => Sheet.Jobs[j].Parts.Contains(p)) || IsFittedByAStep(p)).Select(id => Sheet.Parts[id]);

    /// <summary>The parts in which oil stood and in whose place a new one is, such as an oil filter.</summary>
    public IEnumerable<Part> FiltersOut => PartsWanted.Where(p => IsFitted(p.Id) && Sheet.FluidIn(p.Id) is not null
        && Kit?.Parts.GetValueOrDefault(p.Id) != KitConfirmed.OldOneAgain);

    /// <summary>Whether a step of the card brings the part in, by itself or with what holds it.</summary>
    internal bool IsFittedByAStep(PartId part) => Steps.Any(s => (s.Traits.Fits && s.What == part)
        || (s.Traits.Tightens && Sheet.Fasteners[s.What].Fitted.Contains(part)));

    /// <summary>The fluids that this card fills.</summary>
    public IEnumerable<FluidSystem> FluidsWanted => Steps.Where(s => s.Traits.Fills).Select(s => Sheet.Fluids[s.What]).Distinct();

    /// <summary>How the seal of a joint stands that leaked after it was closed; null for one that did not leak, or has none.</summary>
    /// <param name="joint">The joint.</param>
    public SealAfterLeak? SealAt(FastenerId joint) => _state.Seals.TryGetValue(joint, out var seal) ? seal : null;

    /// <summary>
    /// Seals that sit in the vehicle and have been used again, by part id, with how often by now: those of earlier cards that this one did
    /// not touch, and those that it left in once more; the next card starts from here.
    /// </summary>
    public IReadOnlyDictionary<PartId, int> SealsLeftIn
    {
        get
        {
            var seals = new Dictionary<PartId, int>(Opened.SealsUsedAgain);
            foreach (var (part, number) in Kit?.Parts.Where(p => IsFitted(p.Key)) ?? [])
                if (number == KitConfirmed.OldOneAgain && !Sheet.Fasteners.Values.Any(f => f.Seal == part
                    && SealAt(f.Id) == SealAfterLeak.Renewed))
                    seals[part] = Opened.SealsUsedAgain.GetValueOrDefault(part) + 1;
                else
                    seals.Remove(part);
            return seals;
        }
    }

    /// <summary>
    /// Whether a step concerns brakes, steering, wheels or lifting: leaving it out holds the vehicle until the lead has put a name to it.
    /// </summary>
    /// <param name="step">A step of this card.</param>
    /// <returns>True where the step itself, a caution of it, or a caution of what it works on or needs says so.</returns>
    public bool IsEssential(SheetStep step)
    {
        return step.Essential || step.Cautions.Concat(On(step.What)).Concat(step.Needs.SelectMany(On)).Any(c =>
            c is "brakes" or "brake-fluid" or "crushing");

        IEnumerable<string> On(ThingId what) => Sheet.Access.TryGetValue(what, out var access) ? access.Cautions
            : Sheet.Fasteners.TryGetValue(what, out var fastener) ? fastener.Cautions : [];
    }

    /// <summary>
    /// The jobs that were really done, by id: not those that were given up, nor those of which an essential step was left out.
    /// </summary>
    public IReadOnlyList<JobId> JobsDone =>
        [.. Jobs.Where(j => !Steps.Any(s => s.Jobs.Contains(j) && State(s.Id).Status == StepStatus.LeftOut && IsEssential(s)))];

    /// <summary>Whether somebody may put the second name to what another did: one of the two is the lead.</summary>
    /// <param name="by">Who countersigns.</param>
    /// <param name="did">Who did it.</param>
    public static bool MayCountersign(Person by, Person did) => by.WorksOnCards && by.Id != did.Id
        && (by.Role == Role.Lead || did.Role == Role.Lead);

    private Decision SecondName(Countersign c, Person by)
    {
        var toVoid = ToVoid is { } asked && asked.Seq == c.Of ? asked : null;
        if (toVoid is null && !WantingCountersignature.Contains(c.Of))
            return No("There is nothing to countersign there.", "Choose one from the list.");
        var of = _history[c.Of - 1];
        if (of.By.Id == by.Id)
            return No("You cannot countersign what you did yourself.", "Another person does that.", ground: Ground.SecondName);
        if (!MayCountersign(by, of.By))
            return No("The workshop lead countersigns this.", "Ask the lead.", ground: Ground.Lead);
        return toVoid is not null ? VoidedBy(toVoid) : Yes(new Countersigned(c.Of));
    }
}
