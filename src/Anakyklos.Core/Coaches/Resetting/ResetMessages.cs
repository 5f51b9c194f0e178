using System.Text.Json.Serialization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Resetting;

/// <summary>Something is held, or waited for, from now.</summary>
/// <param name="Step">Step id of the move.</param>
/// <param name="For">For how long.</param>
public sealed record ResetHeld(StepId Step, TimeSpan For) : CardEvent, IGoesOn;

/// <summary>The display did not answer as it should: the reset begins again.</summary>
/// <param name="Step">Step id of the move that failed.</param>
/// <param name="Shows">What it showed instead; empty for nothing.</param>
/// <param name="Again">The move at which it begins again, from 1.</param>
/// <param name="Device">The scan tool that showed it; null when a person said it.</param>
public sealed record ResetFailed(StepId Step,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] string? Shows = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] int Again = 0,
    DeviceId? Device = null) : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Reset;
}

/// <summary>A scan tool showed what it should: the move is made.</summary>
/// <param name="Step">Step id of the move.</param>
/// <param name="Shows">What it showed.</param>
/// <param name="Device">The tool.</param>
public sealed record ResetAnswered(StepId Step, string Shows, DeviceId Device) : CardEvent, IGoesOn;

/// <summary>A distance or months were typed in, or shown as the next service.</summary>
/// <param name="Step">Step id of the move.</param>
/// <param name="Distance">The distance, in the unit of the display; null where it is months.</param>
/// <param name="Months">The months; null where it is a distance.</param>
/// <param name="Device">The scan tool that took it; null when a person said it.</param>
public sealed record ResetShown(StepId Step, Typed<Distance>? Distance, int? Months, DeviceId? Device = null) : CardEvent, IGoesOn;

/// <summary>Somebody looked why a reset fails.</summary>
/// <param name="Step">Step id of the move.</param>
/// <param name="Found">What was found.</param>
public sealed record ResetLookedInto(StepId Step, string Found) : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Reset;
}

/// <summary>Something is held, or waited for, from now.</summary>
/// <param name="Step">Step id.</param>
public sealed record HoldReset(StepId Step) : StepCommand(Step);

/// <summary>The display did not answer, or says something else.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Shows">What it says; empty for nothing.</param>
public sealed record FailReset(StepId Step, string Shows = "") : StepCommand(Step);

/// <summary>Another value than was worked out was typed in, or is shown.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Distance">The distance, or null.</param>
/// <param name="Months">The months, or null.</param>
public sealed record ShowReset(StepId Step, Typed<Distance>? Distance, int? Months) : StepCommand(Step);

/// <summary>A scan tool shows something. No page and no file can say so.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Shows">What it shows, up to 60 characters.</param>
/// <param name="Device">The tool.</param>
public sealed record HearTool(StepId Step, string Shows, DeviceId Device) : StepCommand(Step);

/// <summary>Somebody looked why it fails.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Found">What was found.</param>
public sealed record LookIntoReset(StepId Step, string Found) : StepCommand(Step);

/// <summary>What may be said while an indicator is put out.</summary>
internal sealed class ResetCommands : ICommandPage
{
    private static readonly CommandField<string> Shows = Field.Text("shows", "what the display shows");
    private static readonly CommandField<string> Found = Field.Text("found", "what was found");
    private static readonly CommandField<int?> Months = Field.Count("months", "the months to the next service");

    private static readonly CommandField<Typed<Distance>?> Far = Field.AmountIfAny<Distance>("distance",
        "the distance to the next service");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("resetHeld", "What is held or waited for at a reset is, from now", [Field.Step], said => new HoldReset(said.Of(Field.Step))),
        new("fail", "The display did not answer, or says something else", [Field.Step, Shows],
            said => new FailReset(said.Of(Field.Step), said.Of(Shows))),
        new("resetShows", "Another next service than was worked out was typed in, or is shown", [Field.Step, Far, Months],
            said => new ShowReset(said.Of(Field.Step), said.Of(Far), said.Of(Months))),
        new("resetFound", "It was looked why a reset fails", [Field.Step, Found],
            said => new LookIntoReset(said.Of(Field.Step), said.Of(Found))),
    ];
}
