using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Wording;

/// <summary>How something wrong in a table is told to the person who brought it: by row and column, as a spreadsheet shows them.</summary>
public static class FileWords
{
    public static string Row(Refusal wrong) =>
        $"Row {wrong.Line}{(string.IsNullOrEmpty(wrong.Field) ? "" : $", {wrong.Field}")}: {wrong.What}";
}
