using System.Security.Claims;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Who looks at the page, and in which units.</summary>
public sealed class Viewer(IHttpContextAccessor context, PeopleStore people, SettingStore settings)
{
    private readonly Lazy<Member?> _member = new(() =>
        context.HttpContext?.User.FindFirstValue(ClaimTypes.NameIdentifier) is { } id ? people.Find(id) : null);

    /// <summary>The person, or null before signing in.</summary>
    public Member? Member => _member.Value;

    /// <summary>Where vehicles stand in this workshop.</summary>
    public Bays Bays => settings.Read().Bays;

    /// <summary>The torque units in this person's order.</summary>
    public IReadOnlyList<Unit<Torque>> TorqueUnits => IsUs ? [Torque.PoundFoot, Torque.PoundInch, Torque.NewtonMetre]
        : [Torque.NewtonMetre, Torque.PoundFoot, Torque.PoundInch];

    /// <summary>The volume units in this person's order.</summary>
    public IReadOnlyList<Unit<Volume>> VolumeUnits => IsUs ? [Volume.Quart, Volume.FluidOunce, Volume.Litre] : [Volume.Litre, Volume.Quart];

    /// <summary>The distance unit of this person.</summary>
    public Unit<Distance> DistanceUnit => IsUs ? Distance.Mile : Distance.Kilometre;

    /// <summary>"day", "night" or "device".</summary>
    public string Look => Member?.Look ?? "device";

    private bool IsUs => Member?.Units == "us";
}
