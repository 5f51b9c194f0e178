namespace Anakyklos.Core.Cards;

/// <summary>What may be said to any card, whatever work is at hand.</summary>
internal sealed class KernelCommands : ICommandPage
{
    private static readonly CommandField<int?> Count = Field.Count("count", "how many");
    private static readonly CommandField<string> Wait = Field.Text("wait", "the wait");
    private static readonly CommandField<string> Job = Field.Text("job", "the job");
    private static readonly CommandField<string> Words = Field.Text("words", "what was decided or done");
    private static readonly CommandField<string> Text = Field.Text("text", "what you saw");
    private static readonly CommandField<string> Value = Field.Text("value", "the disputed value, by its key");
    private static readonly CommandField<string> Line = Field.Text("line", "what is put right, as the record names it");
    private static readonly CommandField<string> Who = Field.Text("beside", "the id of the person beside whom somebody stands");
    private static readonly CommandField<string> Photo = Field.Text("photo", "the id of a picture that was brought in for this card");
    private static readonly CommandField<int> Of = Field.Number("of", "the number of the event");
    private static readonly CommandField<int> Pan = Field.Number("pan", "which pan, counted from 0");
    private static readonly CommandField<int> Index = Field.Number("index", "its place among the stops that came along");
    private static readonly CommandField<bool> Mended = Field.YesOrNo("mended", "whether it is put right");
    private static readonly CommandField<bool> Up = Field.YesOrNo("up", "whether it goes up");
    private static readonly CommandField<bool> LookedOver = Field.Yes("lookedOver", "whether somebody looked first");

    private static readonly CommandField<DeviationKind> Kind = Field.Choice<DeviationKind>("kind", "how it strays from the book",
        "That is not a way to go on.", "Choose one of those shown.");

    private static readonly CommandField<FindingGrade> Grade = Field.Choice<FindingGrade>("grade", "how bad it is",
        "Say how bad it is.", "Choose one of the four.");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("done", "A step is done", [Field.Step, Count, Field.Reason, Field.LookedAbove],
            said => new ConfirmStep(said.Of(Field.Step), said.Of(Count), said.Of(Field.Reason), said.Of(Field.LookedAbove))),
        new("aside", "A step is left for later", [Field.Step, Field.Reason],
            said => new PutAside(said.Of(Field.Step), said.Of(Field.Reason))),
        new("early", "A step is taken before its turn", [Field.Step], said => new TakeEarly(said.Of(Field.Step))),
        new("order", "What is left is put in its best order from here", [], _ => new OrderAgain()),
        new("cut", "A wait is ended early", [Wait, Field.Reason], said => new CutWait(said.Of(Wait), said.Of(Field.Reason))),
        new("cold", "The back of a hand said that the engine is cold as it came in", [], _ => new FeelCold()),
        new("emptyPan", "A drain pan was emptied into its drum", [Pan], said => new EmptyPan(said.Of(Pan))),
        new("back", "What you pressed last is taken back", [Of], said => new TakeBack(said.Of(Of))),
        new("deviate", "A step strays from the book", [Field.Step, Kind, Field.Reason],
            said => new Deviate(said.Of(Field.Step), said.Of(Kind), said.Of(Field.Reason))),
        new("saw", "Something was seen", [Field.Step, Grade, Text, Photo],
            said => new NoteFinding(said.Of(Field.Step), said.Of(Grade), said.Of(Text), said.Of(Photo))),
        new("word", "Words are left for whoever goes on", [Text], said => new LeaveWord(said.Of(Text))),
        new("move", "The lift is moved outside the plan", [Up, LookedOver], said => new MoveLift(said.Of(Up), said.Of(LookedOver))),
        new("drop", "A job cannot be finished and is given up", [Job, Field.Reason],
            said => new DropJob(said.Of(Job), said.Of(Field.Reason))),
        new("void", "Nothing was opened: the card is to be made void; another person countersigns it",
            [Field.Reason], said => new VoidCard(said.Of(Field.Reason))),
        new("rule", "Of a value on which sources disagree the sheet's is used on this card, as a deviation", [Field.Step, Value, Words],
            said => new RuleValue(said.Of(Field.Step), said.Of(Value), said.Of(Words))),
        new("ruled", "The lead has ruled on a value since the card was opened, and that is taken", [Field.Step, Value],
            said => new TakeRuling(said.Of(Field.Step), said.Of(Value))),
        new("countersign", "You put a second name to a deviation, or to a card that is to be made void", [Of],
            said => new Countersign(said.Of(Of))) { WantsPin = true },
        new("beside", "You stand beside somebody who has not done the lesson that the lead asks for before brakes", [Who],
            said => new StandBeside(PersonId.Of(said.Of(Who)))) { WantsPin = true },
        new("decide", "The lead decides about a finding graded stop", [Of, Mended, Words],
            said => new DecideStop(said.Of(Of), said.Of(Mended), said.Of(Words))) { WantsPin = true },
        new("mend", "The lead says that a stop from an earlier card is mended", [Index, Words],
            said => new MendCarried(said.Of(Index), said.Of(Words))) { WantsPin = true },
        new("sign", "The card is signed", [], _ => new Sign()) { WantsPin = true },
        new("amend", "What a signed card says is put right beside it", [Line, Words],
            said => new Amend(said.Of(Line), said.Of(Words))) { WantsPin = true },
    ];
}
