using System.Reflection;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Serving;
using NetArchTest.Rules;

namespace Anakyklos.Web.Tests;

/// <summary>The arrows between the rooms: Web to Desk and Devices, Desk to Storage, all of them to Core, Core to nothing.</summary>
public class ArrowTests
{
    private static readonly Assembly Core = typeof(JobCard).Assembly;
    private static readonly Assembly Storage = typeof(CardStore).Assembly;
    private static readonly Assembly Desk = typeof(IntakeDesk).Assembly;
    private static readonly Assembly Web = typeof(WorkshopApplication).Assembly;

    // Each room may look at those before it.
    private static readonly string[] CoreRooms = ["Ids", "Wording", "Quantities", "Tightening", "Filling", "Intervals", "Schools", "Looks",
        "Balance", "Laboratory", "Sheets",
        "Due", "Oils", "Stores", "Kit", "Ordering", "Composing", "Planning", "Weeks", "Cards", "Torques", "Coaches",
        "Records", "Readings", "Booking",
        "Workshop", "Rehearsal", "Authoring"];

    private static readonly string[] WebRooms = ["Wording", "Drawing", "Commands", "Hosting", "Coaches", "Papers", "Languages",
        "Pages", "Api", "Demo", "Serving", "CommandLine"];

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
        Assert.DoesNotContain(Web.GetReferencedAssemblies(),
            a => a.Name is "Dapper" or "Microsoft.Data.Sqlite");

    [Fact]
    public void The_desk_stands_without_the_web() => Assert.DoesNotContain(Desk.GetReferencedAssemblies(),
        a => a.Name!.StartsWith("Microsoft.AspNetCore", StringComparison.Ordinal) || a.Name is "Anakyklos.Web" or "Dapper"
            or "Microsoft.Data.Sqlite");

    [Fact]
    public void Inside_core_nothing_turns_back() => NothingTurnsBack(Core, "Anakyklos.Core", CoreRooms);

    [Fact]
    public void Inside_web_nothing_turns_back() => NothingTurnsBack(Web, "Anakyklos.Web", WebRooms);

    // Drawn pages are compiled into a namespace of their own; the folder stands in their name.
    [Fact]
    public void A_drawing_of_a_coach_knows_no_page() => Assert.Empty(Types.InAssembly(Web).That().HaveNameStartingWith("Coaches_").Should()
        .HaveDependencyOnAny("Anakyklos.Web.Pages", "Anakyklos.Web.Api", "Anakyklos.Web.Serving").GetTypes());

    private static void NothingTurnsBack(Assembly assembly, string root, string[] rooms)
    {
        // A folder that nobody put in order is found here, not passed over.
        Assert.Equal(rooms.Order(), assembly.GetTypes().Select(t => t.Namespace ?? "").Where(n => n.StartsWith(root + ".",
            StringComparison.Ordinal)).Select(n => n[(root.Length + 1)..].Split('.')[0]).Distinct().Order());
        for (var i = 0; i < rooms.Length; i++)
        {
            var outcome = Types.InAssembly(assembly).That().ResideInNamespace($"{root}.{rooms[i]}").ShouldNot()
                .HaveDependencyOnAny([.. rooms.Skip(i + 1).Select(r => $"{root}.{r}")]).GetResult();
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
