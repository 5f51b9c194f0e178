using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.ViewFeatures;
using Microsoft.AspNetCore.Razor.TagHelpers;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// Carries out a form once however often it arrives: a line that breaks after it was sent, a button pressed twice, a page reloaded. The
/// same form is one with the same id, from the same person, to the same address, with the same content. Forms with the id of a command to a
/// card are told apart by the card itself.
/// </summary>
internal sealed class SentForms(SentFormStore store, WorkshopClock clock) : IAsyncPageFilter
{
    /// <summary>The field that tells one showing of a form from the next.</summary>
    internal const string Id = "form-id";

    /// <summary>What tells a form from the next; empty where it carries none.</summary>
    internal static Guid IdOf(IFormCollection form) => Guid.TryParse(form[Id], out var id) ? id : Guid.Empty;

    private readonly ConcurrentDictionary<string, Task> _inHand = new();

    // Came to nothing, which could not be written down: the disk that took nothing else did not take that either.
    private readonly ConcurrentDictionary<string, bool> _undone = new();

    public Task OnPageHandlerSelectionAsync(PageHandlerSelectedContext context) => Task.CompletedTask;

    public async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        var http = context.HttpContext;
        if (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method)
            || context.HandlerInstance is ITellsWhatWentWrong)
        {
            await next();
            return;
        }
        if (await NoForm(context) is { } status)
        {
            context.Result = new StatusCodeResult(status);
            return;
        }
        if (http.User.Identity?.IsAuthenticated != true || context.HandlerInstance is ISentAsOftenAsLiked)
        {
            await next();
            return;
        }
        var form = http.Request.Form;
        if (Guid.TryParse(form["command"], out var command) && command != Guid.Empty)
        {
            await next();
            return;
        }
        if (!Guid.TryParse(form[Id], out _))
        {
            context.Result = new StatusCodeResult(StatusCodes.Status400BadRequest);
            return;
        }
        await Once(context, next, await Fingerprint(http, form));
    }

    // What is no form of this page is not carried out by any other handler of it.
    private static async Task<int?> NoForm(PageHandlerExecutingContext context)
    {
        var request = context.HttpContext.Request;
        if (context.HandlerMethod is not { } method)
            return StatusCodes.Status405MethodNotAllowed;
        if (method.Name is null && request.Query["handler"].ToString().Length > 0 && method.Parameters.All(p => p.Name != "handler"))
            return StatusCodes.Status404NotFound;
        if (!request.HasFormContentType)
            return StatusCodes.Status415UnsupportedMediaType;
        try
        {
            await request.ReadFormAsync(context.HttpContext.RequestAborted);
            return null;
        }
        catch (Exception e) when (e is InvalidDataException or BadHttpRequestException)
        {
            return StatusCodes.Status400BadRequest;
        }
    }

    private async Task Once(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next, string fingerprint)
    {
        var ended = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        while (_inHand.GetOrAdd(fingerprint, ended.Task) is var there && there != ended.Task)
            await there;
        try
        {
            switch (await store.Begin(fingerprint, clock.Now))
            {
                case SentForm.Done:
                    context.Result = new RedirectResult(context.HttpContext.Request.Path);
                    return;
                case SentForm.Begun when !_undone.TryRemove(fingerprint, out _):
                    context.Result = new StatusCodeResult(StatusCodes.Status409Conflict);
                    return;
            }
            var done = false;
            try
            {
                // Who is sent on to another page has changed something; who sees the form again has not.
                done = (await next()).Result is RedirectResult or RedirectToPageResult or LocalRedirectResult;
            }
            finally
            {
                if (!done)
                    _undone[fingerprint] = true;
                await store.End(fingerprint, done);
                _undone.TryRemove(fingerprint, out _);
            }
        }
        finally
        {
            _inHand.TryRemove(fingerprint, out _);
            ended.SetResult();
        }
    }

    private static async Task<string> Fingerprint(HttpContext http, IFormCollection form)
    {
        var text = new StringBuilder();
        void Add(string? part) => text.Append(part?.Length ?? -1).Append(':').Append(part);
        Add(http.User.Identity?.Name);
        Add(http.User.FindFirst(System.Security.Claims.ClaimTypes.NameIdentifier)?.Value);
        Add(http.Request.Path);
        Add(http.Request.QueryString.Value);
        foreach (var (name, values) in form.Where(f => f.Key != "__RequestVerificationToken").OrderBy(f => f.Key, StringComparer.Ordinal))
        {
            Add(name);
            foreach (var value in values)
                Add(value);
        }
        foreach (var file in form.Files)
        {
            Add(file.Name);
            await using var content = file.OpenReadStream();
            Add(Convert.ToHexString(await SHA256.HashDataAsync(content, http.RequestAborted)));
        }
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text.ToString())));
    }
}

/// <summary>A page whose forms may be carried out as often as they are sent: each press is one of its own.</summary>
public interface ISentAsOftenAsLiked;

/// <summary>A page that is shown in place of one that came to grief, with whatever was sent to that.</summary>
public interface ITellsWhatWentWrong;

/// <summary>Gives every form that is posted the id of this showing of it.</summary>
[HtmlTargetElement("form", Attributes = "[method=post]")]
public sealed class FormIdTagHelper : TagHelper
{
    /// <summary>It carries the id that it was first sent with.</summary>
    [HtmlAttributeName("has-id")]
    public bool HasId { get; set; }

    /// <summary>The page that is drawn.</summary>
    [ViewContext]
    [HtmlAttributeNotBound]
    public Microsoft.AspNetCore.Mvc.Rendering.ViewContext ViewContext { get; set; } = null!;

    /// <inheritdoc />
    public override void Process(TagHelperContext context, TagHelperOutput output)
    {
        if (HasId)
            return;
        var items = ViewContext.HttpContext.Items;
        if (items[SentForms.Id] is not string id)
            items[SentForms.Id] = id = Guid.CreateVersion7().ToString();
        output.PostContent.AppendHtml($"<input type=\"hidden\" name=\"{SentForms.Id}\" value=\"{id}\">");
    }
}
