namespace Anakyklos.Core.Sheets;

/// <summary>Where a road wheel sits.</summary>
public enum WheelPlace
{
    /// <summary>Front left, seen from the seat.</summary>
    FrontLeft,

    /// <summary>Front right.</summary>
    FrontRight,

    /// <summary>Rear left; of twins the outer one.</summary>
    RearLeft,

    /// <summary>Rear right; of twins the outer one.</summary>
    RearRight,

    /// <summary>The inner twin, rear left.</summary>
    RearLeftInner,

    /// <summary>The inner twin, rear right.</summary>
    RearRightInner,
}

/// <summary>A wheel goes from one place to another.</summary>
/// <param name="From">From where.</param>
/// <param name="To">To where; the same where it stays.</param>
public sealed record WheelMove(WheelPlace From, WheelPlace To)
{
    /// <summary>Whether it goes to the other side: then it turns the other way, and an arrow on its tread would point backwards.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool ChangesSide => IsLeft(From) != IsLeft(To);

    private static bool IsLeft(WheelPlace place) => place is WheelPlace.FrontLeft or WheelPlace.RearLeft or WheelPlace.RearLeftInner;
}

/// <summary>How the wheels of a model are rotated.</summary>
/// <param name="Moves">Where each goes; every place is left once and taken once.</param>
/// <param name="Arrowed">Where each goes whose tread carries an arrow; none changes its side.</param>
public sealed record RotateSpec(IReadOnlyList<WheelMove> Moves, IReadOnlyList<WheelMove> Arrowed) : WorkSpec
{
    /// <summary>Where each wheel goes.</summary>
    /// <param name="arrowed">Whether the treads carry an arrow.</param>
    public IReadOnlyList<WheelMove> For(bool arrowed) => arrowed ? Arrowed : Moves;

    internal static RotateSpec Read(SheetCursor c)
    {
        var spec = new RotateSpec(c.List("moves", Move, true), c.List("arrowed", Move, true));
        foreach (var (name, moves) in new[] { ("moves", spec.Moves), ("arrowed", spec.Arrowed) })
            if (!moves.Select(m => m.From).Order().SequenceEqual(moves.Select(m => m.To).Order())
                || moves.Select(m => m.From).Distinct().Count() < moves.Count)
                c.Complain(name, "Each place is left by one wheel and taken by one.");
        if (spec.Arrowed.Any(m => m.ChangesSide))
            c.Complain("arrowed", "A tread with an arrow stays on its side.");
        return spec;
    }

    private static WheelMove Move(SheetCursor c) => new(c.Word<WheelPlace>("from"), c.Word<WheelPlace>("to"));
}
