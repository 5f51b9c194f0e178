using Anakyklos.Core.Looks;

namespace Anakyklos.Core.Sheets;

/// <summary>What is looked at in a step that reads what came out.</summary>
/// <param name="Looks">What is looked at, one after the other; at least one, each once.</param>
/// <param name="Fluid">The fluid that it tells of; empty where it is none of the sheet's.</param>
/// <param name="Leads">What follows from an appearance on this model, where that is not the general rule.</param>
public sealed record ReadSpec(IReadOnlyList<LookSubject> Looks, FluidId Fluid, IReadOnlyDictionary<Appearance, LookOutcome> Leads)
    : WorkSpec
{
    /// <summary>What follows from a look alone on this model.</summary>
    /// <param name="look">One that is known.</param>
    public LookOutcome Alone(Look look) => Leads.TryGetValue(look.Looks, out var leads) ? leads : LookRules.General(look);

    internal static ReadSpec Read(SheetCursor c)
    {
        var looks = c.Words<LookSubject>("looks");
        if (looks.Count == 0 || looks.Distinct().Count() < looks.Count)
            c.Complain("looks", "Say what is looked at: magnet, fluid, filter, seal or hold, each once.");
        var leads = c.Choices<Appearance, LookOutcome>("leads");
        foreach (var (looked, _) in leads.Where(l => !looks.Any(s => LookRules.Knows(new(s, l.Key)))))
            c.Complain("leads", $"“{looked}” is not seen of what is looked at here.");
        return new(looks, c.Text("fluid", false), leads);
    }
}
