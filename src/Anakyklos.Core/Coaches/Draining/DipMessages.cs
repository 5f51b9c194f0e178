using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>The level was read before the fluid is let out.</summary>
/// <param name="Step">The step that lets it out.</param>
/// <param name="Level">Where it stood.</param>
/// <param name="AgainstWarning">What did not go with what was filled last; null for nothing.</param>
public sealed record Dipped(StepId Step, Level Level, string? AgainstWarning = null) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => AgainstWarning is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>The level was read before the fluid is let out.</summary>
/// <param name="Step">The step that lets it out.</param>
/// <param name="Level">Where it stands.</param>
/// <param name="Meant">The person was asked about it and stands by it.</param>
public sealed record Dip(StepId Step, Level Level, bool Meant = false) : StepCommand(Step);

/// <summary>Does it really stand there, after what was filled last?</summary>
/// <param name="Text">The question, with what may be behind it, the likeliest first.</param>
/// <param name="Level">What was read.</param>
public sealed record DipQuestion(string Text, Level Level) : Question(Text);

/// <summary>What may be said before a fluid is let out.</summary>
internal sealed class DipCommands : ICommandPage
{
    private static readonly CommandField<Level> Level = Field.Place("level", "where it stands between the marks, 0 to 1");
    private static readonly CommandField<bool> Meant = Field.Yes("meant", "whether it was asked about and is meant");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("dip", "The level was read before the fluid is let out", [Field.Step, Level, Meant],
            said => new Dip(said.Of(Field.Step), said.Of(Level), said.Of(Meant))),
    ];
}
