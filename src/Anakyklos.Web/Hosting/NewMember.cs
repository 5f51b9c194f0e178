using Anakyklos.Core.Cards;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Making a person from what was typed.</summary>
internal static class NewMember
{
    internal static Dictionary<string, string> Problems(string name, string? pin)
    {
        var problems = new Dictionary<string, string>();
        if (name.Length is 0 or > 40)
            problems["name"] = "Give a name of up to 40 characters.";
        if (!PinDesk.IsPin(pin))
            problems["pin"] = "A PIN has four to twelve digits.";
        return problems;
    }

    internal static Member Make(string name, Role role, string pin, PinDesk desk)
    {
        var member = new Member(Guid.CreateVersion7().ToString("N"), name, role, "", "metric", "device");
        return member with { PinHash = desk.Hash(member, pin) };
    }
}
