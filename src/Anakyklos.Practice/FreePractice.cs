using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>Practice without a lesson: any vehicle, any jobs, and so many things wrong that show themselves on the way.</summary>
public static class FreePractice
{
    /// <summary>The most that is wrong at once.</summary>
    public const int MostFaults = 4;

    /// <summary>The id of what is no named lesson.</summary>
    public static readonly LessonId Id = "free";

    /// <summary>A lesson of its own.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="jobs">The jobs of the card.</param>
    /// <param name="faults">How much is wrong, 0 to <see cref="MostFaults"/>; less where the jobs touch less that can be.</param>
    /// <param name="hot">Whether it was driven in just now.</param>
    /// <param name="chance">Gives a number from 0 up to, and without, the one it is asked for.</param>
    /// <exception cref="ArgumentOutOfRangeException">So much is never wrong at once.</exception>
    public static Lesson Of(ModelSheet sheet, IReadOnlyList<JobId> jobs, int faults, bool hot, Func<int, int> chance)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(faults);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(faults, MostFaults);
        var left = MayBeWrong(sheet, jobs).ToList();
        List<(Fault Fault, ToNotice Notice)> chosen = [];
        while (chosen.Count < faults && left.Count > 0)
        {
            // Of each kind alike, however many things it can happen to; at one thing only one.
            var kinds = left.GroupBy(f => f.Fault.GetType()).ToList();
            var kind = kinds[chance(kinds.Count)].ToList();
            var one = kind[chance(kind.Count)];
            chosen.Add(one);
            left.RemoveAll(f => f.Notice.What == one.Notice.What.Text);
        }
        return new(Id, $"{sheet.Name}: {string.Join(", ", jobs.Select(j => Words.Low(sheet.Jobs[j].Name)))}", 1, "Free practice",
            "Nobody says whether anything is wrong with it.",
            sheet.Id, jobs, hot, 1, [.. chosen.Select(c => c.Fault)], [.. chosen.Select(c => c.Notice)],
            [.. Enum.GetValues<HarmKind>().Where(k => k != HarmKind.OutOfReach)],
            "Look before you press, and tell the card what you find.", [new("TW-1", Torque.NewtonMetre)], null, []);
    }

    /// <summary>What can be wrong with the things that these jobs touch, and how it is noticed.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="jobs">Jobs of it.</param>
    public static IEnumerable<(Fault Fault, ToNotice Notice)> MayBeWrong(ModelSheet sheet, IReadOnlyList<JobId> jobs)
    {
        var steps = CardPlanner.Compose(sheet, jobs);
        var opened = steps.Where(s => s.Traits.Opens || s.Traits.LetsOut).Select(s => s.What.Text).ToHashSet();
        var tightened = steps.Where(s => s.Traits.Fastens).Select(s => s.What.Text).ToHashSet();
        var fitted = steps.Where(s => s.Traits.Fits).Select(s => s.What.Text).ToHashSet();
        var poured = steps.Select(sheet.Pours).OfType<FluidSystem>().Select(f => f.Id).ToHashSet();
        foreach (var f in sheet.Fasteners.Values.Where(f => opened.Contains(f.Id.Text)))
        {
            var low = Words.Low(f.Name);
            yield return (new Seized(f.Id), new(f.Id, $"{f.Name}: it does not move", true));
            if (f.Drains is not null)
                yield return (new Slivers(f.Id), new(f.Id, $"Slivers hang on the {low}", true));
            if (f.Seal is { } seal && fitted.Contains(seal.Text))
                yield return (new OldRingStays(f.Id), new(f.Id, $"The old ring stayed on the face of the {low}", false));
            if (tightened.Contains(f.Id.Text) && f.Count == 1 && f.LastTorque is not null)
                yield return (new Stripped(f.Id), new(f.Id, $"{f.Name}: it turns on and on", true));
            if (f.Drains is { } fluid && poured.Contains(fluid))
            {
                yield return (new Milky(fluid), new(fluid, $"{sheet.Fluids[fluid].Name}: it is milky", true));
                yield return (new Thinned(fluid), new(fluid, $"{sheet.Fluids[fluid].Name}: it is thin and smells of fuel", true));
            }
        }
        foreach (var p in sheet.Parts.Values.Where(p => fitted.Contains(p.Id.Text) && !p.IsSeal && Things.Holder(sheet, p.Id) is { } holder
            && opened.Contains(holder.Id.Text)))
            yield return (new WrongInBox(p.Id), new(p.Id, $"The new {Words.Low(p.Name)} is half the size of the old one", true));
        foreach (var fluid in poured)
            yield return (new WrongInCan(fluid), new(fluid, $"The can of {Words.Low(sheet.Fluids[fluid].Name)} holds another oil", false));
    }
}
