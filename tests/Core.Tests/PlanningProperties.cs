using Anakyklos.Core.Composing;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Rehearsal;
using System.Text;
using System.Text.Json.Nodes;
using Anakyklos.Core.Sheets;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>Composing and ordering under made-up sheets and any set of their jobs.</summary>
public class PlanningProperties
{
    private static JsonObject Cited(JsonObject o)
    {
        o["from"] = "book";
        o["at"] = "p. 1";
        return o;
    }

    private static JsonObject Value(string value, bool list = false) => Cited(new() { ["is"] = list ? new JsonArray(value) : value });

    /// <summary>A sheet from a seed: covers behind covers, oils filled by gauge or until they run over, parts behind lids, cold work, jobs
    /// over all of it.</summary>
    private static string MakeSheet(int seed)
    {
        var random = new Random(seed);
        string[] places = ["cab", "top", "side", "below"];
        JsonObject access = new(), fluids = new(), fasteners = new(), parts = new(), steps = new(), jobs = new();
        access["chocks"] = Cited(new() { ["name"] = "Chocks", ["place"] = "side", ["tool"] = "two", ["holdsVehicle"] = true });
        var covers = random.Next(1, 7);
        for (var i = 0; i < covers; i++)
        {
            var cover = Cited(new() { ["name"] = $"Cover {i}", ["place"] = places[random.Next(4)], ["tool"] = "by hand",
                ["takes"] = $"{random.Next(1, 6)} min", ["needs"] = new JsonArray() });
            if (i > 0 && random.Next(2) == 0)
                ((JsonArray)cover["needs"]!).Add($"cover-{random.Next(i)}");
            if (random.Next(4) == 0)
                cover["closedToRun"] = true;
            access[$"cover-{i}"] = cover;
        }
        JsonArray Behind() => random.Next(3) == 0 ? [] : [$"cover-{random.Next(covers)}"];
        JsonObject Fastener(string name) => new() { ["name"] = name, ["material"] = "steel", ["drive"] = "Hex 17",
            ["torque"] = Cited(new() { ["is"] = "30 N·m", ["low"] = "28 N·m", ["high"] = "32 N·m" }), ["tooMuch"] = "new-part",
            ["takes"] = "2 min" };
        var oils = random.Next(1, 4);
        for (var i = 0; i < oils; i++)
        {
            var overflow = random.Next(2) == 0;
            var needs = Behind();
            var fluid = new JsonObject { ["name"] = $"Oil {i}", ["amount"] = Value("4 L"), ["tolerance"] = Value("0.2 L"),
                ["grades"] = Value("SAE 30", true), ["approvals"] = Cited(new() { ["is"] = new JsonArray() }),
                ["drainHot"] = random.Next(2) == 0 };
            if (overflow)
                fluid["fillBy"] = "overflow";
            else
                (fluid["pumped"], fluid["betweenMarks"], fluid["reading"], fluid["settleAfterPour"], fluid["target"],
                    fluid["safeToStart"]) = (true, Value("1 L"), Value("Cold"), "1 min", "top-mark", Value("2 L"));
            fluids[$"oil-{i}"] = fluid;
            parts[$"ring-{i}"] = new JsonObject { ["name"] = $"Ring {i}", ["number"] = Value($"R-{i}"), ["reusableTimes"] = 0 };
            var plug = Fastener($"Plug {i}");
            (plug["drains"], plug["seal"], plug["runsOut"], plug["needs"]) = ($"oil-{i}", $"ring-{i}", $"{random.Next(2, 20)} min", needs);
            fasteners[$"plug-{i}"] = plug;
            if (overflow)
            {
                var fill = Fastener($"Fill plug {i}");
                (fill["fills"], fill["needs"]) = ($"oil-{i}", needs.DeepClone());
                fasteners[$"fill-{i}"] = fill;
            }
            jobs[$"job-oil-{i}"] = new JsonObject { ["name"] = $"Oil {i}", ["worksOn"] = new JsonArray($"oil-{i}"), ["interval"] = "all" };
        }
        for (var i = random.Next(4); i >= 0; i--)
        {
            parts[$"part-{i}"] = new JsonObject { ["name"] = $"Part {i}", ["number"] = Value($"P-{i}"), ["needs"] = Behind(),
                ["place"] = places[random.Next(4)], ["takes"] = $"{random.Next(1, 8)} min" };
            jobs[$"job-part-{i}"] = new JsonObject { ["name"] = $"Part {i}", ["worksOn"] = new JsonArray($"part-{i}"),
                ["interval"] = "all" };
            steps[$"look-{i}"] = new JsonObject { ["kind"] = "do", ["title"] = $"Look at {i}", ["phase"] = "Look",
                ["place"] = places[random.Next(4)], ["takes"] = "2 min", ["needs"] = Behind(), ["cold"] = random.Next(4) == 0 };
            jobs[$"job-look-{i}"] = new JsonObject { ["name"] = $"Look {i}", ["steps"] = new JsonArray($"look-{i}"), ["interval"] = "all" };
        }
        return new JsonObject
        {
            ["format"] = ModelSheet.Format, ["id"] = "made-up", ["revision"] = 1, ["make"] = "Made", ["name"] = "Up",
                ["stands"] = random.Next(4) == 0 ? "ground" : "lift",
            ["sources"] = new JsonObject { ["book"] = new JsonObject { ["title"] = "Book" } },
            ["access"] = access, ["fluids"] = fluids, ["fasteners"] = fasteners, ["parts"] = parts, ["steps"] = steps, ["jobs"] = jobs,
            ["intervals"] = new JsonObject { ["all"] = Cited(new() { ["normal"] = new JsonObject { ["months"] = 12 },
                ["harsh"] = new JsonObject { ["months"] = 6 } }) },
        }.ToJsonString();
    }

    private static readonly Gen<(ModelSheet Sheet, JobId[] Jobs)> Cases = Gen.Select(Gen.Int[0, 100_000], Gen.Int[1, 4])
        .Select((seed, count) =>
    {
        var reading = SheetReader.Read(MakeSheet(seed));
        Assert.True(reading.Sheet is not null, string.Join("; ", reading.Errors.Take(3)));
        return (reading.Sheet!, reading.Sheet!.Jobs.Keys.OrderBy(j => HashCode.Combine(seed, 7) ^ j.Text.Sum(c => c * 31)).Take(count)
            .ToArray());
    });

    // A made-up sheet may ask for a circle (cold work behind a cover that a warm drain needs open); then it must say so and not hang.
    private static CardPlan? Plan(ModelSheet sheet, JobId[] jobs)
    {
        try
        {
            return CardPlanner.Plan(sheet, jobs);
        }
        catch (ComposingException e)
        {
            Assert.Contains("must come before", e.Message);
            return null;
        }
    }

    [Fact]
    public void Every_plan_closes_what_it_opens_and_respects_all_needs()
    {
        var (made, proven) = (0, 0);
        Cases.Sample(c =>
        {
            if (Plan(c.Sheet, c.Jobs) is not { } plan)
                return;
            Interlocked.Increment(ref made);
            ComposerTests.Holds(plan);
            if (plan.Ordered.IsProven)
                Interlocked.Increment(ref proven);
        }, iter: 150);
        Assert.True(made > 100 && proven > made * 0.9, $"{made} made, {proven} proven");
    }

    [Fact]
    public void Another_job_never_removes_a_step_and_the_same_jobs_give_the_same_card() => Cases.Sample(c =>
    {
        if (Plan(c.Sheet, c.Jobs) is not { } all || Plan(c.Sheet, c.Jobs[..1]) is not { } one)
            return;
        Assert.Subset(all.Steps.Select(s => s.Id).ToHashSet(), one.Work.Steps.Select(s => s.Id).ToHashSet());
        var again = Plan(c.Sheet, c.Jobs)!;
        Assert.Equal(all.Rows.Select(r => (r.Step.Id, r.Begins)), again.Rows.Select(r => (r.Step.Id, r.Begins)));
    }, iter: 80);

    [Fact]
    public void From_any_state_what_is_left_is_ordered_and_what_waits_is_left_out() =>
        Gen.Select(Cases, Gen.Int[0, 60], Gen.Int[0, 60]).Sample((c, done, blocked) =>
    {
        if (Plan(c.Sheet, c.Jobs) is not { } plan)
            return;
        var steps = plan.Rows.Where(r => !r.Step.MovesLift).Select(r => r.Step).ToList();
        var (behind, ahead) = (steps.Take(done % steps.Count).Select(s => s.Id).ToHashSet(), steps.Skip(done % steps.Count).ToList());
        var stuck = ahead[blocked % ahead.Count].Id;
        var up = plan.Rows.TakeWhile(r => r.Step.MovesLift || behind.Contains(r.Step.Id))
            .LastOrDefault(r => r.Step.Kind is StepKind.Raise or StepKind.Lower)?.Step.Kind == StepKind.Raise;
        var rest = CardPlanner.Order(plan.Work, new(behind, new HashSet<StepId> { stuck }, new Dictionary<StepId, TimeSpan>(), up, null,
            (0, 0)));
        var placed = rest.Rows.Select(r => r.Step.Id).ToHashSet();
        Assert.DoesNotContain(stuck, placed);
        Assert.Empty(placed.Intersect(behind));
        // Whatever is opened from here on can be closed again without what is missing.
        foreach (var open in rest.Rows.Where(r => !r.Step.What.IsEmpty && r.Step.Kind is StepKind.Open or StepKind.Drain
            && c.Sheet.Fasteners.ContainsKey(r.Step.What) && plan.Work.Spans.Any(s => s.Opens == r.Step.Id)))
            Assert.Contains(plan.Work.Steps.Single(s => s.Kind == StepKind.Tighten && s.What == open.Step.What).Id, placed);
    }, iter: 80);

    [Theory]
    [InlineData("\"needs\":[\"cover-0\"],\"name\":\"Cover 0\"", "only be reached through itself")]
    public void A_cover_behind_itself_is_found(string _, string say)
    {
        var sheet = (JsonObject)JsonNode.Parse(MakeSheet(1))!;
        sheet["access"]!["cover-0"]!["needs"] = new JsonArray("cover-0");
        Assert.Contains(SheetRehearsal.Read(Encoding.UTF8.GetBytes(sheet.ToJsonString())).Errors, e => e.What.Contains(say));
    }

    [Fact]
    public void What_no_order_can_do_is_found_with_its_job_and_line()
    {
        var sheet = (JsonObject)JsonNode.Parse(MakeSheet(2))!;
        sheet["steps"]!["a"] = new JsonObject { ["kind"] = "do", ["title"] = "First", ["phase"] = "X", ["place"] = "top",
            ["takes"] = "1 min", ["after"] = new JsonArray("b") };
        sheet["steps"]!["b"] = new JsonObject { ["kind"] = "do", ["title"] = "Second", ["phase"] = "X", ["place"] = "top",
            ["takes"] = "1 min", ["after"] = new JsonArray("a") };
        sheet["steps"]!["c"] = new JsonObject { ["kind"] = "do", ["title"] = "Never", ["phase"] = "X", ["place"] = "top",
            ["takes"] = "1 min" };
        sheet["jobs"]!["round"] = new JsonObject { ["name"] = "Round", ["steps"] = new JsonArray("a", "b"), ["interval"] = "all" };
        var error = Assert.Single(SheetRehearsal.Read(Encoding.UTF8.GetBytes(sheet.ToJsonString(new() { WriteIndented = true }))).Errors);
        Assert.Equal("jobs.round", error.Field);
        Assert.Contains("“First”", error.What);
        Assert.True(error.Line > 20);
        sheet["jobs"]!.AsObject().Remove("round");
        sheet["jobs"]!["nothing"] = new JsonObject { ["name"] = "Nothing", ["interval"] = "all" };
        sheet["steps"]!.AsObject().Remove("a");
        sheet["steps"]!.AsObject().Remove("b");
        Assert.Contains(SheetRehearsal.Read(Encoding.UTF8.GetBytes(sheet.ToJsonString())).Errors,
            e => e.What.StartsWith("This job does nothing"));
        sheet["jobs"]!.AsObject().Remove("nothing");
        Assert.Contains("No job ever comes to “Never”",
            Assert.Single(SheetRehearsal.Read(Encoding.UTF8.GetBytes(sheet.ToJsonString())).Errors).What);
    }
}
