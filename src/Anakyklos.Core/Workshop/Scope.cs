namespace Anakyklos.Core.Workshop;

/// <summary>Of what a person may do, what a program may do in their name. What nobody put into a scope no program may do.</summary>
[Flags]
public enum Scope
{
    /// <summary>Nothing.</summary>
    None = 0,

    /// <summary>It reads: vehicles, cards, stores, sheets, records, changes.</summary>
    Read = 1,

    /// <summary>It takes vehicles in, works on cards and books visits.</summary>
    Cards = 2,

    /// <summary>It books in and out of the stores and keeps the oil book.</summary>
    Stores = 4,

    /// <summary>It describes vehicles and their rules, writes sheets, and, for a lead, sets the workshop and its equipment.</summary>
    Workshop = 8,
}

/// <summary>The words of scopes.</summary>
public static class Scopes
{
    /// <summary>Each scope by itself.</summary>
    public static IReadOnlyList<Scope> All { get; } = [Scope.Read, Scope.Cards, Scope.Stores, Scope.Workshop];

    /// <summary>The word of one scope.</summary>
    /// <param name="scope">One, not several.</param>
    /// <exception cref="ArgumentOutOfRangeException">It is none or several.</exception>
    public static string Word(this Scope scope) => scope switch
    {
        Scope.Read => "read",
        Scope.Cards => "cards",
        Scope.Stores => "stores",
        Scope.Workshop => "workshop",
        _ => throw new ArgumentOutOfRangeException(nameof(scope)),
    };

    /// <summary>The words of several, with blanks between them, always in the same order.</summary>
    public static string Words(this Scope scopes) => string.Join(' ', All.Where(s => scopes.HasFlag(s)).Select(Word));

    /// <summary>Reads words; whoever does anything reads as well.</summary>
    /// <param name="words">Words.</param>
    /// <returns>The scopes; null where a word is none, or there is no word.</returns>
    public static Scope? Read(IEnumerable<string> words)
    {
        var scopes = Scope.None;
        foreach (var word in words)
        {
            if (All.FirstOrDefault(s => s.Word() == word) is not (not Scope.None and var one))
                return null;
            scopes |= one;
        }
        return scopes == Scope.None ? null : scopes | Scope.Read;
    }
}
