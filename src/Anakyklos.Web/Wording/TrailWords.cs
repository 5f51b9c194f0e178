using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Wording;

/// <summary>The words for what was changed of a vehicle.</summary>
public static class TrailWords
{
    /// <summary>One change, without a full stop.</summary>
    /// <param name="of">What was changed.</param>
    /// <param name="job">The name of a job.</param>
    /// <param name="clock">The workshop's clock.</param>
    /// <param name="unit">The reader's unit.</param>
    public static string Of(Changed of, Func<JobId, string> job, WorkshopClock clock, Unit<Distance> unit)
    {
        string Km(string km) => OdometerText.Of(Quantity<Distance>.Of(decimal.Parse(km, CultureInfo.InvariantCulture), Distance.Kilometre),
            unit);
        string Text(string text) => text.Length == 0 ? "nothing" : $"“{text}”";
        return of.What switch
        {
            "reading" => $"reading of {clock.Local(DateTimeOffset.Parse(of.Subject, CultureInfo.InvariantCulture)):d MMM yyyy}: "
                + $"{Km(of.Was)} was {Km(of.Now)}; {of.Reason}",
            "exchange" => $"odometer exchanged: {Km(of.Was)} on the old one is {Km(of.Now)} on the new one; {of.Reason}",
            "elsewhere" when of.Now.Length > 0 => $"done elsewhere: {Done(of.Subject)} at {Km(of.Now)}; {of.Reason}",
            "elsewhere" => $"not done elsewhere: {Done(of.Subject)}; {of.Reason}",
            "gone" => $"{(of.Now == "gone" ? "it is gone" : "it is here again")}; {of.Reason}",
            _ => $"{of.What}: {Text(of.Was)} is now {Text(of.Now)}; {of.Reason}",
        };

        string Done(string subject) => subject.LastIndexOf(' ') is var i
            ? $"{job(subject[..i])} on {DateOnly.ParseExact(subject[(i + 1)..], "O", CultureInfo.InvariantCulture):d MMM yyyy}" : subject;
    }
}
