using System.Runtime.CompilerServices;
using System.Collections.Concurrent;
using System.Threading.Channels;
using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Tells every open screen of a card that it has moved on.</summary>
public sealed class CardChanges
{
    private readonly ConcurrentDictionary<Guid, (CardNumber Card, Channel<int> Channel)> _screens = new();
    private readonly CardStore _cards;

    /// <summary>Listens to the store.</summary>
    public CardChanges(CardStore cards)
    {
        _cards = cards;
        cards.Changed += (card, seq) =>
        {
            foreach (var (_, screen) in _screens)
                if (screen.Card == card)
                    screen.Channel.Writer.TryWrite(seq);
        };
    }

    /// <summary>The last seq of a card, now and whenever it changes, until cancelled; nothing when there is no such card.</summary>
    public async IAsyncEnumerable<int> Of(CardNumber card, [EnumeratorCancellation] CancellationToken cancel)
    {
        var id = Guid.NewGuid();
        var channel = Channel.CreateBounded<int>(new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropOldest });
        _screens[id] = (card, channel);
        try
        {
            // Whoever begins to listen may have missed what happened since the page was drawn.
            if (_cards.Find(card) is not { } now)
                yield break;
            yield return now.History.Count;
            await foreach (var seq in channel.Reader.ReadAllAsync(cancel))
                yield return seq;
        }
        finally
        {
            _screens.TryRemove(id, out _);
        }
    }
}
