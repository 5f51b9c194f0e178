using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>What may be said while something is filled.</summary>
internal sealed class FillCommands : ICommandPage
{
    private static readonly CommandField<Typed<Volume>> In = Field.Amount<Volume>("amount", "how much went in");
    private static readonly CommandField<Typed<Volume>> Out = Field.Amount<Volume>("amount", "how much came out");
    private static readonly CommandField<bool> Warned = Field.Yes("warned", "whether it was asked about and is meant");
    private static readonly CommandField<int?> From = Field.Count("from", "the number of the container that was poured from first");
    private static readonly CommandField<Typed<Length>> Depth = Field.Amount<Length>("depth", "how far below the filler it stands");
    private static readonly CommandField<Level> Level = Field.Place("level", "where it stands between the marks, 0 to 1");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("pour", "An amount went in", [Field.Step, In, Warned, From],
            said => new Pour(said.Of(Field.Step), said.Of(In), said.Of(Warned), said.Of(From))),
        new("takeOut", "An amount came out again", [Field.Step, Out], said => new TakeOut(said.Of(Field.Step), said.Of(Out))),
        new("runOver", "It runs out of the hole", [Field.Step, Warned], said => new RunOver(said.Of(Field.Step), said.Of(Warned))),
        new("stripped", "It was taken apart, and is dry inside", [Field.Step], said => new SayStripped(said.Of(Field.Step))),
        new("rod", "The rod was read", [Field.Step, Depth, Warned],
            said => new ReadRod(said.Of(Field.Step), said.Of(Depth), said.Of(Warned))),
        new("gaugeBeforeRun", "The level was read before the first run on what went in", [Field.Step, Level, Warned],
            said => new ReadBeforeRun(said.Of(Field.Step), said.Of(Level), said.Of(Warned))),
        new("gauge", "The level was read between its marks", [Field.Step, Level, Warned],
            said => new ReadGauge(said.Of(Field.Step), said.Of(Level), said.Of(Warned))),
    ];
}
