using System.Numerics;

namespace Anakyklos.Core.Ordering;

/// <summary>A set of up to 256 tasks as bits.</summary>
internal readonly record struct TaskSet(ulong A, ulong B, ulong C, ulong D)
{
    internal static TaskSet Of(IEnumerable<int> tasks) => tasks.Aggregate(default(TaskSet), (set, t) => set.With(t));

    internal bool this[int i] => ((i >> 6) switch { 0 => A, 1 => B, 2 => C, _ => D } >> i & 1) != 0;

    internal TaskSet With(int i)
    {
        var bit = 1ul << i;
        return (i >> 6) switch { 0 => this with { A = A | bit }, 1 => this with { B = B | bit }, 2 => this with { C = C | bit },
            _ => this with { D = D | bit } };
    }

    internal bool IsEmpty => (A | B | C | D) == 0;

    internal int Count => BitOperations.PopCount(A) + BitOperations.PopCount(B) + BitOperations.PopCount(C) + BitOperations.PopCount(D);

    internal bool IsWithin(in TaskSet o) => (A & ~o.A | B & ~o.B | C & ~o.C | D & ~o.D) == 0;

    internal bool Meets(in TaskSet o) => (A & o.A | B & o.B | C & o.C | D & o.D) != 0;

    public static TaskSet operator |(in TaskSet x, in TaskSet y) => new(x.A | y.A, x.B | y.B, x.C | y.C, x.D | y.D);

    public static TaskSet operator &(in TaskSet x, in TaskSet y) => new(x.A & y.A, x.B & y.B, x.C & y.C, x.D & y.D);

    public static TaskSet operator -(in TaskSet x, in TaskSet y) => new(x.A & ~y.A, x.B & ~y.B, x.C & ~y.C, x.D & ~y.D);

    public override int GetHashCode()
    {
        var h = A * 0x9E3779B97F4A7C15 ^ BitOperations.RotateLeft(B * 0xC2B2AE3D27D4EB4F,
            17) ^ BitOperations.RotateLeft(C * 0x165667B19E3779F9, 31) ^ D * 0x27D4EB2F165667C5;
        return (int)(h ^ h >> 32);
    }

    /// <summary>The first task at or after i, or −1.</summary>
    internal int Next(int i)
    {
        for (var w = i >> 6; w < 4; w++, i = w << 6)
        {
            var word = (w switch { 0 => A, 1 => B, 2 => C, _ => D }) >> (i & 63);
            if (word != 0)
                return i + BitOperations.TrailingZeroCount(word);
        }
        return -1;
    }

    internal int Sum(int[] of)
    {
        var sum = 0;
        for (var i = Next(0); i >= 0; i = i == 255 ? -1 : Next(i + 1))
            sum += of[i];
        return sum;
    }
}
