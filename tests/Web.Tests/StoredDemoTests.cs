using System.IO.Compression;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>
/// A workshop's file as an earlier version of the program left it is opened by this one: brought up to date, still whole, and every record
/// reads as it did then. The files in Stored/ are never changed: a new version adds one.
/// </summary>
public class StoredDemoTests
{
    private static readonly string Folder = Path.Combine(AppContext.BaseDirectory, "Stored");

    private const string Happened = "What happened ";

    public static TheoryData<string> Versions => [.. Directory.GetFiles(Folder, "*.db.gz").Select(f => Path.GetFileName(f)!).Order()];

    [Theory]
    [MemberData(nameof(Versions))]
    public async Task An_earlier_versions_file_is_opened_and_every_record_reads_as_it_did(string file)
    {
        await using var host = await WorkshopHost.From(await Unpacked(file));
        host.Clock.SetUtcNow(new(2027, 1, 4, 9, 0, 0, TimeSpan.Zero));
        var browser = await host.SignedIn("una");
        var cards = host.Services.GetRequiredService<CardStore>();
        var told = new List<string>();
        for (var id = 1001L; cards.Entry(id) is not null; id++)
        {
            var ended = cards.Find(id)!.Ended is not null;
            await browser.Get(ended ? $"/record/{id}" : $"/handover/{id}");
            // What this version tells of a record beside what was told then, and what it offers to make of it, stands by itself.
            foreach (var more in browser.Page.QuerySelectorAll(".unusual, .beside, a[href^='/practice/from/']"))
                more.Remove();
            var words = browser.Page.QuerySelector(ended ? "main" : ".history")!.TextContent
                .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
            told.Add($"{id}: {string.Join(' ', words)}");
        }
        // Letter by letter; where the page breaks its lines is nobody's business. Of a card that is not signed, all that happened.
        var then = File.ReadAllLines(Path.Combine(Folder, file.Replace(".db.gz", ".records.txt"))).Select((line, i) =>
            cards.Find(1001 + i)!.Ended is not null || line.LastIndexOf(Happened, StringComparison.Ordinal) is not (>= 0 and var at) ? line
                : $"{1001 + i}: {line[(at + Happened.Length)..]}");
        Assert.Equal(then.Select(Letters), told.Select(Letters));
        Assert.Empty(Verification.Run(host.Services.GetRequiredService<WorkshopDatabase>(), out var checkedCards, out _));
        Assert.Equal(told.Count, checkedCards);
    }

    private static string Letters(string text) => text.Replace(" ", "", StringComparison.Ordinal);

    private static async Task<byte[]> Unpacked(string file)
    {
        using var packed = new GZipStream(File.OpenRead(Path.Combine(Folder, file)), CompressionMode.Decompress);
        var bytes = new MemoryStream();
        await packed.CopyToAsync(bytes);
        return bytes.ToArray();
    }
}
