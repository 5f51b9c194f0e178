using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A wrench to choose.</summary>
/// <param name="Name">Its name; empty for the one that the card says.</param>
/// <param name="Says">What it would be set to, or that it cannot be.</param>
public sealed record WrenchChoice(string Name, string Says);

/// <summary>Taking up another wrench, or putting something across its head.</summary>
/// <param name="Fields">What goes with the press.</param>
/// <param name="Choices">The wrenches in calibration, after the one that the card says.</param>
/// <param name="Chosen">The one in the hand.</param>
/// <param name="Length">The crow-foot that is on it; empty for none.</param>
/// <param name="Degrees">Its angle; empty for none.</param>
/// <param name="Problems">What was wrong with what was typed.</param>
/// <param name="Saying">What was typed before.</param>
public sealed record WrenchForm(PressFields Fields, IReadOnlyList<WrenchChoice> Choices, string Chosen, string Length, string Degrees,
    IReadOnlyList<Refusal> Problems, Func<string, string> Saying)
{
    /// <summary>The form as the step stands.</summary>
    public static WrenchForm Of(PressFields fields, LiftScene scene, IReadOnlyList<Refusal> problems, Func<string, string> typed)
    {
        var fastening = Fastening.Of(scene.Card, scene.Step);
        var to = scene.Torque!;
        return new(fields,
            [
                new("", "the one that can be set nearest"),
                .. scene.Wrenches.Select(w => new WrenchChoice(w.Name, w.Setting(to, fastening.With) is { } set
                    ? $"set to {set.Print(w.Scale)}" : $"{w.Low.Print(w.Scale)} to {w.High.Print(w.Scale)}: no mark of it does")),
            ], fastening.TakenUp?.Name ?? "", fastening.With?.Length.Print(Anakyklos.Core.Quantities.Length.Millimetre).ToString() ?? "",
            fastening.With is { } with ? $"{with.Degrees}" : "", problems, typed);
    }

    /// <summary>What was typed into a field, or what stands in it.</summary>
    public string Typed(string field, string otherwise) => Problems.Count > 0 ? Saying(field) : otherwise;
}
