using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Kit;

/// <summary>A drain pan of a card, with what ran into it.</summary>
/// <param name="Holds">What it holds.</param>
public sealed record PanInUse(Quantity<Volume> Holds)
{
    /// <summary>What is in it, in the order in which it ran in.</summary>
    public ImmutableList<Caught> In { get; init; } = [];

    /// <summary>How much is in it.</summary>
    public Quantity<Volume> Filled => In.Aggregate(Quantity<Volume>.Zero, (sum, c) => sum + c.Amount);

    /// <summary>Whether an amount of a fluid may run into it: there is room, and it may be mixed with what is in there.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="amount">How much; zero for nothing but what runs over when it is filled again. That is what did not run out before, so
    /// that a pan with the old fluid in it has room for it.</param>
    public bool Takes(FluidSystem fluid, Quantity<Volume> amount)
    {
        var comes = amount > Quantity<Volume>.Zero || In.Any(c => c.Fluid.Id == fluid.Id) ? amount : PanPlan.RunsOver(fluid);
        return Filled + comes <= Holds && In.All(c => c.Fluid.Id == fluid.Id || PanPlan.MayShare(c.Fluid, fluid));
    }

    /// <summary>The pan after an amount of a fluid ran into it.</summary>
    /// <param name="fluid">The fluid.</param>
    /// <param name="amount">How much.</param>
    public PanInUse With(FluidSystem fluid, Quantity<Volume> amount) => this with { In = In.Add(new(fluid, amount)) };
}

/// <summary>What ran into a pan.</summary>
/// <param name="Fluid">The fluid.</param>
/// <param name="Amount">How much; the book's amount until it is measured.</param>
public sealed record Caught(FluidSystem Fluid, Quantity<Volume> Amount);
