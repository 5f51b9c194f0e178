// How fast a simulated vehicle follows its card: every full service of every sheet by the book, the vehicle behind it, and beside it the
// same cards folded alone. Prints hours of work that go by in a second, and how much longer card and vehicle take than the card.
using System.Diagnostics;
using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Devices;

const int Rounds = 9;
var person = new Person("walk", "The one who walks", Role.Technician);
var cards = Directory.GetFiles(args.Length > 0 ? args[0] : "sheets", "*.json").Order(StringComparer.Ordinal)
    .Select(f => SheetReader.Read(File.ReadAllBytes(f)).Sheet!).Select(Worked).ToList();
var hours = cards.Sum(c => (c.History[^1].At - c.History[0].At).TotalHours);
var (alone, both) = (new List<double>(), new List<double>());
for (var round = 0; round < Rounds; round++)
{
    alone.Add(Time(card => JobCard.Replay(card.Sheet, card.History)));
    both.Add(Time(card =>
    {
        var behind = new VehicleBehind(JobCard.Replay(card.Sheet, [card.History[0]]));
        behind.Follow(JobCard.Replay(card.Sheet, card.History));
        return behind;
    }));
}
var (fold, follow) = (Median(alone), Median(both));
Console.WriteLine("| services | events | hours of work | card alone | card and vehicle | ratio | hours in a second |");
Console.WriteLine("| --- | --- | --- | --- | --- | --- | --- |");
Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {cards.Count} | {cards.Sum(c => c.History.Count)} | {hours:0.0} | {
    fold * 1000:0.0} ms | {follow * 1000:0.0} ms | {follow / fold:0.0} | {hours / follow:0} |"));
return 0;

double Time(Func<JobCard, object> does)
{
    var watch = Stopwatch.StartNew();
    foreach (var card in cards)
        GC.KeepAlive(does(card));
    return watch.Elapsed.TotalSeconds;
}

static double Median(List<double> times) => times.Order().ElementAt(times.Count / 2);

// A full service as the usual press has it, each step taking its time.
JobCard Worked(ModelSheet sheet)
{
    JobId[] jobs = [.. sheet.Jobs.Keys];
    var (card, facts) = (CardWalk.Open(sheet, jobs, CardPlanner.Plan(sheet, jobs, 1).Steps), UsualPress.Facts(sheet));
    var now = card.History[0].At;
    while (card.Next is { } step)
    {
        now += step.Takes;
        foreach (var wait in card.Waits.Where(w => w.Until > now && (w.Id == step.Id || step.Awaits.Contains(w.Id))))
            now = wait.Until > now ? wait.Until : now;
        now += step.Cold && card.InTheWay(step, now).Count > 0 ? sheet.CoolsIn : TimeSpan.Zero;
        card = card.Decide(UsualPress.Of(card, step), person, now, facts) is Accepted accepted
            ? card.Taking(accepted, Guid.NewGuid(), person, now).Card
            : throw new InvalidOperationException($"{sheet.Id} cannot be worked through at “{step.Title}”.");
    }
    return card;
}
