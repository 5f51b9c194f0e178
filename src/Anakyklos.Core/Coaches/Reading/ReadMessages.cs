using Anakyklos.Core.Cards;
using Anakyklos.Core.Looks;

namespace Anakyklos.Core.Coaches.Reading;

/// <summary>Something was looked at that came out.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Look">What was seen.</param>
/// <param name="Leads">What followed from it.</param>
public sealed record Seen(StepId Step, Look Look, LookOutcome Leads) : CardEvent, IGoesOn;

/// <summary>Something was looked at that came out.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Look">What was seen.</param>
public sealed record See(StepId Step, Look Look) : StepCommand(Step);

/// <summary>What may be said when something is looked at that came out.</summary>
internal sealed class ReadCommands : ICommandPage
{
    private static readonly CommandField<LookSubject> Subject = Field.Choice<LookSubject>("subject", "what was looked at",
        "Say what was looked at.", "Magnet, fluid, filter or seal.");

    private static readonly CommandField<Appearance> Looks = Field.Choice<Appearance>("looks", "how it looks",
        "Say how it looks.", "Choose one of the pictures.");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("see", "Something that came out was looked at", [Field.Step, Subject, Looks],
            said => new See(said.Of(Field.Step), new(said.Of(Subject), said.Of(Looks)))),
    ];
}
