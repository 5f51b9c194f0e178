using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Planning;

/// <summary>Makes the steps of a card from the jobs wanted.</summary>
public static class CardPlanner
{
    /// <summary>
    /// The steps of the jobs in the sheet's own order; a step that several jobs share stands once, where the first needs it.
    /// A reset becomes one step for each of its moves.
    /// </summary>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">Ids of jobs in that sheet.</param>
    /// <exception cref="KeyNotFoundException">The sheet has no such job.</exception>
    public static IReadOnlyList<SheetStep> Compose(ModelSheet sheet, IEnumerable<string> jobs) =>
        [.. jobs.SelectMany(id => sheet.Jobs[id].Steps).Distinct().SelectMany(id => Expand(sheet, sheet.Steps[id]))];

    private static IEnumerable<SheetStep> Expand(ModelSheet sheet, SheetStep step)
    {
        if (step.Kind != StepKind.Reset)
            return [step];
        var ritual = sheet.Resets[step.What];
        var last = ritual.Moves.Count;
        return ritual.Moves.Select((move, i) => step with
        {
            Id = $"{step.Id}-{i + 1}",
            Title = move.Do,
            Hold = move.Hold,
            Expect = move.Expect,
            EndsReset = i + 1 == last,
            From = ritual.From,
        });
    }
}
