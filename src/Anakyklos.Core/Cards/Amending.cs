using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>Something that a record says, and that can be put right beside it once the card is signed.</summary>
/// <param name="Of">What, such as <c>torque/tighten-drain-plug</c>.</param>
/// <param name="Name">Its name, with a capital.</param>
public sealed record Amendable(string Of, string Name)
{
    /// <summary>How far the vehicle had gone.</summary>
    public const string Odometer = "odometer";

    /// <summary>Something else, or the whole.</summary>
    public const string Whole = "record";

    /// <summary>The torque of a step that tightens or checks.</summary>
    /// <param name="step">The step.</param>
    public static string Torque(StepId step) => $"torque/{step}";

    /// <summary>What was filled in.</summary>
    /// <param name="fluid">The fluid.</param>
    public static string Fluid(FluidId fluid) => $"fluid/{fluid}";

    /// <summary>What was fitted.</summary>
    /// <param name="part">The part.</param>
    public static string Part(PartId part) => $"part/{part}";

    /// <summary>What was found at a point.</summary>
    /// <param name="step">The list of inspections.</param>
    /// <param name="point">The point.</param>
    public static string Found(StepId step, string point) => $"point/{step}/{point}";

    /// <summary>A line of the history: a deviation, or something that was seen.</summary>
    /// <param name="seq">Its seq.</param>
    public static string Event(int seq) => $"line/{seq}";

    /// <summary>The seq of a line of the history; null for everything else.</summary>
    /// <param name="of">What <see cref="Event"/> gave.</param>
    public static int? SeqOf(string of) => of.StartsWith("line/", StringComparison.Ordinal)
        && int.TryParse(of["line/".Length..], System.Globalization.NumberStyles.None, System.Globalization.CultureInfo.InvariantCulture,
            out var seq) ? seq : null;
}

/// <summary>What a signed card says is put right beside it, by a part that is signed by itself.</summary>
public sealed partial class JobCard
{
    /// <summary>What was put right since it was signed, in that order.</summary>
    public IReadOnlyList<Noted<Amended>> Amendments => _state.Amendments;

    /// <summary>What can be put right beside the signed card: all that its record says, and the record as a whole.</summary>
    public IReadOnlyList<Amendable> Amendables =>
    [
        .. Steps.Where(s => s.Traits.Fastens || s.Traits.Checks)
            .Select(s => new Amendable(Amendable.Torque(s.Id), $"{Sheet.Fasteners[s.What].Name}, torque")),
        .. FluidsWanted.Select(f => new Amendable(Amendable.Fluid(f.Id), f.Name)),
        .. PartsWanted.Select(p => new Amendable(Amendable.Part(p.Id), p.Name)),
        .. Steps.Where(s => s.Spec is InspectSpec).SelectMany(s => ((InspectSpec)s.Spec!).Points
            .Where(p => FoundAt(s.Id).Any(f => f.Point == p.Id))
            .Select(p => new Amendable(Amendable.Found(s.Id, p.Id), p.Name))),
        .. Deviations.Select(d => new Amendable(Amendable.Event(d.Seq), d.Event.What)),
        .. Findings.Select(f => new Amendable(Amendable.Event(f.Seq), f.Event.Text)),
        new(Amendable.Odometer, "Odometer"),
        new(Amendable.Whole, "Something else"),
    ];

    private Decision AmendedBy(Amend c)
    {
        if (Signature is null)
            return Voided is { } v ? No($"This card was made void by {v.By.Name}.", "There is nothing on it to put right.",
                ground: Ground.Ended)
                : No("This card is not signed yet.", "Put it right on the card itself.", Next?.Id, ground: Ground.Ring);
        if (Amendables.FirstOrDefault(a => a.Of == c.Of) is not { } what)
            return No("The record says no such thing.", "Choose one from the list.", field: "line");
        return Wordless(c.Words, "words", "How it really was") ?? (Decision)Yes(new Amended(what.Of, what.Name, c.Words.Trim()));
    }
}
