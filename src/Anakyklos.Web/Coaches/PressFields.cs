namespace Anakyklos.Web.Coaches;

/// <summary>What goes with every press, hidden in its form.</summary>
/// <param name="Command">The id of the command that the press gives: sent twice, it is one command.</param>
/// <param name="Seen">The last seq of the card as this screen shows it.</param>
/// <param name="Step">Step id, or empty where the command is for none.</param>
public sealed record PressFields(Guid Command, int Seen, string Step);
