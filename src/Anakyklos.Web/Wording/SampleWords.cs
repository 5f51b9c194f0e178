using Anakyklos.Core.Looks;

namespace Anakyklos.Web.Wording;

/// <summary>What follows from a laboratory's answer, in a word and a colour.</summary>
public static class SampleWords
{
    /// <summary>In a word.</summary>
    public static string State(LookOutcome leads) => leads switch
    {
        LookOutcome.CarryOn => "carry on",
        LookOutcome.Shorten or LookOutcome.Sample => "half the next interval",
        _ => "have it looked at",
    };

    /// <summary>The colour.</summary>
    public static string Look(LookOutcome leads) => leads switch
    {
        LookOutcome.CarryOn => "done",
        LookOutcome.Shorten or LookOutcome.Sample => "wait",
        _ => "bad",
    };

    /// <summary>In a sentence.</summary>
    public static string Sentence(LookOutcome leads) => leads switch
    {
        LookOutcome.CarryOn => "Carry on.",
        LookOutcome.Shorten or LookOutcome.Sample => "Half the next interval; the vehicle's dates say so already.",
        _ => "A specialist looks at it before it works on; call the vehicle in.",
    };
}
