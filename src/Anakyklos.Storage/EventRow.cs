using System.Security.Cryptography;
using System.Text;
using Anakyklos.Core.Cards;

namespace Anakyklos.Storage;

// Columns under their own names, as Dapper fills them.
#pragma warning disable IDE1006
internal sealed class EventRow
{
    public long card_id { get; init; }
    public int seq { get; init; }
    public string at { get; init; } = "";
    public string person_id { get; init; } = "";
    public string person_name { get; init; } = "";
    public string person_role { get; init; } = "";
    public string command_id { get; init; } = "";
    public string body { get; init; } = "";
    public string hash { get; set; } = "";

    internal static EventRow From(CardNumber card, Recorded e, string before)
    {
        var row = new EventRow
        {
            card_id = card.Value,
            seq = e.Seq,
            at = CardStore.Iso(e.At),
            person_id = e.By.Id.Text,
            person_name = e.By.Name,
            person_role = e.By.Role.ToString().ToLowerInvariant(),
            command_id = e.Command.ToString(),
            body = CardJson.Write(e.Event),
        };
        row.hash = row.HashAfter(before);
        return row;
    }

    /// <summary>SHA-256 over the hash before and every column, each with its length, so that nothing can move from one to the
    /// next.</summary>
    internal string HashAfter(string before)
    {
        string[] columns = [before, $"{card_id}", $"{seq}", at, person_id, person_name, person_role, command_id, body];
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Concat(columns.Select(c => $"{c.Length}:{c}")))));
    }

    internal Recorded ToRecorded() => new(seq, CardStore.Time(at), new(person_id, person_name, Enum.Parse<Role>(person_role, true)),
        Guid.Parse(command_id), CardJson.Read(body));
}
