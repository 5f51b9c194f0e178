using System.Globalization;
using System.Text;
using AngleSharp;
using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Languages;

/// <summary>
/// Says a page in the language of whoever looks at it. The page is drawn as it is thought, in English, and then each text in it is looked
/// up; what stands in an element with <c>translate="no"</c> is somebody's own words, a name or a number, and stays.
/// </summary>
public sealed class SpokenPages(WorkshopWords words) : IAsyncResultFilter
{
    private static readonly string[] _attributes = ["aria-label", "title", "placeholder", "alt", "data-words", "data-said"];

    private static readonly string[] _silent = ["script", "style", "textarea", "code", "pre"];

    /// <inheritdoc/>
    public async Task OnResultExecutionAsync(ResultExecutingContext context, ResultExecutionDelegate next)
    {
        var response = context.HttpContext.Response;
        if (context.Result is PageResult)
            response.Headers.ContentLanguage = CultureInfo.CurrentUICulture.Name;
        // Files, JSON and the way to another page are the same for everybody.
        if (context.Result is not PageResult || words.Book(CultureInfo.CurrentUICulture) is not { } book)
        {
            await next();
            return;
        }
        var outside = response.Body;
        using var drawn = new MemoryStream();
        response.Body = drawn;
        ResultExecutedContext executed;
        try
        {
            executed = await next();
        }
        finally
        {
            response.Body = outside;
        }
        // A page that could not be drawn is not said half; what went wrong is told by the page of errors.
        if (executed.Exception is null || executed.ExceptionHandled)
            await response.WriteAsync(Say(Encoding.UTF8.GetString(drawn.GetBuffer(), 0, (int)drawn.Length), book),
                context.HttpContext.RequestAborted);
    }

    /// <summary>A page in the language of a book.</summary>
    /// <param name="page">The page as HTML.</param>
    /// <param name="book">The book.</param>
    /// <param name="heard">Is told each text with what is said for it; null where nobody listens.</param>
    /// <returns>The page as HTML.</returns>
    public static string Say(string page, PhraseBook book, Action<string, Said>? heard = null)
    {
        var document = new HtmlParser().ParseDocument(page);
        Say(document, book, heard);
        return document.ToHtml();
    }

    private static void Say(INode node, PhraseBook book, Action<string, Said>? heard)
    {
        if (node is IText text)
        {
            text.Data = Words(text.Data, book, heard);
            return;
        }
        if (node is IElement element)
        {
            if (_silent.Contains(element.LocalName) || element.GetAttribute("translate") == "no")
                return;
            foreach (var name in _attributes)
            {
                if (element.GetAttribute(name) is { Length: > 0 } words)
                    element.SetAttribute(name, Words(words, book, heard));
            }
            // What a person may write either way is written as their language does.
            if (element.HasAttribute("data-amount") && element.GetAttribute("value") is [>= '0' and <= '9', ..] amount)
                element.SetAttribute("value", book.Say(amount).Text);
            // What an option without a value sends is its text, and that must stay what the application knows.
            if (element is IHtmlOptionElement option && !option.HasAttribute("value"))
                option.SetAttribute("value", option.Text);
        }
        foreach (var child in node.ChildNodes.ToArray())
            Say(child, book, heard);
        if (node is IHtmlTemplateElement template)
            Say(template.Content, book, heard);
    }

    private static string Words(string text, PhraseBook book, Action<string, Said>? heard)
    {
        var said = book.Say(text);
        heard?.Invoke(text, said);
        return said.Text;
    }
}
