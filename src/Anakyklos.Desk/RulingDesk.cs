using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A value on which sources disagree, and what the lead ruled on it.</summary>
/// <param name="Value">The value.</param>
/// <param name="Ruling">The ruling; null where there is none.</param>
public sealed record DisputeNow(DisputedValue Value, Ruling? Ruling);

/// <summary>Where sources disagree, the lead rules once for each sheet: that its value holds, and why.</summary>
public sealed class RulingDesk(RulingStore rulings, SheetStore sheets, WorkshopClock clock)
{
    /// <summary>The disputed values of a sheet, each with its ruling.</summary>
    /// <param name="sheet">The sheet.</param>
    public IReadOnlyList<DisputeNow> Of(ModelSheet sheet)
    {
        var known = rulings.Of(sheet.Id);
        return [.. sheet.Disputed().Select(d => new DisputeNow(d, known.FirstOrDefault(d.IsRuledBy)))];
    }

    /// <summary>The rulings that hold for a sheet as it is.</summary>
    /// <param name="sheet">The sheet.</param>
    public IReadOnlyList<Ruling> Holding(ModelSheet sheet) => [.. Of(sheet).Select(d => d.Ruling).OfType<Ruling>()];

    /// <summary>Rules that the value of the newest revision holds.</summary>
    /// <param name="by">Who rules: the lead.</param>
    /// <param name="sheet">The sheet.</param>
    /// <param name="value">The value, by its key.</param>
    /// <param name="reason">Why.</param>
    /// <returns>What is wrong; nothing is kept then.</returns>
    public async Task<IReadOnlyList<Refusal>> Rule(Person by, SheetId sheet, string? value, string? reason)
    {
        if (by.Role is not Role.Lead)
            return [new("The workshop lead rules on this.", "Ask the lead, or say at the card what holds there.")];
        if (sheets.Newest(sheet)?.Disputed().FirstOrDefault(d => d.Key == value) is not { } disputed)
            return [new("Nothing is disputed there.", "Load the page again: the sheet may have a new revision.")];
        if (Reason.Wrong(reason ?? "", "reason", "The reason") is { } wrong)
            return [wrong];
        await rulings.Keep(sheet, disputed.Ruled(reason!.Trim(), by.Name, clock.Now), by);
        return [];
    }
}
