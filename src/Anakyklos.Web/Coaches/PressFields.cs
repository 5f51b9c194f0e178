namespace Anakyklos.Web.Coaches;

/// <summary>What goes with every press, hidden in its form.</summary>
/// <param name="Command">The id of the command that the press gives: sent twice, it is one command.</param>
/// <param name="Seen">The last seq of the card as this screen shows it.</param>
/// <param name="Step">Step id, or empty where the command is for none.</param>
public sealed record PressFields(Guid Command, int Seen, StepId Step);

/// <summary>A button that gives a command.</summary>
/// <param name="Fields">What goes with every press.</param>
/// <param name="Press">What the hands did, and what it gives.</param>
/// <param name="Look">How it is drawn: "main" or "side".</param>
/// <param name="Key">The key that presses it, or empty.</param>
public sealed record PressButton(PressFields Fields, LiftScene.Press Press, string Look, string Key)
{
    /// <summary>The key as it stands on it.</summary>
    public string KeyCap => Key.Length == 1 ? Key.ToUpperInvariant() : Key;
}
