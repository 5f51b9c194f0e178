using Anakyklos.Core.Wording;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// Answers with 503 and in words when the workshop's file takes nothing just now: the disk is full, somebody else holds the file, it may
/// not be written. What was sent goes back to whoever sent it.
/// </summary>
internal sealed class FileTrouble(RequestDelegate next, ILogger<FileTrouble> log, Options options)
{
    private const string Key = "file-trouble";

    /// <summary>Passes on, and catches what the file would not take.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        try
        {
            await next(context);
        }
        catch (Exception e) when (!context.Response.HasStarted && StoreTroubles.Of(e) is not null)
        {
            log.LogError(e, "The workshop's file could not be used");
            var words = Words(StoreTroubles.Of(e)!.Value, options.Folder);
            context.Response.Clear();
            context.Response.Headers.RetryAfter = "5";
            context.Items[Key] = words;
            if (context.Request.Path.StartsWithSegments("/api"))
                await Results.Problem(words, statusCode: StatusCodes.Status503ServiceUnavailable, title: "Nothing can be kept just now")
                    .ExecuteAsync(context);
            else
                context.Response.StatusCode = StatusCodes.Status503ServiceUnavailable;
        }
    }

    /// <summary>What is wrong and what to do, of a request that came to grief; null where it did not here.</summary>
    internal static string? Of(HttpContext context) => context.Items[Key] as string;

    private static string Words(StoreTrouble trouble, string folder) => trouble switch
    {
        StoreTrouble.Full => $"The disk that holds the workshop ({folder}) is full, so nothing was written. Make room on it, then send "
            + "this again.",
        StoreTrouble.Held => "Another program holds the workshop's file, so nothing was written. Close that program, or wait a moment, "
            + "then send this again.",
        StoreTrouble.NotWritable => $"The workshop's file in {folder} may not be written to by the program. Whoever keeps it must give it "
            + "back to the user who serves it; then send this again.",
        StoreTrouble.NoAnswer => $"The disk that holds the workshop ({folder}) does not answer as it should, so nothing was written. Look "
            + "after the disk, then send this again.",
        _ => $"The workshop's file in {folder} is damaged. Whoever keeps it should stop the program, run “anakyklos "
            + "verify”, and put the last backup back with “anakyklos restore”.",
    };
}

/// <summary>A form that could not be kept, as it is shown again.</summary>
/// <param name="Address">Where it was sent.</param>
/// <param name="Fields">What is sent again.</param>
/// <param name="Secrets">Names of PINs, which are typed again.</param>
/// <param name="HadFile">Whether a file went with it, which a page cannot keep.</param>
public sealed record UnsentForm(string Address, IReadOnlyList<(string Name, string Value)> Fields, IReadOnlyList<string> Secrets,
    bool HadFile)
{
    private static readonly HashSet<string> Own = ["__RequestVerificationToken"];

    private static readonly HashSet<string> Silent = ["command", "step", "handler", SentForms.Id];

    /// <summary>What of it somebody may have typed or chosen, to be read once more.</summary>
    public IReadOnlyList<string> Told => [.. Fields.Where(f => !Silent.Contains(f.Name) && f.Value.Length is > 0 and < 200)
        .Select(f => $"{InWords(f.Name)}: {f.Value}")];

    // A field as its label would be read: "newPlate" is a new plate.
    private static string InWords(string name) => Words.Capital(string.Concat(name.Select((c, i) => char.IsAsciiLetterUpper(c) && i > 0
        ? $" {char.ToLowerInvariant(c)}" : char.IsAsciiLetterOrDigit(c) ? $"{c}" : " ")));

    /// <summary>The form that came with a request, where it can be read once more.</summary>
    internal static UnsentForm? Of(HttpContext context)
    {
        if (!HttpMethods.IsPost(context.Request.Method) || context.Features.Get<IStatusCodeReExecuteFeature>() is not { } was
            || context.Features.Get<IFormFeature>()?.Form is not { } form)
            return null;
        // The id of the form goes along: what was carried out after all is not carried out twice.
        return new(was.OriginalPathBase + was.OriginalPath + was.OriginalQueryString,
            [.. form.Where(f => !Own.Contains(f.Key) && !IsSecret(f.Key)).SelectMany(f => f.Value.Select(v => (f.Key, v ?? "")))],
            [.. form.Keys.Where(IsSecret)], form.Files.Count > 0);
    }

    private static bool IsSecret(string name) => name.Equals("pin", StringComparison.OrdinalIgnoreCase)
        || name.EndsWith("-pin", StringComparison.OrdinalIgnoreCase) || name is "again" or "new";
}
