using System.Globalization;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Languages;

/// <summary>The books of the program together with the words that this workshop's sheets and lessons bring along. Where the program has a
/// word of its own for a text, that holds; of two sheets that say the same text otherwise, the one that came in later.</summary>
public sealed class WorkshopWords(SheetStore sheets, LessonShelf lessons)
{
    private readonly Lock _one = new();
    private readonly Dictionary<string, (string Stamp, PhraseBook Book)> _ready = [];

    /// <summary>The book of a language; null for English, which needs none.</summary>
    public PhraseBook? Book(CultureInfo language)
    {
        if (Offered.Book(language) is not { } program)
            return null;
        var stamp = $"{sheets.Stamp()} {lessons.Stamp()}";
        lock (_one)
        {
            if (_ready.TryGetValue(language.Name, out var ready) && ready.Stamp == stamp)
                return ready.Book;
            var book = program.With(Own(language.Name));
            _ready[language.Name] = (stamp, book);
            return book;
        }
    }

    /// <summary>Says texts in the language of whoever asks for what is being made, by the book as it is now.</summary>
    public Func<string, string> Speaker() => Book(CultureInfo.CurrentUICulture) is { } book ? text => book.Say(text).Text : text => text;

    private IEnumerable<KeyValuePair<string, string>> Own(string language) => sheets.WithWords().Concat(lessons.Texts())
        .SelectMany(file => OtherTongues.In(file).GetValueOrDefault(language) ?? OtherTongues.NoWords);
}
