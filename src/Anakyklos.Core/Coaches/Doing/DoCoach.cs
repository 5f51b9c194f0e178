using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Doing;

/// <summary>Something is done that truly is one sentence: nothing is opened, closed or measured.</summary>
internal sealed class DoCoach : PressedCoach
{
    public override string Kind => "do";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Either, MayBeLeftOut = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
