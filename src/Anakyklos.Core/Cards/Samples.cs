using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>A sample of the old fluid was taken for the laboratory.</summary>
/// <param name="Fluid">Of which fluid.</param>
/// <param name="Number">Which sample of this card, from 1.</param>
public sealed record SampleTaken(FluidId Fluid, int Number) : CardEvent;

/// <summary>A sample of the old fluid was taken.</summary>
/// <param name="Fluid">Of which fluid.</param>
public sealed record TakeSample(FluidId Fluid) : CardCommand;

/// <summary>What a laboratory said of an earlier sample of the vehicle.</summary>
/// <param name="Code">The code of the sample.</param>
/// <param name="Fluid">Of which fluid.</param>
/// <param name="Day">The day of the report.</param>
/// <param name="Leads">What follows from it.</param>
/// <param name="Says">In words, such as "iron 95 mg/kg, too much".</param>
public sealed record SampledBefore(string Code, FluidId Fluid, DateOnly Day, LookOutcome Leads, string Says);

/// <summary>What may be said of samples.</summary>
internal sealed class SampleCommands : ICommandPage
{
    private static readonly CommandField<string> Fluid = Field.Text("fluid", "the fluid", needed: true);

    public IEnumerable<CommandDeclaration> Commands =>
        [new("sample", "A sample of the old fluid was taken", [Fluid], said => new TakeSample(said.Of(Fluid)))];
}

/// <summary>Samples of what was let out.</summary>
public sealed partial class JobCard
{
    private const int MostSamples = 9;

    /// <summary>The samples that were taken on this card and not taken back.</summary>
    public IReadOnlyList<SampleTaken> Samples
    {
        get
        {
            var taken = TakenIn(_history);
            return [.. _history.Where(r => !taken.Contains(r.Seq)).Select(r => r.Event).OfType<SampleTaken>()];
        }
    }

    /// <summary>The fluids of which a sample can be taken now: the old one is out, and none of the new is in.</summary>
    public IReadOnlyList<FluidSystem> CanBeSampled =>
        [.. Sheet.Fluids.Values.Where(f => Fluid(f.Id) is { Out: true, Pours: 0 } && Steps.Any(s => s.Traits.LetsOut && WasDone(s)
            && Sheet.Fasteners[s.What].Drains == f.Id))];

    /// <summary>The fluids of which a sample was asked for by what was seen, and none was taken so far.</summary>
    public IReadOnlyList<FluidSystem> SamplesAsked => [.. Sheet.Fluids.Values.Where(f => Samples.All(s => s.Fluid != f.Id)
        && _state.Seen.Any(s => s.Leads is LookOutcome.Sample or LookOutcome.Specialist && Step(s.Step)?.Spec is ReadSpec read
            && read.Fluid == f.Id))];

    /// <summary>What was seen on this card of a fluid, on its magnet and in its filter.</summary>
    /// <param name="fluid">Fluid id.</param>
    public IEnumerable<Look> SeenOf(FluidId fluid) => _state.Seen.Where(s => Step(s.Step)?.Spec is ReadSpec read && read.Fluid == fluid)
        .Select(s => s.Look);

    /// <summary>The jobs of this card that change a fluid: their next interval is what a laboratory's answer shortens.</summary>
    /// <param name="fluid">Fluid id.</param>
    public IReadOnlyList<JobId> JobsOf(FluidId fluid) =>
        [.. Steps.Where(s => s.Traits.Fills && s.What == fluid).SelectMany(s => s.Jobs).Distinct()];

    private Decision Sampled(TakeSample c)
    {
        if (!Sheet.Fluids.TryGetValue(c.Fluid, out var fluid))
            return No("This model has no such fluid.", "Choose one of those that are out.", field: "fluid");
        if (CanBeSampled.All(f => f.Id != c.Fluid))
            return No(Fluid(c.Fluid).Pours > 0 ? $"New {Words.Low(fluid.Name)} is in already." : $"The {Words.Low(fluid.Name)} is not out.",
                "A sample is of the old one: take it while it runs out, or from the pan before the new one goes in.", field: "fluid",
                    ground: Ground.Measured);
        return Samples.Count >= MostSamples ? No($"{MostSamples} samples were taken on this card.", "That is enough for any laboratory.",
            ground: Ground.Already)
            : Yes(new SampleTaken(c.Fluid, Samples.Select(s => s.Number).DefaultIfEmpty(0).Max() + 1));
    }
}
