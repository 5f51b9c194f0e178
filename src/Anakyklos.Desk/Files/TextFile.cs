using System.Text;

namespace Anakyklos.Desk.Files;

/// <summary>The text of a file that a person chose, whatever program wrote it.</summary>
/// <param name="Text">The text, without a byte order mark.</param>
/// <param name="ReadAs">The encoding that it was read as, such as UTF-8.</param>
public sealed record TextFile(string Text, string ReadAs)
{
    private static readonly UTF8Encoding StrictUtf8 = new(false, true);

    /// <summary>Reads bytes: by their byte order mark; without one as UTF-16 where every other byte is zero, as UTF-8 where they are UTF-8,
    /// and as Latin-1 otherwise, which any bytes are.</summary>
    /// <param name="bytes">The whole file.</param>
    public static TextFile Of(byte[] bytes) => bytes switch
    {
        [0xEF, 0xBB, 0xBF, ..] => new(Encoding.UTF8.GetString(bytes, 3, bytes.Length - 3), "UTF-8"),
        [0xFF, 0xFE, ..] => new(Encoding.Unicode.GetString(bytes, 2, bytes.Length - 2), "UTF-16"),
        [0xFE, 0xFF, ..] => new(Encoding.BigEndianUnicode.GetString(bytes, 2, bytes.Length - 2), "UTF-16"),
        _ when Zeros(bytes, 1) is var low && Zeros(bytes, 0) is var high && Math.Max(low, high) > bytes.Length / 4 =>
            new((low > high ? Encoding.Unicode : Encoding.BigEndianUnicode).GetString(bytes), "UTF-16"),
        _ => Utf8(bytes) is { } text ? new(text, "UTF-8") : new(Encoding.Latin1.GetString(bytes), "Latin-1"),
    };

    /// <summary>Reads a stream to its end.</summary>
    public static async Task<TextFile> Of(Stream stream)
    {
        using var memory = new MemoryStream();
        await stream.CopyToAsync(memory);
        return Of(memory.ToArray());
    }

    // Letters and digits have a zero as their other byte in UTF-16, and no text has one anywhere else.
    private static int Zeros(byte[] bytes, int from)
    {
        var zeros = 0;
        for (var i = from; i < bytes.Length; i += 2)
            zeros += bytes[i] == 0 ? 1 : 0;
        return zeros;
    }

    private static string? Utf8(byte[] bytes)
    {
        try
        {
            return StrictUtf8.GetString(bytes);
        }
        catch (DecoderFallbackException)
        {
            return null;
        }
    }
}
