namespace Anakyklos.Core.Wording;

/// <summary>Words that somebody must give: a reason, a finding, what was decided.</summary>
public static class Reason
{
    /// <summary>The most that is kept, in characters.</summary>
    public const int Longest = 400;

    /// <summary>What is wrong with words that must be there: missing, one sign only, or too long; null when they can be kept.</summary>
    /// <param name="text">The words as typed.</param>
    /// <param name="field">The field they were typed into.</param>
    /// <param name="what">What they are, with a capital: "The reason".</param>
    /// <returns>What is wrong with it, or null when it can be kept.</returns>
    public static Refusal? Wrong(string text, string field, string what) =>
        string.IsNullOrWhiteSpace(text) ? new($"{what} is missing.", "Say it in a few words.", Field: field)
        : text.Trim().Length < 2 ? new($"“{text.Trim()}” says nothing.", "Say it in a few words.", Field: field)
        : text.Length > Longest ? new($"{what} is {text.Length} characters long.", $"Keep it to {Longest}.", Field: field)
        : null;
}
