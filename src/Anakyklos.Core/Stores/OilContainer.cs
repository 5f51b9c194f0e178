using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Stores;

/// <summary>What a container is, by its size.</summary>
public enum ContainerKind
{
    /// <summary>Up to two litres: emptied, or poured from into a cup.</summary>
    Bottle,

    /// <summary>Up to thirty litres: lifted by hand, with a scale on its side.</summary>
    Can,

    /// <summary>Larger: it is drawn from, and what is left is not seen.</summary>
    Drum,
}

/// <summary>A container of oil.</summary>
/// <param name="Id">Its number in the stores.</param>
/// <param name="Product">What is in it, by the name in the oil book.</param>
/// <param name="Size">What it held when full.</param>
/// <param name="Left">What is left.</param>
/// <param name="Scale">The unit on its scale.</param>
/// <param name="Opened">When it was opened, or null.</param>
/// <param name="Batch">Batch, or empty.</param>
/// <param name="Place">Where it stands, or empty.</param>
public sealed record OilContainer(int Id, string Product, Quantity<Volume> Size, Quantity<Volume> Left, Unit<Volume> Scale,
    DateOnly? Opened, string Batch, string Place = "")
{
    private static readonly Quantity<Volume> LargestBottle = Quantity<Volume>.Of(2, Volume.Litre);
    private static readonly Quantity<Volume> LargestCan = Quantity<Volume>.Of(30, Volume.Litre);

    /// <summary>What it is, by its size.</summary>
    public ContainerKind Kind => Size <= LargestBottle ? ContainerKind.Bottle : Size <= LargestCan ? ContainerKind.Can : ContainerKind.Drum;

    /// <summary>What it is called, such as "can 12".</summary>
    public string Name => $"{Kind.ToString().ToLowerInvariant()} {Id}";
}
