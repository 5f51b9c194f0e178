using Anakyklos.Core.Cards;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Wording;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A sample with what its answer says; the vehicle's other samples of that fluid stand beside it.</summary>
/// <param name="Entry">The sample.</param>
/// <param name="Judgement">The answer, judged; null while there is none.</param>
/// <param name="Story">All answers of that fluid of that vehicle up to this one, the oldest first.</param>
public sealed record SampleStory(SampleEntry Entry, LabJudgement? Judgement, IReadOnlyList<ResultBefore> Story);

/// <summary>Samples on their way to the laboratory and back.</summary>
public sealed class LabDesk(SampleStore samples, WorkshopClock clock)
{
    /// <summary>All samples, the newest first.</summary>
    public IReadOnlyList<SampleEntry> All() => samples.All();

    /// <summary>Answers that nobody took note of yet.</summary>
    public IReadOnlyList<SampleEntry> Unseen() => samples.Unseen();

    /// <summary>A sample with what its answer says.</summary>
    /// <param name="code">Its code, however it is typed.</param>
    /// <returns>Null when there is none of this code.</returns>
    public SampleStory? Of(string code)
    {
        if (SampleCode.Read(code) is not { } known || samples.Find(known) is not { } entry)
            return null;
        var before = Before(entry.Sample, samples.Of(entry.Sample.Plate));
        return entry.Result is not { } result ? new(entry, null, before)
            : new(entry, LabRules.Judge(result, entry.Sample.OnOil, entry.Sample.Grades, before),
                [.. before, new(result, entry.Sample.OnOil)]);
    }

    /// <summary>The last answer to each fluid of a vehicle, for its next card.</summary>
    /// <param name="plate">Its plate.</param>
    /// <returns>Null where there is none.</returns>
    public IReadOnlyList<SampledBefore>? LastOf(string plate)
    {
        IReadOnlyList<SampledBefore> last = [.. samples.Of(plate).Where(s => s.Result is not null).GroupBy(s => s.Sample.Fluid)
            .Select(g => g.Last()).Select(s => new SampledBefore(s.Sample.Code, s.Sample.Fluid, s.Result!.Day, s.Leads!.Value, s.Says))];
        return last.Count > 0 ? last : null;
    }

    /// <summary>Notes that a sample went to the laboratory.</summary>
    /// <param name="code">Its code.</param>
    /// <returns>Whether there is such a sample.</returns>
    public async Task<bool> Send(string code)
    {
        if (samples.Find(code) is null)
            return false;
        await samples.Send(code, clock.Now);
        return true;
    }

    /// <summary>Notes who took note of an answer.</summary>
    /// <param name="code">The code of the sample.</param>
    /// <param name="by">Who.</param>
    public Task<int> TakeNote(string code, PersonId by) => samples.Seen(code, by);

    /// <summary>Takes in a file of results, all of it or nothing; the same file twice does no harm.</summary>
    /// <param name="text">Its text.</param>
    /// <returns>How many were new, or what is wrong with it.</returns>
    public async Task<(int Answered, IReadOnlyList<Refusal> Wrong)> BringIn(string text)
    {
        var (results, wrong) = LabFiles.Read(text, clock.Today);
        if (wrong.Count > 0)
            return (0, wrong);
        var (judged, refused) = (new List<JudgedResult>(), new List<Refusal>());
        foreach (var result in results)
        {
            if (samples.Find(result.Code) is not { } entry)
                refused.Add(new($"No sample {result.Code} was taken here.", "Look at the label."));
            else if (result.Day < clock.Day(entry.Sample.TakenAt))
                refused.Add(new($"The report on {result.Code} is older than the sample.", "Look at its day."));
            else if (entry.Result is { } known && !Same(known, result))
                refused.Add(new($"{result.Code} was answered before, with other values.", "Ask the laboratory which of them holds."));
            else
                judged.Add(Judged(result, entry.Sample));
        }
        return refused.Count > 0 ? (0, refused) : (await samples.Answer(judged, clock.Now), []);
    }

    private JudgedResult Judged(OilResult result, OilSample sample)
    {
        var judgement = LabRules.Judge(result, sample.OnOil, sample.Grades, Before(sample, samples.Of(sample.Plate)));
        return new(result, judgement.Leads, LabWords.Says(judgement));
    }

    private static IReadOnlyList<ResultBefore> Before(OilSample sample, IReadOnlyList<SampleEntry> all) =>
        [.. all.Where(s => s.Sample.Fluid == sample.Fluid && s.Sample.TakenAt < sample.TakenAt && s.Result is not null)
            .Select(s => new ResultBefore(s.Result!, s.Sample.OnOil))];

    private static bool Same(OilResult a, OilResult b) => a.Day == b.Day && a.Values.Count == b.Values.Count
        && a.Values.All(v => b.Values.TryGetValue(v.Key, out var other) && other == v.Value);
}
