using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Practice;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A lesson as it lies on the shelf.</summary>
/// <param name="Lesson">The lesson.</param>
/// <param name="IsOwn">Whether the workshop wrote it itself.</param>
public sealed record ShelvedLesson(Lesson Lesson, bool IsOwn);

/// <summary>The lessons of the practice bay: those that come with the application and the workshop's own.</summary>
public sealed class LessonShelf(PracticeStore store, SheetStore sheets, SettingStore settings, WorkshopClock clock)
{
    private readonly ConcurrentDictionary<string, Lesson> _read = new();

    private static readonly IReadOnlyList<string> Files = [.. Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "lessons"),
        "*.json").Order().Select(File.ReadAllText)];

    /// <summary>All lessons along the road, the workshop's own behind them.</summary>
    /// <exception cref="WorkshopFileException">A lesson that comes with the application has errors.</exception>
    public IReadOnlyList<ShelvedLesson> All() => [.. Files.Select(f => new ShelvedLesson(Of(f), false)).OrderBy(l => l.Lesson.Road),
        .. store.OwnLessons().Select(o => new ShelvedLesson(Of(o.Text), true))];

    /// <summary>Is another whenever a lesson of the workshop's own is kept or given up.</summary>
    public string Stamp() => store.OwnLessonStamp();

    /// <summary>The files of all lessons, whether or not their models are here.</summary>
    public IReadOnlyList<string> Texts() => [.. Files, .. store.OwnLessons().Select(o => o.Text)];

    /// <summary>A lesson; null where there is none of this id.</summary>
    public ShelvedLesson? Find(LessonId id) => All().FirstOrDefault(l => l.Lesson.Id == id);

    /// <summary>The newest revision of a model's sheet; null where there is none.</summary>
    public ModelSheet? Sheet(SheetId id) => Models.FirstOrDefault(s => s.Id == id);

    /// <summary>The models that can be practised on.</summary>
    public IReadOnlyList<ModelSheet> Models => sheets.ToPractise();

    /// <summary>A lesson that was kept as a file.</summary>
    /// <param name="text">The file.</param>
    /// <exception cref="WorkshopFileException">It has errors.</exception>
    internal Lesson Of(string text) => _read.GetOrAdd(text, t => Read(t) is (var lesson, var errors) && lesson is not null ? lesson
        : throw new WorkshopFileException($"A lesson cannot be read: {errors[0]}"));

    /// <summary>Reads a lesson's file; gives every error with its line, or the lesson.</summary>
    /// <param name="text">The file.</param>
    public (Lesson? Lesson, IReadOnlyList<Refusal> Errors) Read(string text) =>
        Lesson.Read(text, Models.ToDictionary(s => s.Id));

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
        if (BeforeBrakes?.Lesson == lesson.Id)
            return (null, [new($"“{lesson.Name}” is asked for before brakes: it stays as it is.", "Give yours another name.",
                Field: "name")]);
        await store.Keep(new(lesson.Id, text, person, clock.Now));
        return (lesson, []);
    }

    /// <summary>Gives up a lesson of the workshop's own.</summary>
    /// <returns>Why not; null when it is gone.</returns>
    public async Task<Refusal?> GiveUp(LessonId id) => BeforeBrakes?.Lesson == id
        ? new("It is asked for before anybody works on brakes alone.", "Ask for another lesson first, or for none.")
        : await store.GiveUp(id) == 1 ? null : new("There is no such lesson of the workshop's own.", "Go back to the practice bay.");

    /// <summary>The lesson that the lead asks for before somebody works on brakes alone; null for none.</summary>
    public AskedLesson? BeforeBrakes => settings.Read().BeforeBrakes;

    /// <summary>Whether a lesson can be asked for before brakes: it opens some.</summary>
    public bool IsAboutBrakes(Lesson lesson) => Sheet(lesson.Sheet) is { } sheet && lesson.Jobs.Any(sheet.OpensBrakes);

    /// <summary>The lead asks for a lesson before somebody works on brakes alone, on cards that are opened from now on.</summary>
    /// <param name="id">The lesson; null to ask for none any more.</param>
    /// <param name="lead">Who asks.</param>
    /// <returns>Why not; null when it is so.</returns>
    public async Task<Refusal?> AskBeforeBrakes(LessonId? id, Person lead)
    {
        if (lead.Role != Role.Lead)
            return new("The workshop lead asks for lessons.", "Ask the lead.");
        if (id is { } wanted && (Find(wanted) is not { } found || !IsAboutBrakes(found.Lesson)))
            return new("No brakes are opened in that lesson.", "Choose one in which they are.");
        var name = id is { } asked ? Find(asked)!.Lesson.Name : "";
        await settings.Change(now => now with { BeforeBrakes = id is { } lesson ? new(lesson, name, lead.Name, clock.Now) : null });
        return null;
    }
}
