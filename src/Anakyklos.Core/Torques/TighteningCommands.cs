using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Torques;

/// <summary>What may be said while something is tightened.</summary>
internal sealed class TighteningCommands : ICommandPage
{
    private static readonly CommandField<NumberSaid<Torque>> Torque = Field.AmountOrNumber<Torque>("torque", "what the wrench said");
    private static readonly CommandField<bool> Meant = Field.Yes("meant", "whether the unit was asked about and is meant");
    private static readonly CommandField<string> What = Field.Text("what", "what was done about it");
    private static readonly CommandField<int> Of = Field.Number("of", "the number of the reading");
    private static readonly CommandField<int> Pass = Field.Number("pass", "the pass");
    private static readonly CommandField<int> Place = Field.Number("place", "the number of the fastener");
    private static readonly CommandField<string> Wrench = Field.Text("wrench", "the wrench");
    private static readonly CommandField<Typed<Torque>?> Setting = Field.AmountIfAny<Torque>("setting", "what the wrench is set to");
    private static readonly CommandField<Typed<Length>?> Length = Field.AmountIfAny<Length>("length", "the length of the crow-foot");
    private static readonly CommandField<int?> Degrees = Field.Count("degrees", "its angle to the handle, in degrees");

    private static readonly CommandField<string> Number = Field.Text("number", "the number on the new seal");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("reading", "A torque was read", [Field.Step, Torque, Meant],
            said => new TakeReading(said.Of(Field.Step), said.Of(Torque), said.Of(Meant))),
        new("drawn", "Fasteners were drawn down in their order, up to this one", [Field.Step, Pass, Place, Wrench, Setting],
            said => new DrawInOrder(said.Of(Field.Step), said.Of(Pass), said.Of(Place), said.Of(Wrench), said.Of(Setting))),
        new("wrench", "Another wrench was taken up, or a crow-foot put on", [Field.Step, Wrench, Length, Degrees],
            said => new TakeWrench(said.Of(Field.Step), said.Of(Wrench), said.Of(Length), said.Of(Degrees))),
        new("correct", "A reading was noted wrongly and is put right", [Of, Torque, Field.Reason],
            said => new CorrectReading(said.Of(Of), said.Of(Torque), said.Of(Field.Reason))),
        new("settled", "Something was done about too much torque", [Field.Step, What],
            said => new SettleOverTorque(said.Of(Field.Step), said.Of(What))),
        new("wasLoose", "A joint that leaked turned under the wrench: its seal stays", [Field.Step],
            said => new SayJointWasLoose(said.Of(Field.Step))),
        new("newSeal", "A joint that leaked has a new seal", [Field.Step, Number],
            said => new RenewSeal(said.Of(Field.Step), said.Of(Number))),
    ];
}
