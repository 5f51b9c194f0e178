namespace Anakyklos.Core.Authoring;

/// <summary>What is typed into a field of a sheet.</summary>
public enum EntryKind
{
    /// <summary>Words.</summary>
    Text,

    /// <summary>A number with its unit.</summary>
    Amount,

    /// <summary>A time, as <c>30 s</c>, <c>5 min</c> or <c>1 h</c>.</summary>
    Duration,

    /// <summary>A whole number.</summary>
    Whole,

    /// <summary>Yes, or not said.</summary>
    Tick,

    /// <summary>One of a few words.</summary>
    Choice,

    /// <summary>Several texts, ids or words.</summary>
    Texts,

    /// <summary>Several whole numbers.</summary>
    Wholes,

    /// <summary>Names with a text each.</summary>
    Words,

    /// <summary>Fields that belong together.</summary>
    Part,

    /// <summary>Several times the same fields.</summary>
    Parts,

    /// <summary>Things by their ids.</summary>
    Table,
}

/// <summary>A field of a sheet, as the published schema has it.</summary>
/// <param name="Name">Its name in the file.</param>
/// <param name="Kind">What is typed.</param>
/// <param name="IsRequired">Whether it has to be there.</param>
/// <param name="Says">What it means, in the schema's words; empty where the name says it.</param>
public sealed record EntryShape(string Name, EntryKind Kind, bool IsRequired, string Says)
{
    /// <summary>The words of a choice, or of a list of them.</summary>
    public IReadOnlyList<string> Choices { get; init; } = [];

    /// <summary>The least and the most of a whole number.</summary>
    public (int Low, int High) Bounds { get; init; } = (0, int.MaxValue);

    /// <summary>The fields of a part, of each of several parts, or of each thing of a table.</summary>
    public IReadOnlyList<EntryShape> Members { get; init; } = [];

    /// <summary>The table whose ids it names: such as <c>fluids</c>, <c>things</c> (whatever can be worked on) or <c>openings</c>
    /// (access and fasteners); empty where it names none.</summary>
    public string RefersTo { get; init; } = "";

    /// <summary>Whether it says where its values stand.</summary>
    public bool IsCited => Members.Any(m => m.Name == "from") && Members.Any(m => m.Name == "at");

    /// <summary>A field below it; null where it has none of this name.</summary>
    public EntryShape? Member(string name) => Members.FirstOrDefault(m => m.Name == name);
}
