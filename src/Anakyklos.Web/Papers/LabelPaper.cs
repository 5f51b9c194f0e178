using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Paper;

namespace Anakyklos.Web.Papers;

/// <summary>The label of a card for the windscreen.</summary>
public static class LabelPaper
{
    /// <summary>What falls due after a card, the first first, as the label says it.</summary>
    /// <param name="card">The card; one that is not signed as it would be if it were now.</param>
    /// <param name="workshop">Whose label it is.</param>
    /// <param name="at">When it is made.</param>
    /// <param name="unit">The unit of distance.</param>
    /// <param name="address">The address of the vehicle's page.</param>
    /// <param name="say">Says a text in the language of whoever reads it.</param>
    public static WindscreenLabel Of(JobCard card, string workshop, DateTimeOffset at, Unit<Distance> unit, string address,
        Func<string, string> say)
    {
        var day = DateOnly.FromDateTime((card.Signature?.At ?? at).DateTime);
        return new(workshop, card.Opened.Plate, $"{OdometerText.Of(card.Opened.Odometer, unit)}, {day:d MMM yyyy}",
            [.. card.DueAfter(day).OrderBy(d => d.Next.By ?? DateOnly.MaxValue).ThenBy(d => d.Next.At is null).ThenBy(d => d.Next.At)
                .Select(d => new LabelDue(d.Name, d.Next.At is { } far ? OdometerText.Of(far, unit)
                    : d.Next.AtHours is { } hours ? $"{hours} h" : "", d.Next.By is { } by ? $"{by:d MMM yyyy}" : ""))], address)
        {
            Say = say,
        };
    }
}
