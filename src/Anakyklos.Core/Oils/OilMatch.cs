using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Oils;

/// <summary>A product as its can describes it.</summary>
/// <param name="Name">Range and name.</param>
/// <param name="Grades">Viscosities, or the class of a brake fluid.</param>
/// <param name="Codes">Approvals and classes that it claims.</param>
/// <param name="Additives">Additives that it holds, such as LS.</param>
/// <param name="LowAsh">Whether it is a low-ash oil.</param>
/// <param name="OpenDays">For how many days after it was opened a container of it may still be poured from, from 1: what draws water does
/// not keep. Null when that does not matter.</param>
public sealed record OilProduct(string Name, IReadOnlyList<string> Grades, IReadOnlyList<string> Codes, IReadOnlyList<string> Additives,
    bool LowAsh, int? OpenDays = null);

/// <summary>What a fluid system asks of its fluid.</summary>
/// <param name="Grades">Any of these, each in its range of outdoor temperatures.</param>
/// <param name="Approvals">Any of these; empty when none is asked for.</param>
/// <param name="Additives">All of these.</param>
/// <param name="LowAsh">A particulate filter asks for low ash.</param>
/// <param name="Fuel">What the engine burns.</param>
public sealed record OilRequirement(IReadOnlyList<GradeRange> Grades, IReadOnlyList<string> Approvals, IReadOnlyList<string> Additives,
    bool LowAsh, Fuel Fuel)
{
    /// <summary>What a fluid system of a sheet asks for.</summary>
    /// <returns>Grades with their temperatures, approvals, additives and ash as the sheet asks for them.</returns>
    public static OilRequirement Of(ModelSheet sheet, FluidSystem fluid) => new(
        [.. fluid.Grades.Value.Select(g => fluid.Climate.FirstOrDefault(c => PartNumber.Same(c.Grade, g)) ?? new(g, null, null))],
        fluid.Approvals.Value, fluid.Additives, fluid.LowAsh, sheet.Fuel);
}

/// <summary>The weather that the oil must bear until it is changed again.</summary>
/// <param name="Coldest">Lowest outdoor temperature.</param>
/// <param name="Hottest">Highest outdoor temperature.</param>
public sealed record Climate(Temperature Coldest, Temperature Hottest);

/// <summary>What a product lacks.</summary>
public enum Lack
{
    /// <summary>None of its grades is one that the sheet names.</summary>
    Grade,

    /// <summary>A grade of the sheet, but not for weather this cold.</summary>
    TooColdForGrade,

    /// <summary>A grade of the sheet, but not for weather this hot.</summary>
    TooHotForGrade,

    /// <summary>No code that is wanted, and none that covers one.</summary>
    Approval,

    /// <summary>An additive is missing.</summary>
    Additive,

    /// <summary>Its ash would block the particulate filter.</summary>
    Ash,
}

/// <summary>One thing that a product lacks.</summary>
/// <param name="Of">What.</param>
/// <param name="Wanted">What the sheet asks for.</param>
/// <param name="Has">What the product has; empty for nothing.</param>
public sealed record Shortfall(Lack Of, string Wanted, string Has)
{
    /// <summary>What it lacks, as the end of a sentence.</summary>
    public override string ToString() => Of switch
    {
        Lack.Grade => $"the grade {Wanted}{InPlace}",
        Lack.TooColdForGrade or Lack.TooHotForGrade => $"a grade for {Wanted} ({Has})",
        Lack.Approval => $"the approval {Wanted}{InPlace}",
        Lack.Additive => $"the additive {Wanted}",
        _ => "low ash, and the particulate filter would block",
    };

    private string InPlace => Has.Length > 0 ? $" (it has {Has})" : "";
}

/// <summary>Whether a product fits, and why.</summary>
/// <param name="Product">The product.</param>
/// <param name="Grade">The grade that fits; empty when none does.</param>
/// <param name="Way">From the code on the can to the code wanted, one entry when it is claimed itself; empty when no code is wanted or none
/// fits.</param>
/// <param name="Lacks">Everything that it lacks; empty when it fits.</param>
public sealed record OilFit(OilProduct Product, string Grade, IReadOnlyList<string> Way, IReadOnlyList<Shortfall> Lacks)
{
    /// <summary>Whether it fits.</summary>
    public bool Fits => Lacks.Count == 0;

    /// <summary>What it lacks, one after the other; empty when it fits.</summary>
    public string Lacking => string.Join(", ", Lacks);
}

/// <summary>Holds products against what a fluid system asks for.</summary>
public static class OilMatch
{
    /// <summary>Whether a product fits; with every reason when it does not.</summary>
    /// <param name="product">The product.</param>
    /// <param name="wanted">What is asked for.</param>
    /// <param name="book">Which code covers which.</param>
    /// <param name="climate">The weather it must bear, or null where that does not matter.</param>
    /// <returns>The first grade of the sheet that it has and that bears the weather, its shortest way to an approval, and all that it
    /// lacks.</returns>
    public static OilFit Of(OilProduct product, OilRequirement wanted, CoverBook book, Climate? climate)
    {
        var lacks = new List<Shortfall>();
        var named = wanted.Grades.Where(g => product.Grades.Any(p => book.Way(p, g.Grade, wanted.Fuel) is not null)).ToList();
        var grade = named.FirstOrDefault(g => Bears(g, climate));
        if (wanted.Grades.Count > 0 && named.Count == 0)
            lacks.Add(new(Lack.Grade, string.Join(" or ", wanted.Grades.Select(g => g.Grade)), string.Join(", ", product.Grades)));
        else if (wanted.Grades.Count > 0 && grade is null)
            lacks.Add(named.Any(g => g.From is { } from && climate!.Coldest.CompareTo(from) < 0)
                ? new(Lack.TooColdForGrade, $"{climate!.Coldest}", $"{named[0].Grade} from {named[0].From}")
                : new(Lack.TooHotForGrade, $"{climate!.Hottest}", $"{named[0].Grade} to {named[0].To}"));
        var way = wanted.Approvals.SelectMany(w => product.Codes.Select(c => book.Way(c, w, wanted.Fuel))).Where(x => x is not null)
            .MinBy(x => x!.Count);
        if (wanted.Approvals.Count > 0 && way is null)
            lacks.Add(new(Lack.Approval, string.Join(" or ", wanted.Approvals), string.Join(", ", product.Codes)));
        lacks.AddRange(wanted.Additives.Where(a => !product.Additives.Any(p => PartNumber.Same(p, a)))
            .Select(a => new Shortfall(Lack.Additive, a, string.Join(", ", product.Additives))));
        if (wanted.LowAsh && !product.LowAsh)
            lacks.Add(new(Lack.Ash, "low ash", ""));
        return new(product, grade?.Grade ?? "", way ?? [], lacks);
    }

    /// <summary>Whether somebody could take one for the other: they share a grade, or a code of one covers one that is wanted or the other
    /// way round.</summary>
    public static bool IsNear(OilProduct product, OilRequirement wanted, CoverBook book) =>
        product.Grades.Any(p => wanted.Grades.Any(g => PartNumber.Same(p, g.Grade)))
        || product.Codes.Any(c => wanted.Approvals.Any(w => book.Way(c, w, wanted.Fuel) is not null
            || book.Way(w, c, wanted.Fuel) is not null));

    /// <summary>Products that go into one fill together: each must fit by itself.</summary>
    /// <returns>One a product, in the order given.</returns>
    public static IReadOnlyList<OilFit> Mix(IEnumerable<OilProduct> products, OilRequirement wanted, CoverBook book, Climate? climate) =>
        [.. products.Select(p => Of(p, wanted, book, climate))];

    private static bool Bears(GradeRange grade, Climate? climate) =>
        climate is null || ((grade.From is not { } from || climate.Coldest.CompareTo(from) >= 0)
            && (grade.To is not { } to || climate.Hottest.CompareTo(to) <= 0));
}
