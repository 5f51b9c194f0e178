using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>Works the made-up services of past years, one after the other, through the same rules as a real card.</summary>
public sealed class DemoHistory(VehicleStore vehicles, CardStore cards, SheetStore sheets, CardOpening opening, DemoStock stock,
    SampleStore samples, LabDesk laboratory, DrumStore drums, RecommendationDesk recommendations, RecommendationStore answers,
    PlannedCards plans, WorkshopClock clock)
{
    private const string EngineOil = "engine-oil";

    // Until the harbour's lighter comes, the drums hold what the services between leave.
    private static readonly int[] LighterCame = [1000, 840, 690, 515, 365, 200];

    private readonly ConcurrentDictionary<string, Lazy<CardPlan>> _plans = new();
    private volatile int _worked;

    /// <summary>How many services there are in all.</summary>
    public static int Services { get; } = DemoLives.All.Sum(l => l.Visits.Length);

    /// <summary>How many of them are worked through.</summary>
    public int Worked => _worked;

    /// <summary>Works all services of all lives, the oldest first.</summary>
    /// <param name="hands">Who works on them in turn.</param>
    /// <param name="lead">Who puts the second name to what strays.</param>
    /// <param name="stores">Who sees to stores and drums.</param>
    public async Task Work(IReadOnlyList<Person> hands, Person lead, Person stores)
    {
        var past = DemoLives.All.SelectMany(life => life.Visits.Select(visit => (life, visit)))
            .OrderBy(p => Morning(p.visit.DaysAgo, p.visit.HalfHours)).ThenBy(p => p.life.Plate, StringComparer.Ordinal).ToList();
        var lighters = new Queue<int>(LighterCame);
        // What takes longest, putting the work in order, goes ahead beside the rest.
        var ahead = Task.Run(() => past.ForEach(p => Plan(sheets.Newest(SheetId.Of(p.life.Sheet))!, p.visit.Jobs)));
        foreach (var ((life, visit), n) in past.Select((p, n) => (p, n)))
        {
            while (lighters.TryPeek(out var came) && visit.DaysAgo < came)
                await Lighter(lighters.Dequeue(), stores);
            // Now and then it is the other one's turn.
            await Work(life, visit, hands[n % 3 == 1 ? 1 : 0], lead, stores);
            _worked = n + 1;
        }
        await ahead;
    }

    /// <summary>A morning in the workshop.</summary>
    /// <param name="daysAgo">How many days ago.</param>
    /// <param name="halfHours">Half hours after eight.</param>
    public DateTimeOffset Morning(int daysAgo, int halfHours = 0)
    {
        var day = clock.Now.Date.AddDays(-daysAgo).AddHours(8).AddMinutes(daysAgo % 50 + 30 * halfHours);
        return new(day, clock.Zone.GetUtcOffset(day));
    }

    /// <summary>Opens a card as intake would, with what the cards before leave to it.</summary>
    /// <param name="plate">The vehicle.</param>
    /// <param name="km">What the odometer shows.</param>
    /// <param name="at">When.</param>
    /// <param name="bay">Where it stands.</param>
    /// <param name="by">Who opens it.</param>
    /// <param name="jobs">The jobs.</param>
    public async Task<CardNumber> Open(string plate, decimal km, DateTimeOffset at, string bay, Person by, params string[] jobs)
    {
        var (vehicle, odometer) = (vehicles.Find(plate)!, Quantity<Distance>.Of(km, Distance.Kilometre));
        var sheet = sheets.Newest(vehicle.SheetId)!;
        return await cards.Open(opening.Of(vehicle, sheet, [.. jobs.Select(JobId.Of)], Plan(sheet, jobs).Steps,
            new(odometer, Distance.Kilometre), vehicles.History(plate, clock.Day)), bay, by, at, Guid.CreateVersion7(),
            new(null, new(at, odometer, "")));
    }

    private CardPlan Plan(ModelSheet sheet, string[] jobs) => _plans.GetOrAdd($"{sheet.Id} {string.Join(' ', jobs)}",
        _ => new(() => plans.Plan(sheet, [.. jobs.Select(JobId.Of)], WorkSchools.Usual))).Value;

    /// <summary>Works on a card by the usual press, with what a visit tells of it.</summary>
    /// <param name="id">The card.</param>
    /// <param name="visit">What was read, found and given up.</param>
    /// <param name="by">Who.</param>
    /// <param name="until">The step before which it is left; null to go on to the last one.</param>
    /// <returns>The card, with nothing left but its signature, or left before that step.</returns>
    /// <exception cref="InvalidOperationException">Something was refused, or the visit tells of what this card does not ask.</exception>
    public async Task<JobCard> Press(CardNumber id, DemoVisit visit, Person by, string? until = null)
    {
        var card = cards.Find(id)!;
        using var presses = Presses(() => card, visit, by, until).GetEnumerator();
        var answer = await cards.Work(id, now =>
        {
            card = now;
            return presses.MoveNext() ? presses.Current : null;
        });
        return answer is null or { Decision: Accepted } ? cards.Find(id)!
            : throw Unexpected(id, presses.Current.Command, answer.Decision);
    }

    private static InvalidOperationException Unexpected(CardNumber id, CardCommand command, Decision? answer) =>
        new($"The demo's own history came to a halt on card {id} at {command}: " + answer switch
        {
            Refused refused => string.Join(" ", refused.Reasons),
            Asked asked => asked.Question.Text,
            _ => "there is no such card.",
        });

    private async Task Work(DemoLife life, DemoVisit visit, Person by, Person lead, Person stores)
    {
        var at = Morning(visit.DaysAgo, visit.HalfHours);
        var id = await Open(life.Plate, visit.Km, at, visit.DaysAgo % 2 == 0 ? "Bay 1" : "Bay 2", by, visit.Jobs);
        await stock.Deliver(cards.Find(id)!, visit.OldWasher.Length > 0 ? "drain-washer" : null, at, stores);
        var card = await Press(id, visit, by);
        var done = card.History[^1].At;
        foreach (var seq in card.WantingCountersignature)
            card = await Give(id, new Countersign(seq), lead, done.AddMinutes(1));
        await Give(id, new Sign(), by, done.AddMinutes(2));
        if (visit.Sampled)
            await Answer(SampleCode.Of(id, 1), at, lead);
        if (visit.Became is { } became)
            await answers.Answer(id, recommendations.Of(life.Plate).First(r => r.Card == id).Seq, became.Declined, became.Who,
                became.Words, lead.Id, Morning(became.DaysAgo));
    }

    private async Task Lighter(int daysAgo, Person stores)
    {
        foreach (var drum in drums.All())
            await drums.Collect(drum.Name, $"Harbour lighter, paper {4411 - (daysAgo - LighterCame[^1]) / 5}", stores.Id, Morning(daysAgo));
    }

    private async Task Answer(string code, DateTimeOffset taken, Person lead)
    {
        await samples.Send(code, taken.AddHours(5));
        var day = DateOnly.FromDateTime((taken + Brackwater.Takes).DateTime);
        var (_, wrong) = await laboratory.BringIn(LabFiles.Write([Brackwater.Answer(samples.Find(code)!.Sample, [], day)]));
        if (wrong.Count > 0)
            throw new InvalidOperationException($"The demo's own answer was refused: {wrong[0]}");
        await laboratory.TakeNote(code, lead.Id);
    }

    private async Task<JobCard> Give(CardNumber id, CardCommand command, Person by, DateTimeOffset at)
    {
        var answer = await cards.Handle(id, Guid.CreateVersion7(), command, by, at);
        return answer is { Decision: Accepted } ? answer.Card : throw Unexpected(id, command, answer?.Decision);
    }

    // The hand comes to each step after its time, and not before it can be done.
    private IEnumerable<CardSaid> Presses(Func<JobCard> card, DemoVisit visit, Person by, string? until)
    {
        var (at, step) = (card().History[0].At, (StepId?)null);
        var untold = Untold(visit);
        while (card().Next is { } next && next.Id != until)
        {
            at = CardWalk.Later(card(), next, at + (next.Id == step ? TimeSpan.FromSeconds(20) : next.Takes));
            step = next.Id;
            foreach (var command in Commands(card, next, visit))
            {
                untold.RemoveWhere(t => t(command));
                if (command is ReadGauge)
                    at += TimeSpan.FromSeconds(130);
                yield return new(command, by, at);
            }
        }
        if (until is null && untold.Count > 0)
            throw new InvalidOperationException($"The demo's card at {visit.DaysAgo} days did not ask all that it tells of.");
    }

    private static HashSet<Func<CardCommand, bool>> Untold(DemoVisit visit)
    {
        var told = new HashSet<Func<CardCommand, bool>>();
        if (visit.Found is not null)
            told.Add(c => c is Dip);
        if (visit.Finding is not null)
            told.Add(c => c is NoteFinding);
        if (visit.Dropped is not null)
            told.Add(c => c is DropJob);
        foreach (var (point, _) in visit.Read)
            told.Add(c => c is MeasurePoint m && m.Step == point.Step && m.Point == point.Point);
        return told;
    }

    private IEnumerable<CardCommand> Commands(Func<JobCard> card, SheetStep step, DemoVisit visit)
    {
        if (visit.Dropped is var (job, why) && step.Traits.LaysOut && card().Kit is null)
        {
            yield return stock.Kit(card(), step, visit.OldWasher);
            yield return new DropJob(job, why);
            yield break;
        }
        if (visit.Finding is var (seen, grade, text) && step.Id == seen && card().Findings.All(f => f.Event.Text != text))
            yield return new NoteFinding(step.Id, grade, text);
        switch (step.Traits)
        {
            case { LaysOut: true }:
                yield return stock.Kit(card(), step, visit.OldWasher);
                break;
            case { Tightens: true } when visit.Plug is { } plug && step.What == "engine-drain-plug":
                yield return new TakeReading(step.Id, NewtonMetres(plug));
                break;
            case { Fills: true } when visit.Found is not null && step.What == EngineOil:
                if (visit.Sampled)
                    yield return new TakeSample(step.What.Text);
                yield return new Pour(step.Id, new(card().FillOf(step.What).FirstPour, Volume.Litre));
                break;
            case { Levels: true } when visit.Found is not null && step.What == EngineOil:
                var readings = new Queue<decimal>(visit.TopUps ?? []);
                do
                {
                    var level = readings.TryDequeue(out var read) ? new Level(read) : Risen(card().FillOf(EngineOil), card());
                    yield return new ReadGauge(step.Id, level);
                    if (card().FillOf(step.What).After(level) is { Verdict: FillVerdict.Pour } advice)
                        yield return new Pour(step.Id, new(advice.Amount, Volume.Litre));
                    else if (readings.Count == 0)
                        break;
                }
                while (true);
                break;
            default:
                if (visit.Found is { } found && step.Traits.Engine == EngineUse.Warms && card().ToDip is { } drain)
                    yield return new Dip(drain.Id, new(found));
                var usual = UsualPress.Of(card(), step);
                yield return usual switch
                {
                    MeasurePoint m when visit.Read.TryGetValue((step.Id, m.Point), out var worn) => m with { Value = worn },
                    // No wrench of the crib goes so far: it is read off a borrowed one.
                    DrawInOrder { Pass: 3 } when visit.WheelNuts is { } nuts => new TakeReading(step.Id, NewtonMetres(nuts)),
                    _ => usual,
                };
                break;
        }
    }

    private static Typed<Torque> NewtonMetres(decimal read) => new(Quantity<Torque>.Of(read, Torque.NewtonMetre), Torque.NewtonMetre);

    // Where what is in stands between the marks, as it is read: to a twentieth.
    private static Level Risen(DipstickFill fill, JobCard card) =>
        new(Math.Round((1 - (fill.Top - card.Fluid(EngineOil).Poured) / fill.Between) * 20) / 20);
}
