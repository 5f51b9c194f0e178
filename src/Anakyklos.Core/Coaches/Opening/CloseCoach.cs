using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Opening;

/// <summary>An access is closed, or what holds the vehicle is taken away.</summary>
internal sealed class CloseCoach : PressedCoach
{
    public override string Kind => "close";

    public override StepTraits Traits(SheetStep step) => new() { Closes = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Access.ContainsKey(step.What) ? null : "an access";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var (access, sheet) = (card.Sheet.Access[step.What], card.Sheet);
        if (!card.HasOpen(access))
            yield return new($"The {Words.Low(access.Name)} is not open.", "Go on with the next step.", Ground: Ground.Already);
        foreach (var f in sheet.Fasteners.Values.Where(f => card.HasOpen(f) && f.Needs.Contains(access.Id)))
            yield return new($"The {Words.Low(f.Name)} behind it {f.Is} still open.", "Close that first.",
                card.First(s => s.Traits.Fastens && s.What == f.Id), Ground: Ground.Shut);
        foreach (var a in sheet.Access.Values.Where(a => card.HasOpen(a) && a.Needs.Contains(access.Id)))
            yield return new($"The {Words.Low(a.Name)} behind it is still open.", "Close that first.",
                card.First(s => s.Traits.Closes && s.What == a.Id), Ground: Ground.Shut);
        if (access.AfterLeakCheck && (!card.JointsLookedAt || (card.AnyClosed && card.First(s => s.Traits.LooksAtJoints) is not null)))
            yield return new("The opened joints have not been looked at since they were closed.",
                "Run the engine, then look at every joint.",
                card.First(s => s.Traits.LooksAtJoints), Ground: Ground.Looked);
        if (access.HoldsVehicle && card.LiftUp)
            yield return new("The vehicle is up.", "They stay until it is down.", Ground: Ground.Lift);
        // What comes after it is set a second time does not hold it.
        if (access.HoldsVehicle && card.Remaining.TakeWhile(s => !s.Traits.Sets || s.What != access.Id)
            .FirstOrDefault(s => s.Lift == LiftNeed.Up && !s.MovesLift) is { } still)
            yield return new($"“{card.TitleOf(still)}” still needs the lift.", "They stay until that is done.", still.Id,
                Ground: Ground.Lift);
    }

    protected override Decision Pressed(StepAt at, ConfirmStep said)
    {
        var access = at.Sheet.Access[at.Step.What];
        if (said.Count is not { } count || access.Count == 0)
            return base.Pressed(at, said);
        var most = at.Card.Open.First(o => o.What == new OpenRef(OpenKind.Access, access.Id)).Count;
        if (count < 0 || count > most)
            return No($"{count} {access.CountOf} cannot be: there are {most}.", "Count again.", field: "count");
        if (count == access.Count)
            return Yes(new StepDone(at.Id, count));
        return Wordless(said.Reason, "reason", $"{count} of {access.Count} {access.CountOf} went in. The reason") ?? (Decision)Yes(
            new DeviationTaken(at.Id, DeviationKind.CountShort, "", $"{access.Name}: {count} of {access.Count} {access.CountOf}",
                said.Reason, true),
            new StepDone(at.Id, count));
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        [new Closes(new(OpenKind.Access, step.What))];
}
