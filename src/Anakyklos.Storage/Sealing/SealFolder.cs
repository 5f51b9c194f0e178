using System.Globalization;
using System.Security.Cryptography;

namespace Anakyklos.Storage.Sealing;

/// <summary>A key with which the journal is sealed.</summary>
/// <param name="Bytes">32 bytes of chance.</param>
internal sealed record SealKey(byte[] Bytes)
{
    /// <summary>HMAC-SHA-256 over a hash of the journal (RFC 2104, FIPS 198-1).</summary>
    internal byte[] Mac(byte[] hash) => HMACSHA256.HashData(Bytes, hash);
}

/// <summary>A place in the journal that was written down outside the workshop's file.</summary>
/// <param name="At">When it was written down.</param>
/// <param name="Kind">Why.</param>
/// <param name="Entry">The number of the journal's last entry then; 0 where there was none.</param>
/// <param name="Seal">The first eight bytes of that entry's seal: sixteen hexadecimal digits in groups of four.</param>
public sealed record Anchor(DateTimeOffset At, AnchorKind Kind, long Entry, string Seal)
{
    internal static string Short(byte[] mac) => string.Join('-', Convert.ToHexStringLower(mac.AsSpan(0, 8)).Chunk(4)
        .Select(c => new string(c)));
}

/// <summary>Why a place in the journal was written down.</summary>
public enum AnchorKind
{
    /// <summary>A day has begun, or the program was started or stopped.</summary>
    Day,

    /// <summary>The workshop was put back to this place from a backup: what was written down after it is of no account.</summary>
    Restored,
}

/// <summary>
/// The folder beside the workshop's in which the keys lie that seal its journal, and the anchors: whoever can write the workshop's file
/// but has not read this one cannot write the journal anew without its being seen.
/// </summary>
/// <param name="folder">The folder; it is made when something is first written to it.</param>
public sealed class SealFolder(string folder)
{
    private const int KeyBytes = 32;

    /// <summary>The folder.</summary>
    public string Folder { get; } = Path.GetFullPath(folder);

    /// <summary>One key in hexadecimal a line; the last is in use. A key that was lost and is found again is put in before it.</summary>
    public string KeyFile => Path.Combine(Folder, "keys");

    private string AnchorFile => Path.Combine(Folder, "anchors");

    /// <summary>The folder that belongs to a workshop's: beside it, its name with <c>.seal</c>.</summary>
    /// <param name="workshop">The workshop's folder.</param>
    public static SealFolder Beside(string workshop) =>
        new(Path.TrimEndingDirectorySeparator(Path.GetFullPath(workshop)) + ".seal");

    /// <summary>The key in use; one is made where there is none.</summary>
    /// <exception cref="WorkshopFileException">The folder cannot be read or written, or the file is not one of keys.</exception>
    internal SealKey Current()
    {
        if (Keys() is [.., var key])
            return key;
        var made = new SealKey(RandomNumberGenerator.GetBytes(KeyBytes));
        Add(made);
        return made;
    }

    /// <summary>Keeps a key; from now on it is the one in use.</summary>
    internal void Add(SealKey key) => Append(KeyFile, Convert.ToHexStringLower(key.Bytes));

    /// <summary>All keys, the one in use last; none where there is no file of them.</summary>
    /// <exception cref="WorkshopFileException">The file is not one of keys.</exception>
    internal IReadOnlyList<SealKey> Keys()
    {
        try
        {
            return !File.Exists(KeyFile) ? [] : [.. File.ReadAllLines(KeyFile).Where(l => l.Trim().Length > 0)
                .Select(l => new SealKey(Convert.FromHexString(l.Trim())))];
        }
        catch (Exception e) when (e is FormatException or IOException or UnauthorizedAccessException)
        {
            throw new WorkshopFileException($"The keys that seal the journal cannot be read from {KeyFile}: {e.Message} Put the file "
                + "back from where it is kept.", e);
        }
    }

    /// <summary>The places that were written down, in the order in which they were; a line that is none is left out.</summary>
    public IReadOnlyList<Anchor> Anchors() => !File.Exists(AnchorFile) ? []
        : [.. File.ReadAllLines(AnchorFile).Select(Read).OfType<Anchor>()];

    /// <summary>Writes a place down; once more the same place on the same day is not written again.</summary>
    public void Write(Anchor anchor)
    {
        if (anchor.Kind == AnchorKind.Day && Anchors() is [.., var last] && last.Entry == anchor.Entry && last.Seal == anchor.Seal
            && last.At.UtcDateTime.Date == anchor.At.UtcDateTime.Date)
            return;
        Append(AnchorFile, string.Create(CultureInfo.InvariantCulture,
            $"{anchor.At.UtcDateTime:yyyy-MM-ddTHH:mm:ssZ} {anchor.Kind.ToString().ToLowerInvariant()} {anchor.Entry} {anchor.Seal}"));
    }

    /// <summary>Forgets all anchors: the workshop that they speak of is gone.</summary>
    public void ForgetAnchors()
    {
        if (File.Exists(AnchorFile))
            File.Delete(AnchorFile);
    }

    private static Anchor? Read(string line) => line.Split(' ') is [var at, var kind, var entry, var seal]
        && DateTimeOffset.TryParse(at, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal, out var when)
        && Enum.TryParse<AnchorKind>(kind, true, out var why) && long.TryParse(entry, CultureInfo.InvariantCulture, out var number)
        ? new(when, why, number, seal) : null;

    private void Append(string file, string line)
    {
        try
        {
            OwnerOnly.MakeFolder(Folder);
            OwnerOnly.MakeFile(file);
            using var stream = new FileStream(file, FileMode.Append, FileAccess.Write);
            using var writer = new StreamWriter(stream);
            writer.Write(line + "\n");
            writer.Flush();
            stream.Flush(true);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new WorkshopFileException($"{file} cannot be written: {e.Message} It lies beside the workshop's folder and holds what "
                + "seals its journal; name another folder for it with --seal.", e);
        }
    }
}
