using Anakyklos.Core.Cards;

namespace Anakyklos.Core.Workshop;

/// <summary>A person of the workshop with their settings.</summary>
/// <param name="Id">Id.</param>
/// <param name="Name">Name as shown.</param>
/// <param name="Role">Role.</param>
/// <param name="PinHash">Hash of the PIN.</param>
/// <param name="Units">"metric" or "us": which units come first.</param>
/// <param name="Look">"device", "day" or "night".</param>
/// <param name="GoneAt">When they went; null while they are here.</param>
/// <param name="Language">The language they are spoken to in, such as "de"; empty for the one that their browser asks for.</param>
public sealed record Member(PersonId Id, string Name, Role Role, string PinHash, string Units, string Look, DateTimeOffset? GoneAt = null,
    string Language = "")
{
    /// <summary>As the core knows a person.</summary>
    public Person Person => new(Id, Name, Role);
}
