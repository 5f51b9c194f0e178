using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Kit;

/// <summary>What somebody laid out for a card.</summary>
/// <param name="Parts">What lies there for each part id.</param>
/// <param name="Pans">What each drain pan holds.</param>
/// <param name="Oils">What is in hand for each fluid, by fluid id.</param>
public sealed record LaidOut(IReadOnlyDictionary<PartId, KitPart> Parts, IReadOnlyList<Quantity<Volume>> Pans,
    IReadOnlyDictionary<FluidId, OilLaidOut> Oils);

/// <summary>What somebody laid out for one fluid. What it lacks is judged by the card, not said here.</summary>
/// <param name="Amount">How much in all for this card, what is poured already with it.</param>
/// <param name="Product">What is printed on the can; two that go into one fill stand with a plus between them.</param>
/// <param name="Reason">Why it goes in although it lacks something.</param>
public sealed record OilLaidOut(Quantity<Volume> Amount, string Product, string Reason = "");

/// <summary>What lies there for one part.</summary>
/// <param name="Choice">New, the old one, another number, or nothing.</param>
/// <param name="Number">The number printed on it; empty for the sheet's own.</param>
/// <param name="Reason">Why, for the old one or another number.</param>
public sealed record KitPart(KitChoice Choice, string Number = "", string Reason = "")
{
    /// <summary>Stands in place of a number where the old seal goes back.</summary>
    public const string OldOneAgain = "old one again";
}

/// <summary>What lies there for a part.</summary>
public enum KitChoice
{
    /// <summary>A new one, with the number of the sheet or one that the stores lead to from it.</summary>
    InHand,

    /// <summary>The old seal goes back.</summary>
    OldAgain,

    /// <summary>A part with another number.</summary>
    Other,

    /// <summary>Nothing.</summary>
    Missing,
}

/// <summary>What is in hand for one fluid.</summary>
/// <param name="Amount">How much.</param>
/// <param name="Product">What is printed on the can, with its batch.</param>
/// <param name="Lacks">What it lacks of what the sheet asks for, in words; empty when it fits.</param>
/// <param name="Reason">Why it goes in all the same.</param>
public sealed record KitOil(Quantity<Volume> Amount, string Product, string Lacks = "", string Reason = "")
{
    /// <summary>The products by name: two that go into one fill are written with a plus between them.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IReadOnlyList<string> Products => NamesIn(Product);

    /// <summary>The products that a text names.</summary>
    /// <param name="product">One, or several with a plus between them.</param>
    public static string[] NamesIn(string product) =>
        product.Split('+', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
}
