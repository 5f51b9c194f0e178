using System.Net;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Ids;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Sources that disagree, at the lift and in the library.</summary>
public sealed class RulingPageTests : InTheDemo
{
    private const string Rule = "form[action='?handler=rule']";

    private CardStore Cards => Host.Services.GetRequiredService<CardStore>();

    // The minibus with its gearbox oil, worked by the usual press until the lead would be asked.
    private async Task<CardNumber> UpToTheDispute()
    {
        await Me.Get("/intake?plate=HD-04");
        await Me.Submit("main form", ("plate", "HD-04"), ("odometer", "122000"), ("job", "gearbox-oil"));
        CardNumber id = Cards.Unsigned().Max(c => c.Id.Value);
        while (Cards.Find(id)!.Next is { } step && !Cards.Find(id)!.UnruledAt(step).Any())
        {
            var card = Cards.Find(id)!;
            if (card.Waits.Select(w => w.Until).DefaultIfEmpty().Max() is var until && until > Host.Clock.GetUtcNow())
                Host.Clock.SetUtcNow(until.AddSeconds(1));
            Host.Clock.Advance(TimeSpan.FromSeconds(30));
            if (step.Traits.LaysOut)
            {
                await Me.Get($"/lift/{id}");
                await Me.Submit("#kit");
                Assert.NotNull(Cards.Find(id)!.Kit);
                continue;
            }
            var answer = await Cards.Handle(id, Guid.NewGuid(), UsualPress.Of(card, step),
                new(PersonId.Of("iona"), "Iona R.", Role.Technician), Host.Services.GetRequiredService<WorkshopClock>().Now);
            Assert.True(answer!.Decision is Accepted, $"{step.Id}: {answer.Decision}");
        }
        return id;
    }

    [Fact]
    public async Task At_the_step_both_sources_are_shown_and_nothing_is_poured_before_somebody_says_which_holds()
    {
        var id = await UpToTheDispute();
        await Me.Get($"/lift/{id}");
        Assert.Contains("Sources disagree", Me.Text);
        var both = Me.Page.QuerySelector(".dispute-both")!.TextContent;
        Assert.Contains("7.5", both);
        Assert.Contains("8.1 L", both);
        Assert.Null(Me.Page.QuerySelector("form[action='?handler=poured']"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await Me.Submit(Rule, ("words", "")));
        Assert.NotNull(Me.Page.QuerySelector(Rule));
        await Me.Submit(Rule, ("words", "The owner's book is of the first year"));
        Assert.DoesNotContain("Sources disagree:", Me.Text);
        Assert.Contains("The owner's book is of the first year", string.Join(' ', Cards.Find(id)!.Deviations.Select(d => d.Event.Reason)));
        await Me.Get($"/handover/{id}");
        Assert.Contains("Where sources disagree", Me.Text);
    }

    [Fact]
    public async Task The_lead_rules_in_the_library_once_and_the_open_card_takes_it()
    {
        var id = await UpToTheDispute();
        await Me.Get("/library/hespin-16");
        Assert.Contains("no ruling yet", Me.Text);
        Assert.Null(Me.Page.QuerySelector(".rule-form"));
        var una = await Host.SignedIn("una");
        await una.Get("/library/hespin-16");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await una.Submit(".rule-form", ("reason", "")));
        await una.Submit(".rule-form", ("reason", "Weighed twice, manual is right"));
        Assert.Contains("Weighed twice, manual is right", una.Text);
        await Me.Get($"/lift/{id}");
        Assert.Contains("Una B. ruled", Me.Text);
        await Me.Submit("form[action='?handler=ruled']");
        var card = Cards.Find(id)!;
        Assert.Empty(card.Deviations);
        Assert.Contains(card.RulingsUsed, r => r.By == "Una B." && r.Reason == "Weighed twice, manual is right");
        // The next card is asked nothing.
        Assert.DoesNotContain(Host.Services.GetRequiredService<RulingDesk>().Of(card.Sheet), d => d.Ruling is null);
    }

    [Fact]
    public async Task Nobody_but_the_lead_rules_for_a_model()
    {
        var desk = Host.Services.GetRequiredService<RulingDesk>();
        var wrong = await desk.Rule(new(PersonId.Of("iona"), "Iona R.", Role.Technician), "hespin-16", "amount/gearbox-oil", "It is so");
        Assert.Contains("lead rules", Assert.Single(wrong).What);
        wrong = await desk.Rule(new(PersonId.Of("una"), "Una B.", Role.Lead), "hespin-16", "amount/engine-oil", "It is so");
        Assert.Contains("Nothing is disputed there", Assert.Single(wrong).What);
    }
}
