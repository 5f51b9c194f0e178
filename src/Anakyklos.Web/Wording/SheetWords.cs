using System.Text.RegularExpressions;

namespace Anakyklos.Web.Wording;

/// <summary>What stands above the fields of a sheet at its desk.</summary>
public static partial class SheetWords
{
    private static readonly Dictionary<string, string> Tables = new()
    {
        ["sources"] = "Sources", ["access"] = "What is opened first", ["fluids"] = "Fluids", ["fasteners"] = "Fasteners",
        ["parts"] = "Parts", ["intervals"] = "Intervals", ["maps"] = "Drawings", ["resets"] = "Resets", ["steps"] = "Steps beside",
        ["jobs"] = "Jobs",
    };

    private static readonly Dictionary<string, string> Single = new()
    {
        ["sources"] = "A source", ["access"] = "Something to open", ["fluids"] = "A fluid", ["fasteners"] = "A fastener",
        ["parts"] = "A part", ["intervals"] = "An interval", ["maps"] = "A drawing", ["resets"] = "A reset", ["steps"] = "A step",
        ["jobs"] = "A job",
    };

    private static readonly Dictionary<string, string> Fields = new()
    {
        ["is"] = "Value", ["from"] = "Source", ["at"] = "Page or place", ["torque"] = "Tightening", ["low"] = "Lowest",
        ["high"] = "Highest",
        ["byHand"] = "By hand, in words", ["turnAfterContact"] = "Degrees after contact", ["stages"] = "Stages",
        ["turn"] = "Degrees further",
        ["tooMuch"] = "After too much", ["byMaker"] = "By the maker", ["countOf"] = "Of what", ["off"] = "Words to open it",
        ["on"] = "Words to close it", ["takesBack"] = "Takes to close", ["for"] = "For", ["x"] = "From the left", ["y"] = "From the top",
        ["number"] = "Part number", ["reusableTimes"] = "Used again so often", ["of"] = "Of", ["do"] = "What is done", ["at[]"] = "At",
        ["atTopMark"] = "In at the upper mark", ["says"] = "It says", ["disputed"] = "What other sources say", ["what"] = "Works on",
        ["wrongButFits"] = "Fits, but is wrong", ["what is"] = "What", ["everyTime"] = "Every so many times",
    };

    /// <summary>The name of a table.</summary>
    public static string Table(string name) => Tables.GetValueOrDefault(name, name);

    /// <summary>One thing of a table, as it is added.</summary>
    public static string One(string name) => Single.GetValueOrDefault(name, name);

    /// <summary>The label of a field: its name in the file as words, or better ones.</summary>
    public static string Field(string name)
    {
        if (Fields.TryGetValue(name, out var words))
            return words;
        var apart = Capital().Replace(name, m => $" {m.Value.ToLowerInvariant()}");
        return apart.Length == 0 ? name : char.ToUpperInvariant(apart[0]) + apart[1..];
    }

    /// <summary>A word of the file as it is read: <c>by-hand</c> becomes "by hand".</summary>
    public static string Choice(string word) => word.Replace('-', ' ');

    /// <summary>What a cited value is, in one line.</summary>
    public static string Of(Core.Authoring.CitedValue value) => value.Of.Length == 0 ? value.Thing
        : $"{value.Thing}: {Core.Wording.Words.Low(Field(value.Of.Split('.')[0].Split('[')[0]))}";

    /// <summary>By how many a value was compared with its source.</summary>
    public static string Checked(int by) => by switch { 0 => "read by nobody yet", 1 => "read by one", 2 => "read by two", 
        _ => $"read by {by}" };

    [GeneratedRegex("[A-Z]")]
    private static partial Regex Capital();
}
