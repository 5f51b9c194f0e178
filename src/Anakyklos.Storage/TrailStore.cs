using Dapper;

namespace Anakyklos.Storage;

/// <summary>Something that happened and that the one who leads the workshop can read afterwards.</summary>
/// <param name="At">When.</param>
/// <param name="By">The name of who did; empty for the program by itself.</param>
/// <param name="What">What kind of thing.</param>
/// <param name="Words">What it was, as a sentence or less.</param>
public sealed record TrailLine(DateTimeOffset At, string By, string What, string Words);

/// <summary>The trail of what happened beside the cards.</summary>
public sealed class TrailStore(WorkshopDatabase database)
{
    /// <summary>Notes something.</summary>
    /// <param name="person">The id of who did; empty for nobody.</param>
    /// <param name="what">What kind of thing.</param>
    /// <param name="words">What it was.</param>
    /// <param name="at">When.</param>
    public Task<int> Note(string person, string what, string words, DateTimeOffset at) =>
        database.Writes.Run(scope => Note(scope, person, what, words, at));

    internal static int Note(WriteScope scope, string person, string what, string words, DateTimeOffset at) =>
        scope.Run("insert into trail (at, person_id, what, words) values (@at, @person, @what, @words)", ("@at", CardStore.Iso(at)),
            ("@person", person), ("@what", what), ("@words", words));
}
