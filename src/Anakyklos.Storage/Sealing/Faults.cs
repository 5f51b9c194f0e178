namespace Anakyklos.Storage.Sealing;

/// <summary>What was found wrong; of the same kind only so much is told.</summary>
internal sealed class Faults
{
    private const int Most = 50;

    private readonly List<string> _all = [];

    internal IReadOnlyList<string> All => _all;

    internal void Add(string fault) => _all.Add(fault);

    /// <summary>Adds all of one kind.</summary>
    internal void Add(IEnumerable<string> faults)
    {
        var all = faults.ToList();
        _all.AddRange(all.Take(Most));
        if (all.Count > Most)
            _all.Add($"… and {all.Count - Most} more like these.");
    }
}
