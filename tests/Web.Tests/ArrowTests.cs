using System.Reflection;
using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using NetArchTest.Rules;

namespace Anakyklos.Web.Tests;

/// <summary>The arrows between the rooms: Web to Storage, Devices and Core, Storage and Devices to Core, Core to nothing.</summary>
public class ArrowTests
{
    private static readonly Assembly Core = typeof(JobCard).Assembly;
    private static readonly Assembly Storage = typeof(CardStore).Assembly;

    [Fact]
    public void Core_references_the_base_library_and_nothing_else() =>
        Assert.All(Core.GetReferencedAssemblies(), a => Assert.True(
            a.Name!.StartsWith("System.", StringComparison.Ordinal) && !a.Name.StartsWith("System.Data", StringComparison.Ordinal)
                && !a.Name.StartsWith("System.Net", StringComparison.Ordinal), a.Name));

    [Fact]
    public void Core_touches_no_file_no_clock_and_no_chance()
    {
        var outcome = Types.InAssembly(Core).ShouldNot()
            .HaveDependencyOnAny("System.IO.File", "System.IO.Directory", "System.IO.FileStream", "System.Random", "System.TimeProvider",
            "System.Console", "System.Diagnostics.Process").GetResult();
        Assert.True(outcome.IsSuccessful, string.Join(", ", outcome.FailingTypeNames ?? []));
    }

    [Fact]
    public void Storage_knows_only_core() =>
        Assert.DoesNotContain(Storage.GetReferencedAssemblies(),
            a => a.Name!.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal) || a.Name == "Anakyklos.Web");

    [Fact]
    public void Sql_lives_in_storage() =>
        Assert.DoesNotContain(typeof(Hosting.WorkshopApplication).Assembly.GetReferencedAssemblies(),
            a => a.Name is "Dapper" or "Microsoft.Data.Sqlite");

    [Fact]
    public void Inside_core_nothing_turns_back()
    {
        // Each room may look at those before it.
        string[] rooms = ["Wording", "Quantities", "Tightening", "Filling", "Intervals", "Sheets", "Due", "Oils", "Stores", "Kit", "Ordering", "Composing", "Planning",
            "Cards", "Coaches", "Records", "Booking", "Rehearsal"];
        for (var i = 0; i < rooms.Length; i++)
        {
            var outcome = Types.InAssembly(Core).That().ResideInNamespace($"Anakyklos.Core.{rooms[i]}").ShouldNot()
                .HaveDependencyOnAny([.. rooms.Skip(i + 1).Select(r => $"Anakyklos.Core.{r}")]).GetResult();
            Assert.True(outcome.IsSuccessful, $"{rooms[i]}: {string.Join(", ", outcome.FailingTypeNames ?? [])}");
        }
    }

    [Fact]
    public void No_coach_reaches_into_another()
    {
        string[] works = [.. Core.GetTypes().Select(t => t.Namespace ?? "")
            .Where(n => n.StartsWith("Anakyklos.Core.Coaches.", StringComparison.Ordinal)).Distinct()];
        Assert.True(works.Length >= 12);
        foreach (var work in works)
        {
            var outcome = Types.InAssembly(Core).That().ResideInNamespace(work).ShouldNot()
                .HaveDependencyOnAny([.. works.Where(w => w != work)]).GetResult();
            Assert.True(outcome.IsSuccessful, $"{work}: {string.Join(", ", outcome.FailingTypeNames ?? [])}");
        }
    }
}
