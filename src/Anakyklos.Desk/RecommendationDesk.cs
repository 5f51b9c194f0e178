using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What was recommended for a vehicle on any of its cards, and what became of it.</summary>
public sealed class RecommendationDesk(RecommendationStore store, CardStore cards, WorkshopClock clock)
{
    /// <summary>Everything that was graded “plan it” or “keep an eye on it” on its signed cards, the newest first; what an eye is kept
    /// on in the same words again and again stands once, where it was found last.</summary>
    /// <param name="plate">The vehicle.</param>
    public IReadOnlyList<Recommendation> Of(string plate)
    {
        var with = store.CardsWithFindings(plate);
        if (with.Count == 0)
            return [];
        var answers = store.Answers(plate);
        return [.. with.SelectMany(id => cards.Find(id)!.Findings
            .Where(f => f.Event.Grade is FindingGrade.PlanIt or FindingGrade.KeepAnEye).Reverse()
            .Select(f => new Recommendation(id, f.Seq, f.Recorded.At, f.Event.Text, f.Recorded.By.Name,
                answers.GetValueOrDefault((id, f.Seq)), f.Event.Grade == FindingGrade.KeepAnEye)))
            .DistinctBy(r => r.IsWatched ? r.Text : Name(r))];
    }

    /// <summary>Another number after every answer.</summary>
    public long Changes => store.Changes;

    /// <summary>Notes what became of a recommendation.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="of">The card and the seq of the finding, such as 1006.14.</param>
    /// <param name="became">“done” or “declined”.</param>
    /// <param name="who">Who did or declined it.</param>
    /// <param name="words">What was done, or why not.</param>
    /// <param name="by">Who notes it.</param>
    /// <returns>What is wrong, by the fields <c>became</c>, <c>who</c> and <c>words</c>.</returns>
    public async Task<IReadOnlyList<Refusal>> Answer(string plate, string? of, string? became, string? who, string? words, Person by)
    {
        var (name, said, wrong) = ((who ?? "").Trim(), (words ?? "").Trim(), new List<Refusal>());
        if (Of(plate).FirstOrDefault(r => Name(r) == of) is not { } recommended)
            return [new("This was not recommended on any card of the vehicle.", "Load the page again.")];
        if (became is not ("done" or "declined"))
            wrong.Add(new("Nothing says what became of it.", "Choose done or declined.", Field: "became"));
        if (name.Length == 0)
            wrong.Add(new("A name is missing.", "Say who did it, or who does not want it.", Field: "who"));
        if (said.Length == 0)
            wrong.Add(new("Words are missing.", "Say what was done, or why not.", Field: "words"));
        foreach (var (field, text) in new[] { ("who", name), ("words", said) })
            if (text.Length > Decision.LongestText)
                wrong.Add(new($"That is {text.Length} characters long.", $"Keep it to {Decision.LongestText}.", Field: field));
        if (wrong.Count == 0)
            await store.Answer(recommended.Card, recommended.Seq, became == "declined", name, said, by.Id, clock.Now);
        return wrong;
    }

    /// <summary>The name of a recommendation in a form.</summary>
    public static string Name(Recommendation recommended) => $"{recommended.Card}.{recommended.Seq}";
}
