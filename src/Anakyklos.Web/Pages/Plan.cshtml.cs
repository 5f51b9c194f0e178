using Anakyklos.Core.Cards;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>What is left of a card in its best order: lanes by place, waits, the lift, and why each step stands where it does.</summary>
public sealed class PlanModel(CardStore cards, WorkshopClock clock, Viewer viewer, CardRooms rooms)
    : CommandPage(cards, clock, viewer, rooms)
{
    public CardPlan Plan { get; private set; } = null!;
    public PlannedStep? Chosen { get; private set; }
    public PlanReason? Why { get; private set; }

    /// <summary>The chosen step taken first: the plan around it and what that costs; null when it cannot be begun now, or is next
    /// anyway.</summary>
    public (CardPlan Plan, TimeSpan Costs)? Early { get; private set; }

    /// <summary>What taking the chosen step first costs, in words.</summary>
    public string EarlySays
    {
        get
        {
            if (Early is not { } early)
                return "";
            var moves = early.Plan.Ordered.Cost.LiftMoves - Plan.Ordered.Cost.LiftMoves;
            return (early.Costs > TimeSpan.Zero ? $"Ends {LiftWords.Spent(early.Costs)} later" : "Costs no time")
                + (moves > 0 ? $", {moves} more lift moves" : "");
        }
    }

    /// <summary>Who does a step, after where it is done.</summary>
    public string Who(PlannedStep row) => (People, row.Step.People, row.Person) switch
    {
        (2, 2, _) => ", both",
        (2, _, 1) => ", second person",
        (2, _, _) => ", first person",
        (_, 2, _) => ", needs two",
        _ => "",
    };

    /// <summary>What keeps the chosen step from being begun now.</summary>
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];

    public int People { get; private set; } = 1;
    public int Done => Card.Steps.Count(s => Card.State(s.Id).Status is StepStatus.Done or StepStatus.LeftOut);
    public IReadOnlyList<SheetStep> Blocked =>
        [.. Card.Steps.Where(s => !s.MovesLift && Card.State(s.Id).Status is StepStatus.Waiting or StepStatus.Aside
        && Plan.Rows.All(r => r.Step.Id != s.Id))];
    public bool IsOrdered => Card.Remaining.Where(s => Plan.Rows.Any(r => r.Step.Id == s.Id)).Select(s => s.Id)
        .SequenceEqual(Plan.Rows.Select(r => r.Step.Id));

    public IActionResult OnGet(long id, string? step, int people = 1) => Load(id) ?? Show(step, people);

    /// <inheritdoc/>
    protected override string Onward(CardCommand given) => given is OrderAgain ? $"/plan/{Id}" : Lift;

    /// <inheritdoc/>
    protected override IActionResult Again(Person? by) => Show(Typed("step"), 1);

    private PageResult Show(string? step, int people)
    {
        People = people == 2 ? 2 : 1;
        Plan = Card.PlanFrom(Now, People);
        Chosen = Plan.Rows.FirstOrDefault(r => r.Step.Id == step) ?? (Plan.Rows.Count > 0 ? Plan.Rows[0] : null);
        if (Chosen is { Step: var chosen })
        {
            Why = Plan.Why(chosen.Id);
            if (!chosen.MovesLift && Card.Step(chosen.Id) is { } known && Card.Next?.Id != chosen.Id)
            {
                InTheWay = Card.InTheWay(known, Now);
                Early = InTheWay.Count == 0 ? Card.PlanWith(chosen.Id, Now) : null;
            }
        }
        return Page();
    }
}
