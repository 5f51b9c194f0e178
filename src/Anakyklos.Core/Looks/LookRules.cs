namespace Anakyklos.Core.Looks;

/// <summary>What may be seen of each thing, and what follows from it where a sheet says nothing else.</summary>
public static class LookRules
{
    private static readonly (LookSubject Subject, Appearance Looks, string Says, LookOutcome Leads)[] Known =
    [
        (LookSubject.Magnet, Appearance.Clean, "clean", LookOutcome.CarryOn),
        (LookSubject.Magnet, Appearance.Paste, "grey paste", LookOutcome.CarryOn),
        (LookSubject.Magnet, Appearance.Glitter, "fine glitter", LookOutcome.Sample),
        (LookSubject.Magnet, Appearance.Slivers, "slivers", LookOutcome.Specialist),
        (LookSubject.Magnet, Appearance.Lumps, "lumps", LookOutcome.Hold),
        (LookSubject.Fluid, Appearance.Clear, "clear", LookOutcome.CarryOn),
        (LookSubject.Fluid, Appearance.Dark, "dark and even", LookOutcome.CarryOn),
        (LookSubject.Fluid, Appearance.Sludge, "sludge", LookOutcome.Shorten),
        (LookSubject.Fluid, Appearance.Thin, "thin, smells of fuel", LookOutcome.Sample),
        (LookSubject.Fluid, Appearance.Milky, "milky or drops of water", LookOutcome.Hold),
        (LookSubject.Filter, Appearance.NoBits, "no bits", LookOutcome.CarryOn),
        (LookSubject.Filter, Appearance.SoftMetal, "soft metal, no magnet holds it", LookOutcome.Specialist),
        (LookSubject.Filter, Appearance.Steel, "steel bits", LookOutcome.Specialist),
        (LookSubject.Filter, Appearance.Lining, "plastic or lining", LookOutcome.Specialist),
        (LookSubject.Seal, Appearance.Whole, "in one piece", LookOutcome.CarryOn),
        (LookSubject.Seal, Appearance.Flat, "flat or hard", LookOutcome.CarryOn),
        (LookSubject.Seal, Appearance.Torn, "a piece is missing", LookOutcome.Specialist),
        (LookSubject.Hold, Appearance.Snapped, "let go with a snap", LookOutcome.CarryOn),
        (LookSubject.Hold, Appearance.Loose, "hardly tight", LookOutcome.CarryOn),
        (LookSubject.Hold, Appearance.Overtight, "far too tight", LookOutcome.CarryOn),
        (LookSubject.Hold, Appearance.Stripped, "thread came out with it", LookOutcome.Specialist),
    ];

    /// <summary>What may be seen of something, from the best to the worst.</summary>
    /// <param name="subject">What is looked at.</param>
    /// <returns>At least three.</returns>
    public static IReadOnlyList<Appearance> Of(LookSubject subject) => [.. Known.Where(k => k.Subject == subject).Select(k => k.Looks)];

    /// <summary>What is seen of something in good order after its usual time.</summary>
    /// <param name="subject">What is looked at.</param>
    public static Appearance Usual(LookSubject subject) => subject switch
    {
        LookSubject.Magnet => Appearance.Paste,
        LookSubject.Fluid => Appearance.Dark,
        LookSubject.Filter => Appearance.NoBits,
        LookSubject.Seal => Appearance.Whole,
        LookSubject.Hold => Appearance.Snapped,
        _ => throw new ArgumentOutOfRangeException(nameof(subject), subject, "Nobody has said how that usually looks."),
    };

    /// <summary>Whether something can be seen of something: there are no slivers in a fluid.</summary>
    /// <param name="look">What.</param>
    public static bool Knows(Look look) => Known.Any(k => k.Subject == look.Subject && k.Looks == look.Looks);

    /// <summary>It in words, such as "fine glitter".</summary>
    /// <param name="look">One that is known.</param>
    /// <exception cref="InvalidOperationException">It cannot be seen of that.</exception>
    public static string Says(Look look) => Row(look).Says;

    /// <summary>What follows from it where the sheet is silent.</summary>
    /// <param name="look">One that is known.</param>
    /// <exception cref="InvalidOperationException">It cannot be seen of that.</exception>
    public static LookOutcome General(Look look) => Row(look).Leads;

    /// <summary>What follows from something that was seen, with all else that is known.</summary>
    /// <param name="now">What was seen.</param>
    /// <param name="alone">What follows from it alone: as the sheet has it, or <see cref="General"/>.</param>
    /// <param name="beside">What else was seen of the same fluid on this card.</param>
    /// <param name="before">What was seen at the same step on the card before.</param>
    /// <returns>The worst of: what follows from it alone; a specialist where glitter and fuel come together, since thin oil carries no
    /// bearing, or where glitter comes a second time, since it does not pass.</returns>
    public static LookOutcome Judge(Look now, LookOutcome alone, IEnumerable<Look> beside, IEnumerable<Look> before)
    {
        var fuel = new Look(LookSubject.Fluid, Appearance.Thin);
        var glitter = new Look(LookSubject.Magnet, Appearance.Glitter);
        var together = (now == fuel && beside.Contains(glitter)) || (now == glitter && beside.Contains(fuel));
        var again = now == glitter && before.Contains(glitter);
        return (together || again) && alone < LookOutcome.Specialist ? LookOutcome.Specialist : alone;
    }

    private static (LookSubject Subject, Appearance Looks, string Says, LookOutcome Leads) Row(Look look) =>
        Known.Single(k => k.Subject == look.Subject && k.Looks == look.Looks);
}
