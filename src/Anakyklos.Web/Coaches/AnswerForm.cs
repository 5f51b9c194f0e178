using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches;

/// <summary>Buttons of which each says one way in which something may be found, with its picture.</summary>
/// <param name="Fields">What every form of the step sends along.</param>
/// <param name="Command">The command that they give.</param>
/// <param name="Answers">The answers, in the order of the sheet.</param>
/// <param name="Hidden">Hidden fields that go with them.</param>
public sealed record AnswerForm(PressFields Fields, string Command, IReadOnlyList<PointAnswer> Answers,
    params (string Name, string Value)[] Hidden)
{
    /// <summary>A text with a capital.</summary>
    internal static string High(string text) => text.Length == 0 ? "" : $"{char.ToUpperInvariant(text[0])}{text[1..]}";
}
