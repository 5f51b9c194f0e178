using System.Collections.Concurrent;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Practice;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A lesson as it lies on the shelf.</summary>
/// <param name="Lesson">The lesson.</param>
/// <param name="IsOwn">Whether the workshop wrote it itself.</param>
public sealed record ShelvedLesson(Lesson Lesson, bool IsOwn);

/// <summary>The lessons of the practice bay: those that come with the application and the workshop's own.</summary>
public sealed class LessonShelf(PracticeStore store, SheetStore sheets, WorkshopClock clock)
{
    private readonly ConcurrentDictionary<string, Lesson> _read = new();

    private static readonly IReadOnlyList<string> Files = [.. Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "lessons"),
        "*.json").Order().Select(File.ReadAllText)];

    /// <summary>All lessons along the road, the workshop's own behind them.</summary>
    /// <exception cref="WorkshopFileException">A lesson that comes with the application has errors.</exception>
    public IReadOnlyList<ShelvedLesson> All() => [.. Files.Select(f => new ShelvedLesson(Of(f), false)).OrderBy(l => l.Lesson.Road),
        .. store.OwnLessons().Select(o => new ShelvedLesson(Of(o.Text), true))];

    /// <summary>A lesson; null where there is none of this id.</summary>
    public ShelvedLesson? Find(LessonId id) => All().FirstOrDefault(l => l.Lesson.Id == id);

    /// <summary>The newest revision of a model's sheet; null where there is none.</summary>
    public ModelSheet? Sheet(SheetId id) => sheets.Newest(id);

    /// <summary>A lesson that was kept as a file.</summary>
    /// <param name="text">The file.</param>
    /// <exception cref="WorkshopFileException">It has errors.</exception>
    internal Lesson Of(string text) => _read.GetOrAdd(text, t => Read(t) is (var lesson, var errors) && lesson is not null ? lesson
        : throw new WorkshopFileException($"A lesson cannot be read: {errors[0]}"));

    /// <summary>Reads a lesson's file; gives every error with its line, or the lesson.</summary>
    /// <param name="text">The file.</param>
    public (Lesson? Lesson, IReadOnlyList<Refusal> Errors) Read(string text) =>
        Lesson.Read(text, sheets.Newest().ToDictionary(s => s.Id));

    /// <summary>Keeps a lesson of the workshop's own.</summary>
    /// <param name="text">Its file.</param>
    /// <param name="person">Who wrote it.</param>
    /// <returns>The lesson, or what is wrong with it.</returns>
    public async Task<(Lesson? Lesson, IReadOnlyList<Refusal> Wrong)> Keep(string text, PersonId person)
    {
        var (lesson, errors) = Read(text);
        if (lesson is null)
            return (null, errors);
        if (lesson.Id == FreePractice.Id || Files.Any(f => Of(f).Id == lesson.Id))
            return (null, [new($"A lesson “{lesson.Id}” comes with the application.", "Give yours another name.", Field: "name")]);
        await store.Keep(new(lesson.Id, text, person, clock.Now));
        return (lesson, []);
    }

    /// <summary>Gives up a lesson of the workshop's own.</summary>
    /// <returns>Whether there was one.</returns>
    public async Task<bool> GiveUp(LessonId id) => await store.GiveUp(id) == 1;
}
