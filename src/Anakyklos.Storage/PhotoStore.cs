using System.Security.Cryptography;
using Anakyklos.Core.Cards;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Pictures that were brought in for cards.</summary>
public sealed class PhotoStore(WorkshopDatabase database)
{
    /// <summary>The most pictures of one card.</summary>
    public const int Most = 40;

    /// <summary>Keeps a picture; the same one twice is one.</summary>
    /// <param name="card">The card it is for.</param>
    /// <param name="content">A JPEG.</param>
    /// <param name="width">Its width in pixels.</param>
    /// <param name="height">Its height in pixels.</param>
    /// <param name="by">Who brought it.</param>
    /// <param name="at">When.</param>
    /// <returns>Its id, or null when the card has as many as it can have.</returns>
    public Task<string?> Keep(CardNumber card, byte[] content, int width, int height, PersonId by, DateTimeOffset at) =>
        database.Writes.Run(scope =>
    {
        // Of this card alone: the same picture on two cards is two.
        var id = Convert.ToHexStringLower(SHA256.HashData([.. BitConverter.GetBytes(card.Value), .. content]));
        var there = Of(scope.Connection, card);
        if (there.Contains(id))
            return id;
        if (there.Count >= Most)
            return null;
        scope.Connection.Execute("""
            insert into photo (id, card_id, width, height, at, person_id, content) values (@id, @card, @width, @height, @at, @by, @content)
            """, new { id, card, width, height, at = CardStore.Iso(at), by, content });
        return id;
    });

    /// <summary>A picture, or null.</summary>
    /// <param name="id">Its id.</param>
    /// <returns>A JPEG, or null when there is none of this id.</returns>
    public byte[]? Find(string id)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<byte[]>("select content from photo where id = @id", new { id });
    }

    internal static IReadOnlySet<string> Of(SqliteConnection connection, CardNumber card) =>
        connection.Query<string>("select id from photo where card_id = @card", new { card }).ToHashSet();
}
