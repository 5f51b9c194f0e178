using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The vehicle set off.</summary>
/// <param name="Step">Step id.</param>
public sealed record RoadBegun(StepId Step) : CardEvent, IGoesOn;

/// <summary>Something was tried on the road.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Try">Which, from 0.</param>
/// <param name="Went">How it went.</param>
/// <param name="Words">What it did where that was not as it should; empty otherwise.</param>
public sealed record RoadTried(StepId Step, int Try, TryWent Went, string Words) : CardEvent, IGoesOn;

/// <summary>The vehicle is back.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Far">How far it was driven.</param>
/// <param name="Where">Where.</param>
public sealed record RoadEnded(StepId Step, Typed<Distance> Far, string Where) : CardEvent, IGoesOn;

/// <summary>The vehicle sets off.</summary>
/// <param name="Step">Step id.</param>
public sealed record SetOff(StepId Step) : StepCommand(Step);

/// <summary>Something was tried.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Try">Which, from 0.</param>
/// <param name="Went">How it went.</param>
/// <param name="Words">What it did, where that was not as it should.</param>
public sealed record SayTried(StepId Step, int Try, TryWent Went, string Words = "") : StepCommand(Step);

/// <summary>The vehicle is back.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Far">How far it was driven.</param>
/// <param name="Where">Where.</param>
public sealed record ComeBack(StepId Step, Typed<Distance> Far, string Where) : StepCommand(Step);

/// <summary>How a road test stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Went">How each went; null where nobody has said.</param>
public sealed record RoadTest(DriveSpec Spec, IReadOnlyList<TryWent?> Went)
{
    /// <summary>The first that has no answer; null when all have.</summary>
    public int? Next => Went.ToList().FindIndex(w => w is null) is var at and >= 0 ? at : null;

    /// <summary>Whether one did not do what it should: the rest is not tried then.</summary>
    public bool HasFailed => Went.Contains(TryWent.Failed);

    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step whose sheet says what is tried.</param>
    public static RoadTest Of(JobCard card, SheetStep step)
    {
        var spec = (DriveSpec)step.Spec!;
        return new(spec, [.. spec.Tries.Select((_, i) => card.TriedAt(step.Id, i))]);
    }
}

/// <summary>What may be said of a road test.</summary>
internal sealed class DriveCommands : ICommandPage
{
    private static readonly CommandField<int> Try = Field.Number("try", "what was tried, counted from 0");
    private static readonly CommandField<string> Words = Field.Text("words", "what it did");
    private static readonly CommandField<string> Where = Field.Text("where", "where it was driven");
    private static readonly CommandField<Typed<Distance>> Far = Field.Amount<Distance>("far", "how far it was driven");

    private static readonly CommandField<TryWent> Went = Field.Choice<TryWent>("went", "how it went", "Say how it went.",
        "Well, strange or failed.");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("setOff", "The vehicle sets off on its road test", [Field.Step], said => new SetOff(said.Of(Field.Step))),
        new("tried", "Something was tried on the road", [Field.Step, Try, Went, Words],
            said => new SayTried(said.Of(Field.Step), said.Of(Try), said.Of(Went), said.Of(Words))),
        new("roadEnded", "The vehicle is back from its road test", [Field.Step, Far, Where],
            said => new ComeBack(said.Of(Field.Step), said.Of(Far), said.Of(Where))),
    ];
}
