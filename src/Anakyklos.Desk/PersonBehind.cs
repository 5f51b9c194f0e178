using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Desk;

/// <summary>Who stands behind a command to which somebody puts a name: whoever types their own PIN, each time.</summary>
public sealed class PersonBehind(PeopleDesk people, WorkshopClock clock)
{
    /// <summary>Finds out who says something that wants a PIN.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="wanted">What is said.</param>
    /// <param name="signedIn">Who is signed in at the screen.</param>
    /// <param name="who">Whose name it is to be; empty for the one who is signed in.</param>
    /// <param name="pin">The PIN as typed.</param>
    /// <param name="place">Where it was typed, for a person: trying out PINs is slowed down.</param>
    /// <returns>The person; or every reason against it, of which that a PIN is missing is told last.</returns>
    public async Task<(Person? By, IReadOnlyList<Refusal> Not)> Of(JobCard card, CardCommand wanted, Person signedIn, string? who,
        string? pin, Func<PersonId, PinPlace> place)
    {
        if (string.IsNullOrEmpty(pin))
            // What only the server knows is not asked before it is known who asks.
            return (null, !wanted.AsksServer && card.Decide(wanted, signedIn, clock.Now) is Refused refused ? refused.Reasons
                : [new("The PIN is missing.", "Whoever puts a name to it types their own PIN.") { Field = "pin" }]);
        var person = string.IsNullOrEmpty(who) ? signedIn.Id : PersonId.Of(who);
        var outcome = await people.Try(person, pin, place(person));
        return outcome.Member is { } member ? (member.Person, [])
            : (null, [new(outcome.Problem, "Whoever puts a name to it types their own PIN.") { Field = "pin" }]);
    }
}
