namespace Anakyklos.Storage;

/// <summary>What is known of a form that is about to be carried out.</summary>
public enum SentForm
{
    /// <summary>It is new, and noted as begun.</summary>
    New,

    /// <summary>It was carried out before.</summary>
    Done,

    /// <summary>It was begun before, and nobody knows how it ended.</summary>
    Begun,
}

/// <summary>Forms that were sent, so that none is carried out twice.</summary>
public sealed class SentFormStore(WorkshopDatabase database)
{
    /// <summary>Notes that a form is begun, unless it was before.</summary>
    /// <param name="fingerprint">Of who sent what where.</param>
    /// <param name="at">When.</param>
    public Task<SentForm> Begin(string fingerprint, DateTimeOffset at) => database.Writes.Run(scope =>
    {
        var done = scope.First("select done from form_sent where fingerprint = @it", r => (int?)r.GetInt32(0), ("@it", fingerprint));
        if (done is { } before)
            return before == 1 ? SentForm.Done : SentForm.Begun;
        scope.Run("insert into form_sent (fingerprint, at, done) values (@it, @at, 0)", ("@it", fingerprint), ("@at", CardStore.Iso(at)));
        return SentForm.New;
    });

    /// <summary>Notes how a form ended: it was carried out, or nothing came of it and it may be sent again.</summary>
    public Task<int> End(string fingerprint, bool isDone) => database.Writes.Run(scope => isDone
        ? scope.Run("update form_sent set done = 1 where fingerprint = @it", ("@it", fingerprint))
        : scope.Run("delete from form_sent where fingerprint = @it", ("@it", fingerprint)));
}
