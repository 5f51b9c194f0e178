using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Inspecting;

/// <summary>A point was measured, or an answer was chosen.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Reads">What the gauge said, in full; several across it with a semicolon between; or the answer as it
/// stands in the sheet.</param>
/// <param name="Outcome">What it is worth.</param>
public sealed record PointInspected(StepId Step, string Point, string Reads, PointOutcome Outcome) : CardEvent, IGoesOn;

/// <summary>What does not pass stays as it is.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
public sealed record PointStays(StepId Step, string Point) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.LetStay;
}

/// <summary>A point was measured.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Value">As it was typed: a bare number is on the scale of the gauge. Empty where blades were used.</param>
/// <param name="Goes">The blade that goes in, as it was typed; empty where no blades were used.</param>
/// <param name="Not">The blade that does not.</param>
/// <param name="Again">It was settled, and is measured once more.</param>
public sealed record MeasurePoint(StepId Step, string Point, string Value, string Goes = "", string Not = "", bool Again = false)
    : StepCommand(Step);

/// <summary>An answer was chosen.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
/// <param name="Says">In the sheet's words.</param>
/// <param name="Again">It was settled, and is looked at once more.</param>
public sealed record AnswerPoint(StepId Step, string Point, string Says, bool Again = false) : StepCommand(Step);

/// <summary>Every point that is left was looked at, and is as it usually is.</summary>
/// <param name="Step">Step id.</param>
public sealed record AnswerTheRest(StepId Step) : StepCommand(Step);

/// <summary>What does not pass cannot be set, and stays as it is.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Point">The point of it.</param>
public sealed record LetPointStay(StepId Step, string Point) : StepCommand(Step);

/// <summary>What may be said at a list of inspections.</summary>
internal sealed class InspectCommands : ICommandPage
{
    private static readonly CommandField<string> Point = Field.Text("point", "the point", needed: true);
    private static readonly CommandField<string> Value = Field.Text("value", "what the gauge said");
    private static readonly CommandField<string> Goes = Field.Text("goes", "the blade that goes");
    private static readonly CommandField<string> Not = Field.Text("not", "the blade that does not go");
    private static readonly CommandField<bool> Again = Field.Yes("again", "whether it was settled and is done once more");
    private static readonly CommandField<string> Says = Field.Text("says", "how it is");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("measured", "A point was measured", [Field.Step, Point, Value, Goes, Not, Again], said =>
            new MeasurePoint(said.Of(Field.Step), said.Of(Point), said.Of(Value), said.Of(Goes), said.Of(Not), said.Of(Again))),
        new("answered", "A point was looked at", [Field.Step, Point, Says, Again],
            said => new AnswerPoint(said.Of(Field.Step), said.Of(Point), said.Of(Says), said.Of(Again))),
        new("rest", "Every point that is left is as it usually is", [Field.Step], said => new AnswerTheRest(said.Of(Field.Step))),
        new("stays", "What does not pass stays as it is", [Field.Step, Point],
            said => new LetPointStay(said.Of(Field.Step), said.Of(Point))),
    ];
}
