using System.Globalization;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;
using static Anakyklos.Practice.Reach;

namespace Anakyklos.Practice;

/// <summary>What is let out, poured in, dipped, measured and bled.</summary>
internal static class Flows
{
    internal static readonly IReadOnlyList<string> PanNames = ["Pan 1", "Pan 2"];

    internal static IEnumerable<InReach> Fluids(AtHand at) => at.Sheet.Fluids.Values.Where(f => at.Reaches(FilledAt(at.Sheet, f))
            // A brake reservoir is reached with the lift at the height of a chest.
            || (at.Vehicle.Brakes.ContainsKey(f.Id) && at.Place != Place.Cab))
        .Select(f => new InReach($"fluid:{f.Id}", f.Name, Runs(at.Vehicle, f.Id) ? "running out" : "", [.. Of(at, f)]));

    /// <summary>Where one pours a fluid in and reads it.</summary>
    internal static Place FilledAt(ModelSheet sheet, FluidSystem fluid) =>
        fluid.Through.Select(a => sheet.Access[a].Place).Concat(sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id).Select(f => f.Place))
            .Concat([Place.Top]).First();

    private static bool Runs(Vehicle vehicle, FluidId fluid) => vehicle.Fluids[fluid].Inside > Quantity<Volume>.Zero
        && vehicle.Sheet.Fasteners.Values.Any(f => f.Drains == fluid && !vehicle.Joints[f.Id].IsIn);

    private static IEnumerable<Choice> Of(AtHand at, FluidSystem f)
    {
        var (id, low) = ($"fluid:{f.Id}", Words.Low(f.Name));
        if (f.BetweenMarks is not null)
            yield return Look($"{id}/read", $"Read the {f.Gauge}", $"reads the {f.Gauge}: {low}", v => Sight.Well(Reading(v, f)));
        yield return Look($"{id}/can", "Read what is on the can", $"reads the can of {low}", v =>
            Sight.Of(v.Faults.Contains(new WrongInCan(f.Id)), f.Id, "It is another oil: nearly the same name, another approval.",
                $"{string.Join(", ", f.Grades.Value)}, as the sheet asks."));
        if (at.Known.Contains(f.Id) && at.Vehicle.Faults.Contains(new WrongInCan(f.Id)))
            yield return Do($"{id}/right-can", "Fetch the right can", ChoiceKind.Hand, $"fetches the right can: {low}",
                new FetchesRightCan(f.Id));
        yield return Volume($"{id}/pour", "Pour in", $"pours in {{0}}: {low}", v => new Pours(f.Id, v));
        if (f.BetweenMarks is not null)
            yield return Volume($"{id}/draw", "Draw off", $"draws off {{0}}: {low}", v => new DrawsOff(f.Id, v));
        if (!at.Vehicle.Brakes.ContainsKey(f.Id))
            yield break;
        yield return Do($"{id}/suck", "Suck the reservoir empty", ChoiceKind.Hand, $"sucks the reservoir empty: {low}", new SucksOut(f.Id));
        yield return Do($"{id}/top", "Fill the reservoir to its line", ChoiceKind.Hand, $"fills the reservoir: {low}", new TopsUp(f.Id));
        yield return Volume($"{id}/top-some", "Fill some in", $"fills {{0}} into the reservoir: {low}", v => new TopsUp(f.Id, v));
        yield return Look($"{id}/reservoir", "Look at the reservoir", $"looks at the reservoir: {low}", v => Sight.Well(v.IsFull(f.Id)
            ? "It stands at its line." : v.Brakes[f.Id].Reservoir > Quantity<Volume>.Zero ? $"About {v.Brakes[f.Id].Reservoir} is left."
                : "It is empty."));
    }

    private static Choice Volume(string id, string words, string told, Func<Quantity<Volume>, Hand> hand) =>
        new(id, words, ChoiceKind.Hand, TypedAs.Volume)
        {
            Does = typed => Figures.Volume(typed) is var (amount, problem) && amount is { } much
                ? (new Deed(string.Format(CultureInfo.InvariantCulture, told, much), [hand(much)]), "") : (null, problem),
        };

    internal static string Reading(Vehicle vehicle, FluidSystem f)
    {
        if (vehicle.Fluids[f.Id].Inside <= Quantity<Volume>.Zero)
            return "Nothing on it: it is dry.";
        var level = vehicle.ReadsAs(f.Id);
        if (f.Rod?.Value is { } rod && level is >= 0 and <= 1)
            return FormattableString.Invariant($"{rod.DepthOf(new(level)).In(Length.Millimetre):0} mm.");
        return level < 0 ? "Below the bottom mark." : level > 1
            ? FormattableString.Invariant($"Above the top mark, by {(level - 1) * 100:0} % of the way between them.")
            : FormattableString.Invariant($"{level * 100:0} % of the way from the bottom mark to the top mark.");
    }

    internal static IEnumerable<InReach> Pans(AtHand at)
    {
        // Under a vehicle on its wheels they are pushed from beside it.
        var isBelow = at.Reaches(Place.Below) && (at.Sheet.Stands != Stand.Lift || at.Vehicle.IsUp);
        if (!isBelow && !(at.Place == Place.Side && (!at.Vehicle.IsUp || at.Vehicle.PanUnder.IsEmpty)))
            yield break;
        for (var i = 0; i < PanNames.Count; i++)
            yield return Pan(at, $"pan-{i + 1}", PanNames[i], isBelow);
        List<Choice> below = [Look("below/look", "Look at what runs", "looks at what runs", Ran)];
        if (isBelow)
            below.Add(Do("below/clear", "Clear everything from below", ChoiceKind.Hand, "clears the space below", new ClearsBelow()));
        yield return new("below", "Below", at.Vehicle.PanUnder.IsEmpty ? "" : "a pan stands there", below);
    }

    private static InReach Pan(AtHand at, string id, string name, bool isBelow)
    {
        var under = at.Vehicle.PanUnder.Where(p => p.Value == name).Select(p => p.Key).ToList();
        List<Choice> choices = [];
        foreach (var f in at.Sheet.Fluids.Values.Where(f => !under.Contains(f.Id) && at.Sheet.Fasteners.Values.Any(x => x.Drains == f.Id
            || x.System == f.Id)))
            choices.Add(Do($"{id}/under-{f.Id}", $"Slide it under the {Words.Low(f.Name)}", ChoiceKind.Hand,
                $"slides {Words.Low(name)} under: {Words.Low(f.Name)}", isBelow ? [new SlidesPanUnder(at.Pan, name, f.Id)]
                    : [new Goes(Place.Below), new SlidesPanUnder(at.Pan, name, f.Id), new Goes(Place.Side)]));
        choices.Add(Look($"{id}/measure", "Measure what is in it", $"measures what is in {Words.Low(name)}", v => Sight.Well(In(v, name))));
        if (at.Vehicle.Pans.ContainsKey(name))
            choices.Add(Do($"{id}/empty", "Empty it into its drum", ChoiceKind.Hand, $"empties {Words.Low(name)}", new EmptiesPan(name)));
        return new(id, name, under.Count == 0 ? "against the wall"
            : $"under: {string.Join(", ", under.Select(f => Words.Low(at.Sheet.Fluids[f].Name)))}", choices);
    }

    private static Sight Ran(Vehicle vehicle)
    {
        var ran = vehicle.Sheet.Fluids.Values
            .Where(f => vehicle.Fluids[f.Id].Pan + vehicle.Fluids[f.Id].Floor > Quantity<Volume>.Zero).ToList();
        var wrong = ran.Find(f => vehicle.SeenOf(f.Id) is "milky" or "thin, and it smells of fuel");
        return new(string.Join(" ", ran.Select(f => $"{f.Name}: {(f == wrong ? vehicle.SeenOf(f.Id) : "dark, as used oil is")}.")
            .DefaultIfEmpty("Nothing ran yet.")), wrong?.Id ?? default);
    }

    // What ran together cannot be told apart.
    private static string In(Vehicle vehicle, string name) => !vehicle.Pans.TryGetValue(name, out var pan) || pan.In.Count == 0
        ? "It is empty." : pan.In.Count == 1 ? $"{pan.Filled} of {Words.Low(vehicle.Sheet.Fluids[pan.In.Keys.First()].Name)}."
        : $"{pan.Filled}, all run together.";

    internal static IEnumerable<Choice> WhileOut(AtHand at, string id, Fastener f)
    {
        if (f.Drains is { } fluid && at.Sheet.Fluids[fluid].Rinse is not null)
            yield return Volume($"{id}/rinse", "Pour a little fresh through",
                $"pours {{0}} through: {Words.Low(at.Sheet.Fluids[fluid].Name)}", v => new RunsThrough(fluid, v));
        foreach (var strokes in Strokes(at, id, f))
            yield return strokes;
    }

    internal static IEnumerable<Choice> Strokes(AtHand at, string id, Fastener f)
    {
        if (!at.Vehicle.Brakes.Values.Any(b => b.Lines.ContainsKey(f.Id)))
            yield break;
        yield return new($"{id}/strokes", "Have the pedal pumped, so many full strokes", ChoiceKind.Hand, TypedAs.Count)
        {
            Does = typed => Figures.Strokes(typed) is var (n, problem) && n is { } count
                ? (new Deed($"has the pedal pumped {count} times: {Words.Low(f.Name)}", [new Strokes(f.Id, count)]), "") : (null, problem),
        };
        yield return Look($"{id}/hose", "Look at the hose", $"looks at the hose: {Words.Low(f.Name)}", v => v.HoseAt(f.Id) switch
        {
            { Bubbles: true } => new("Bubbles run in it.", f.Id),
            { Fresh: false } => Sight.Well("Dark fluid, no bubbles."),
            _ => Sight.Well("Clear fluid, no bubbles."),
        });
    }

    internal static IEnumerable<Choice> Prefill(AtHand at, string id, Part part)
    {
        if (part.Prefill is not null && at.Sheet.FluidIn(part.Id) is { } fluid)
            yield return Volume($"{id}/prefill", $"Fill the new {Words.Low(part.Name)} with fresh oil first", $"fills {{0}} into: "
                + Words.Low(part.Name), v => new FillsPart(fluid.Id, v));
    }
}
