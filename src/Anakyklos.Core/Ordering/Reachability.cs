namespace Anakyklos.Core.Ordering;

/// <summary>Which of n things come after which, kept closed under "after what comes after".</summary>
internal sealed class Reachability(int n)
{
    private readonly ulong[][] _after = [.. Enumerable.Range(0, n).Select(_ => new ulong[(n + 63) / 64])];

    /// <summary>Adds "a before b". False, and nothing changed, when b comes before a already or is a.</summary>
    internal bool Add(int a, int b)
    {
        if (a == b || Reaches(b, a))
            return false;
        if (Reaches(a, b))
            return true;
        for (var x = 0; x < n; x++)
        {
            if (x != a && !Reaches(x, a))
                continue;
            for (var w = 0; w < _after[x].Length; w++)
                _after[x][w] |= _after[b][w];
            _after[x][b >> 6] |= 1ul << b;
        }
        return true;
    }

    internal bool Reaches(int a, int b) => (_after[a][b >> 6] >> b & 1) != 0;
}
