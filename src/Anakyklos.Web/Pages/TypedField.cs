using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>A field of a form as it is drawn: its label, what was typed, what is wrong with it, or else a hint.</summary>
/// <param name="Name">Its name in the form.</param>
/// <param name="Label">What stands above it.</param>
/// <param name="Value">What was typed.</param>
/// <param name="Refusals">What is wrong with the form.</param>
public sealed record TypedField(string Name, string Label, string? Value, IReadOnlyList<Refusal> Refusals)
{
    /// <summary>The letter of the form with its dash, where a page has several; before the name it makes the id.</summary>
    public string Form { get; init; } = "";

    public string Type { get; init; } = "text";

    /// <summary>The most characters it takes.</summary>
    public int Most { get; init; } = 40;

    public string Hint { get; init; } = "";

    public string? Placeholder { get; init; }

    /// <summary>The device that read what stands in it; null where it was typed.</summary>
    public string? ReadBy { get; init; }

    public bool Required { get; init; }

    public string Id => Form + Name;

    /// <summary>Digits alone are typed, so a phone shows its digits.</summary>
    public bool Digits { get; init; }

    /// <summary>An amount, so that its decimals may stand behind a comma.</summary>
    public bool IsAmount { get; init; }

    public bool IsWrong => Refusals.Any(r => r.Field == Id);
}
