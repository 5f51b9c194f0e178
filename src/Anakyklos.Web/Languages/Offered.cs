using System.Collections;
using System.Globalization;
using System.Resources;
using System.Text.Json;

namespace Anakyklos.Web.Languages;

/// <summary>The languages that a person may choose, and the book of each.</summary>
public static class Offered
{
    /// <summary>The language in which everything is thought and kept.</summary>
    public static readonly CultureInfo English = CultureInfo.GetCultureInfo("en");

    private static readonly CultureInfo _german = CultureInfo.GetCultureInfo("de");

    // One file a room, so that each can be read.
    private static readonly string[] _files = ["Lift", "Kernel", "Sheets", "Pages", "Desk", "Practice"];

    private static readonly Lazy<PhraseBook> _germanBook = new(() => new(Entries(_german), Manner.German));

    private static readonly Lazy<string> _germanScript = new(() => JsonSerializer.Serialize(ScriptEntries(_german).ToDictionary()));

    /// <summary>All of them, each by its own name.</summary>
    public static IReadOnlyList<(string Code, string Name)> All { get; } = [("en", "English"), ("de", "Deutsch")];

    /// <summary>The cultures of them.</summary>
    public static IReadOnlyList<CultureInfo> Cultures { get; } = [English, _german];

    /// <summary>The book of a language, without the words that sheets and lessons bring along (<see cref="WorkshopWords"/>); null for
    /// English, which needs none.</summary>
    public static PhraseBook? Book(CultureInfo language) => language.Name == _german.Name ? _germanBook.Value : null;

    /// <summary>Every sentence with what it is in a language, as the resources have it.</summary>
    /// <exception cref="MissingManifestResourceException">A file of the language is not there.</exception>
    public static IEnumerable<KeyValuePair<string, string>> Entries(CultureInfo language) => Entries(language, _files);

    /// <summary>Every sentence that the scripts of a page say, with what it is in a language.</summary>
    public static IEnumerable<KeyValuePair<string, string>> ScriptEntries(CultureInfo language) => Entries(language, ["Script"]);

    /// <summary>What a page carries for its scripts, as JSON that may stand in HTML; null for English, which needs none.</summary>
    public static string? Script(CultureInfo language) => language.Name == _german.Name ? _germanScript.Value : null;

    private static IEnumerable<KeyValuePair<string, string>> Entries(CultureInfo language, string[] files) => files.SelectMany(file =>
        (new ResourceManager($"Anakyklos.Web.Languages.{file}", typeof(Offered).Assembly)
            .GetResourceSet(language, createIfNotExists: true, tryParents: false)
            ?? throw new MissingManifestResourceException($"There is no {file}.{language.Name}.resx."))
        .Cast<DictionaryEntry>()
        // Names of resources do not tell capitals from small letters: the second of two that differ only so has a sign before it.
        .Select(e => KeyValuePair.Create(((string)e.Key).TrimStart('~'), (string)e.Value!)));
}
