using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>A first card in two minutes, for whoever tries the made-up depot: a short job on the school run, opened as at intake, with a
/// word beside the first step of each kind. Which card it is, the browser keeps.</summary>
public sealed class GuidedCard(IntakeDesk intake, VehicleStore vehicles, CardStore cards, WorkshopClock clock, Options options)
{
    private const string Plate = "HD-04", Job = "air-filter", Guide = "-guide";
    private static readonly Quantity<Distance> Since = Quantity<Distance>.Of(120, Distance.Kilometre);

    /// <summary>Whether it is offered here.</summary>
    public bool IsOffered => options.Demo && vehicles.Find(Plate) is not null;

    /// <summary>Whether a card is the one that this browser is guided along.</summary>
    public bool Is(HttpRequest request, CardNumber card) => options.Demo
        && request.Cookies[options.Cookie + Guide] == card.Value.ToString(CultureInfo.InvariantCulture);

    /// <summary>Opens it, or takes the vehicle's open one.</summary>
    /// <param name="http">The press.</param>
    /// <param name="by">Who made it.</param>
    /// <returns>The card; null where it cannot be opened.</returns>
    public async Task<CardNumber?> Begin(HttpContext http, Person by)
    {
        var card = cards.OfVehicle(Plate).FirstOrDefault(c => c.IsOpen)?.Id;
        if (card is null)
        {
            var last = vehicles.History(Plate, clock.Day).LastMark?.Odometer ?? default;
            (_, card) = await intake.Open(new()
            {
                Command = Guid.CreateVersion7(), Plate = Plate, Job = [Job], Bay = Bays.Outside,
                Odometer = $"{(last + Since).In(Distance.Kilometre).ToString("0", CultureInfo.InvariantCulture)} km",
            }, Distance.Kilometre, by);
        }
        if (card is { } opened)
            http.Response.Cookies.Append(options.Cookie + Guide, opened.Value.ToString(CultureInfo.InvariantCulture),
                new() { HttpOnly = true, SameSite = SameSiteMode.Strict, Secure = http.Request.IsHttps, MaxAge = TimeSpan.FromHours(2) });
        return card;
    }
}
