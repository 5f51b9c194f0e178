using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.LayingOut;

/// <summary>What may be said when a kit is laid out. What an oil lacks, and what stands in for a part, is judged here and not
/// said.</summary>
internal sealed class KitCommands : ICommandPage
{
    private static readonly CommandField<KitChoice> Choice = Field.Choice<KitChoice>("choice", "what lies there",
        "Nobody knows what lies there.", "Say new, old again, another number or not here.");

    private static readonly CommandField<string> Number = Field.Text("number", "the number printed on it");
    private static readonly CommandField<Typed<Volume>> InHand = Field.Amount<Volume>("amount", "how much is in hand in all");
    private static readonly CommandField<string> Product = Field.Text("product", "what is printed on the can");

    private static readonly CommandField<IReadOnlyDictionary<PartId, KitPart>> Parts = Field.Entries<PartId, KitPart>("parts",
        "what lies there for each part", [Choice, Number, Field.Reason],
        said => new KitPart(said.Of(Choice), said.Of(Number), said.Of(Field.Reason)));

    private static readonly CommandField<IReadOnlyList<Quantity<Volume>>> Pans = Field.Amounts<Volume>("pan", "what each drain pan holds");

    private static readonly CommandField<IReadOnlyDictionary<FluidId, OilLaidOut>> Oils = Field.Entries<FluidId, OilLaidOut>("oils",
        "what is in hand of each fluid", [InHand, Product, Field.Reason],
        said => new OilLaidOut(said.Of(InHand).Value, said.Of(Product), said.Of(Field.Reason)));

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("kit", "Parts, pans and oil are laid out", [Field.Step, Parts, Pans, Oils],
            said => new ConfirmKit(said.Of(Field.Step), said.Of(Parts), said.Of(Pans), said.Of(Oils))),
    ];
}
