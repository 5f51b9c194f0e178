using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using SkiaSharp;

namespace Anakyklos.Desk;

/// <summary>
/// Takes pictures in. Whatever comes is drawn anew, upright and no larger than a screen needs, and written as JPEG: place, camera and
/// whatever else was in the file stay behind.
/// </summary>
public sealed class PhotoDesk(PhotoStore photos, CardStore cards, WorkshopClock clock)
{
    /// <summary>The most bytes that a picture may have as it comes.</summary>
    public const int LargestFile = 15_000_000;

    private const int MostPixels = 80_000_000;
    private const int Longest = 1600;
    private const int Quality = 80;
    private const string Field = "photo";

    /// <summary>Takes in a picture for an open card.</summary>
    /// <param name="card">The card.</param>
    /// <param name="file">The file as it comes: JPEG, PNG or WebP.</param>
    /// <param name="by">Who brings it.</param>
    /// <returns>The id of the picture, or what is wrong with it.</returns>
    public async Task<(string? Id, Refusal? Wrong)> TakeIn(CardNumber card, byte[] file, Person by)
    {
        if (!by.WorksOnCards)
            return (null, new("You can look at cards, not work on them.", "Ask a technician or the workshop lead."));
        if (cards.Entry(card) is not { IsOpen: true })
            return (null, new("This card is closed.", "A signed card is not changed. Open a new one."));
        var (content, width, height, wrong) = Redrawn(file);
        if (content is null)
            return (null, wrong);
        var id = await photos.Keep(card, content, width, height, by.Id, clock.Now);
        return id is null ? (null, new($"There are {PhotoStore.Most} pictures on this card.", "That is all that it takes.", Field: Field))
            : (id, null);
    }

    /// <summary>Reads a file as it comes: all of it, or one byte more than a picture may have, and then the rest is not read.</summary>
    /// <param name="stream">What comes.</param>
    /// <param name="length">How many bytes were announced; null where none were.</param>
    /// <returns>At most <see cref="LargestFile"/> bytes and one.</returns>
    public static async Task<byte[]> Read(Stream stream, long? length)
    {
        var most = LargestFile + 1;
        var file = new byte[Math.Min(length ?? most, most)];
        var read = await stream.ReadAtLeastAsync(file, file.Length, throwOnEndOfStream: false);
        return read == file.Length ? file : file[..read];
    }

    /// <summary>A picture drawn anew.</summary>
    /// <param name="file">The file as it comes.</param>
    /// <returns>A JPEG with its size, or what is wrong.</returns>
    public static (byte[]? Content, int Width, int Height, Refusal? Wrong) Redrawn(byte[] file)
    {
        static (byte[]?, int, int, Refusal?) No(string what, string @do) => (null, 0, 0, new(what, @do, Field: Field));
        if (file.Length == 0)
            return No("No picture was chosen.", "Choose one, or take one.");
        if (file.Length > LargestFile)
            return No($"The picture has more than {LargestFile / 1_000_000} MB.",
                "Choose a smaller one, or let the camera take smaller ones.");
        using var bytes = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(bytes);
        if (codec?.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png or SKEncodedImageFormat.Webp))
            return No("That is not a picture that can be read here.", "Choose a JPEG, PNG or WebP.");
        if ((long)codec.Info.Width * codec.Info.Height is 0 or > MostPixels)
            return No($"The picture has {codec.Info.Width} by {codec.Info.Height} dots.", "Let the camera take smaller ones.");
        using var read = new SKBitmap(new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(read.Info, read.GetPixels()) is not SKCodecResult.Success)
            return No("The picture ends in the middle.", "Take it again, or choose another.");
        var turned = codec.EncodedOrigin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom
            or SKEncodedOrigin.LeftBottom;
        var scale = Math.Min(1f, Longest / (float)Math.Max(read.Width, read.Height));
        var (w, h) = (Math.Max(1, (int)Math.Round(read.Width * scale)), Math.Max(1, (int)Math.Round(read.Height * scale)));
        using var drawn = new SKBitmap(turned ? h : w, turned ? w : h);
        using (var canvas = new SKCanvas(drawn))
        using (var image = SKImage.FromBitmap(read))
        {
            canvas.Clear(SKColors.White);
            canvas.Concat(Upright(codec.EncodedOrigin, w, h));
            canvas.DrawImage(image, new SKRect(0, 0, w, h), new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        }
        using var written = drawn.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return (written.ToArray(), drawn.Width, drawn.Height, null);
    }

    // How a camera was held, as its file says, undone: the eight ways of the standard for it.
    private static SKMatrix Upright(SKEncodedOrigin origin, int w, int h) => origin switch
    {
        SKEncodedOrigin.TopRight => new(-1, 0, w, 0, 1, 0, 0, 0, 1),
        SKEncodedOrigin.BottomRight => new(-1, 0, w, 0, -1, h, 0, 0, 1),
        SKEncodedOrigin.BottomLeft => new(1, 0, 0, 0, -1, h, 0, 0, 1),
        SKEncodedOrigin.LeftTop => new(0, 1, 0, 1, 0, 0, 0, 0, 1),
        SKEncodedOrigin.RightTop => new(0, -1, h, 1, 0, 0, 0, 0, 1),
        SKEncodedOrigin.RightBottom => new(0, -1, h, -1, 0, w, 0, 0, 1),
        SKEncodedOrigin.LeftBottom => new(0, 1, 0, -1, 0, w, 0, 0, 1),
        _ => SKMatrix.Identity,
    };
}
