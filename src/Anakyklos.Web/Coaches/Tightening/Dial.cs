using Anakyklos.Core.Tightening;
using Anakyklos.Web.Drawing;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A turn drawn as the hand makes it, in quarter steps: whole turns as rings, the rest as an arc.</summary>
/// <param name="Degrees">How far, above 0 and up to 720.</param>
public sealed record Dial(decimal Degrees)
{
    /// <summary>The dial of a turn; null where none is made.</summary>
    public static Dial? Of(TighteningSpec spec) => spec switch
    {
        TurnAfterContact turn => new(turn.Turns * 360),
        TurnFurther turn => new(turn.Degrees),
        _ => null,
    };

    /// <summary>Whole turns before the arc; a single whole turn is an arc that comes round.</summary>
    public int Whole => (int)decimal.Floor((Degrees - 1) / 360);

    /// <summary>The arc of what is left, clockwise from the top.</summary>
    public string Arc
    {
        get
        {
            var rest = (double)(Degrees - Whole * 360);
            var end = Math.Min(rest, 359.5);
            return $"M100 30A70 70 0 {(end > 180 ? 1 : 0)} 1 {At(end, 70)}";
        }
    }

    /// <summary>The head of the arrow.</summary>
    public string Head
    {
        get
        {
            var end = Math.Min((double)(Degrees - Whole * 360), 359.5);
            return $"M{At(end + 13, 70)}L{At(end, 84)}L{At(end, 56)}Z";
        }
    }

    private static string At(double degrees, double radius) => $"{Svg.N(X(degrees, radius))} {Svg.N(Y(degrees, radius))}";

    private static decimal X(double degrees, double radius) => (decimal)(100 + radius * Math.Sin(degrees * Math.PI / 180));

    private static decimal Y(double degrees, double radius) => (decimal)(100 - radius * Math.Cos(degrees * Math.PI / 180));
}
