using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Anakyklos.Desk;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Tells every open screen of a card that it has moved on, or how many readings of devices wait in its bay.</summary>
public sealed class CardChanges
{
    private readonly ConcurrentDictionary<Guid, (CardNumber Card, Channel<SseItem<int>> Channel)> _screens = new();
    private readonly Func<CardNumber, int?> _seq;

    private readonly ScreenStreams _streams;

    /// <summary>Listens to the stores.</summary>
    public CardChanges(CardStore cards, PracticeDesk practice, DeviceStore devices, ScreenStreams streams)
    {
        _streams = streams;
        _seq = id => PracticeStore.IsRun(id) ? practice.Run(id)?.Log.Count : cards.Find(id)?.History.Count;
        cards.Changed += Tell;
        practice.Changed += Tell;
        devices.Changed += bay =>
        {
            foreach (var (_, screen) in _screens)
                if (cards.Entry(screen.Card)?.Bay == bay)
                    screen.Channel.Writer.TryWrite(new(devices.Waiting(bay).Count, "reading"));
        };
    }

    /// <summary>The last seq of a card, or how much happened in a run of the practice bay, as <c>changed</c>, now and whenever it
    /// changes, and as <c>reading</c> how many readings wait in its
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
            if (_seq(card) is not { } now)
                yield break;
            yield return Moved(now);
            await foreach (var item in _streams.Of(channel.Reader, cancel))
                yield return item;
        }
        finally
        {
            _screens.TryRemove(id, out _);
        }
    }

    private void Tell(CardNumber card, int seq)
    {
        foreach (var (_, screen) in _screens)
            if (screen.Card == card)
                screen.Channel.Writer.TryWrite(Moved(seq));
    }

    private static SseItem<int> Moved(int seq) => new(seq, "changed");
}
