using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Why the workshop's file takes nothing just now.</summary>
public enum StoreTrouble
{
    /// <summary>The disk is full.</summary>
    Full,

    /// <summary>Another program holds it.</summary>
    Held,

    /// <summary>It may not be written to.</summary>
    NotWritable,

    /// <summary>The disk does not answer as it should.</summary>
    NoAnswer,

    /// <summary>It is damaged.</summary>
    Damaged,
}

/// <summary>Tells troubles of the file from faults of the program.</summary>
public static class StoreTroubles
{
    /// <summary>The trouble behind an exception, by SQLite's result code; null where it is none of the file's.</summary>
    public static StoreTrouble? Of(Exception exception) => (exception as SqliteException)?.SqliteErrorCode switch
    {
        13 => StoreTrouble.Full,
        5 or 6 => StoreTrouble.Held,
        8 => StoreTrouble.NotWritable,
        10 or 14 => StoreTrouble.NoAnswer,
        11 or 26 => StoreTrouble.Damaged,
        _ => null,
    };
}
