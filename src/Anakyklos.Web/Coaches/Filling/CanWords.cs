using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Filling;

/// <summary>Containers in words.</summary>
public static class CanWords
{
    /// <summary>Containers that are emptied one after the other, such as "bottles 13 and 14 whole (1 L each)".</summary>
    public static string All(IReadOnlyList<ContainerShare> shares) => And([.. shares
        .GroupBy(s => (s.Container.Kind, Left: $"{s.Takes.Print(s.Container.Scale)}")).Select(g =>
            g.Count() == 1 ? $"{g.First().Container.Name} whole ({g.Key.Left})"
                : $"{g.Key.Kind.ToString().ToLowerInvariant()}s {And([.. g.Select(s => $"{s.Container.Id}")])} whole "
                    + $"({g.Key.Left} each)")]);

    /// <summary>What is poured, with its batch where it is known.</summary>
    public static string Product(LiftScene scene, PourPlan? plan) => plan is null
        ? scene.Card.OilInHand(scene.PourOf)?.Product ?? ""
        : $"{plan.From[^1].Container.Product}{(plan.From[^1].Container.Batch is { Length: > 0 } batch ? $", {batch}" : "")}"
            + (plan.From[^1].Container.Opened is null ? ", still shut" : "");

    /// <summary>Out of which containers a fluid came, such as "Out of container 16, batch F812 (1.04 L) and 15 (1.05 L)".</summary>
    public static string From(IReadOnlyList<PouredFrom> from, Unit<Volume> unit) => "Out of container " + And([.. from.Select(c =>
        $"{c.Can}{(c.Batch.Length > 0 ? $", batch {c.Batch}" : "")} ({c.Takes.Print(unit)})")]);

    private static string And(IReadOnlyList<string> words) => words.Count < 2 ? string.Concat(words)
        : $"{string.Join(", ", words.SkipLast(1))} and {words[^1]}";
}
