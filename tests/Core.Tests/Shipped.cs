using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>The sheets that ship.</summary>
internal static class Shipped
{
    internal static readonly string[] Files = Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "sheets"), "*.json");

    internal static readonly IReadOnlyDictionary<SheetId, ModelSheet> Sheets = Files
        .Select(f => SheetReader.Read(File.ReadAllText(f)).Sheet!).ToDictionary(s => s.Id);
}
