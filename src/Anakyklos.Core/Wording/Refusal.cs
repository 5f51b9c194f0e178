namespace Anakyklos.Core.Wording;

/// <summary>One thing that is wrong or in the way, wherever it was found: what it is, what to do about it, and where.</summary>
/// <param name="What">What is wrong, as a sentence.</param>
/// <param name="Do">What to do about it; empty where <paramref name="What"/> says it.</param>
/// <param name="Step">A step that helps, or null.</param>
/// <param name="Field">The field that is wrong, when it is the input itself: of a form or command, the path in a sheet, the column of a
/// table; otherwise null.</param>
/// <param name="Line">The line of a file, from 1; null when it is in none.</param>
/// <param name="Ground">What it rests on; null where what is wrong is what was typed, which its field says.</param>
public sealed record Refusal(string What, string Do = "", StepId? Step = null, string? Field = null, int? Line = null,
    Ground? Ground = null)
{
    /// <summary>Why it is asked for at all; null where it rests on no ground.</summary>
    public string? More => Ground?.More();

    /// <summary>Something wrong in a file.</summary>
    /// <param name="line">Its line, from 1.</param>
    /// <param name="field">Where in the line: a path or a column; empty for the line as a whole.</param>
    /// <param name="what">What is wrong and what to write instead.</param>
    public static Refusal At(int line, string field, string what) => new(what, Field: field, Line: line);

    /// <summary>Line and path, where it is in a file, then both sentences.</summary>
    public override string ToString()
    {
        var says = Do.Length > 0 ? $"{What} {Do}" : What;
        return Line is not { } line ? says : string.IsNullOrEmpty(Field) ? $"line {line}: {says}" : $"line {line}, `{Field}`: {says}";
    }
}
