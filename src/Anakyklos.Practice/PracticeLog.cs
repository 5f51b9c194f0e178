using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>How what happened in a run is kept: of hands only what was chosen and typed, since the same choices make
/// the same run.</summary>
public static class PracticeLog
{
    private sealed record Did(string Choice, string Typed);

    private sealed record Told(int Seq, Guid Command, JsonElement Event);

    private sealed record Stopped(string Step, IReadOnlyList<Gate> Reasons, IReadOnlyList<Saved> Saved);

    private sealed record Gate(string What, string Do, string Step);

    private sealed record Saved(HarmKind Kind, string What, string Says);

    private static readonly JsonSerializerOptions Options = CardJson.Options;

    /// <summary>The name of the kind of an entry, and what is kept of it as JSON.</summary>
    /// <param name="entry">The entry.</param>
    public static (string Kind, string Body) Write(PracticeEntry entry) => entry switch
    {
        HandDid e => ("did", JsonSerializer.Serialize(new Did(e.Choice, e.Typed), Options)),
        CardTold e => ("told", JsonSerializer.Serialize(new Told(e.Said.Seq, e.Said.Command,
            JsonSerializer.SerializeToElement(e.Said.Event, Options)), Options)),
        GateStopped e => ("stopped", JsonSerializer.Serialize(new Stopped($"{e.Step}",
            [.. e.Reasons.Select(r => new Gate(r.What, r.Do, $"{r.Step}"))],
            [.. e.Saved.Select(s => new Saved(s.Kind, s.What, s.Says))]), Options)),
        _ => throw new ArgumentException($"Nobody has said how {entry.GetType().Name} is kept.", nameof(entry)),
    };

    /// <summary>A run with what was kept of it.</summary>
    /// <param name="start">The run before anything was done.</param>
    /// <param name="kept">Everything, oldest first.</param>
    /// <exception cref="JsonException">Something of it is nothing that this program has kept.</exception>
    public static PracticeRun Read(PracticeRun start, IEnumerable<(DateTimeOffset At, Person By, string Kind, string Body)> kept) =>
        kept.Aggregate(start, (run, k) => run.Again(k.Kind switch
        {
            "did" when JsonSerializer.Deserialize<Did>(k.Body, Options) is { } e =>
                new HandDid(k.At, k.By, e.Choice, e.Typed, "", null, []),
            "told" when JsonSerializer.Deserialize<Told>(k.Body, Options) is { } e => new CardTold(new(e.Seq, k.At, k.By, e.Command,
                CardJson.Read(e.Event.GetRawText()))),
            "stopped" when JsonSerializer.Deserialize<Stopped>(k.Body, Options) is { } e => new GateStopped(k.At, k.By, Step(e.Step),
                [.. e.Reasons.Select(r => new Refusal(r.What, r.Do, Step(r.Step)))],
                [.. e.Saved.Select(s => new Harm(s.Kind, s.What, s.Says))]),
            _ => throw new JsonException($"“{k.Kind}” is nothing that happens in the practice bay."),
        }));

    private static StepId? Step(string id) => id.Length > 0 ? new StepId(id) : (StepId?)null;
}
