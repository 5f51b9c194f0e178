using Anakyklos.Core.Cards;

namespace Anakyklos.Web.Drawing;

/// <summary>How bad something is, drawn as a bar with more notches the worse it is, so that it is told apart without colour.</summary>
public static class GradeMark
{
    public static string Path(FindingGrade grade) => grade switch
    {
        FindingGrade.Sound => "M0 0H44V14H0Z",
        FindingGrade.KeepAnEye => "M0 0H19V8H25V0H44V14H0Z",
        FindingGrade.PlanIt => "M0 0H11V8H17V0H27V8H33V0H44V14H0Z",
        _ => "M0 0H7V8H12V0H20V8H25V0H33V8H38V0H44V14H0Z",
    };
}
