using System.Globalization;

namespace Anakyklos.Core.Laboratory;

/// <summary>The code on the label of a sample: the card, which sample of it, and a letter by which a slip of the pen is found.</summary>
public static class SampleCode
{
    // No letter that is taken for a digit or for another.
    private const string Letters = "ABCDEFGHJKLMNPQRTUVWXYZ";

    /// <summary>The code of a sample, such as 1010-1C.</summary>
    /// <param name="card">The card.</param>
    /// <param name="number">Which sample of it, from 1.</param>
    public static string Of(CardNumber card, int number) => $"{card}-{number}{Letter(card.Value, number)}";

    /// <summary>Reads a code as it was typed or printed: capitals and spaces do not matter.</summary>
    /// <param name="text">The text.</param>
    /// <returns>The code as it stands on the label, or null when it is none.</returns>
    public static string? Read(string? text)
    {
        var bare = string.Concat((text ?? "").Where(c => !char.IsWhiteSpace(c))).ToUpperInvariant();
        var dash = bare.IndexOf('-');
        return bare.Length <= 20 && dash > 0 && bare.Length > dash + 2
            && long.TryParse(bare[..dash], NumberStyles.None, CultureInfo.InvariantCulture, out var card)
            && int.TryParse(bare[(dash + 1)..^1], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            && Of(card, number) == bare ? bare : null;
    }

    // Weights that differ from place to place, so that two digits changed about give another letter.
    private static char Letter(long card, int number)
    {
        var sum = number * 3L;
        for (var (rest, weight) = (card, 2L); rest > 0; (rest, weight) = (rest / 10, weight + 1))
            sum += rest % 10 * weight;
        return Letters[(int)(sum % Letters.Length)];
    }
}
