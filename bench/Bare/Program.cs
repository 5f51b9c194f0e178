using Microsoft.Data.Sqlite;

// The measure for confirming a step: the same framework, one insert with full sync behind one lock, and nothing else.
var builder = WebApplication.CreateBuilder();
builder.Logging.ClearProviders();
builder.WebHost.UseUrls($"http://localhost:{args[1]}");
var app = builder.Build();
using var connection = new SqliteConnection($"Data Source={args[0]}");
connection.Open();
using (var make = connection.CreateCommand())
{
    make.CommandText =
        "pragma journal_mode = wal; pragma synchronous = full; create table if not exists line (id text primary key, body text not "
            + "null) strict";
    make.ExecuteNonQuery();
}
using var insert = connection.CreateCommand();
insert.CommandText = "insert into line (id, body) values (@id, @body)";
var id = insert.Parameters.Add("@id", SqliteType.Text);
var body = insert.Parameters.Add("@body", SqliteType.Text);
var gate = new SemaphoreSlim(1);
app.MapPost("/line", async (Line line) =>
{
    await gate.WaitAsync();
    try
    {
        (id.Value, body.Value) = (line.Command.ToString(), line.Reason);
        insert.ExecuteNonQuery();
    }
    finally
    {
        gate.Release();
    }
    return Results.Ok(new { seq = 1 });
});
app.Run();

internal sealed record Line(Guid Command, string Reason);
