using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Tells every open screen of a card that it has moved on, or how many readings of devices wait in its bay.</summary>
public sealed class CardChanges
{
    private readonly ConcurrentDictionary<Guid, (CardNumber Card, Channel<SseItem<int>> Channel)> _screens = new();
    private readonly CardStore _cards;

    private readonly ScreenStreams _streams;

    /// <summary>Listens to the stores.</summary>
    public CardChanges(CardStore cards, DeviceStore devices, ScreenStreams streams)
    {
        _streams = streams;
        _cards = cards;
        cards.Changed += (card, seq) =>
        {
            foreach (var (_, screen) in _screens)
                if (screen.Card == card)
                    screen.Channel.Writer.TryWrite(Moved(seq));
        };
        devices.Changed += bay =>
        {
            foreach (var (_, screen) in _screens)
                if (cards.Entry(screen.Card)?.Bay == bay)
                    screen.Channel.Writer.TryWrite(new(devices.Waiting(bay).Count, "reading"));
        };
    }

    /// <summary>The last seq of a card as <c>changed</c>, now and whenever it changes, and as <c>reading</c> how many readings wait in its
    /// bay whenever that may have changed; until cancelled. Nothing when there is no such card.</summary>
    public async IAsyncEnumerable<SseItem<int>> Of(CardNumber card, [EnumeratorCancellation] CancellationToken cancel)
    {
        var id = Guid.NewGuid();
        // The newest of each kind is among the last few.
        var channel = Channel.CreateBounded<SseItem<int>>(new BoundedChannelOptions(8) { FullMode = BoundedChannelFullMode.DropOldest });
        _screens[id] = (card, channel);
        try
        {
            // Whoever begins to listen may have missed what happened since the page was drawn.
            if (_cards.Find(card) is not { } now)
                yield break;
            yield return Moved(now.History.Count);
            await foreach (var item in _streams.Of(channel.Reader, cancel))
                yield return item;
        }
        finally
        {
            _screens.TryRemove(id, out _);
        }
    }

    private static SseItem<int> Moved(int seq) => new(seq, "changed");
}
