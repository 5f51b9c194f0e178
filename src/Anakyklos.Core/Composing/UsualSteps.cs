using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Composing;

/// <summary>
/// The steps that follow from what a sheet says of its accesses, fasteners, fluids and parts, in the usual words of the trade. A sheet that
/// has a
/// step of the same kind for the same thing overrides them.
/// </summary>
internal sealed class UsualSteps(ModelSheet sheet)
{
    internal const string UsedOil = "used-oil", Label = SheetStep.LabelId;

    private const string Second = "-again";

    /// <summary>The id of a step that is done a second time, after the road test or the run.</summary>
    internal static StepId Again(StepId step) => step.Text + Second;

    internal static bool IsAgain(SheetStep step) => step.Id.Text.EndsWith(Second, StringComparison.Ordinal)
        && step.Traits is { LooksAtJoints: true } or { Opens: true } or { Sets: true } or { Closes: true };

    private readonly ILookup<(string, ThingId), SheetStep> _own = sheet.Steps.Values.ToLookup(s => (s.Kind, s.What));

    internal SheetStep Opening(ThingId id)
    {
        if (sheet.Access.TryGetValue(id, out var a))
            return a.HoldsVehicle ? Own("secure", id)
                ?? Access(a, "secure", a.Off.Length > 0 ? a.Off : $"{a.Name}: set them", "Make ready", "")
                : Own("open", id) ?? Access(a, "open", a.Off.Length > 0 ? a.Off : $"Open the {Words.Low(a.Name)}", "Open the way", "");
        var f = sheet.Fasteners[id];
        if (f.Drains is not { } fluid)
            return Own("open", id) ?? Fastener(f, "open", f.Fills is { } fills
                ? ($"Loosen the {Words.Low(f.Name)}, to prove that it comes loose", "Open the way",
                    $"It came loose: the {Words.Low(sheet.Fluids[fills].Name)} can go back in")
                : ($"Undo the {Words.Low(f.Name)}", "Open the way", ""));
        var drain = Own("drain", id) ?? Fastener(f, "drain",
            ($"Take the {Words.Low(f.Name)} out and let the {Words.Low(sheet.Fluids[fluid].Name)} run", "Drain", "Plug is out, it runs"));
        return drain.Wait is null && f.RunsOut > TimeSpan.Zero
            ? drain with { Wait = new($"{sheet.Fluids[fluid].Name} runs out", f.RunsOut) } : drain;
    }

    internal SheetStep Closing(ThingId id)
    {
        if (sheet.Access.TryGetValue(id, out var a))
            return Own("close", id) ?? Access(a, "close",
                a.On.Length > 0 ? a.On : a.HoldsVehicle ? $"{a.Name}: take them away" : $"Close the {Words.Low(a.Name)}",
                a.HoldsVehicle ? "Finish" : "Close up", "");
        var f = sheet.Fasteners[id];
        return Own("tighten", id) ?? Fastener(f, "tighten",
            ($"Tighten the {Words.Low(f.Name)}{(f.Order.Length > 0 ? $": {f.Order}" : f.Seal is not null ? " onto its new seal" : "")}",
            "Close up", "")) with { Warning = f.Warning };
    }

    internal SheetStep Fitting(PartId partId)
    {
        var p = sheet.Parts[partId];
        var holder = Holder(partId);
        var place = holder?.Place ?? p.Place;
        return Own("fit", partId) ?? new()
        {
            Id = $"fit-{partId}",
            Kind = "fit",
            What = partId,
            Title = p.Fitting.Length > 0 ? p.Fitting : holder is not null && p.IsSeal
                ? $"Clean the face of the {Words.Low(holder.Name)}, {Words.Low(p.Name)} on" : $"Fit the new {Words.Low(p.Name)}",
            Phase = "Close up",
            Place = place,
            Lift = holder?.Lift ?? place.UsualLift(),
            Takes = p.Takes,
            Needs = [.. p.Needs],
            After = p.After,
            Said = p.Said,
            Notes = p.Notes,
            Map = MapOf(partId),
            From = p.Number.From,
        };
    }

    internal SheetStep Pour(FluidId fluid)
    {
        var f = sheet.Fluids[fluid];
        var through = sheet.Fasteners.Values.FirstOrDefault(x => x.Fills == fluid);
        var place = through?.Place ?? Place.Top;
        return Own("pour", fluid) ?? new()
        {
            Id = $"fill-{fluid}",
            Kind = "pour",
            What = fluid,
            Title = f.FillBy switch
            {
                FillBy.Overflow => $"Fill the {Words.Low(f.Name)} until it runs out of the hole",
                FillBy.MeasuredReturn => $"Pour back as much {Words.Low(f.Name)} as came out",
                FillBy.Book => $"Pour in the measured {Words.Low(f.Name)}",
                _ => $"Pour the first of the {Words.Low(f.Name)}, then stop",
            },
            Phase = "Fill",
            Place = place,
            Lift = through?.Lift ?? place.UsualLift(),
            Takes = TimeSpan.FromMinutes(4),
            Wait = f.FillBy == FillBy.Overflow ? new($"{f.Name} drips", TimeSpan.FromMinutes(3)) : null,
            Map = MapOf(fluid),
            From = f.Amount.From,
        };
    }

    internal SheetStep? Gauge(FluidId fluid)
    {
        var f = sheet.Fluids[fluid];
        if (f.BetweenMarks is null)
            return null;
        // What is read through its filling hole is read where that is.
        var through = f.Pumped ? null : sheet.Fasteners.Values.FirstOrDefault(x => x.Fills == fluid);
        var place = through?.Place ?? Place.Top;
        return Own("gauge", fluid) ?? Plain($"level-{fluid}", "gauge", fluid, f.FillBy == FillBy.Part
            ? $"Read the {Words.Low(f.Name)} at the {Words.Low(f.Part)} and bring it there"
            : $"Read the {Words.Low(f.Name)} and bring it to the mark", "Prove", place, 3) with
        {
            Lift = through?.Lift ?? place.UsualLift(),
            Map = MapOf(fluid),
        };
    }

    internal SheetStep Measure(FluidId fluid) => Own("measure", fluid)
        ?? Plain($"measure-{fluid}", "measure", fluid, $"Measure how much {Words.Low(sheet.Fluids[fluid].Name)} came out",
            "Drain", Place.Side,
            2);

    internal SheetStep Warm(FluidId fluid) => sheet.Steps.Values.FirstOrDefault(s => s.Kind == "warm")
        ?? Plain("warm-up", "warm", fluid, "Run the engine warm, then switch it off", "Make ready", Place.Cab, 6) with
        { Said = "Warm and off", Cautions = ["exhaust-gas", "moving-parts"], Notes = [new("Why", "Thin oil carries its dirt out")] };

    internal SheetStep Kit => First("kit") ?? Plain("lay-out-kit", "kit", "", "Lay out parts, pan and oil, and hold them against the list",
        "Make ready", Place.Side, 4) with { Said = "All of it lies here" };

    internal SheetStep Run(FluidId fluid) => First("run")
        ?? Plain("start", "run", fluid, "Start it; no revving until the oil light is out", "Prove", Place.Cab, 1) with
    { Value = "5 s", Said = "Light went out", Wait = new("Filter fills", TimeSpan.FromMinutes(1)),
        Cautions = ["exhaust-gas", "moving-parts"] };

    internal SheetStep Settle => First("settle")
        ?? Plain("stop", "settle", "", "Switch the engine off and let it settle", "Prove", Place.Cab, 1) with
    { Said = "Engine is off", Wait = new("Oil settles", TimeSpan.FromMinutes(5)) };

    internal SheetStep ClearTop => sheet.Steps.Values.FirstOrDefault(s => s.Kind == "clear" && s.Place != Place.Below)
        ?? Plain("clear-top", "clear", "", "Look over the engine: no rag, no tool, plugs and hoses on", "Prove", Place.Top,
            1) with { Said = "Nothing left in there" };

    internal SheetStep Look => First("look") ?? Plain("look-at-joints", "look", "", "Look at every joint that was opened, with a lamp",
        "Prove", Place.Below, 2) with
    { Said = "All of them are dry", Cautions = ["hot"] };

    internal SheetStep Reset(ResetRitual ritual) => Own("reset", ritual.Id)
        ?? Plain($"reset-{ritual.Id}", "reset", ritual.Id, $"Reset the {Words.Low(ritual.Name)}", "Reset", Place.Cab, 1);

    internal SheetStep UsedOilAway => Plain(UsedOil, "empty", "", "Used fluids, filters and rags into their drums", "Finish", Place.Side,
        3) with { Said = "In the right drums", Cautions = ["waste"] };

    internal SheetStep LabelUp => Plain(Label, "do", "", "Label with the next service where the driver sees it", "Finish", Place.Cab,
        1) with { Said = "Label is up", Lift = LiftNeed.Any };

    /// <summary>The steps of one move of the lift: what is looked at first, then the move.</summary>
    internal IReadOnlyList<SheetStep> LiftMove(bool up) => [.. Moves(up).Select(s => s with { Map = MapOf(s) })];

    private IReadOnlyList<SheetStep> Moves(bool up) => up
        ? [sheet.Steps.Values.FirstOrDefault(s => s.Kind == "secure" && s.What.IsEmpty)
                ?? Plain(VehicleMap.LiftingPoints, "secure", "", "Set the arms on the lifting points", "Open the way", Place.Side,
                    2) with { Lift = LiftNeed.Down, Value = "4 points", Said = "All four sit right", Cautions = ["crushing"] },
            First("raise") ?? Plain("raise", "raise", "", "Raise it, stop at knee height and shake it, then go up", "Open the way",
                Place.Side, 2) with { Lift = LiftNeed.Down, Said = "It is up and locked", Cautions = ["crushing"] }]
        : [sheet.Steps.Values.FirstOrDefault(s => s.Kind == "clear" && s.Place == Place.Below)
                ?? Plain("clear-below", "clear", "", "Pans, lamp and tools out from under it", "Close up", Place.Below,
                    1) with { Said = "Nothing under it" },
            First("lower") ?? Plain("lower", "lower", "", "Lower it to the ground", "Close up", Place.Side,
                2) with { Said = "It stands on its wheels", Cautions = ["crushing"] }];

    internal Fastener? Holder(PartId partId) => sheet.Fasteners.Values.FirstOrDefault(f => f.Seal == partId || f.Holds.Contains(partId));

    /// <summary>The step's own map, or the first that shows what it works on, or the step itself.</summary>
    internal string MapOf(SheetStep step) => step.Map.Length > 0 ? step.Map : MapOf(step.What) is { Length: > 0 } map ? map
        : MapOf(step.Id.Text);

    /// <summary>The first map that shows a thing; empty where none does.</summary>
    internal string MapOf(ThingId id) => id.IsEmpty ? ""
        : sheet.Maps.Values.FirstOrDefault(m => m.Points.Any(p => p.For == id) || m.Belts.Any(b => id == b.For))?.Id ?? "";

    private SheetStep? First(string kind) => sheet.Steps.Values.FirstOrDefault(s => s.Kind == kind);

    private SheetStep? Own(string kind, ThingId what) => _own[(kind, what)].FirstOrDefault();

    private static SheetStep Plain(StepId id, string kind, ThingId what, string title, string phase, Place place, int minutes) =>
        new() { Id = id, Kind = kind, What = what, Title = title, Phase = phase, Place = place, Lift = place.UsualLift(),
            Takes = TimeSpan.FromMinutes(minutes) };

    private SheetStep Access(Access a, string kind, string title, string phase, string said) => new()
    {
        Id = kind == "close" ? $"{a.Id}-on" : kind == "secure" ? $"{a.Id}-set" : $"{a.Id}-off",
        Kind = kind,
        What = a.Id,
        Title = title,
        Phase = phase,
        Place = a.Place,
        Lift = a.HoldsVehicle ? LiftNeed.Down : a.Place.UsualLift(),
        Takes = kind == "close" ? a.TakesBack : a.Takes,
        Said = said,
        Notes = a.Notes,
        Cautions = a.Cautions,
        Map = MapOf(a.Id),
        From = a.From,
    };

    private SheetStep Fastener(Fastener f, string kind, (string Title, string Phase, string Said) words) => new()
    {
        Id = kind switch { "tighten" => $"tighten-{f.Id}", "drain" => $"drain-{f.Drains}", _ => $"undo-{f.Id}" },
        Kind = kind,
        What = f.Id,
        Title = words.Title,
        Phase = words.Phase,
        Said = words.Said,
        Place = f.Place,
        Lift = f.Lift ?? f.Place.UsualLift(),
        Takes = f.Takes,
        Notes = f.Notes,
        // What burns or bites as it comes off does so as it goes on; only a cooling system is under pressure no more.
        Cautions = kind == "tighten" ? [.. f.Cautions.Where(c => c != "coolant")] : f.Cautions,
        Map = MapOf(f.Id),
        Cold = f.Cold && kind != "tighten",
    };
}
