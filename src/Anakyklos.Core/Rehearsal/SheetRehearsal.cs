using Anakyklos.Core.Composing;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Rehearsal;

/// <summary>Reads a sheet and tries out every job of it, alone and with every other, so that what cannot be put on a card is found before
/// it is needed.</summary>
public static class SheetRehearsal
{
    /// <summary>Reads and rehearses a sheet; gives every error at once, with its line.</summary>
    /// <param name="utf8">The file's bytes.</param>
    /// <param name="cancel">Ends it when nobody waits for it any more.</param>
    /// <returns>The sheet, or every error with its line, those of the walks among them.</returns>
    /// <exception cref="OperationCanceledException">It was ended.</exception>
    public static SheetReading Read(byte[] utf8, CancellationToken cancel = default)
    {
        var reading = SheetReader.Read(utf8);
        if (reading.Sheet is not { } sheet)
            return reading;
        IReadOnlyList<Refusal> errors = [.. Rehearse(sheet, cancel)
            .Select(found => Refusal.At(reading.LineOf(found.Path), found.Path, found.Text)).Distinct().OrderBy(e => e.Line)];
        return errors.Count == 0 ? reading : new(null, errors);
    }

    private static IEnumerable<(string Path, string Text)> Rehearse(ModelSheet sheet, CancellationToken cancel)
    {
        var sound = new List<JobId>();
        foreach (var job in sheet.Jobs.Values)
        {
            cancel.ThrowIfCancellationRequested();
            var problem = Try(sheet, [job.Id]);
            if (problem is null)
                sound.Add(job.Id);
            else
                yield return ($"jobs.{job.Id}", problem);
        }
        foreach (var orphan in sheet.Steps.Values.Where(s => !s.MovesLift && sound.Count == sheet.Jobs.Count
            && sheet.Jobs.Keys.All(j => CardComposer.Compose(sheet,
            [j]).Steps.All(c => c.Id != s.Id && !(s.Traits.PutsOut && c.What == s.What)))))
            yield return ($"steps.{orphan.Id}", $"No job ever comes to “{orphan.Title}”. Name it in a job, or take it out.");
        var known = sound.SelectMany(j => CardComposer.Compose(sheet, [j]).Steps).Select(s => s.Id).Concat(sheet.Steps.Keys).ToHashSet();
        foreach (var step in sheet.Steps.Values)
            foreach (var lost in step.After.Where(a => !known.Contains(a) && sound.Count == sheet.Jobs.Count))
                yield return ($"steps.{step.Id}.after", $"There is no step “{lost}” in this sheet or on any of its cards.");
        for (var a = 0; a < sound.Count; a++)
            for (var b = a + 1; b < sound.Count; b++)
            {
                cancel.ThrowIfCancellationRequested();
                if (Try(sheet, [sound[a], sound[b]]) is { } clash)
                    yield return ($"jobs.{sound[b]}", $"Together with {sheet.Jobs[sound[a]].Name.ToLowerInvariant()}: {clash}");
            }
    }

    private static string? Try(ModelSheet sheet, JobId[] jobs)
    {
        try
        {
            var work = CardComposer.Compose(sheet, jobs);
            if (work.Steps.All(s => s.Traits.LaysOut || s.Id == UsualSteps.Label))
                return "This job does nothing. Say what it works on, or which steps it has.";
            if (work.Steps.Count > OrderingProblem.Most)
                return $"This makes {work.Steps.Count} steps; {OrderingProblem.Most} is the most for one card.";
            return CardWalk.Refused(sheet, jobs);
        }
        catch (ComposingException e)
        {
            return e.Message;
        }
    }
}
