using System.Runtime.CompilerServices;
using CsCheck;

namespace Anakyklos;

/// <summary>
/// Properties are tried with the same values in every run: each round has a seed of its own, from the name of the test and its number. A
/// round that fails is made smaller and said with its seed, so that it can be replayed alone.
/// </summary>
internal static class FixedSeeds
{
    internal static void Sample<T>(this Gen<T> gen, Action<T> holds, long iter = 100, [CallerMemberName] string name = "")
    {
        var first = name.Aggregate(2_166_136_261ul, (hash, letter) => (hash ^ letter) * 1_099_511_628_211ul);
        Parallel.For(0, iter, round =>
        {
            var chance = new PCG((uint)round + 1, first);
            var seed = chance.ToString();
            var value = gen.Generate(chance, null, out _);
            try
            {
                holds(value);
            }
            catch (Exception failed)
            {
                // Begins with this very round, then looks for a smaller one.
                Check.Sample(gen, value => holds(value), seed: seed, iter: 300, threads: 1);
                throw new InvalidOperationException($"{name}, round {round}, seed {seed}: fails, and not when it is tried alone.", failed);
            }
        });
    }

    internal static void Sample<T1, T2>(this Gen<(T1, T2)> gen, Action<T1, T2> holds, long iter = 100,
        [CallerMemberName] string name = "") => gen.Sample(v => holds(v.Item1, v.Item2), iter, name);

    internal static void Sample<T1, T2, T3>(this Gen<(T1, T2, T3)> gen, Action<T1, T2, T3> holds, long iter = 100,
        [CallerMemberName] string name = "") => gen.Sample(v => holds(v.Item1, v.Item2, v.Item3), iter, name);

    internal static void Sample<T1, T2, T3, T4>(this Gen<(T1, T2, T3, T4)> gen, Action<T1, T2, T3, T4> holds, long iter = 100,
        [CallerMemberName] string name = "") => gen.Sample(v => holds(v.Item1, v.Item2, v.Item3, v.Item4), iter, name);

    internal static void Sample<T1, T2, T3, T4, T5>(this Gen<(T1, T2, T3, T4, T5)> gen, Action<T1, T2, T3, T4, T5> holds, long iter = 100,
        [CallerMemberName] string name = "") => gen.Sample(v => holds(v.Item1, v.Item2, v.Item3, v.Item4, v.Item5), iter, name);
}
