using Anakyklos.Core.Sheets;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>The model sheets that come with the application: those of the demo's made-up world.</summary>
public sealed class ShippedSheets(SheetStore sheets, WorkshopClock clock)
{
    /// <summary>Takes each of them in, where it is not there yet.</summary>
    /// <param name="forPractice">Only for the practice bay: the models are made up, and no workshop has them.</param>
    /// <exception cref="WorkshopFileException">A shipped sheet has errors.</exception>
    public async Task BringIn(bool forPractice = false)
    {
        foreach (var file in Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json").Order())
        {
            var text = await File.ReadAllTextAsync(file);
            var reading = SheetReader.Read(System.Text.Encoding.UTF8.GetBytes(text));
            if (reading.Sheet is not { } sheet)
                throw new WorkshopFileException($"{Path.GetFileName(file)}: {reading.Errors[0]}");
            // A workshop that wrote this revision itself keeps its own.
            if (sheets.Text(sheet.Id, sheet.Revision) is { } theirs && theirs != text)
                continue;
            _ = await (forPractice ? sheets.BringInForPractice(sheet, text, clock.Now) : sheets.BringIn(sheet, text, clock.Now));
        }
    }
}
