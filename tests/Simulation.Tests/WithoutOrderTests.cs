using System.Globalization;

namespace Anakyklos.Simulation.Tests;

/// <summary>
/// Cards of a sheet that says nothing of what comes first, worked in no order at all: what stands between the vehicle and harm then is the
/// gates alone. The number of a walk is its seed.
/// </summary>
public sealed class WithoutOrderTests
{
    private static readonly int Walks =
        int.Parse(Environment.GetEnvironmentVariable("ANAKYKLOS_WALKS") ?? "1000", CultureInfo.InvariantCulture);

    public static TheoryData<int> Seeds => [.. Enumerable.Range(0, Walks)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void The_gates_alone_let_no_harm_through(int seed)
    {
        var random = new Random(seed);
        var sheets = BothWalk.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToArray();
        var sheet = sheets[seed % sheets.Length];
        var walk = new BothWalk(sheet, [.. sheet.Jobs.Keys.OrderBy(j => j.Text, StringComparer.Ordinal).OrderBy(_ => random.Next())
            .Take(1 + random.Next(3))], inOrder: false);
        for (var presses = 0; presses < 400 && walk.Card.Remaining.ToList() is { Count: > 0 } left; presses++)
        {
            // A minute or an hour, so that oil runs out and metal cools.
            walk.Idle(TimeSpan.FromMinutes(random.Next(25) == 0 ? 70 : 1));
            walk.Press(left[random.Next(left.Count)]);
        }
    }
}
