namespace Anakyklos.Core.Quantities;

/// <summary>A number as a person says it off something with one scale.</summary>
/// <typeparam name="T">The dimension.</typeparam>
/// <param name="Number">The number.</param>
/// <param name="Unit">Its unit; null where none was said, and the scale of the thing in the hand counts.</param>
public readonly record struct NumberSaid<T>(decimal Number, Unit<T>? Unit) where T : IDimension<T>
{
    /// <summary>With the unit of the scale where none was said.</summary>
    /// <param name="scale">The scale of the thing in the hand; null where nobody knows it.</param>
    /// <returns>The amount, or null when nobody knows in which unit.</returns>
    public Typed<T>? On(Unit<T>? scale) => (Unit ?? scale) is { } unit ? new(Quantity<T>.Of(Number, unit), unit) : null;

    /// <summary>An amount of which the unit was said.</summary>
    public static implicit operator NumberSaid<T>(Typed<T> amount) => new(amount.Value.In(amount.Unit), amount.Unit);
}
