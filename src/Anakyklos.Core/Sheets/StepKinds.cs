using System.Collections.Frozen;

namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet has to know of a kind of step.</summary>
public interface IStepKind
{
    /// <summary>The word for it in sheets, events and addresses.</summary>
    string Kind { get; }

    /// <summary>What a step of this kind does to the vehicle.</summary>
    /// <param name="step">The step.</param>
    StepTraits Traits(SheetStep step);

    /// <summary>What it works on in a sheet.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="step">The step.</param>
    /// <returns>What it wants instead of what the step names, such as "an access"; null when the step names what it should.</returns>
    string? Wants(ModelSheet sheet, SheetStep step);

    /// <summary>Reads what the sheet says of a step for this kind of work alone.</summary>
    /// <param name="at">The step, in the file.</param>
    /// <returns>It, or null when this kind asks for nothing more.</returns>
    internal WorkSpec? ReadSpec(SheetCursor at);
}

/// <summary>All kinds of step that this program knows, each found where its work is written down.</summary>
public static class StepKinds
{
    private static readonly FrozenDictionary<string, IStepKind> Known = typeof(StepKinds).Assembly.GetTypes()
        .Where(t => t is { IsAbstract: false, IsClass: true } && t.IsAssignableTo(typeof(IStepKind)))
        .Select(t => (IStepKind)Activator.CreateInstance(t, nonPublic: true)!).ToFrozenDictionary(k => k.Kind);

    /// <summary>The words of all kinds, in the order of the alphabet.</summary>
    public static IReadOnlyList<string> Words { get; } = [.. Known.Keys.Where(w => w.Length > 0).Order(StringComparer.Ordinal)];

    /// <summary>Whether there is such a kind.</summary>
    public static bool Knows(string word) => word.Length > 0 && Known.ContainsKey(word);

    /// <summary>The kind of a word; one that allows nothing when nobody knows the word, as on a card of a newer program.</summary>
    /// <returns>The kind, or the one that allows nothing when nobody knows the word.</returns>
    public static IStepKind Of(string word) => Known.GetValueOrDefault(word) ?? Known[""];
}
