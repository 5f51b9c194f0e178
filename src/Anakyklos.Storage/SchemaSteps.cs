using Dapper;
using DbUp;
using DbUp.Engine;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>The steps that bring a workshop's tables up to date.</summary>
internal static class SchemaSteps
{
    /// <summary>Takes the steps that a file has not taken yet.</summary>
    /// <param name="connection">How it is reached.</param>
    internal static DatabaseUpgradeResult Run(string connection) => Engine(connection).PerformUpgrade();

    /// <summary>Whether a file has steps before it.</summary>
    /// <param name="connection">How it is reached.</param>
    internal static bool Wanting(string connection) => Engine(connection).IsUpgradeRequired();

    private static UpgradeEngine Engine(string connection) => DeployChanges.To.SqliteDatabase(connection)
        .WithScriptsEmbeddedInAssembly(typeof(SchemaSteps).Assembly)
        .WithTransaction()
        .LogTo(new NoUpgradeLog())
        .Build();

    /// <summary>The steps that this program knows, in their order, as a file names them.</summary>
    internal static IReadOnlyList<string> All => [.. typeof(SchemaSteps).Assembly.GetManifestResourceNames()
        .Where(n => n.EndsWith(".sql", StringComparison.Ordinal)).Order(StringComparer.Ordinal)];

    /// <summary>A step that a file has taken and this program does not know; null where there is none.</summary>
    internal static string? Unknown(SqliteConnection connection) =>
        connection.Query<string>("select ScriptName from SchemaVersions order by SchemaVersionID").Except(All).FirstOrDefault();
}
