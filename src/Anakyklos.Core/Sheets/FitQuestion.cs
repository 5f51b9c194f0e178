namespace Anakyklos.Core.Sheets;

/// <summary>What is asked as a part is fitted, such as which way its arrow points: it goes in only as one of the right answers
/// says.</summary>
/// <param name="Asks">The question, with its mark.</param>
/// <param name="Answers">How it may lie; nothing follows from a right one, and a wrong one is put right there and then.</param>
public sealed record FitQuestion(string Asks, IReadOnlyList<PointAnswer> Answers)
{
    /// <summary>The right answers, the usual one first; at least one.</summary>
    public IEnumerable<PointAnswer> Right => Answers.Where(a => a.Leads == AnswerLeads.Good);

    internal static FitQuestion Read(SheetCursor c)
    {
        var question = new FitQuestion(c.Text("question"), c.List("answers", PointAnswer.Read, true));
        if (question.Answers.Any(a => a.Leads is not (AnswerLeads.Good or AnswerLeads.Mend)))
            c.Complain("answers", "A part lies right, or it is put right: each leads to good or to mend.");
        else if (!question.Right.Any() || question.Answers.All(a => a.Leads == AnswerLeads.Good))
            c.Complain("answers", "Say at least one right way and one wrong way.");
        if (question.Answers.GroupBy(a => a.Says).FirstOrDefault(g => g.Count() > 1) is { } twice)
            c.Complain("answers", $"“{twice.Key}” stands here twice.");
        return question;
    }
}
