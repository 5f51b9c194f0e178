using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Tells every open screen of a bay that something of its devices, their readings or its cards has changed.</summary>
public sealed class BayChanges
{
    private readonly ConcurrentDictionary<Guid, (string Bay, Channel<SseItem<int>> Channel)> _screens = new();
    private int _count;

    private readonly ScreenStreams _streams;

    /// <summary>Listens to the stores.</summary>
    public BayChanges(DeviceStore devices, CardStore cards, ScreenStreams streams)
    {
        _streams = streams;
        devices.Changed += Tell;
        cards.Changed += (card, _) =>
        {
            if (!_screens.IsEmpty && cards.Entry(card) is { } entry)
                Tell(entry.Bay);
        };
    }

    /// <summary>A number that grows whenever the bay changes, until cancelled.</summary>
    public async IAsyncEnumerable<SseItem<int>> Of(string bay, [EnumeratorCancellation] CancellationToken cancel)
    {
        var id = Guid.NewGuid();
        var channel = Channel.CreateBounded<SseItem<int>>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        _screens[id] = (bay, channel);
        try
        {
            await foreach (var count in _streams.Of(channel.Reader, cancel))
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
                screen.Channel.Writer.TryWrite(new(count, "changed"));
    }
}
