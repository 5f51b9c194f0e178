using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;

namespace Anakyklos.Core.Tests;

/// <summary>Each refusal says what it rests on, and so can say more.</summary>
public sealed class GroundTests
{
    private static readonly DateTimeOffset Morning = new(2026, 1, 5, 8, 0, 0, TimeSpan.Zero);

    [Fact]
    public void Each_ground_has_a_name_and_a_code_of_its_own_and_says_more_than_its_name()
    {
        var all = Enum.GetValues<Ground>();
        Assert.Equal(all.Length, all.Select(g => g.Name()).Distinct().Count());
        Assert.Equal(all.Length, all.Select(g => g.More()).Distinct().Count());
        Assert.Equal("never-left-out", Ground.NeverLeftOut.Code());
        Assert.All(all, g => Assert.Matches("^[a-z]+(-[a-z]+)*$", g.Code()));
        Assert.All(all, g => Assert.True(g.More().Length > 2 * g.Name().Length));
        Assert.All(all, g => Assert.EndsWith(".", g.More()));
    }

    [Theory]
    [MemberData(nameof(WalkTests.AllSheets), MemberType = typeof(WalkTests))]
    public void Whatever_stands_in_the_way_of_any_step_of_a_walk_and_of_its_signature_rests_on_a_ground(string sheetId)
    {
        var sheet = ComposerTests.Sheets[sheetId];
        var seen = new HashSet<Ground>();
        foreach (var card in CardWalk.Along(sheet, [.. sheet.Jobs.Keys]))
        {
            IReadOnlyList<Refusal> reasons = [.. card.Remaining.SelectMany(s => card.InTheWay(s, Morning)),
                .. card.Signature is null ? card.BeforeSigning() : []];
            Assert.All(reasons, r => Assert.True(r.Ground is not null, $"{sheetId}: {r}"));
            seen.UnionWith(reasons.Select(r => r.Ground!.Value));
        }
        Assert.Contains(Ground.Ring, seen);
        Assert.Contains(Ground.Opened, seen);
        Assert.True(seen.Count >= 6, string.Join(", ", seen));
    }

    [Fact]
    public void What_was_typed_wrong_rests_on_no_ground_since_its_field_says_it()
    {
        var sheet = ComposerTests.Sheets["corran-fen-12"];
        var card = CardWalk.Along(sheet, [sheet.Jobs.Keys.First()]).First();
        var refused = Assert.IsType<Refused>(card.Decide(new PutAside(card.Next!.Id, ""), new("iona", "Iona R.", Role.Technician),
            Morning));
        Assert.All(refused.Reasons, r => Assert.Null(r.Ground));
    }
}
