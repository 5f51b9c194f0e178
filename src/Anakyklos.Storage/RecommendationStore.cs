using Anakyklos.Core.Workshop;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>What became of what was recommended.</summary>
public sealed class RecommendationStore(WorkshopDatabase database)
{
    private long _changes;

    /// <summary>Another number after everything that was written here.</summary>
    public long Changes => Interlocked.Read(ref _changes);

    /// <summary>The signed cards of a vehicle on which anything was found, the newest first.</summary>
    /// <param name="plate">Its plate.</param>
    public IReadOnlyList<CardNumber> CardsWithFindings(string plate)
    {
        using var connection = database.Connect();
        return [.. connection.Query<long>("""
            select id from card where plate = @plate and signed_at is not null
                and exists (select 1 from event where card_id = card.id and body like '{"event":"FindingNoted"%')
            order by id desc
            """, new { plate }).Select(id => new CardNumber(id))];
    }

    /// <summary>What became of the findings of a vehicle's cards, by card and seq.</summary>
    /// <param name="plate">Its plate.</param>
    public IReadOnlyDictionary<(CardNumber Card, int Seq), RecommendationAnswer> Answers(string plate)
    {
        using var connection = database.Connect();
        var answers = new Dictionary<(CardNumber, int), RecommendationAnswer>();
        foreach (var r in connection.Query<(long Card, int Seq, bool Declined, string Who, string Words, string By, string At)>("""
            select card_id, seq, declined, who, words, person.name, recommendation_answer.at from recommendation_answer
            join card on card.id = card_id join person on person.id = person_id
            where plate = @plate order by recommendation_answer.id
            """, new { plate }))
            answers[(new(r.Card), r.Seq)] = new(r.Declined, r.Who, r.Words, r.By, CardStore.Time(r.At));
        return answers;
    }

    /// <summary>Notes what became of a finding; what was noted before stays in the file.</summary>
    /// <param name="card">The card.</param>
    /// <param name="seq">Seq of the finding.</param>
    /// <param name="declined">Whether it was declined; otherwise it was done.</param>
    /// <param name="who">Who declined it, or who did it and where.</param>
    /// <param name="words">Why, or what was done.</param>
    /// <param name="person">Who notes it.</param>
    /// <param name="at">When.</param>
    public Task<int> Answer(CardNumber card, int seq, bool declined, string who, string words, PersonId person, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        scope.OnCommit(() => Interlocked.Increment(ref _changes));
        return scope.Connection.Execute("""
            insert into recommendation_answer (card_id, seq, declined, who, words, person_id, at)
            values (@card, @seq, @declined, @who, @words, @person, @at)
            """, new { card, seq, declined, who, words, person, at = CardStore.Iso(at) });
    });
}
