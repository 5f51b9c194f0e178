using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The vehicle is driven: everything is closed by then.</summary>
internal sealed class DriveCoach : PressedCoach
{
    public override string Kind => "drive";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Drives, MayBeLeftOut = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
