using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;

namespace Anakyklos.Desk;

/// <summary>The line in which a scan tool sends what it read out of a vehicle.</summary>
internal sealed record ScannedLine(string Identity, Typed<Distance> Odometer, string Code, Typed<Distance>? Left, int? OilLife, int? Hours)
{
    private const int LongestIdentity = 40;
    private const int LongestCode = 20;
    private const int MostHours = 200_000;
    private const decimal Furthest = 3_000_000;

    internal VehicleReport Report(Guid id, DeviceId device, string bay, DateTimeOffset at) =>
        new(id, device, bay, Identity, at, Odometer, Code, Left, OilLife, Hours);

    /// <summary>Reads a line.</summary>
    /// <param name="line">An object.</param>
    /// <param name="problem">What is wrong, and what to send instead; empty when it was read.</param>
    /// <returns>What it says, or null. What is not there is not read; what is there and wrong is not passed over.</returns>
    internal static ScannedLine? Read(JsonElement line, out string problem)
    {
        problem = "";
        if (Word(line, "vehicle", LongestIdentity) is not { Length: > 0 } identity)
            problem = $"“vehicle” is what the vehicle says that it is, up to {LongestIdentity} characters.";
        else if (Word(line, "unit", LongestCode) is not { } spelt || Distance.Units.FirstOrDefault(u => u.IsSpelt(spelt)) is not { } unit)
            problem = "“unit” is the unit of its distances: km or mi.";
        else if (Number(line, "odometer", 0, Furthest) is not { } odometer)
            problem = "“odometer” is a number, from 0.";
        else if (line.TryGetProperty("code", out _) && Word(line, "code", LongestCode) is null)
            problem = $"“code” is the message code on the dash, up to {LongestCode} characters; leave it out for none.";
        else if (line.TryGetProperty("left", out _) && Number(line, "left", -Furthest, Furthest) is null)
            problem = "“left” is the distance left, a number, below nought when it is over.";
        else if (line.TryGetProperty("oilLife", out _) && Whole(line, "oilLife", 100) is null)
            problem = "“oilLife” is 0 to 100, in percent.";
        else if (line.TryGetProperty("hours", out _) && Whole(line, "hours", MostHours) is null)
            problem = "“hours” are whole running hours.";
        else
            return new(identity, new(Quantity<Distance>.Of(odometer, unit), unit), Word(line, "code", LongestCode) ?? "",
                Number(line, "left", -Furthest, Furthest) is { } left ? new(Quantity<Distance>.Of(left, unit), unit) : null,
                Whole(line, "oilLife", 100), Whole(line, "hours", MostHours));
        return null;
    }

    private static string? Word(JsonElement line, string name, int longest) =>
        line.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String && value.GetString() is { } text
            && text.Length <= longest && text.Trim().Length == text.Length ? text : null;

    private static decimal? Number(JsonElement line, string name, decimal least, decimal most) =>
        line.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.Number && value.TryGetDecimal(out var number)
            && number >= least && number <= most ? number : null;

    private static int? Whole(JsonElement line, string name, int most) =>
        Number(line, name, 0, most) is { } number && number == decimal.Truncate(number) ? (int)number : null;
}
