using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Due;

/// <summary>What the dash shows today.</summary>
/// <param name="Code">Message code, or empty.</param>
/// <param name="OilLife">Oil life left, 0 to 100 percent, or null.</param>
/// <param name="Remaining">Distance left, negative when over, or null.</param>
public sealed record DashReport(string Code, int? OilLife, Quantity<Distance>? Remaining)
{
    /// <summary>It shows nothing.</summary>
    public static DashReport Nothing { get; } = new("", null, null);
}

/// <summary>Why a job is on the list.</summary>
public enum Because
{
    /// <summary>Our sum says so and the dash does not speak of it.</summary>
    OurSum,

    /// <summary>Our sum and the dash agree.</summary>
    Both,

    /// <summary>The dash asks for it; by our sum it is not due.</summary>
    DashAlone,

    /// <summary>The dash's counter is used up sooner than our sum.</summary>
    CounterSooner,

    /// <summary>Near enough to be done in the same visit.</summary>
    Near,

    /// <summary>It would run over on the trip.</summary>
    Trip,

    /// <summary>What it follows is proposed too, and it begins anew after that.</summary>
    BeginsAnew,

    /// <summary>Nothing asks for it.</summary>
    Nothing,
}

/// <summary>A job as proposed at intake.</summary>
/// <param name="Standing">Where it stands.</param>
/// <param name="Because">Why.</param>
/// <param name="Proposed">Whether it is chosen beforehand; what the dash alone asks for is not, a person decides.</param>
/// <param name="Trip">What the trip would run over, or null.</param>
public sealed record ProposedJob(Standing Standing, Because Because, bool Proposed, TripItem? Trip);

/// <summary>What is proposed at intake, and where dash and sum disagree.</summary>
/// <param name="Jobs">All jobs of the model, the proposed ones first, most urgent first.</param>
/// <param name="Message">The message that the code stands for; null when there is no code or it is unknown.</param>
/// <param name="UnknownCode">The code, when the model's scheme does not have it; else empty.</param>
/// <param name="CounterSays">What the dash's counter gives as distance left, or null.</param>
/// <param name="SumSays">What our own sum gives as distance left for the same job, or null.</param>
/// <param name="CounterDiffers">Whether those two differ by more than a tenth of the interval.</param>
/// <param name="LifeSays">What its oil life gives as distance left, or null.</param>
/// <param name="CountersDiffer">Whether its distance left and its oil life differ by more than a tenth of the interval.</param>
public sealed record Proposal(IReadOnlyList<ProposedJob> Jobs, DashMessage? Message, string UnknownCode, Quantity<Distance>? CounterSays,
    Quantity<Distance>? SumSays, bool CounterDiffers, Quantity<Distance>? LifeSays = null, bool CountersDiffer = false)
{
    /// <summary>Proposes the jobs of a visit.</summary>
    /// <param name="items">All jobs as they stand.</param>
    /// <param name="now">Where the vehicle stands.</param>
    /// <param name="past">Its life before.</param>
    /// <param name="scheme">What its dash can show.</param>
    /// <param name="dash">What its dash shows.</param>
    /// <param name="trips">What a trip ahead would run over.</param>
    /// <returns>The proposal; a code that the scheme does not have is in it as unknown.</returns>
    public static Proposal Of(IReadOnlyList<Standing> items, UseMark now, VehiclePast past, DashScheme scheme, DashReport dash,
        IReadOnlyList<TripItem> trips)
    {
        var message = dash.Code.Length == 0 ? null : scheme.Find(dash.Code);
        var counted = items.Where(s => s.Item.Job == scheme.Counts && s.At is not null).Select(s => (Standing?)s).FirstOrDefault();
        var whole = counted is { } c ? c.At - (c.Last ?? past.Delivered).Odometer : null;
        var life = dash.OilLife is { } percent ? whole * (percent / 100m) : null;
        // The two are counted in two ways: distance gone, and how it was driven. The shorter one holds.
        var counter = dash.Remaining is not { } left ? life : life < left ? life : left;
        var sum = counted?.At - now.Odometer;
        var differs = counter is { } x && sum is { } y && whole is { } w && Abs(x - y) > w * 0.1m;
        var twoDiffer = dash.Remaining is { } far && life is { } worn && whole is { } all && Abs(far - worn) > all * 0.1m;
        var anyDue = items.Any(s => s.IsDue) || message is not null || trips.Count > 0;
        ProposedJob[] each = [.. items.Select(Propose)];
        return new([.. each.Select(Anew).OrderByDescending(p => p.Proposed).ThenByDescending(p => p.Standing.State)], message,
            message is null ? dash.Code : "", counter, sum, differs, life, twoDiffer);

        ProposedJob Propose(Standing s)
        {
            var trip = trips.FirstOrDefault(t => t.Standing.Item.Job == s.Item.Job);
            var asked = message?.Jobs.Contains(s.Item.Job) == true;
            var used = s.Item.Job == scheme.Counts && counter <= Quantity<Distance>.Zero;
            var because = s.IsDue ? asked || used ? Because.Both : Because.OurSum
                : used ? Because.CounterSooner
                : trip is not null ? Because.Trip
                : asked ? Because.DashAlone
                : s.State == DueState.Soon && anyDue ? Because.Near
                : Because.Nothing;
            return new(s, because, because is not (Because.Nothing or Because.DashAlone), trip);
        }

        ProposedJob Anew(ProposedJob job) => job.Standing.Item.Follows is { } before
            && each.Any(p => p.Proposed && p.Standing.Item.Job == before)
            ? job with { Because = Because.BeginsAnew, Proposed = false } : job;
    }

    /// <summary>What is due and not chosen; each of these needs a reason.</summary>
    /// <param name="chosen">Ids of the chosen jobs.</param>
    /// <returns>In the order of the proposal.</returns>
    public IEnumerable<ProposedJob> LeftOut(IReadOnlyCollection<JobId> chosen) =>
        Jobs.Where(p => NeedsReason(p, chosen) && !chosen.Contains(p.Standing.Item.Job));

    /// <summary>Whether leaving a job out needs a reason: it is due, and does not begin anew with another that is chosen.</summary>
    /// <param name="job">A job of this proposal.</param>
    /// <param name="chosen">Ids of the chosen jobs.</param>
    public static bool NeedsReason(ProposedJob job, IReadOnlyCollection<JobId> chosen) => job.Standing.IsDue
        && !(job.Standing.Item.Follows is { } before && chosen.Contains(before));

    private static Quantity<Distance> Abs(Quantity<Distance> d) => d < Quantity<Distance>.Zero ? Quantity<Distance>.Zero - d : d;
}
