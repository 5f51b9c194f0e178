using PdfSharp.Drawing;
using PdfSharp.Fonts;

namespace Anakyklos.Paper;

/// <summary>How letters look on paper.</summary>
public enum PaperFace
{
    /// <summary>Running text.</summary>
    Plain,

    /// <summary>What is to be found first.</summary>
    Bold,

    /// <summary>Numbers of parts, hashes.</summary>
    Mono,
}

/// <summary>The fonts that ship with the program; nothing is looked for on the machine.</summary>
internal sealed class PaperFonts : IFontResolver
{
    private const string Text = "B612", Numbers = "B612 Mono", Rest = "DejaVu Sans";

    private PaperFonts()
    {
    }

    /// <summary>Says where fonts come from, once in the life of a program.</summary>
    internal static void Ship()
    {
        if (GlobalFontSettings.FontResolver is not PaperFonts)
            GlobalFontSettings.FontResolver = new PaperFonts();
    }

    /// <inheritdoc/>
    public FontResolverInfo ResolveTypeface(string familyName, bool bold, bool italic) => new((familyName switch
    {
        Numbers => "b612-mono",
        Rest => "dejavu",
        _ => "b612",
    }) + (bold ? "-700" : "-400"));

    /// <inheritdoc/>
    public byte[] GetFont(string faceName)
    {
        using var stream = typeof(PaperFonts).Assembly.GetManifestResourceStream(faceName)
            ?? throw new InvalidOperationException($"The font {faceName} does not ship.");
        var font = new byte[stream.Length];
        stream.ReadExactly(font);
        return font;
    }

    /// <summary>A text in pieces, each in a font that has its letters.</summary>
    internal static IEnumerable<(string Piece, XFont Font)> Set(string text, PaperFace face, double size)
    {
        var style = face == PaperFace.Bold ? XFontStyleEx.Bold : XFontStyleEx.Regular;
        for (var from = 0; from < text.Length;)
        {
            var has = Has(text[from]);
            var to = from;
            while (to < text.Length && Has(text[to]) == has)
                to++;
            yield return (text[from..to], new XFont(!has ? Rest : face == PaperFace.Mono ? Numbers : Text, size, style));
            from = to;
        }
    }

    // The letters that the packed fonts hold: Latin, and the signs of the trade.
    private static bool Has(char c) => c is >= ' ' and <= '~' or >= '\u00a0' and <= '\u00ff' or '\u0152' or '\u0153'
        or '\u2013' or '\u2014' or '\u2018' or '\u2019' or '\u201c' or '\u201d' or '\u2022' or '\u2026' or '\u20ac';
}
