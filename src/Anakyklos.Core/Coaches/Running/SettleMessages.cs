using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The joints in sight were dry while the engine ran, and it was switched off.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Joints">Fastener ids of the joints that were looked at.</param>
public sealed record SwitchedOffDry(StepId Step, IReadOnlyList<FastenerId> Joints) : CardEvent, IStepEvent;

/// <summary>The joints in sight are dry while the engine runs, and it is switched off.</summary>
/// <param name="Step">Step id.</param>
public sealed record SwitchOffDry(StepId Step) : StepCommand(Step);

/// <summary>What may be said where the engine is switched off.</summary>
internal sealed class SettleCommands : ICommandPage
{
    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("offDry", "The joints in sight were dry while it ran, and it is switched off", [Field.Step],
            said => new SwitchOffDry(said.Of(Field.Step))),
    ];
}
