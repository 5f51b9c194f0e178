using System.Collections.Concurrent;

namespace Anakyklos.Desk.Files;

/// <summary>What is done with a file that somebody is bringing in.</summary>
public enum FileStage
{
    /// <summary>Its rows are read.</summary>
    Read,

    /// <summary>What it brings is compared with what is here.</summary>
    Compared,

    /// <summary>What is new is written down; all of it counts, or nothing.</summary>
    Kept,
}

/// <summary>How far a file has come.</summary>
/// <param name="Stage">What is done with it.</param>
/// <param name="Done">How many rows, vehicles or readings that was done with.</param>
/// <param name="Of">How many there are; lines of the file while it is read.</param>
public readonly record struct FileStanding(FileStage Stage, int Done, int Of);

/// <summary>How far each file has come that somebody is bringing in at this moment; nothing of it is kept.</summary>
public sealed class ComingFiles
{
    private readonly ConcurrentDictionary<(PersonId By, Guid Form), FileStanding> _coming = new();

    /// <summary>Begins to tell how far a file is; it is forgotten when the result is disposed of.</summary>
    /// <param name="by">Who brings it in; nobody else is told.</param>
    /// <param name="form">The id of the form, or of the program's press, that it came with.</param>
    public ComingFile Begin(PersonId by, Guid form) =>
        new(at => _coming[(by, form)] = at, () => _coming.TryRemove((by, form), out _));

    /// <summary>How far a file is; null where none is coming in, or no longer.</summary>
    /// <param name="by">Who asks.</param>
    /// <param name="form">The id of the form that it came with.</param>
    public FileStanding? Of(PersonId by, Guid form) => _coming.TryGetValue((by, form), out var at) ? at : null;
}

/// <summary>A file that is coming in.</summary>
public sealed class ComingFile : IDisposable
{
    private const int Every = 100;

    private readonly Action<FileStanding> _tell;
    private readonly Action _end;

    /// <summary>Begins to tell.</summary>
    /// <param name="tell">Is told how far it is, at first that nothing is known.</param>
    /// <param name="end">Is done when it is in.</param>
    public ComingFile(Action<FileStanding> tell, Action end)
    {
        (_tell, _end) = (tell, end);
        tell(default);
    }

    /// <summary>Tells how far it is, at the first of many, at every hundredth and at the last.</summary>
    public void At(FileStage stage, int done, int of)
    {
        if (done % Every == 0 || done == of)
            _tell(new(stage, done, of));
    }

    /// <inheritdoc/>
    public void Dispose() => _end();
}
