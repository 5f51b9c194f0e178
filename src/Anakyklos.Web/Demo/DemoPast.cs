using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>
/// The demo's past years, kept beside it once they were worked through: another start on the same day by the same program takes them up
/// from there.
/// </summary>
/// <param name="folder">The demo's folder.</param>
/// <param name="seals">Where the demo's seals lie.</param>
/// <param name="today">The day from which they count back.</param>
public sealed class DemoPast(string folder, SealFolder seals, DateOnly today)
{
    private string Kept => Path.Combine(folder, "past.db");

    private string Keys => Path.Combine(folder, "past.keys");

    private string Label => Path.Combine(folder, "past.txt");

    // A file that was kept by another build, from other sheets or stores, or on another day is of no use.
    private string Says
    {
        get
        {
            var home = AppContext.BaseDirectory;
            var files = Directory.GetFiles(home, "Anakyklos.*.dll").Concat(new[] { "sheets", "stock" }
                .Select(f => Path.Combine(home, f)).Where(Directory.Exists).SelectMany(Directory.GetFiles)).Order(StringComparer.Ordinal)
                .Select(f => $"{Path.GetFileName(f)} {Convert.ToHexString(SHA256.HashData(File.ReadAllBytes(f)))}");
            return string.Join('\n', [today.ToString("O", CultureInfo.InvariantCulture), .. files]) + "\n";
        }
    }

    /// <summary>Lays the kept past into a folder that was cleared, where it is of this day and this program.</summary>
    /// <returns>Whether it was there.</returns>
    public bool Lay()
    {
        if (!File.Exists(Kept) || !File.Exists(Label) || File.ReadAllText(Label, Encoding.UTF8) != Says)
            return false;
        File.Copy(Kept, Path.Combine(folder, Options.FileName), true);
        // What sealed it then seals it on.
        if (File.Exists(Keys))
        {
            OwnerOnly.MakeFolder(seals.Folder);
            File.Copy(Keys, seals.KeyFile, true);
        }
        return true;
    }

    /// <summary>Keeps the past for another start.</summary>
    /// <param name="database">The workshop with its past and nothing of today.</param>
    public void Keep(WorkshopDatabase database)
    {
        // The label comes last: what was not kept whole has none.
        File.Delete(Label);
        File.Delete(Kept);
        database.Backup(Kept);
        File.Copy(database.Seals.KeyFile, Keys, true);
        File.WriteAllText(Label, Says, Encoding.UTF8);
    }
}
