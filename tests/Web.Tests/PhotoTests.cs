using System.Net;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.Extensions.DependencyInjection;
using SkiaSharp;

namespace Anakyklos.Web.Tests;

/// <summary>Pictures of what was seen: drawn anew as they come in, seen on record and vehicle, and by no way anything else.</summary>
public sealed class PhotoTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;
    private Browser _iona = null!;

    public async ValueTask InitializeAsync() => _iona = await (_host = await WorkshopHost.Demo()).SignedIn();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private PhotoDesk Desk => _host.Services.GetRequiredService<PhotoDesk>();

    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);

    // Red at the left, blue at the right.
    private static byte[] Picture(int width = 40, int height = 20, SKEncodedImageFormat format = SKEncodedImageFormat.Png)
    {
        using var bitmap = new SKBitmap(width, height);
        using (var canvas = new SKCanvas(bitmap))
        {
            canvas.Clear(SKColors.Blue);
            canvas.DrawRect(0, 0, width / 2f, height, new SKPaint { Color = SKColors.Red });
        }
        using var written = bitmap.Encode(format, 95);
        return written.ToArray();
    }

    // The segment in which a camera writes how it was held, which camera it is, and where: here the way, and a maker's name.
    private static byte[] Held(byte[] jpeg, byte orientation)
    {
        byte[] maker = [.. Encoding.ASCII.GetBytes("SecretCamera"), 0];
        byte[] tiff =
        [
            .. "II*\0"u8, 8, 0, 0, 0, 2, 0,
            0x0F, 0x01, 2, 0, (byte)maker.Length, 0, 0, 0, 38, 0, 0, 0,
            0x12, 0x01, 3, 0, 1, 0, 0, 0, orientation, 0, 0, 0,
            0, 0, 0, 0, .. maker,
        ];
        byte[] body = [.. "Exif\0\0"u8, .. tiff];
        return [.. jpeg[..2], 0xFF, 0xE1, (byte)((body.Length + 2) >> 8), (byte)(body.Length + 2), .. body, .. jpeg[2..]];
    }

    private static (byte R, byte B) At(SKBitmap picture, int x, int y) => (picture.GetPixel(x, y).Red, picture.GetPixel(x, y).Blue);

    [Theory]
    [InlineData(SKEncodedImageFormat.Png)]
    [InlineData(SKEncodedImageFormat.Jpeg)]
    [InlineData(SKEncodedImageFormat.Webp)]
    public void Each_kind_becomes_a_picture_that_a_screen_can_show(SKEncodedImageFormat format)
    {
        var (content, width, height, wrong) = PhotoDesk.Redrawn(Picture(4000, 1000, format));
        Assert.Null(wrong);
        Assert.Equal((1600, 400), (width, height));
        using var drawn = SKBitmap.Decode(content);
        Assert.True(At(drawn, 20, 200) is (> 200, < 60) && At(drawn, 1580, 200) is (< 60, > 200));
    }

    // By hand: 6 is a camera turned left, so the picture's left is up when it is put right; 3 is upside down; 8 turned right.
    [Theory]
    [InlineData(1, 40, 20, 2, 10)]
    [InlineData(2, 40, 20, 38, 10)]
    [InlineData(3, 40, 20, 38, 10)]
    [InlineData(4, 40, 20, 2, 10)]
    [InlineData(5, 20, 40, 10, 2)]
    [InlineData(6, 20, 40, 10, 2)]
    [InlineData(7, 20, 40, 10, 38)]
    [InlineData(8, 20, 40, 10, 38)]
    public void It_stands_upright_and_tells_nothing_of_camera_and_place(byte orientation, int width, int height, int redX, int redY)
    {
        var file = Held(Picture(40, 20, SKEncodedImageFormat.Jpeg), orientation);
        Assert.Contains("SecretCamera", Encoding.Latin1.GetString(file));
        var (content, w, h, _) = PhotoDesk.Redrawn(file);
        Assert.Equal((width, height), (w, h));
        using var drawn = SKBitmap.Decode(content);
        Assert.True(At(drawn, redX, redY) is (> 200, < 60), $"{At(drawn, redX, redY)}");
        Assert.DoesNotContain("SecretCamera", Encoding.Latin1.GetString(content!));
        Assert.DoesNotContain("Exif", Encoding.Latin1.GetString(content!));
    }

    // A file that only claims to be so large; a checksum goes with what it claims.
    private static byte[] Claims(int width, int height)
    {
        var file = Picture();
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(file.AsSpan(16), width);
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(file.AsSpan(20), height);
        var sum = uint.MaxValue;
        foreach (var bit in file[12..29].SelectMany(b => Enumerable.Range(0, 8).Select(i => (uint)(b >> i) & 1)))
            sum = ((sum ^ bit) & 1) == 1 ? (sum >> 1) ^ 0xEDB88320 : sum >> 1;
        System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(file.AsSpan(29), ~sum);
        return file;
    }

    private static byte[] NoPicture(string which) => which switch
    {
        "nothing" => [],
        "a letter" => "This is a letter."u8.ToArray(),
        "four bytes" => [0xFF, 0xD8, 0xFF, 0xE0],
        "a GIF" => "GIF89a\u0001\0\u0001\0\0\0\0;"u8.ToArray(),
        "an SVG" => "<svg xmlns='http://www.w3.org/2000/svg' onload='alert(1)'/>"u8.ToArray(),
        "half a JPEG" => Picture(600, 600, SKEncodedImageFormat.Jpeg)[..900],
        "too many bytes" => new byte[PhotoDesk.LargestFile + 1],
        _ => Claims(60_000, 60_000),
    };

    [Theory]
    [InlineData("nothing", "No picture was chosen.")]
    [InlineData("a letter", "That is not a picture that can be read here.")]
    [InlineData("four bytes", "That is not a picture that can be read here.")]
    [InlineData("a GIF", "That is not a picture that can be read here.")]
    [InlineData("an SVG", "That is not a picture that can be read here.")]
    [InlineData("half a JPEG", "The picture ends in the middle.")]
    [InlineData("too many bytes", "The picture has more than 15 MB.")]
    [InlineData("too many dots", "The picture has 60000 by 60000 dots.")]
    public void What_is_no_picture_is_told_so(string which, string says)
    {
        var (content, _, _, wrong) = PhotoDesk.Redrawn(NoPicture(which));
        Assert.Null(content);
        Assert.Equal((says, "photo"), (wrong!.What, wrong.Field));
    }

    private async Task<HttpStatusCode> Bring(byte[] file, long card = 1058, Browser? who = null)
    {
        var browser = who ?? _iona;
        var request = new HttpRequestMessage(HttpMethod.Post, $"http://localhost/api/v1/cards/{card}/photos")
        {
            Content = new ByteArrayContent(file),
        };
        request.Headers.Add("X-Antiforgery", await browser.Token());
        await browser.Raw(request);
        return browser.Status;
    }

    private async Task<string> Brought() => await Bring(Picture()) == HttpStatusCode.Created
        ? System.Text.Json.Nodes.JsonNode.Parse(await _iona.Answer.Content.ReadAsStringAsync())!["photo"]!.GetValue<string>() : "";

    private async Task<HttpStatusCode> Saw(string photo, long card = 1058)
    {
        var step = _host.Services.GetRequiredService<CardStore>().Find(card)!.Steps[0].Id.Text;
        await _iona.Api(HttpMethod.Post, $"/api/v1/cards/{card}/commands",
            new { say = "saw", step, grade = "keep-an-eye", text = "A weep", photo, command = Guid.NewGuid() }, await _iona.Token());
        return _iona.Status;
    }

    [Fact]
    public async Task A_picture_goes_with_what_was_seen_to_record_and_vehicle()
    {
        var photo = await Brought();
        Assert.Equal(photo, await Brought());
        Assert.Equal(HttpStatusCode.OK, await Saw(photo));
        await _iona.Get("/record/1058");
        Assert.Equal($"/photos/{photo}", _iona.Page.QuerySelector("img.photo")!.GetAttribute("src"));
        await _iona.Get("/vehicle/HD-08");
        Assert.Equal($"/photos/{photo}", _iona.Page.QuerySelector("img.photo")!.GetAttribute("src"));
        Assert.Equal(HttpStatusCode.OK, await _iona.Get($"/photos/{photo}"));
        Assert.Equal("image/jpeg", _iona.Answer.Content.Headers.ContentType!.MediaType);
        // Nobody who is not signed in.
        var stranger = _host.NewBrowser();
        await stranger.Get($"/photos/{photo}");
        Assert.Equal("/signin", stranger.Address.AbsolutePath);
    }

    [Fact]
    public async Task The_lift_takes_picture_and_words_in_one_press_and_keeps_the_picture_when_the_words_are_wrong()
    {
        await _iona.Get("/lift/1058?panel=saw");
        await Press("", "KeepAnEye");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _iona.Status);
        var kept = _iona.Page.QuerySelector("input[name=photo]")!.GetAttribute("value")!;
        await _iona.Submit("form[action='?handler=saw'] button", ("text", "A weep"), ("grade", "KeepAnEye"));
        Assert.Equal(HttpStatusCode.OK, _iona.Status);
        Assert.Equal(kept, _host.Services.GetRequiredService<CardStore>().Find(1058)!.Findings[^1].Event.Photo);

        await _iona.Get("/lift/1058?panel=saw");
        await Press("A letter", "KeepAnEye", "This is a letter."u8.ToArray());
        Assert.Equal(HttpStatusCode.UnprocessableEntity, _iona.Status);
        Assert.Contains("That is not a picture that can be read here.", _iona.Page.QuerySelector("#problem-photo")!.TextContent);
        Assert.Equal("A letter", _iona.Page.QuerySelector("#text")!.GetAttribute("value"));
        await Press("A film", "KeepAnEye", new byte[40_000_000]);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, _iona.Status);
        Assert.Contains("The picture has more than 15 MB.", _iona.Text);

        async Task Press(string text, string grade, byte[]? file = null)
        {
            var form = new MultipartFormDataContent();
            foreach (var input in _iona.Page.QuerySelectorAll("form[action='?handler=saw'] input[type=hidden]"))
                form.Add(new StringContent(input.GetAttribute("value") ?? ""), input.GetAttribute("name")!);
            form.Add(new StringContent(text), "text");
            form.Add(new StringContent(grade), "grade");
            form.Add(new ByteArrayContent(file ?? Picture()), "picture", "picture.png");
            await _iona.Send(new(HttpMethod.Post, "http://localhost/lift/1058?handler=saw") { Content = form });
        }
    }

    [Fact]
    public async Task Only_pictures_of_this_card_go_with_it_and_only_from_who_works_on_it()
    {
        var photo = await Brought();
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Saw(photo, 1057));
        Assert.Contains("not brought in for this card", await _iona.Answer.Content.ReadAsStringAsync());
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Saw("nothing"));
        Assert.Equal(HttpStatusCode.NotFound, await Bring(Picture(), 99_999));
        Assert.Equal(HttpStatusCode.Forbidden, await Bring(Picture(), 1003)); // signed
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Bring("no"u8.ToArray()));
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, await Bring(new byte[40_000_000]));
        Assert.Equal(HttpStatusCode.Forbidden, await Bring(Picture(), 1058, await _host.SignedIn("desk")));
    }

    [Fact]
    public async Task A_card_takes_so_many_and_no_more()
    {
        for (var i = 0; i < PhotoStore.Most; i++)
            Assert.Null((await Desk.TakeIn(1058, Picture(20 + i, 10), Iona)).Wrong);
        Assert.Equal("There are 40 pictures on this card.", (await Desk.TakeIn(1058, Picture(10, 10), Iona)).Wrong!.What);
        // One that is there already is there.
        Assert.Null((await Desk.TakeIn(1058, Picture(20, 10), Iona)).Wrong);
    }
}
