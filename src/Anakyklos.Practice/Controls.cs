using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;
using static Anakyklos.Practice.Reach;

namespace Anakyklos.Practice;

/// <summary>Lift, engine bay, cab and wheels.</summary>
internal static class Controls
{
    internal static IEnumerable<InReach> Lift(AtHand at)
    {
        if (!at.Reaches(Place.Side) || at.Sheet.Stands != Stand.Lift)
            yield break;
        yield return new("lift", "Lift", at.Vehicle.IsUp ? "up" : "down", at.Vehicle.IsUp
            ? [Do("lift/lower", "Lower it", ChoiceKind.Hand, "lowers it", new Lowers())]
            : [
                Do("lift/arms", "Set the arms and look at all four points", ChoiceKind.Hand, "sets the arms and looks at the points",
                    new SetsArms()),
                Do("lift/raise", "Raise it", ChoiceKind.Hand, "raises it", new Raises()),
            ]);
    }

    /// <summary>What fills a fuel filter: a key in the cab, or a primer beside the filter.</summary>
    internal static IEnumerable<InReach> Primers(AtHand at) => at.Sheet.Steps.Values.Where(s => s.Kind == "prime" && at.Reaches(s.Place)
        && at.Sheet.Parts.ContainsKey(s.What)).DistinctBy(s => s.What).Select(s => at.Sheet.Parts[s.What]).Select(p =>
            new InReach($"primer:{p.Id}", $"Primer of the {Words.Low(p.Name)}", "", [Do($"part:{p.Id}/prime", "Prime it", ChoiceKind.Hand,
                $"primes: {Words.Low(p.Name)}", new Primes(p.Id))]));

    internal static IEnumerable<InReach> Above(AtHand at)
    {
        if (!at.Reaches(Place.Top))
            yield break;
        yield return new("bay", "Engine bay", at.Vehicle.LiesAbove ? "something lies in it" : "", [
            Look("bay/look", "Look what lies there", "looks what lies in the engine bay", v => Sight.Well(v.Lies
                .Where(l => l.Value == Place.Top).Select(l => l.Key).ToList() is { Count: > 0 } lies ? $"{string.Join(", ", lies)}."
                    : "Nothing.")),
            Do("bay/clear", "Take tools and rags away", ChoiceKind.Hand, "clears the engine bay", new ClearsAbove()),
        ]);
    }

    internal static IEnumerable<InReach> Cab(AtHand at)
    {
        if (!at.Reaches(Place.Cab))
            yield break;
        var now = at.Vehicle;
        yield return new("engine", "Engine", now.Runs ? "runs" : "off", now.Runs
            ? [Do("engine/stop", "Switch it off", ChoiceKind.Hand, "switches the engine off", new Stops())]
            : [
                Do("engine/start", "Start it", ChoiceKind.Hand, "starts the engine", new Starts()),
                Do("engine/warm", "Run it warm and switch it off", ChoiceKind.Hand, "runs the engine warm", new RunsWarm()),
                Do("engine/key", now.KeyIsOn ? "Key off" : "Key on", ChoiceKind.Hand,
                    now.KeyIsOn ? "turns the key off" : "turns the key on", new TurnsKey(!now.KeyIsOn)),
                .. at.Sheet.Starter is { } starter ? [Do("engine/crank", "Crank it, without letting it catch", ChoiceKind.Hand,
                    "cranks the engine", new Cranks(starter.Longest))] : Array.Empty<Choice>(),
            ]);
        yield return new("dash", "Dash", "", [
            Look("dash/look", "Look at the dash", "looks at the dash", v => Sight.Well(Shown(v))), .. Rituals(at),
        ]);
        yield return new("road", "Road", "", [
            Do("road/warm", "Drive it until it is warm, and come back", ChoiceKind.Hand, "drives it warm", new Drives()),
            Do("road/short", "Drive round the yard", ChoiceKind.Hand, "drives round the yard",
                new Drives(Quantity<Distance>.Of(1, Distance.Kilometre))),
        ]);
        if (now.Brakes.Count > 0)
            yield return new("pedal", "Brake pedal", "", [Look("pedal/feel", "Press it and hold", "presses the brake pedal", v =>
                Sight.Of(v.PedalIsSoft, v.Brakes.Keys.First(), "It goes to the floor.", "It is hard, a hand above the floor."))]);
    }

    private static string Shown(Vehicle vehicle) => vehicle.Dash is { Count: > 0 } lit ? $"{string.Join(", ", lit)}." + Display(vehicle)
        : vehicle.KeyIsOn ? $"Nothing is lit.{Display(vehicle)}" : "It is dark: the key is off.";

    private static string Display(Vehicle vehicle) => vehicle.Display.Reset is { } reset ? $" The display: {vehicle.ShowsOf(reset)}" : "";

    private static IEnumerable<Choice> Rituals(AtHand at) => at.Sheet.Resets.Values.SelectMany(r => r.Moves.Select(m => (m.Uses,
        Types: m.Types != NextService.None)).Distinct().SelectMany(m => Works(r, m.Uses, m.Types)));

    private static IEnumerable<Choice> Works(ResetRitual reset, DashControl control, bool types)
    {
        var (id, name) = ($"dash/{reset.Id}-{control.ToString().ToLowerInvariant()}", Words.Low($"{control}"));
        if (types)
            yield return new($"{id}-type", $"{reset.Name}: {name}, type", ChoiceKind.Hand, TypedAs.Text)
            {
                Does = typed => (new Deed($"types {typed.Trim()} at the {name}", [new WorksDash(reset.Id, control, TimeSpan.Zero,
                    typed.Trim())]) { Sees = v => Answer(v, reset) }, ""),
            };
        else
            yield return new(id, $"{reset.Name}: {name}, hold for seconds", ChoiceKind.Hand, TypedAs.Seconds)
            {
                Does = typed => Figures.Seconds(typed) is var (held, problem) && held is { } time
                    ? (new Deed(FormattableString.Invariant($"works the {name} for {time.TotalSeconds:0.#} s"),
                        [new WorksDash(reset.Id, control, time)]) { Sees = v => Answer(v, reset) }, "")
                    : (null, problem),
            };
    }

    // A display that says something else than it should, with the indicator still lit.
    private static Sight Answer(Vehicle vehicle, ResetRitual reset) => Sight.Of(vehicle.Lit.Contains(reset.Id)
        && vehicle.Display is { Reset: { } at, Answers: null, Shows: { Length: > 0 } shows } && at == reset.Id
        && (shows == DashStands.Wordless || reset.Moves.Any(m => m.Else.Any(e => e.Shows == shows))), reset.Id,
        $"The display says {vehicle.Display.Shows}.", $"The display: {vehicle.ShowsOf(reset.Id)}");

    internal static IEnumerable<InReach> Beside(AtHand at)
    {
        if (!at.Reaches(Place.Side))
            yield break;
        yield return new("tyres", "Tyres", "", [
            Look("tyres/measure", "Measure the pressures", "measures the tyres", v => Sight.Well(string.Join(", ", v.Tyres
                .Select(t => $"{t.Key} {t.Value.Print(Pressure.Bar)}")) + ".")),
            new("tyres/set", "Bring all of them to", ChoiceKind.Hand, TypedAs.Pressure)
            {
                Does = typed => Figures.Pressure(typed) is var (to, problem) && to is { } bar
                    ? (new Deed($"brings the tyres to {bar.Print(Pressure.Bar)}", [new Inflates(bar)]), "") : (null, problem),
            },
        ]);
        yield return new("ground", "Ground", "", [
            Look("ground/look", "Look how it stands", "looks how it stands", v =>
                v.Faults.OfType<MisreadStick>().FirstOrDefault() is { } slope
                    ? new("It stands on a slope.", slope.What) : Sight.Well("It stands level.")),
            Do("ground/level", "Bring it onto level ground", ChoiceKind.Hand, "brings it onto level ground", new StandsLevel()),
        ]);
        yield return new("doors", "Doors", "", [Do("doors/shut", "Shut all doors", ChoiceKind.Hand, "shuts all doors", new ShutsDoors())]);
        yield return new("battery", "Battery", "", [Do("battery/charge", "Charge it, or lay a lead", ChoiceKind.Hand, "charges the battery",
            new Charges())]);
    }
}
