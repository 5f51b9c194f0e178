using System.Globalization;

namespace Anakyklos.Simulation.Tests;

/// <summary>Which walks are walked: the first thousand, or as the environment says: so many, or these alone.</summary>
internal static class WalkSeeds
{
    internal static IEnumerable<int> All => Environment.GetEnvironmentVariable("ANAKYKLOS_SEEDS") is { Length: > 0 } seeds
        ? seeds.Split(',').Select(s => int.Parse(s, CultureInfo.InvariantCulture))
        : Enumerable.Range(0, int.Parse(Environment.GetEnvironmentVariable("ANAKYKLOS_WALKS") ?? "1000", CultureInfo.InvariantCulture));
}
