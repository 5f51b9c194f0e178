using System.Collections.Concurrent;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace Anakyklos.Web.Hosting;

/// <summary>
/// Streams to screens. Each is heard of every few seconds, so that a screen notices a line that died silently; a session has so many at
/// most; all of them end when the server stops, which would wait for them otherwise.
/// </summary>
public sealed class ScreenStreams(IHostApplicationLifetime lifetime, TimeProvider time)
{
    /// <summary>So often each is heard of.</summary>
    public static readonly TimeSpan Beat = TimeSpan.FromSeconds(2);

    /// <summary>So many a session has at most.</summary>
    public const int Most = 24;

    private readonly ConcurrentDictionary<string, int> _open = new();

    /// <summary>Takes a place for a stream; what is given back frees it.</summary>
    /// <param name="session">The session of whoever listens.</param>
    /// <returns>The place; null where the session has as many as it may have.</returns>
    public IDisposable? Take(string session)
    {
        if (_open.AddOrUpdate(session, 1, (_, n) => n + 1) <= Most)
            return new Place(this, session);
        Free(session);
        return null;
    }

    /// <summary>What comes into a channel, with a beat in between.</summary>
    /// <param name="reader">The channel.</param>
    /// <param name="cancel">Ends it.</param>
    public async IAsyncEnumerable<SseItem<int>> Of(ChannelReader<SseItem<int>> reader, [EnumeratorCancellation] CancellationToken cancel)
    {
        using var both = CancellationTokenSource.CreateLinkedTokenSource(cancel, lifetime.ApplicationStopping);
        while (!both.IsCancellationRequested)
        {
            if (!reader.TryRead(out var item))
            {
                if (await Came(reader, both.Token))
                    continue;
                if (both.IsCancellationRequested)
                    yield break;
                item = new(0, "beat");
            }
            yield return item;
        }
    }

    private async Task<bool> Came(ChannelReader<SseItem<int>> reader, CancellationToken cancel)
    {
        using var late = new CancellationTokenSource(Beat, time);
        using var both = CancellationTokenSource.CreateLinkedTokenSource(cancel, late.Token);
        try
        {
            return await reader.WaitToReadAsync(both.Token);
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    private void Free(string session)
    {
        if (_open.AddOrUpdate(session, 0, (_, n) => n - 1) <= 0)
            _open.TryRemove(new(session, 0));
    }

    private sealed class Place(ScreenStreams streams, string session) : IDisposable
    {
        private int _freed;

        public void Dispose()
        {
            if (Interlocked.Exchange(ref _freed, 1) == 0)
                streams.Free(session);
        }
    }
}
