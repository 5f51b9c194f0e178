using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Microsoft.AspNetCore.Mvc;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>The lift: one step of a card at a time.</summary>
[RequestSizeLimit(LargestForm)]
[RequestFormLimits(MultipartBodyLengthLimit = LargestForm)]
public sealed class LiftModel(CardStore cards, CardRooms rooms, AroundLift around, DeviceDesk devices, PhotoDesk photos,
    PracticeDesk practice, AheadDesk ahead, WorkshopWords words, WorkshopClock clock, Viewer viewer)
    : CommandPage(cards, clock, viewer, rooms)
{
    // A picture that is too large is told so; what is larger still is not even read.
    private const int LargestForm = 64_000_000;

    /// <summary>Panels that can stand in the middle in place of the facts.</summary>
    private static readonly string[] Panels = ["reading", "wrench", "amount", "count", "saw", "stuck", "jump", "lift", "keys", "measured",
        "map"];

    /// <summary>The panel at which a field that was refused can be typed.</summary>
    private static readonly Dictionary<string, string> PanelOf = new()
    {
        ["torque"] = "reading",
        ["setting"] = "reading",
        ["wrench"] = "wrench",
        ["length"] = "wrench",
        ["degrees"] = "wrench",
        ["amount"] = "amount",
        ["full"] = "amount",
        ["empty"] = "amount",
        ["count"] = "count",
        ["distance"] = "resetShows",
        ["months"] = "resetShows",
        ["fluid"] = "saw",
        ["photo"] = "saw",
        ["grade"] = "saw",
        ["text"] = "saw",
        ["reason"] = "stuck",
        ["kind"] = "stuck",
        ["lookedOver"] = "lift",
        ["value"] = "measured",
        ["goes"] = "measured",
        ["not"] = "measured",
    };

    /// <summary>The container that was chosen, as it goes along to the panel; empty where none was.</summary>
    public string Can => int.TryParse(Request.Query["can"], out var can) ? $"&can={can}" : "";

    public LiftScene Scene { get; private set; } = null!;
    public string Panel { get; private set; } = "";
    public SheetStep? After { get; private set; }

    /// <summary>Where the hands go next, such as "stay below: two more here, then lower it".</summary>
    public string Stay { get; private set; } = "";

    /// <summary>Whether this step is shown before its turn and could be done now.</summary>
    public bool IsAhead { get; private set; }

    /// <summary>How much later the card ends when it is taken now; null when it is not ahead.</summary>
    public TimeSpan? AheadCosts { get; private set; }

    /// <summary>What stands in the way and is said above the step, since no field of this page shows it.</summary>
    public IReadOnlyList<Refusal> Blocked => [.. Refusals.Where(r => r.Field is null || (Panel.Length == 0 && !Scene.IsKit
        && !(Scene.WantsReading && r.Field == Scene.ReadInto) && !(Scene.IsOverTorqued && r.Field == "what")))];

    /// <summary>Whether nothing was refused but the answer itself, so that another can be given at once.</summary>
    public bool OnlyOtherwise => Blocked.Count > 0
        && Blocked.All(r => r.Field is "says" or "found" or "words" or "far" or "where" or "number");

    /// <summary>What runs by itself while this step is done; empty for nothing.</summary>
    public string Meantime => Scene.IsDone || Scene.WaitsFor is not null ? ""
        : string.Join(" and the ", Card.Waits.Where(w => w.Until > Now && w.Id != Scene.Step.Id)
            .Select(w => w.For.ToLowerInvariant()).Take(2));

    /// <summary>Whether nothing but a feeling hand is missing before this step.</summary>
    public bool AsksIfCold => Scene.InTheWay.Count == 1 && Card.AsksIfCold(Scene.Step, Now);

    /// <summary>What two people must know about this step.</summary>
    public string ForTwo => Scene.Pictures.Middle.Length > 0 ? "Nobody else is at, in or under it."
        : "Say what you do before you do it; nobody else is at, in or under the vehicle.";

    /// <summary>Who did this step, and when.</summary>
    public string Through => Card.State(Scene.Step.Id).Through is { } done ? $"{done.By.Name}, {Clock.Local(done.At):HH:mm}" : "";

    /// <summary>What taking this step before its turn costs; empty while that is not known.</summary>
    public string AheadSays => AheadCosts is not { } costs ? ""
        : costs > TimeSpan.Zero ? $"The card ends {LiftWords.Spent(costs)} later for it." : "It costs no time.";

    /// <summary>The step before this one; the way back leads there from the step that is next.</summary>
    public string Back => Panel.Length == 0 && Question is null && Scene.Step == Card.Next
        ? $"/lift/{Id}?step={Card.Steps[Math.Max(0, Scene.Place - 2)].Id}" : $"/lift/{Id}";

    /// <summary>A button on this page.</summary>
    /// <param name="press">What the hands did, and what it gives.</param>
    /// <param name="look">"main" or "side".</param>
    /// <param name="key">The key that presses it, or empty.</param>
    public PressButton Button(LiftScene.Press press, string look, string key) => new(Fields(Scene.Step.Id), press, look, key);

    /// <summary>What stands around the lift.</summary>
    public Surroundings Around { get; private set; } = null!;

    /// <summary>The vehicle of the practice bay, as it is from where one stands; null for a real one.</summary>
    public PracticeView? Practice { get; private set; }

    /// <summary>Why whoever looks may not work at this step alone; null where they may.</summary>
    public Refusal? NotAlone { get; private set; }

    /// <summary>The lesson that is asked for before brakes; empty for none.</summary>
    public string BrakeLesson { get; private set; } = "";

    /// <summary>The wrench whose click is noted at this step by itself; null when none is near that can do it.</summary>
    public DeviceId? Listens { get; private set; }

    /// <summary>The step that let out what can be rinsed now; null for none.</summary>
    public SheetStep? ToRinse => Card.ToRinse(Now);

    /// <summary>The level that the open panel asks for long before its turn; null for every other panel.</summary>
    public LookAhead? LooksAhead => Panel switch
    {
        "dip" => BalanceWords.BeforeDrain(Card),
        "early" => BalanceWords.BeforeRun(Card),
        _ => null,
    };

    /// <summary>The step that let out what can be measured in its pan now; null for none.</summary>
    public SheetStep? ToMeasure => Card.ToMeasure(Now);

    /// <summary>What another did last on a card that is new to whoever looks; null when it is not.</summary>
    public Recorded? TakenOver => Viewer.Member is { } me ? Card.WorkedOnBefore(me.Id, Now) : null;

    /// <summary>Says a text in the language of whoever looks.</summary>
    public Func<string, string> Say { get; } = words.Speaker();

    /// <summary>The drawing of where the step is, and what it points at.</summary>
    /// <param name="near">Whether it is drawn from near, as beside a step, or whole, as it is when opened.</param>
    public MapDrawing Drawn(bool near)
    {
        var map = Card.Sheet.Maps[Scene.Step.Map];
        return new(map, map.PointOf(Scene.Step)?.For ?? Scene.Step.What, near, Say);
    }

    public IActionResult OnGet(long id, string? step, string? panel, string? can, string? point)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Card.Ended is not null)
            return Redirect($"/record/{id}");
        if (step is null && Card.Next is null)
            return Redirect($"/handover/{id}");
        return Show(step, panel, can, point);
    }

    /// <summary>Answers that need not be asked about, of a page that is prepared ahead; null on every other page.</summary>
    public IReadOnlyList<AlikeAnswers>? Alike { get; private set; }

    /// <summary>This page as it would be after what is not said yet, so that it is there when the line dies. Nothing is written.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="moves">What would be said, see <see cref="Ahead.Read"/>.</param>
    /// <param name="panel">The panel in the middle, or null.</param>
    public IActionResult OnPostAhead(long id, string? moves, string? panel)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Me is not { } me || Ahead.Read(moves) is not { } read)
            return BadRequest();
        // In the practice bay a press leads where the vehicle is by then, which nobody knows ahead.
        if (IsPractice)
            return StatusCode(StatusCodes.Status409Conflict);
        var would = ahead.Go(Id, Card, read, me, Now);
        if (would.Moves < read.Count || would.Card is { Next: null } or { Ended: not null })
            return StatusCode(StatusCodes.Status409Conflict);
        (Card, Now) = (would.Card, would.At);
        var shown = Show(null, panel);
        if (panel is null)
            Alike = Ahead.Alike(Scene, Viewer, (said, usual) => ahead.Alike(Id, Card, said, usual, me, Now));
        return shown;
    }

    private IActionResult Show(string? stepId, string? panel, string? can = null, string? point = null)
    {
        if ((string.IsNullOrEmpty(stepId) ? Card.Next ?? Card.Steps[^1] : Card.Step(stepId)) is not { } step)
            return NotFound();
        var today = DateOnly.FromDateTime(Now.DateTime);
        Around = around.Of(Id, Entry.Bay, Card, step, today);
        Scene = LiftScene.Of(Card, step, Now, new(Viewer, Around.Wrenches, Around.Shelf, today,
            int.TryParse(can ?? Typed("from"), out var from) ? from : null, Around.WrenchesHere, point ?? Typed("point"),
            Around.ScanToolHere, Around.Drums, Around.Rulings, Around.Printer));
        if (IsPractice)
            Practice = PracticeView.Of(Id, practice.Run(Id)!, Me!, Request.Query["thing"]);
        if (Around.Brakes is { } brakes && Me is { } me && !Scene.IsDone)
            (NotAlone, BrakeLesson) = (Card.NotAlone(step, me, brakes), brakes.Lesson.Text);
        Scene.Typed = Typed;
        Panel = (Panels.Contains(panel) && (panel != "measured" || Scene.Point is { Measure: not null })
            && (panel != "map" || step.Map.Length > 0))
            || Scene.Others.Any(o => o.Asks && o.Command == panel) ? panel! : "";
        // What nobody measured is not offered as a press: the amount is asked for at once.
        if (Panel.Length == 0 && step.Traits.MeasuresOut && Card.State(step.Id).Status is StepStatus.Waiting or StepStatus.Aside
            && Card.InTheWay(step, Now).Count == 0)
            Panel = "amount";
        After = Card.Steps.SkipWhile(s => s.Id != step.Id).Skip(1).FirstOrDefault(s => Card.State(s.Id).Status == StepStatus.Waiting);
        Stay = LiftWords.Stay(Card.HandsAfter(step));
        IsAhead = Card.Next is { } next && next.Id != step.Id && !step.MovesLift && !Scene.IsDone && Scene.InTheWay.Count == 0
            && Scene.WaitsFor is null && Question is null;
        AheadCosts = IsAhead && Panel.Length == 0 ? Card.PlanWith(step.Id, Now)?.Costs : null;
        Listens = IsPractice || NotAlone is not null || Card.Next?.Id != step.Id || Scene is not { InTheWay.Count: 0, IsDone: false } ? null
            : Scene.TakesTorque ? devices.WrenchFor(Entry.Bay, Scene.Torque!, Scene.CrowFoot)
            : Scene.Pours > Quantity<Volume>.Zero && Card.OilInHand(step.What) is { } oil
                ? devices.DispenserFor(Entry.Bay, oil.Products) : null;
        return Page();
    }

    /// <inheritdoc/>
    protected override string Onward(CardCommand given) => given is VoidCard ? $"/handover/{Id}"
        : Typed("stay") == "yes" ? $"{Lift}&step={Typed("step")}" : Lift;

    // The picture that came with what was seen; the form goes on with its id.
    /// <inheritdoc/>
    protected override async Task<bool> Prepare(string? handler, Person? by)
    {
        if (handler != "saw" || !Request.HasFormContentType || Request.Form.Files.GetFile("picture") is not { Length: > 0 } picture)
            return true;
        if (IsPractice)
        {
            Refusals.Add(new("In the practice bay no picture is kept.", "Say it in words.", Field: "photo"));
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return false;
        }
        await using var stream = picture.OpenReadStream();
        var (photo, wrong) = await photos.TakeIn(Id, await PhotoDesk.Read(stream, picture.Length), by ?? Viewer.Member!.Person);
        if (wrong is not null)
        {
            Refusals.Add(wrong);
            Response.StatusCode = wrong.Field is null ? StatusCodes.Status403Forbidden : picture.Length > PhotoDesk.LargestFile
                ? StatusCodes.Status413PayloadTooLarge : StatusCodes.Status422UnprocessableEntity;
            return false;
        }
        Request.Form = new FormCollection(Request.Form.Where(f => f.Key != "photo").Append(new("photo", photo)).ToDictionary());
        return true;
    }

    // A press that was refused for the card's sake is explained on the step itself; for the sake of what was typed, beside the field.
    /// <inheritdoc/>
    protected override IActionResult Again(Person? by) => Show(Typed("at") is { Length: > 0 } at ? at : Typed("step"),
        Typed("panel") is { Length: > 0 } typed ? typed
        : Refusals.Select(r => PanelOf.GetValueOrDefault(r.Field ?? "")).FirstOrDefault(p => p is not null));
}
