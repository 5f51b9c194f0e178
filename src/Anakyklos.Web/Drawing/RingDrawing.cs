using Anakyklos.Core.Cards;

namespace Anakyklos.Web.Drawing;

/// <summary>The ring of a card as shapes: arcs for the phases, filled where done, a small circle for each open item, a notch for
/// now.</summary>
public sealed class RingDrawing
{
    private const double Centre = 120, Radius = 92, PhaseGap = 3;

    private RingDrawing(IReadOnlyList<Arc> arcs, IReadOnlyList<Dot> dots, string notch, int open, bool signed) =>
        (Arcs, Dots, Notch, Open, IsSigned) = (arcs, dots, notch, open, signed);

    /// <summary>One arc: its path and whether it is done.</summary>
    public sealed record Arc(string Path, bool Done);

    /// <summary>An open item on the ring.</summary>
    public sealed record Dot(string X, string Y);

    /// <summary>The arcs, clockwise from the top.</summary>
    public IReadOnlyList<Arc> Arcs { get; }

    /// <summary>The open items.</summary>
    public IReadOnlyList<Dot> Dots { get; }

    /// <summary>The path of the notch, empty when all is done.</summary>
    public string Notch { get; }

    /// <summary>How many things are open.</summary>
    public int Open { get; }

    /// <summary>Whether the ring is closed and signed.</summary>
    public bool IsSigned { get; }

    /// <summary>What the ring shows, for those who do not see it.</summary>
    public string Words => IsSigned ? "Ring closed and signed" : Open == 0 ? "Nothing open" : $"{Open} still open";

    /// <summary>The ring of a card.</summary>
    public static RingDrawing Of(JobCard card)
    {
        var steps = card.Steps;
        var each = 360.0 / steps.Count;
        var index = steps.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var arcs = new List<Arc>();
        if (card.Signature is not null)
            arcs.AddRange([new(ArcPath(0, 180), true), new(ArcPath(180, 360), true)]);
        for (var i = 0; i < steps.Count && card.Signature is null;)
        {
            var (from, done) = (i, IsDone(card, i));
            while (i < steps.Count && steps[i].Phase == steps[from].Phase && IsDone(card, i) == done)
                i++;
            var newPhase = from > 0 && steps[from - 1].Phase != steps[from].Phase;
            arcs.Add(new(ArcPath(from * each + (newPhase || from == 0 ? PhaseGap / 2 : 0),
                i * each - (i == steps.Count || steps[i].Phase != steps[from].Phase ? PhaseGap / 2 : 0)), done));
        }
        var dots = card.Signature is not null ? [] : card.Open.Select(o => Math.Round((index.GetValueOrDefault(o.By) + 0.5) * each, 2))
            .Distinct().Select(a => new Dot(Svg.N(At(a, Radius).X), Svg.N(At(a, Radius).Y))).ToList();
        var notch = card.Next is { } next && card.Signature is null ? Line(index[next.Id] * each, Radius - 17, Radius + 17) : "";
        return new(arcs, dots, notch, card.Open.Count, card.Signature is not null);
    }

    private static bool IsDone(JobCard card, int i) => card.State(card.Steps[i].Id).Status is StepStatus.Done or StepStatus.LeftOut;

    private static (double X, double Y) At(double degrees, double radius)
    {
        var turn = (degrees - 90) * Math.PI / 180;
        return (Centre + radius * Math.Cos(turn), Centre + radius * Math.Sin(turn));
    }

    private static string ArcPath(double from, double to)
    {
        var (a, b) = (At(from, Radius), At(to, Radius));
        return $"M{Svg.N(a.X)} {Svg.N(a.Y)}A{Svg.N(Radius)} {Svg.N(Radius)} 0 {(to - from > 180 ? 1 : 0)} 1 {Svg.N(b.X)} "
            + $"{Svg.N(b.Y)}";
    }

    private static string Line(double degrees, double inner, double outer)
    {
        var (a, b) = (At(degrees, inner), At(degrees, outer));
        return $"M{Svg.N(a.X)} {Svg.N(a.Y)}L{Svg.N(b.X)} {Svg.N(b.Y)}";
    }
}
