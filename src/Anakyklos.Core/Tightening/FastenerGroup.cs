namespace Anakyklos.Core.Tightening;

/// <summary>The order in which the fasteners of a group are tightened.</summary>
public enum TighteningOrder
{
    /// <summary>One after the other, as they are listed.</summary>
    InTurn,

    /// <summary>Across a circle: never two neighbours in a row where it has five or more.</summary>
    Star,

    /// <summary>From the middle out, crosswise, as on a pan or a long cover.</summary>
    FromTheMiddle,
}

/// <summary>Where one fastener of a group sits.</summary>
/// <param name="Number">Its number on the drawing, from 1: its turn in the order.</param>
/// <param name="X">Across, 0 to 100 from the left.</param>
/// <param name="Y">Down, 0 to 100 from the top.</param>
/// <param name="At">The wheel or side it belongs to; empty where there is one.</param>
public sealed record FastenerPlace(int Number, decimal X, decimal Y, string At = "");

/// <summary>Several fasteners that hold one thing, with their places and how they are tightened together.</summary>
/// <param name="Order">The order within a pass.</param>
/// <param name="Places">Every one of them in its turn; those of one wheel or side stand together.</param>
/// <param name="Passes">Shares of the torque in percent, rising, the last of them 100; 0 stands for run in by hand.</param>
/// <param name="Together">Whether a whole pass may be said at once, when it was done in its order.</param>
/// <param name="LastOut">Numbers of those that stay in till last when it comes off.</param>
public sealed record FastenerGroup(TighteningOrder Order, IReadOnlyList<FastenerPlace> Places, IReadOnlyList<int> Passes,
    bool Together = true, IReadOnlyList<int>? LastOut = null)
{
    /// <summary>A group as a sheet describes it; its fasteners are numbered in the order in which they are tightened.</summary>
    /// <param name="order">The order.</param>
    /// <param name="one">The places of one wheel or cover, numbered as they are listed.</param>
    /// <param name="wheels">The wheels or sides that have them alike; empty where there is one.</param>
    /// <param name="passes">Shares in percent, rising to 100.</param>
    /// <param name="together">Whether a whole pass may be said at once.</param>
    /// <param name="lastOut">Those that stay in till last, by their place in the list.</param>
    public static FastenerGroup Of(TighteningOrder order, IReadOnlyList<FastenerPlace> one, IReadOnlyList<string> wheels,
        IReadOnlyList<int> passes, bool together = true, IReadOnlyList<int>? lastOut = null)
    {
        var (places, last) = (new List<FastenerPlace>(), new List<int>());
        foreach (var at in wheels.Count == 0 ? [""] : wheels)
            foreach (var place in FasteningOrder.Of(order, one))
            {
                if (lastOut?.Contains(place.Number) == true)
                    last.Add(places.Count + 1);
                places.Add(place with { Number = places.Count + 1, At = at });
            }
        return new(order, places, passes, together, last.Count > 0 ? last : null);
    }

    /// <summary>So many that the sheet gives no places for: side by side, one after the other, in one pass.</summary>
    /// <param name="count">How many, 1 or more.</param>
    public static FastenerGroup InARow(int count) => new(TighteningOrder.InTurn,
        [.. Enumerable.Range(0, count).Select(i => new FastenerPlace(i + 1, count == 1 ? 50 : 10 + 80m * i / (count - 1), 50))], [100]);

    /// <summary>Places on a circle, the first at the top, then clockwise.</summary>
    /// <param name="count">How many, 1 or more.</param>
    public static IEnumerable<FastenerPlace> Circle(int count) => Enumerable.Range(0, count).Select(i =>
    {
        var angle = Math.Tau * i / count;
        return new FastenerPlace(i + 1, Rounded(50 + 42 * Math.Sin(angle)), Rounded(50 - 42 * Math.Cos(angle)));
    });

    /// <summary>The turn of a fastener on its own wheel or side, from 1: what stands on the drawing there.</summary>
    /// <param name="number">Its number in the group.</param>
    public int Turn(int number)
    {
        var at = Places.First(p => p.Number == number).At;
        return number - Places.First(p => p.At == at).Number + 1;
    }

    /// <summary>A fastener as it is named: its wheel or side, and its turn there.</summary>
    /// <param name="number">Its number in the group.</param>
    public string Named(int number) => Places.First(p => p.Number == number) is { At.Length: > 0 } place
        ? $"{place.At}, number {Turn(number)}" : $"number {number}";

    /// <summary>The order in which they come out: against the order in which they are drawn down, those that stay till last at the
    /// end.</summary>
    public IReadOnlyList<FastenerPlace> ComesOff
    {
        get
        {
            var off = Places.GroupBy(p => p.At).SelectMany(w => w.Reverse()).ToList();
            return [.. off.Where(p => !Stays(p)), .. off.Where(Stays)];

            bool Stays(FastenerPlace p) => LastOut?.Contains(p.Number) == true;
        }
    }

    private static decimal Rounded(double at) => Math.Round((decimal)at, 1);
}
