using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A vehicle is here: what the dash shows, what is due and why, and a card is opened.</summary>
public sealed class IntakeDesk(VehicleStore vehicles, SheetStore sheets, CardStore cards, SettingStore settings, ShelfStore shelf,
    DueDesk due, FleetBook fleet, PlannedCards plans, CardOpening opening, LabDesk laboratory, ScanDesk scans, WorkshopClock clock,
    VisitStore visits, RecommendationDesk recommendations)
{
    // Up to so many stand side by side; of more so many are shown, and the rest is looked for.
    private const int Few = 40, Shown = 12;

    /// <summary>The first look at a vehicle, with what is due chosen.</summary>
    /// <param name="plate">Its plate; null for the first of the list.</param>
    /// <param name="unit">The distance unit of whoever looks.</param>
    public IntakeVisit Begin(string? plate, Unit<Distance> unit)
    {
        var (visit, _) = Look(new() { Plate = plate ?? Choice("", null).Vehicles.FirstOrDefault()?.Plate ?? "" }, unit);
        visit.Chosen = visit.Usual;
        Compose(visit);
        return visit;
    }

    /// <summary>The jobs and the card that come of what was typed so far; nothing is opened.</summary>
    public IntakeVisit Preview(IntakeForm form, Unit<Distance> unit)
    {
        var (visit, reading) = Look(form, unit);
        visit.IsPreview = true;
        // Jobs that were chosen for another vehicle count as far as this one has them; what is due newly is chosen as well.
        JobId[] known = [.. visit.Chosen.Where(j => visit.Jobs.Any(x => x.Id == j))];
        visit.Chosen = form.ShownFor == visit.Plate ? [.. known.Union(visit.Proposed.Except((form.Offered ?? []).Select(JobId.Of)))]
            : known.Length > 0 ? known : visit.Usual;
        Compose(visit);
        OneAfterAnother(visit, reading);
        return visit;
    }

    /// <summary>Fills the form from what a scan tool read, or takes that out again; nothing is opened.</summary>
    /// <param name="form">What was typed so far.</param>
    /// <param name="take">The report, by its name; empty takes out what was filled in.</param>
    /// <param name="unit">The distance unit of who typed it.</param>
    public IntakeVisit TakeOver(IntakeForm form, string? take, Unit<Distance> unit)
    {
        if (scans.Find(form.Read) is { } before)
            form.Empty(before, unit);
        if (scans.Find(take) is { } report)
            form.Fill(report, unit);
        return Preview(form, unit);
    }

    private static void OneAfterAnother(IntakeVisit visit, IntakeReading reading)
    {
        if (visit.Model?.Followed(visit.Chosen) is var (first, follower))
            reading.Wrong("job", $"“{follower.Name}” looks again at what “{first.Name}” did, some distance later.",
                $"Leave it off this card: it is due again after “{first.Name}”.");
    }

    /// <summary>Opens the card, with vehicle and odometer reading, all at once or not at all.</summary>
    /// <param name="form">What was typed.</param>
    /// <param name="unit">The distance unit of who typed it.</param>
    /// <param name="by">Who opens it.</param>
    /// <returns>The number of the card; null when something is wrong, which the visit tells.</returns>
    public async Task<(IntakeVisit Visit, CardNumber? Card)> Open(IntakeForm form, Unit<Distance> unit, Person by)
    {
        var (visit, reading) = Look(form, unit);
        Compose(visit);
        OneAfterAnother(visit, reading);
        var vehicle = visit.Plate.Length > 0 ? vehicles.Find(visit.Plate) : reading.Newcomer(plate => vehicles.Find(plate) is not null);
        if (visit.Plate.Length > 0 && vehicle is null)
            reading.Wrong("plate", "This vehicle is not on the list.", "Choose one, or “Another”.");
        if (vehicle is { IsGone: true })
            reading.Wrong("plate", $"{vehicle.Plate} is gone.", "Say at what is known of it that it is here again.");
        var model = vehicle is null ? null : sheets.Newest(vehicle.SheetId);
        if (vehicle is not null && model is null)
            reading.Wrong("plate", "There is no model sheet for it.", "Bring its sheet in first.");
        if (visit.Chosen.Count == 0 || (model is not null && visit.Chosen.Any(j => !model.Jobs.ContainsKey(j))))
            reading.Wrong("job", "No job of this model is chosen.", "Choose at least one.");
        if (settings.Read().ReadByTwo == true && model is not null && visit.Plan is { } plan
            && NotRead(model, plan.Steps) is { Count: > 0 } unread)
            reading.Wrong("job", $"Not read by two yet: {string.Join("; ", unread.Take(4))}"
                + $"{(unread.Count > 4 ? $" and {unread.Count - 4} more" : "")}.",
                "Let a second person read them at the sheet's desk, or choose other jobs.");
        var now = clock.Now;
        var history = vehicle is null ? new([], [], clock.Day) : vehicles.History(vehicle.Plate, clock.Day);
        var most = history.LastMark is { } last ? OdometerCheck.Most(last, history.Use, clock.Today) : default;
        (var odometer, visit.AskReason) = reading.Odometer(history.LastMark, most);
        var exchanged = odometer is null ? null : reading.Exchanged(history, now, true);
        var right = odometer is null ? null : reading.PutRight(history, true);
        // What a tool read is no slip of the finger; a clock that was exchanged shows what it shows.
        if (odometer is { } typed && history.LastMark is { } before && typed.Value >= before.Odometer
            && !visit.ReadOut.Contains("odometer"))
            visit.AskMeant = reading.AskedAbout(typed, before.Odometer, before.Day, most);
        if (form.Bay is { Length: > 0 } asked && !settings.Read().Bays.Has(asked))
            reading.Wrong("bay", $"There is no {(asked.Length > 20 ? asked[..20] + "…" : asked)}.", "Choose one of the list.");
        var (left, hours) = (LeftForLater(visit, reading), reading.Hours());
        if (vehicle is not null && cards.OfVehicle(vehicle.Plate).FirstOrDefault(c => c.IsOpen) is { } open
            && cards.Find(open.Id)?.History[0].Command != form.Command)
            reading.Refusals.Add(StillOpen(open.Id, vehicle.Plate));
        if (reading.Refusals.Count > 0)
            return (visit, null);
        var knowing = history.Knowing(exchanged, right);
        var reason = (form.Reason ?? "").Trim();
        var opened = opening.Of(vehicle!, model!, visit.Chosen, visit.Plan!.Steps, odometer!.Value, knowing) with
        {
            Hours = hours, LeftForLater = left.Count > 0 ? left : null,
            ReadBy = visit.ReadOut.Contains("odometer") ? visit.Report?.Report.Device : null,
        };
        var arrival = new Arrival(visit.Plate.Length == 0 ? vehicle! with { Identity = visit.NewIdentity } : null,
            new(now, odometer.Value.Value, visit.AskReason ? reason : "", hours,
                visit.AskMeant is not null || visit.ReadOut.Contains("odometer")), visit.NewIdentity,
            right is var (of, was) ? new(of.At, of.Reading, was, reason) : null, exchanged);
        var (card, isAnother) = await cards.TryOpen(opened, visit.Bay, by, now, form.Command, arrival);
        if (isAnother)
            reading.Refusals.Add(StillOpen(card, vehicle!.Plate));
        return (visit, isAnother ? null : card);
    }

    private static IReadOnlyList<string> NotRead(ModelSheet model, IReadOnlyList<SheetStep> steps) =>
        [.. model.Unchecked().Where(v => steps.Any(s => s.What == v.Thing)).Select(v => v.Of)];

    private static Refusal StillOpen(CardNumber card, string plate) => new($"Card {card} of {plate} is still open.",
        "Finish and sign it, or make it void, before another is opened.");

    private (IntakeVisit Visit, IntakeReading Reading) Look(IntakeForm form, Unit<Distance> unit)
    {
        var reading = new IntakeReading(form, unit, clock.Today);
        var bays = settings.Read().Bays;
        var taken = cards.Unsigned().Where(c => c.Bay != Bays.Outside).DistinctBy(c => c.Bay).ToDictionary(c => c.Bay, c => c.Plate);
        if (form.Command == Guid.Empty)
            form.Command = Guid.CreateVersion7();
        var (choice, found, many) = Choice(form.Plate ?? "", form.Find);
        var visit = new IntakeVisit(form, reading.Refusals)
        {
            Vehicles = choice,
            Found = found,
            AreMany = many,
            Models = sheets.Newest(),
            Plate = form.Plate ?? "",
            Bay = bays.Has(form.Bay) ? form.Bay! : bays.All.First(b => !taken.ContainsKey(b)),
            Taken = taken,
            Chosen = [.. (form.Job ?? []).Distinct()],
            Lately = scans.Lately,
            Report = scans.Find(form.Read),
        };
        ReadOut(visit, reading);
        Propose(visit, reading);
        return (visit, reading);
    }

    private (IReadOnlyList<Vehicle> Vehicles, int Found, bool AreMany) Choice(string plate, string? find)
    {
        var all = fleet.ByUrgency();
        if (all.Count <= Few)
            return ([.. all.Select(v => v.Vehicle).OrderBy(v => v.Plate, StringComparer.Ordinal)], all.Count, false);
        var words = (find ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        var fit = words.Length == 0 ? all : [.. all.Where(v => words.All(w => Fits(v, w)))];
        var chosen = vehicles.Find(plate);
        // The chosen one stays to be seen: first among the most urgent, after those that are looked for.
        IReadOnlyList<Vehicle> some = [.. fit.Select(v => v.Vehicle).Take(Shown)];
        return (chosen is null || some.Any(v => v.Plate == plate) ? some : words.Length == 0 ? [chosen, .. some] : [.. some, chosen],
            fit.Count, true);

        static bool Fits(VehicleInFleet v, string word) => v.Vehicle.Plate.Contains(word, StringComparison.OrdinalIgnoreCase)
            || v.Vehicle.Plate.Replace("-", "").Contains(word, StringComparison.OrdinalIgnoreCase)
            || v.Model.Contains(word, StringComparison.OrdinalIgnoreCase)
            || v.Vehicle.Task.Contains(word, StringComparison.OrdinalIgnoreCase);
    }

    // What was read of one vehicle is never noted of another.
    private void ReadOut(IntakeVisit visit, IntakeReading reading)
    {
        if (visit.Report is not { } read)
            return;
        var known = vehicles.Find(visit.Plate)?.Identity ?? "";
        if (read.Report.NotOf(visit.Plate, known, read.Plate) is { } not)
            reading.Wrong(not.Field!, not.What, not.Do);
        else
        {
            visit.ReadOut = reading.ReadOut(read.Report);
            visit.NewIdentity = read.Plate is null ? read.Report.Identity : "";
        }
    }

    private void Propose(IntakeVisit visit, IntakeReading reading)
    {
        var vehicle = visit.Plate.Length == 0 ? null : vehicles.Find(visit.Plate);
        visit.Model = vehicle is not null ? visit.Models.FirstOrDefault(m => m.Id == vehicle.SheetId)
            : visit.Plate.Length > 0 ? null
            : visit.Models.FirstOrDefault(m => m.Id == visit.Form.Sheet) ?? visit.Models.FirstOrDefault();
        if (vehicle is null)
            return;
        var signed = opening.LastSigned(vehicle.Plate);
        (visit.Stops, visit.Lit) = (signed.Stops, signed.Lit);
        if (visit.Model is { } model)
            visit.LastTime = opening.Remembered(vehicle.Plate, model);
        visit.Recommended = [.. recommendations.Of(vehicle.Plate).Where(r => r.IsOpen)];
        visit.Told = visits.Told().GetValueOrDefault(vehicle.Plate, "");
        visit.TripAhead = visits.Trips(clock.Today).GetValueOrDefault(vehicle.Plate);
        visit.Sampled = laboratory.LastOf(vehicle.Plate) ?? [];
        visit.Standing = due.Of(vehicle);
        // What is asked about is not reckoned with until somebody has looked again.
        if (reading.OdometerSoFar() is { } km && (visit.ReadOut.Contains("odometer") || reading.IsMeant(km)
            || visit.Standing is not { Readings: [var last, ..] } so || km <= OdometerCheck.Most(last, so.Use, clock.Today)))
            visit.Standing = due.Of(vehicle, new UseMark(km, clock.Today, reading.Hours()),
                visit.Standing?.History is { } noted
                    ? noted.Knowing(reading.Exchanged(noted, clock.Now, false), reading.PutRight(noted, false)) : null);
        if (visit.Standing is not { } s)
            return;
        var trip = reading.Trip() ?? (string.IsNullOrWhiteSpace(visit.Form.TripLength) ? visit.TripAhead : null);
        var dash = reading.Dash();
        visit.LeftSays = dash.Remaining;
        visit.Proposal = Proposal.Of(s.Items, s.Now, s.Past, s.Sheet.Dash, dash,
            trip is null ? [] : TripCheck.Of(s.Items, s.Now, s.Past, s.Use, trip));
    }

    private void Compose(IntakeVisit visit)
    {
        if (visit.Model is not { } model || visit.Chosen.Where(model.Jobs.ContainsKey).ToArray() is not { Length: > 0 } known)
            return;
        visit.Plan = plans.Plan(model, known, settings.Read().Schools ?? WorkSchools.Usual);
        visit.Kit = KitCheck.Of(model, known, visit.Plan.Steps,
            opening.LastSigned(visit.Plate).SealsUsedAgain, shelf.Read(), settings.Read().Climate,
            clock.Today);
    }

    // What is due and not done needs a reason, which goes onto the record.
    private static List<JobLeft> LeftForLater(IntakeVisit visit, IntakeReading reading)
    {
        var left = new List<JobLeft>();
        foreach (var job in (visit.Proposal?.LeftOut(visit.Chosen) ?? []).Select(p => p.Standing.Item))
        {
            var why = visit.Form.Dropped.GetValueOrDefault(job.Job, "");
            if (why.Length == 0)
                reading.Wrong($"drop-{job.Job}", $"{job.Name} is due and not chosen.", "Choose it, or say why not.");
            else if (why.Length > Decision.LongestText)
                reading.Wrong($"drop-{job.Job}", $"The reason is {why.Length} characters long.", $"Keep it to {Decision.LongestText}.");
            else
                left.Add(new(job.Job, job.Name, why));
        }
        return left;
    }
}
