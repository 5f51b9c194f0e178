using NetArchTest.Rules;

namespace Anakyklos.Practice.Tests;

/// <summary>The practice bay knows cards, vehicles and what presses mean, and nothing of pages, files or databases.</summary>
public sealed class RoomTests
{
    [Fact]
    public void It_knows_core_simulation_and_devices_alone()
    {
        var known = typeof(PracticeRun).Assembly.GetReferencedAssemblies().Select(a => a.Name!).Where(n => n.StartsWith("Anakyklos",
            StringComparison.Ordinal)).Order(StringComparer.Ordinal);
        Assert.Equal(["Anakyklos.Core", "Anakyklos.Devices", "Anakyklos.Simulation"], known);
        var outcome = Types.InAssembly(typeof(PracticeRun).Assembly).ShouldNot().HaveDependencyOnAny("System.IO.File",
            "System.IO.Directory", "System.Random", "System.TimeProvider", "System.Console", "Microsoft.AspNetCore", "Dapper").GetResult();
        Assert.True(outcome.IsSuccessful, string.Join(", ", outcome.FailingTypeNames ?? []));
    }
}
