using Anakyklos.Core.Cards;
using Anakyklos.Core.Oils;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>The depot's stores, brought in from the same files that any workshop would write.</summary>
public sealed class DemoStock(ShelfStore shelf, WorkshopClock clock)
{
    /// <summary>Fills empty stores.</summary>
    /// <exception cref="WorkshopFileException">A shipped file has errors.</exception>
    public async Task Fill(Person by)
    {
        var oils = await BringInOils();
        foreach (var kind in StockFiles.Kinds)
        {
            var (file, wrong) = StockFiles.Read(kind, await File.ReadAllTextAsync(At($"{kind}.csv")), clock.Today,
                [.. oils.Products.Select(p => p.Name)]);
            await shelf.BringIn(file ?? throw new WorkshopFileException($"{kind}.csv: {wrong[0]}"), by, clock.Now);
        }
    }

    /// <summary>The oil book: no oil is poured before it is there to be compared with.</summary>
    /// <exception cref="WorkshopFileException">The shipped file has errors.</exception>
    public async Task<OilBook> BringInOils()
    {
        var book = await File.ReadAllTextAsync(At("oils.json"));
        var (oils, errors) = OilBook.Read(book);
        await shelf.WriteOilBook(oils is null ? throw new WorkshopFileException($"oils.json: {errors[0]}") : book);
        return oils;
    }

    private static string At(string name) => Path.Combine(AppContext.BaseDirectory, "stock", name);
}
