using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Tests;

/// <summary>Everything that a card says of itself, as text in a fixed form: two cards with the same text are the same to anyone who
/// looks.</summary>
internal static class CardDigest
{
    /// <summary>What has happened, what is open, and what the card makes of it. No word of it depends on the clock.</summary>
    internal static string Of(JobCard card)
    {
        var text = new StringBuilder();
        void Line(FormattableString line) => text.Append(line.ToString(CultureInfo.InvariantCulture)).Append('\n');
        foreach (var item in card.Open)
            Line($"open {item.Kind} {item.Id} | {item.Name} | {item.Detail} | by {item.By} since {item.Since} count {item.Count}");
        foreach (var step in card.Steps)
            Line($"step {step.Id} {card.State(step.Id).Status} through {card.State(step.Id).Through?.Seq} | {card.State(step.Id).Reason}");
        foreach (var wait in card.Waits.OrderBy(w => w.Id.Text, StringComparer.Ordinal))
            Line($"wait {wait.Id} {wait.For} {wait.From:O} {wait.Until:O}");
        foreach (var fluid in card.Sheet.Fluids.Keys.OrderBy(f => f.Text, StringComparer.Ordinal))
            Line($"fluid {fluid} {Words(card.Fluid(fluid))}");
        foreach (var part in card.Sheet.Parts.Keys.Where(card.IsFitted).OrderBy(p => p.Text, StringComparer.Ordinal))
            Line($"fitted {part}");
        foreach (var (seq, d, named) in card.Deviations.Select(d => (d.Seq, d.Event, card.IsCountersigned(d.Seq))))
            Line($"deviation {seq} {d.Kind} {d.Step} {d.Part} | {d.What} | {d.Reason} | {d.NeedsCountersignature} {named}");
        foreach (var f in card.Findings)
            Line($"finding {f.Seq} {f.Event.Grade} {f.Event.Step} | {f.Event.Text} | {card.DecisionOn(f.Seq)?.Event.Words}");
        foreach (var kit in card.Kit?.Parts.OrderBy(p => p.Key.Text, StringComparer.Ordinal)
            ?? Enumerable.Empty<KeyValuePair<PartId, string>>())
            Line($"kit {kit.Key} {kit.Value}");
        foreach (var oil in card.Kit?.Oils.OrderBy(o => o.Key.Text, StringComparer.Ordinal)
            ?? Enumerable.Empty<KeyValuePair<FluidId, KitOil>>())
            Line($"kit {oil.Key} {In(oil.Value.Amount)} {oil.Value.Product} | {oil.Value.Lacks}");
        // Those with a seal of their own, as every version had them: others are joints only by what may be asked now.
        foreach (var joint in card.JointsOpened.Where(f => f.Seal is not null))
            Line($"joint {joint.Id}");
        foreach (var seal in card.SealsLeftIn.OrderBy(s => s.Key.Text, StringComparer.Ordinal))
            Line($"seal {seal.Key} {seal.Value}");
        Line($"jobs {string.Join(" ", card.Jobs)} | done {string.Join(" ", card.JobsDone)}");
        Line($"lift {card.LiftUp} engine {card.EngineRuns} ended {card.Ended?.Seq} next {card.Next?.Id} void {card.CanBeVoid}");
        Line($"holds {string.Join(" ", card.Holds)}");
        Line($"signing {string.Join(" ", card.BeforeSigning())}");
        foreach (var due in (card.Signature?.Event as Signed)?.Due ?? [])
            Line($"due {due.Job} {due.Name} {due.Next.By:O} {due.Next.At?.In(Distance.Kilometre):0.############} {due.Next.AtHours}");
        return text.ToString();
    }

    /// <summary>A short name for a text.</summary>
    internal static string Short(string text) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(text)))[..12];

    private static string Words(FluidState f) => string.Create(CultureInfo.InvariantCulture,
        $"out {f.Out} poured {In(f.Poured)} in {f.Pours} level {f.Level?.Fraction:0.############} since {In(f.SinceReading)} good "
            + $"{f.Good} came {(f.CameOut is { } came ? In(came) : "")}");

    // What is read back from a file has no zeros at the end.
    private static string In(Quantity<Volume> volume) =>
        volume.In(Volume.Litre).ToString("0.############################", CultureInfo.InvariantCulture);
}
