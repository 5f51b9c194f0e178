namespace Anakyklos.Core.Sheets;

/// <summary>Part numbers and codes as people type and scanners read them: case, spaces, dashes and points do not matter.</summary>
public static class PartNumber
{
    /// <summary>The number without what does not matter, in capitals; the key under which it is kept.</summary>
    /// <returns>Every sign but spaces, dashes and points.</returns>
    public static string Bare(string number) => string.Create(number.Count(Counts), number, static (span, text) =>
    {
        var i = 0;
        foreach (var c in text)
            if (Counts(c))
                span[i++] = char.ToUpperInvariant(c);
    });

    /// <summary>Whether two numbers are the same.</summary>
    public static bool Same(string a, string b) => Bare(a) == Bare(b);

    private static bool Counts(char c) => !char.IsWhiteSpace(c) && c is not ('-' or '‑' or '–' or '.');
}
