using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>The lesson that the lead asks for before somebody works on brakes alone, and who has done it well.</summary>
/// <param name="Lesson">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="AskedBy">The lead's name.</param>
/// <param name="Since">Since when; it holds for cards that are opened from then on.</param>
/// <param name="Passed">Who has done it well.</param>
/// <param name="People">Everybody who works on cards, by id.</param>
public sealed record BrakeLesson(LessonId Lesson, string Name, string AskedBy, DateTimeOffset Since, IReadOnlySet<PersonId> Passed,
    IReadOnlyDictionary<PersonId, Person> People)
{
    /// <summary>Whether somebody works on brakes without another beside them: whoever has done the lesson well, and the lead, who
    /// answers for the workshop.</summary>
    /// <param name="who">A person.</param>
    public bool MayAlone(Person who) => who.Role == Role.Lead || Passed.Contains(who.Id);
}

/// <summary>Somebody who may work on brakes alone says that they stand beside one who may not, for this card.</summary>
/// <param name="Who">Beside whom.</param>
public sealed record StandBeside(PersonId Who) : CardCommand
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>Somebody stands beside a person who works on the brakes of this card and has not done the lesson for it.</summary>
/// <param name="Who">Beside whom.</param>
/// <param name="Name">Their name.</param>
public sealed record StoodBeside(PersonId Who, string Name) : CardEvent;

/// <summary>Brakes are worked on by whoever has practised it, where the lead asks for that.</summary>
public sealed partial class JobCard
{
    /// <summary>Whether a step is done for nothing but jobs that open brakes: those in which something is bled or a pedal is
    /// felt.</summary>
    /// <param name="step">A step of this card.</param>
    public bool IsOnBrakes(SheetStep step) => step.Jobs.Count > 0 && step.Jobs.All(Sheet.OpensBrakes);

    /// <summary>Whether it must be known who may work on brakes before a command is decided.</summary>
    /// <param name="command">A command to this card.</param>
    public bool AsksWhoMay(CardCommand command) => command is StepCommand said && Step(said.Step) is { } step && IsOnBrakes(step);

    /// <summary>What stands against a person's hand at a step of the brakes; null for nothing.</summary>
    /// <param name="step">A step of this card.</param>
    /// <param name="by">Who.</param>
    /// <param name="lesson">What the lead asks for; null for nothing.</param>
    public Refusal? NotAlone(SheetStep step, Person by, BrakeLesson? lesson) =>
        lesson is null || !IsOnBrakes(step) || MayGoOn(by, lesson) ? null : new(
            $"{lesson.AskedBy} asks for the lesson “{lesson.Name}” before anybody works on brakes alone.",
            "Practise it; or somebody who has done it well stands beside you and puts a name to that.");

    private bool MayGoOn(Person by, BrakeLesson lesson) =>
        lesson.MayAlone(by) || _history[0].At < lesson.Since || _state.Beside.Contains(by.Id);

    // What is left out is not worked on.
    private Refused? Unpractised(StepCommand said, Person by, CardFacts facts) => said is Deviate { Kind: DeviationKind.StepLeftOut }
        || Step(said.Step) is not { } step || NotAlone(step, by, facts.Brakes) is not { } not ? null : new Refused([not]);

    private Decision Beside(StandBeside c, Person by, CardFacts facts)
    {
        if (facts.Brakes is not { } lesson || !lesson.People.TryGetValue(c.Who, out var who))
            return No("Nobody is asked for a lesson here.", "Go on with the step.", Next?.Id);
        if (MayGoOn(who, lesson))
            return No($"{who.Name} may go on as it is.", "Go on with the step.", Next?.Id);
        if (!Remaining.Any(IsOnBrakes))
            return No("Nothing is left to be done at its brakes.", "Go on with the step.", Next?.Id);
        if (!lesson.MayAlone(by))
            return No($"{by.Name} has not done the lesson “{lesson.Name}” well either.", "Ask somebody who has, or the lead.",
                ground: Ground.Lead);
        return Yes(new StoodBeside(c.Who, who.Name));
    }
}
