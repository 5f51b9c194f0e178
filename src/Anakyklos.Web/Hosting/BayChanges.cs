using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Tells every open screen of a bay that something of its devices, their readings or its cards has changed.</summary>
public sealed class BayChanges
{
    private readonly ConcurrentDictionary<Guid, (string Bay, Channel<int> Channel)> _screens = new();
    private int _count;

    /// <summary>Listens to the stores.</summary>
    public BayChanges(DeviceStore devices, CardStore cards)
    {
        devices.Changed += Tell;
        cards.Changed += (card, _) =>
        {
            if (!_screens.IsEmpty && cards.Entry(card) is { } entry)
                Tell(entry.Bay);
        };
    }

    /// <summary>A number that grows whenever the bay changes, until cancelled.</summary>
    public async IAsyncEnumerable<int> Of(string bay, [EnumeratorCancellation] CancellationToken cancel)
    {
        var id = Guid.NewGuid();
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        _screens[id] = (bay, channel);
        try
        {
            await foreach (var count in channel.Reader.ReadAllAsync(cancel))
                yield return count;
        }
        finally
        {
            _screens.TryRemove(id, out _);
        }
    }

    private void Tell(string bay)
    {
        var count = Interlocked.Increment(ref _count);
        foreach (var (_, screen) in _screens)
            if (screen.Bay == bay)
                screen.Channel.Writer.TryWrite(count);
    }
}
