using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>What may be said while something is tightened.</summary>
internal sealed class TighteningCommands : ICommandPage
{
    private static readonly CommandField<Typed<Torque>> Torque = Field.Amount<Torque>("torque", "what the wrench said");
    private static readonly CommandField<bool> Meant = Field.Yes("meant", "whether the unit was asked about and is meant");
    private static readonly CommandField<string> What = Field.Text("what", "what was done about it");
    private static readonly CommandField<int> Of = Field.Number("of", "the number of the reading");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("reading", "A torque was read", [Field.Step, Torque, Meant],
            said => new TakeReading(said.Of(Field.Step), said.Of(Torque), said.Of(Meant))),
        new("correct", "A reading was noted wrongly and is put right", [Of, Torque, Field.Reason],
            said => new CorrectReading(said.Of(Of), said.Of(Torque), said.Of(Field.Reason))),
        new("settled", "Something was done about too much torque", [Field.Step, What],
            said => new SettleOverTorque(said.Of(Field.Step), said.Of(What))),
    ];
}
