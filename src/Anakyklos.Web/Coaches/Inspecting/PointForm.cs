using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Coaches.Inspecting;

/// <summary>Where the reading of a point is typed.</summary>
/// <param name="Fields">What goes with the press.</param>
/// <param name="Scene">The step.</param>
/// <param name="Problems">What was wrong with what was typed.</param>
/// <param name="Typed">What was typed before, by the name of the field.</param>
public sealed record PointForm(PressFields Fields, LiftScene Scene, IReadOnlyList<Refusal> Problems, Func<string, string> Typed)
{
    /// <summary>The point that is measured.</summary>
    public InspectPoint Point => Scene.Point!;

    /// <summary>How it is measured.</summary>
    public GaugeAsk Ask => Point.Measure!;

    /// <summary>Whether something was wrong with a field.</summary>
    public bool IsWrong(string field) => Problems.Any(r => r.Field == field);
}
