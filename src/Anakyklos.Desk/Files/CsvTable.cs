using System.Globalization;
using Anakyklos.Core.Wording;
using CsvHelper;
using CsvHelper.Configuration;

namespace Anakyklos.Desk.Files;

/// <summary>One row of a file, read column by column; what is wrong is collected.</summary>
public sealed class CsvLine(int row, IReadOnlyDictionary<string, string> cells, List<Refusal> errors)
{
    private const int Longest = 200;

    /// <summary>Line of the file.</summary>
    public int Row => row;

    /// <summary>The text of a column, or empty.</summary>
    /// <param name="column">Its heading.</param>
    /// <param name="required">Whether an empty one is wrong.</param>
    public string Text(string column, bool required = true)
    {
        var text = cells.GetValueOrDefault(column, "");
        if (required && text.Length == 0)
            Wrong(column, "This is empty.");
        else if (text.Length > Longest)
            Wrong(column, $"This is {text.Length} characters long; {Longest} is the most.");
        return text;
    }

    /// <summary>Whether the file has a column.</summary>
    /// <param name="column">Its heading.</param>
    public bool Has(string column) => cells.ContainsKey(column);

    /// <summary>A value read by a function that answers null with a problem.</summary>
    public T? Read<T>(string column, Func<string, (T? Value, string Problem)> read, bool required = true) where T : struct
    {
        var text = Text(column, required);
        if (text.Length == 0)
            return null;
        var (value, problem) = read(text);
        if (value is null)
            Wrong(column, problem);
        return value;
    }

    /// <summary>Something is wrong in a column.</summary>
    public void Wrong(string column, string text) => errors.Add(Refusal.At(row, column, text));
}

/// <summary>Reads comma-separated files whose first row names the columns; semicolons and tabs are understood too.</summary>
public static class CsvTable
{
    /// <summary>The most rows of a file.</summary>
    public const int MostRows = 50_000;

    /// <summary>Reads every row; either all rows or all errors.</summary>
    /// <param name="text">The file's text.</param>
    /// <param name="columns">Columns that must be there.</param>
    /// <param name="read">Makes a row; it is read even where it has errors, so that all of them are found.</param>
    /// <param name="coming">Is told how far it is; null where nobody waits for it.</param>
    public static (IReadOnlyList<T> Rows, IReadOnlyList<Refusal> Errors) Read<T>(string text, IReadOnlyList<string> columns,
        Func<CsvLine, T> read, ComingFile? coming = null)
    {
        var lines = coming is null ? 0 : text.Count(c => c == '\n') + 1;
        var errors = new List<Refusal>();
        var rows = new List<T>();
        using var csv = new CsvReader(new StringReader(text.TrimStart('\uFEFF')), new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            DetectDelimiter = true, DetectDelimiterValues = [",", ";", "\t"], TrimOptions = TrimOptions.Trim, BadDataFound = null,
                MissingFieldFound = null, IgnoreBlankLines = true,
        });
        try
        {
            if (!csv.Read() || !csv.ReadHeader())
                return ([], [Refusal.At(1, "", $"The file is empty. Its first row names the columns: {string.Join(", ", columns)}.")]);
            var headings = csv.HeaderRecord!.Select(h => h.Trim().ToLowerInvariant()).ToList();
            foreach (var missing in columns.Where(c => !headings.Contains(c)))
                errors.Add(Refusal.At(1, missing, $"There is no column “{missing}”. The columns are {string.Join(", ", columns)}."));
            if (errors.Count > 0)
                return ([], errors);
            while (csv.Read())
            {
                if (rows.Count >= MostRows)
                    return ([], [Refusal.At(csv.Parser.RawRow, "",
                        $"There are more than {MostRows} rows. Bring them in as several files.")]);
                var cells = headings.Select((h, i) => (h, Cell: csv.TryGetField<string>(i, out var cell) ? Armed((cell ?? "").Trim()) : ""))
                    .GroupBy(c => c.h).ToDictionary(g => g.Key, g => g.First().Cell);
                rows.Add(read(new(csv.Parser.RawRow, cells, errors)));
                coming?.At(FileStage.Read, rows.Count, lines);
            }
        }
        catch (CsvHelperException e)
        {
            errors.Add(Refusal.At(csv.Parser.RawRow, "", $"This row cannot be read ({e.GetType().Name}). Check its quotation marks."));
        }
        return errors.Count > 0 ? ([], errors) : (rows, []);
    }

    /// <summary>Writes rows below their headings.</summary>
    public static string Write(IEnumerable<string> headings, IEnumerable<IEnumerable<string>> rows)
    {
        using var text = new StringWriter { NewLine = "\n" };
        using (var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\n" }))
            foreach (var row in rows.Prepend(headings))
            {
                foreach (var cell in row)
                    csv.WriteField(Defused(cell));
                csv.NextRecord();
            }
        return text.ToString();
    }

    // A spreadsheet runs what begins like this; behind an apostrophe it is text. A number is none of that.
    private static bool Runs(string cell) => cell.Length > 0 && cell[0] is '=' or '+' or '-' or '@' or '\t' or '\r'
        && !decimal.TryParse(cell, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out _);

    private static string Defused(string cell) => Runs(cell) || IsDefused(cell) ? $"'{cell}" : cell;

    private static string Armed(string cell) => IsDefused(cell) ? cell[1..] : cell;

    // What begins with an apostrophe of its own before such a sign gets one more, so that each comes back as it was.
    private static bool IsDefused(string cell) => cell.Length > 1 && cell[0] == '\'' && (Runs(cell[1..]) || IsDefused(cell[1..]));
}
