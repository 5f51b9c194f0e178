using System.Collections.Frozen;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>A command as it may be given from outside: its name, its fields, and what becomes of them.</summary>
public sealed class CommandDeclaration
{
    private readonly Func<FieldValues, CardCommand> _make;

    internal CommandDeclaration(string name, string says, IReadOnlyList<CommandField> fields, Func<FieldValues, CardCommand> make) =>
        (Name, Says, Fields, _make) = (name, says, fields, make);

    /// <summary>Its name in addresses and JSON; a letter's case does not matter when it is given.</summary>
    public string Name { get; }

    /// <summary>What it says, in one sentence without its stop.</summary>
    public string Says { get; }

    /// <summary>Its fields.</summary>
    public IReadOnlyList<CommandField> Fields { get; }

    /// <summary>Whoever puts their name to it types their own PIN, each time.</summary>
    public bool WantsPin { get; init; }

    /// <summary>Reads the command from where its fields were written.</summary>
    /// <param name="source">A form or JSON.</param>
    /// <param name="problems">Every field that could not be read; empty when all could.</param>
    /// <returns>The command, or null when a field could not be read.</returns>
    public CardCommand? Read(IFieldSource source, out IReadOnlyList<Refusal> problems)
    {
        var found = new List<Refusal>();
        var values = FieldValues.Read(Fields, source, "", found);
        problems = found;
        return found.Count == 0 ? _make(values) : null;
    }
}

/// <summary>Declares the commands of a room; found by its type.</summary>
internal interface ICommandPage
{
    IEnumerable<CommandDeclaration> Commands { get; }
}

/// <summary>All commands that may be given from outside, each found where its work is written down.</summary>
public static class CommandBook
{
    private static readonly FrozenDictionary<string, CommandDeclaration> Known = typeof(CommandBook).Assembly.GetTypes()
        .Where(t => t is { IsAbstract: false, IsClass: true } && t.IsAssignableTo(typeof(ICommandPage)))
        .SelectMany(t => ((ICommandPage)Activator.CreateInstance(t, nonPublic: true)!).Commands)
        .ToFrozenDictionary(c => c.Name, StringComparer.OrdinalIgnoreCase);

    /// <summary>Every command, by name.</summary>
    public static IReadOnlyList<CommandDeclaration> All { get; } = [.. Known.Values.OrderBy(c => c.Name, StringComparer.Ordinal)];

    /// <summary>The command of a name; null when nobody knows it.</summary>
    /// <returns>The declaration, or null when nobody declared a command of that name.</returns>
    public static CommandDeclaration? Find(string? name) => name is null ? null : Known.GetValueOrDefault(name);

    /// <summary>Reads a command that was given by its name.</summary>
    /// <param name="name">The name, in letters of either case.</param>
    /// <param name="source">Where its fields were written.</param>
    /// <param name="problems">Why there is none; empty when there is.</param>
    /// <returns>The command, or null when nobody knows the name or a field could not be read.</returns>
    public static CardCommand? Read(string? name, IFieldSource source, out IReadOnlyList<Refusal> problems)
    {
        if (Find(name) is { } known)
            return known.Read(source, out problems);
        problems = [new("Nobody here knows how that is done.",
            "Load the page again; if it says so again, the program at the other end is of another version.", Field: "say",
                Ground: Ground.Unknown)];
        return null;
    }
}
