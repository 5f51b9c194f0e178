using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;

namespace Anakyklos.Desk;

/// <summary>What a laboratory measured, in words.</summary>
public static class LabWords
{
    /// <summary>What stands against a result, the worst first, such as "iron 95 mg/kg, too much".</summary>
    /// <param name="judgement">The result, judged.</param>
    public static string Says(LabJudgement judgement) => judgement.Leads == LookOutcome.CarryOn ? "nothing out of the way"
        : string.Join("; ", judgement.Lines.Where(l => l.Reason != LabReason.None).OrderByDescending(l => l.Leads).Select(Line));

    /// <summary>A value with what stands against it.</summary>
    /// <param name="line">The value, judged.</param>
    public static string Line(LabLine line) =>
        $"{$"{line.Analyte}".ToLowerInvariant()} {line.Value:0.##} {LabRules.Unit(line.Analyte)}"
            + (Why(line) is { Length: > 0 } why ? $", {why}" : "");

    /// <summary>What stands against a value; empty when nothing does.</summary>
    /// <param name="line">The value, judged.</param>
    public static string Why(LabLine line) => line.Reason switch
    {
        LabReason.None => "",
        LabReason.TooMuch => "too much",
        LabReason.TooFast => $"{line.PerThousand:0.#} in 1000 km is too fast",
        LabReason.FasterThanBefore => $"{line.PerThousand:0.#} in 1000 km, {line.Before:0.#} before",
        LabReason.TooThin => "thinner than its grade",
        LabReason.TooThick => "thicker than its grade",
        _ => throw new InvalidOperationException($"Nobody says what {line.Reason} means."),
    };
}
