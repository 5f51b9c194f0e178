using Anakyklos.Core.Workshop;
using Anakyklos.Web.Pages;
using Anakyklos.Web.Pages.InStores;
using Anakyklos.Web.Pages.Sheets;

namespace Anakyklos.Web.Api;

/// <summary>A press of a page that programs may make as well: the same handler answers the page's form and a program's JSON, so that the
/// one cannot drift from the other.</summary>
/// <param name="Page">The page's model.</param>
/// <param name="Handler">The name of its handler; empty for the one without.</param>
/// <param name="Scope">What a token must be for.</param>
/// <param name="Says">What it does.</param>
public sealed record PageAction(Type Page, string Handler, Scope Scope, string Says)
{
    /// <summary>What it is called in its address, where its handler's name will not do; else empty.</summary>
    public string Called { get; init; } = "";

    /// <summary>The page as the framework names it, such as <c>/InStores/Part</c>.</summary>
    public string View => Page.FullName![typeof(IndexModel).Namespace!.Length..^"Model".Length].Replace('.', '/');

    /// <summary>Its name in the description.</summary>
    public string Name => $"{char.ToLowerInvariant(Page.Name[0])}{Page.Name[1..^"Model".Length]}{Handler}";

    /// <summary>Its address below that of the page.</summary>
    public string Ending => Called.Length > 0 ? $"/{Called}" : string.Concat(Handler.Select((c, i) => char.IsUpper(c)
        ? $"{(i > 0 ? "-" : "/")}{char.ToLowerInvariant(c)}" : $"{c}"));
}

/// <summary>All presses of pages that programs may make. What is not here no program can do.</summary>
public static class PageActions
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<PageAction> All { get; } =
    [
        new(typeof(IntakeModel), "", Scope.Cards, "A vehicle is here: its card is opened"),
        new(typeof(KitModel), "Await", Scope.Cards, "A card waits for a part"),
        new(typeof(VisitModel), "Fix", Scope.Cards, "A visit is fixed on a day and a bay"),
        new(typeof(VisitModel), "Free", Scope.Cards, "A fixed visit is free again"),
        new(typeof(VisitModel), "Drop", Scope.Cards, "A proposed visit is left out until a day"),
        new(typeof(VisitModel), "TakeBack", Scope.Cards, "What was left out is proposed again"),
        new(typeof(VisitModel), "Needed", Scope.Cards, "When a vehicle cannot be missed"),
        new(typeof(VisitModel), "Trip", Scope.Cards, "A trip ahead is noted"),
        new(typeof(VisitModel), "Dash", Scope.Cards, "What a driver told of the dash"),
        new(typeof(VehicleModel), "Became", Scope.Cards, "What became of a recommendation"),
        new(typeof(BayModel), "Place", Scope.Cards, "A reading that waits is put to a step"),
        new(typeof(BayModel), "Discard", Scope.Cards, "A reading belongs nowhere"),
        new(typeof(BayModel), "Hang", Scope.Cards, "A dispenser hangs in a container"),
        new(typeof(BayModel), "Move", Scope.Cards, "A device stands in another bay"),
        new(typeof(BayModel), "Vehicle", Scope.Cards, "A vehicle stands in another bay"),
        new(typeof(LaboratoryModel), "Sent", Scope.Cards, "A sample is on its way"),
        new(typeof(LaboratoryModel), "Results", Scope.Cards, "Answers of a laboratory are brought in"),
        new(typeof(SampleModel), "Seen", Scope.Cards, "Somebody took note of an answer"),
        new(typeof(BroughtInModel), "", Scope.Cards, "A record of another workshop is brought in"),

        new(typeof(StoresModel), "Part", Scope.Stores, "Parts are booked in") { Called = "book-part" },
        new(typeof(StoresModel), "Container", Scope.Stores, "A container is booked in") { Called = "book-container" },
        new(typeof(StoresModel), "File", Scope.Stores, "A file of parts, containers or oils is brought in"),
        new(typeof(PartModel), "", Scope.Stores, "A part is written down, described anew or counted"),
        new(typeof(PartModel), "Drop", Scope.Stores, "A part is taken out of the book"),
        new(typeof(ContainerModel), "", Scope.Stores, "A container is put right"),
        new(typeof(ContainerModel), "Scrap", Scope.Stores, "A container is scrapped"),
        new(typeof(CribModel), "Pan", Scope.Stores, "A drain pan is there"),
        new(typeof(CribModel), "Tool", Scope.Stores, "A tool is there"),
        new(typeof(CribModel), "DropPan", Scope.Stores, "A drain pan is gone"),
        new(typeof(CribModel), "DropTool", Scope.Stores, "A tool is gone"),
        new(typeof(OilsModel), "Product", Scope.Stores, "A product of the oil book is written down"),
        new(typeof(OilsModel), "Remove", Scope.Stores, "A product leaves the oil book"),
        new(typeof(OilsModel), "Cover", Scope.Stores, "One approval covers another"),
        new(typeof(OilsModel), "Uncover", Scope.Stores, "One approval covers another no more"),
        new(typeof(DrumsModel), "Put", Scope.Stores, "A drum for used fluids is set up or put right"),
        new(typeof(DrumsModel), "Out", Scope.Stores, "A drum is taken out of use"),
        new(typeof(DrumsModel), "Collect", Scope.Stores, "A drum was taken away"),

        new(typeof(VehicleModel), "Rule", Scope.Workshop, "A vehicle has a rule of its own"),
        new(typeof(PutRightModel), "Description", Scope.Workshop, "A vehicle is described anew"),
        new(typeof(PutRightModel), "Reading", Scope.Workshop, "A reading of the odometer is put right"),
        new(typeof(PutRightModel), "Elsewhere", Scope.Workshop, "Something was done elsewhere"),
        new(typeof(PutRightModel), "NotDone", Scope.Workshop, "Something was not done elsewhere after all"),
        new(typeof(PutRightModel), "Go", Scope.Workshop, "A vehicle is gone, or here again"),
        new(typeof(WorkshopModel), "School", Scope.Workshop, "How this workshop works"),
        new(typeof(WorkshopModel), "Rule", Scope.Workshop, "The workshop has a rule of its own"),
        new(typeof(WorkshopModel), "Weather", Scope.Workshop, "The weather that oils must bear"),
        new(typeof(WorkshopModel), "Deliveries", Scope.Workshop, "When the supplier brings what is ordered"),
        new(typeof(WorkshopModel), "ReadByTwo", Scope.Workshop, "Whether cards take values only that two have read"),
        new(typeof(WorkshopModel), "Vehicles", Scope.Workshop, "A file of vehicles is brought in"),
        new(typeof(WorkshopModel), "Copy", Scope.Workshop, "A copy of the workshop is made"),
        new(typeof(EquipmentModel), "Wrench", Scope.Workshop, "A torque wrench is described"),
        new(typeof(EquipmentModel), "Dispenser", Scope.Workshop, "A dispenser is described"),
        new(typeof(EquipmentModel), "LabelPrinter", Scope.Workshop, "A label printer is there"),
        new(typeof(EquipmentModel), "ScanTool", Scope.Workshop, "A scan tool is there"),
        new(typeof(EquipmentModel), "Calibrated", Scope.Workshop, "A device was calibrated"),
        new(typeof(EquipmentModel), "Out", Scope.Workshop, "A device is out of use"),
        new(typeof(EquipmentModel), "Back", Scope.Workshop, "A device is back"),
        new(typeof(LibraryModel), "Check", Scope.Workshop, "A sheet is read through, and not taken in"),
        new(typeof(LibraryModel), "Add", Scope.Workshop, "Takes a sheet in; as a draft where its model is in use, or it tells readers"),
        new(typeof(LibraryModel), "Write", Scope.Workshop, "A draft of a sheet is begun"),
        new(typeof(DraftModel), "Write", Scope.Workshop, "A field of a draft is written"),
        new(typeof(DraftModel), "Add", Scope.Workshop, "A thing is added to a draft"),
        new(typeof(DraftModel), "Remove", Scope.Workshop, "A thing is removed from a draft"),
        new(typeof(DraftModel), "Text", Scope.Workshop, "The whole text of a draft is written"),
        new(typeof(DraftModel), "Torques", Scope.Workshop, "A table of torques is taken into a draft"),
        new(typeof(DraftModel), "ReadHere", Scope.Workshop, "What a file says of who has read its values counts for nothing"),
        new(typeof(DraftModel), "ThrowAway", Scope.Workshop, "A draft is thrown away"),
        new(typeof(WordsModel), "", Scope.Workshop, "What texts of a draft are in another language"),
        new(typeof(SheetPageModel), "Revise", Scope.Workshop, "A revision becomes a draft"),
        new(typeof(OwnListPageModel), "", Scope.Workshop, "A list of one's own is kept"),
        new(typeof(OwnListPageModel), "Remove", Scope.Workshop, "A list of one's own is removed"),
    ];

    /// <summary>Presses that only a person makes at a screen, and why.</summary>
    public static IReadOnlyDictionary<string, string> OnlyPeople { get; } = new Dictionary<string, string>(StringComparer.Ordinal)
    {
        ["/SignIn"] = "a program has a token",
        ["/Setup"] = "there is nobody yet who could have made a token",
        ["/FirstHour"] = "its stages are presses of other pages",
        ["/MadeUp"] = "the made-up depot is for people to try",
        ["/You"] = "how a person likes to see things, and their PIN",
        ["/People"] = "who may come in is said by a lead at a screen",
        ["/Tokens"] = "a program makes no other program's token",
        ["/Index Guide"] = "a first card is for people to try",
        ["/Error"] = "it tells what went wrong, whatever was sent",
        ["/Record"] = "what is amended goes by /api/v1/cards/{id}/commands",
        ["/Handover"] = "signatures go by /api/v1/cards/{id}/commands",
        ["/Lift"] = "what is said at the lift goes by /api/v1/cards/{id}/commands",
        ["/Stands"] = "what is said of a card goes by /api/v1/cards/{id}/commands",
        ["/Plan"] = "what is said of a card goes by /api/v1/cards/{id}/commands",
        ["/Sheets/Use"] = "the lead looks at what it changes",
        ["/Sheets/Check"] = "a second person reads the source",
        ["/Kit Scan"] = "it is seen on the page; what was laid out goes by /api/v1/cards/{id}/commands",
        ["/Kit All"] = "it is seen on the page; what was laid out goes by /api/v1/cards/{id}/commands",
        ["/Kit Confirm"] = "what was laid out goes by /api/v1/cards/{id}/commands",
        ["/Intake Preview"] = "it is seen on the page",
        ["/Intake Read"] = "it is seen on the page",
        ["/Visit Try"] = "it is seen on the page",
        ["/Stores Look"] = "it is seen on the page",
        ["/InStores/Oils TryProduct"] = "it is seen on the page",
        ["/InStores/Oils TryCover"] = "it is seen on the page",
        ["/Workshop Look"] = "it is seen on the page",
        ["/Workshop Week"] = "its fields are named after people",
        ["/Workshop Calendar"] = "whoever has the calendars' addresses is asked first",
        ["/Equipment Bays"] = "its fields stand in lines of the page",
        ["/SheetPage Withdraw"] = "the lead looks at what it changes",
        ["/SheetPage Rule"] = "the lead rules with the source in hand",
        ["/Sheets/Draft Rule"] = "the lead rules with the source in hand",
        ["/Sheets/Draft Walk"] = "it is seen on the page",
        ["/Bay Pair"] = "a device's key is shown once, at a screen",
    };
}
