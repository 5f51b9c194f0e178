using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Kit;

/// <summary>What it means that something of the kit is not there.</summary>
public enum KitVerdict
{
    /// <summary>It is there.</summary>
    InHand,

    /// <summary>It is not there; the old one may go in once more, by name.</summary>
    Worse,

    /// <summary>It is not there; nothing is opened before it is.</summary>
    Stops,
}

/// <summary>One part of the kit, with all the places where it goes.</summary>
/// <param name="Number">The number in the sheet.</param>
/// <param name="Uses">The sheet's parts of this number that the card uses up.</param>
/// <param name="Found">What the stores have for it, or null.</param>
/// <param name="As">How it was found.</param>
/// <param name="Missing">How many are missing; 0 when all are there.</param>
/// <param name="UsedAgain">How often the seal that sits there now has been used again; 0 for what is not a seal.</param>
/// <param name="Verdict">What that means.</param>
public sealed record KitPartLine(string Number, IReadOnlyList<Part> Uses, StockPart? Found, FoundAs As, int Missing, int UsedAgain,
    KitVerdict Verdict)
{
    /// <summary>How many are wanted.</summary>
    public int Wanted => Uses.Count;

    /// <summary>Its name.</summary>
    public string Name => Uses[0].Name;

    /// <summary>Its shape is to be held against the old one.</summary>
    public bool Compare => Uses.Any(p => p.Compare);
}

/// <summary>One fluid of the kit.</summary>
/// <param name="Fluid">The fluid system.</param>
/// <param name="Wanted">What it asks for.</param>
/// <param name="Chosen">The product that is taken; null when nothing on the shelf fits.</param>
/// <param name="Shares">From which containers, opened ones first.</param>
/// <param name="Short">What is missing; zero when it is enough.</param>
/// <param name="Others">The other products on the shelf that could be taken for it, with what each lacks or that it would fit as
/// well.</param>
public sealed record KitOilLine(FluidSystem Fluid, OilRequirement Wanted, OilFit? Chosen, IReadOnlyList<ContainerShare> Shares,
    Quantity<Volume> Short, IReadOnlyList<OilFit> Others)
{
    /// <summary>What it means.</summary>
    public KitVerdict Verdict => Short > Quantity<Volume>.Zero ? KitVerdict.Stops : KitVerdict.InHand;
}

/// <summary>One tool of the kit, once, with where it is used.</summary>
/// <param name="Size">Kind and size.</param>
/// <param name="For">Names of what it opens or closes.</param>
/// <param name="Tool">The tool of the crib, or null when the crib has none of this size.</param>
public sealed record KitToolLine(string Size, IReadOnlyList<string> For, CribTool? Tool);

/// <summary>The wrench for a torque.</summary>
/// <param name="Fastener">What is tightened.</param>
/// <param name="Spec">The torque.</param>
/// <param name="Wrench">The wrench to take; null when none in calibration covers it.</param>
/// <param name="OutOfCalibration">A wrench that would cover it, were its calibration not past; else null.</param>
public sealed record KitTorqueLine(Fastener Fastener, ToTorque Spec, CribWrench? Wrench, CribWrench? OutOfCalibration);

/// <summary>The pans for what comes out.</summary>
/// <param name="Pans">The fewest and smallest in which all of it finds room; all of the crib's when there are none.</param>
/// <param name="Fluids">What runs into each of them, in their order; empty when they are emptied in between.</param>
/// <param name="ComesOut">All that comes out.</param>
/// <param name="Short">What is wrong with the crib's pans; null when they are enough.</param>
public sealed record KitPanLine(IReadOnlyList<DrainPan> Pans, IReadOnlyList<IReadOnlyList<FluidSystem>> Fluids, Quantity<Volume> ComesOut,
    Refusal? Short)
{
    /// <summary>Whether they are enough only when one is emptied before all of it is out.</summary>
    public bool EmptiedBetween => Short is null && Fluids.All(f => f.Count == 0);
}

/// <summary>Everything that must be in hand before anything is opened.</summary>
/// <param name="Parts">Parts and seals.</param>
/// <param name="Oils">Fluids.</param>
/// <param name="Tools">Tools by size.</param>
/// <param name="Torques">Wrenches.</param>
/// <param name="Pan">The pans; null when nothing is drained.</param>
/// <param name="SidewaysFills">Fluids that go in through a hole that faces sideways: a pump, hose or can with a spout is wanted.</param>
/// <param name="Drips">Fasteners under which a catch chute or foil goes.</param>
public sealed record KitList(IReadOnlyList<KitPartLine> Parts, IReadOnlyList<KitOilLine> Oils, IReadOnlyList<KitToolLine> Tools,
    IReadOnlyList<KitTorqueLine> Torques,
    KitPanLine? Pan, IReadOnlyList<FluidSystem> SidewaysFills, IReadOnlyList<Fastener> Drips)
{
    /// <summary>The worst of its parts, fluids and pans.</summary>
    public KitVerdict Verdict => Parts.Select(p => p.Verdict).Concat(Oils.Select(o => o.Verdict))
        .Append(Pan?.Short is null ? KitVerdict.InHand : KitVerdict.Stops).Max();

    /// <summary>Whether everything for it is on the shelf and in the crib.</summary>
    public bool IsComplete => Parts.All(p => p.Verdict == KitVerdict.InHand) && Oils.All(o => o.Verdict == KitVerdict.InHand)
        && Pan?.Short is null && !OutOfReach.Any();

    /// <summary>What no wrench of the crib can tighten, or none that is in calibration.</summary>
    public IEnumerable<KitTorqueLine> OutOfReach => Torques.Where(t => t.Wrench is null);
}
