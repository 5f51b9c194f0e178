using Anakyklos.Core.Stores;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A supplier by what the lead has set of the days of delivery; before that nobody knows when something comes.</summary>
public sealed class SetSupplier(SettingStore settings) : ISupplier
{
    /// <inheritdoc />
    public DateOnly? Arrives(string number, DateTimeOffset ordered, Shelf known) =>
        known.Find(number) is null && known.Oils.Find(number) is null ? null : settings.Read().Deliveries?.Arrives(ordered);
}
