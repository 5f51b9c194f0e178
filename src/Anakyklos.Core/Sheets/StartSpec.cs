namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of starting the engine.</summary>
/// <param name="Light">The oil light is out within so long, or the engine is switched off at once.</param>
/// <param name="Moves">What makes it run that would not run by itself, in order; empty where the key or a button does.</param>
/// <param name="Stays">Lights that may stay on, and for how long.</param>
/// <param name="Looks">What is looked at before it is started again when the oil light stayed on.</param>
public sealed record StartSpec(TimeSpan Light, IReadOnlyList<StartMove> Moves, IReadOnlyList<LightStays> Stays,
    IReadOnlyList<string> Looks) : WorkSpec
{
    /// <summary>Where the sheet says nothing: five seconds, and what anybody looks at.</summary>
    public static StartSpec Usual { get; } = new(TimeSpan.FromSeconds(5), [], [], []);

    private static readonly IReadOnlyList<string> UsualLooks =
        ["Level between the marks", "Filter and drain plug in, tight and dry", "Nothing on the floor", "Lead of the oil switch on"];

    /// <summary>What is looked at: the sheet's own, or the usual.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IReadOnlyList<string> LooksAt => Looks.Count > 0 ? Looks : UsualLooks;

    /// <summary>What holds at a step that starts the engine.</summary>
    /// <param name="step">The step.</param>
    public static StartSpec Of(SheetStep step) => step.Spec as StartSpec ?? Usual;

    internal static StartSpec Read(SheetCursor c)
    {
        var spec = new StartSpec(c.Duration("light", false) ?? Usual.Light,
            c.List("moves", m => new StartMove(m.Text("do"), m.Text("expect", false))),
            c.List("stays", s => new LightStays(s.Text("name"), s.Text("for"))), c.Texts("looks"));
        if (spec.Light <= TimeSpan.Zero || spec.Light > TimeSpan.FromMinutes(1))
            c.Complain("light", "An oil light is out within seconds, such as “5 s”; a minute is the most.");
        return spec;
    }
}

/// <summary>One move of what makes an engine run.</summary>
/// <param name="Do">What the hands do.</param>
/// <param name="Expect">What the display answers, or empty.</param>
public sealed record StartMove(string Do, string Expect);

/// <summary>A warning light that may stay on after the start.</summary>
/// <param name="Name">Which.</param>
/// <param name="For">For how long, such as "up to a minute".</param>
public sealed record LightStays(string Name, string For);
