using Anakyklos.Core.Workshop;

namespace Anakyklos.Core.Tests;

public class BaysTests
{
    [Theory]
    [InlineData("")]
    [InlineData("North lift|north Lift")] // the same address
    [InlineData("North lift|outside")]
    [InlineData("North/lift")]
    [InlineData("North  lift")]
    [InlineData("The bay beside the old paint shop")]
    [InlineData("A|B|C|D|E|F|G|H|I|J|K|L|M")]
    public void Names_that_cannot_be_told_apart_or_painted_are_refused(string names) =>
        Assert.Equal("bays", Bays.Check(names.Split('|', StringSplitOptions.RemoveEmptyEntries), "bays")?.Field);

    [Fact]
    public void A_bay_is_found_by_its_address_and_outside_is_always_there()
    {
        var bays = new Bays(["North lift", "Pit 2"]);
        Assert.Null(Bays.Check(bays.Inside, "bays"));
        Assert.Equal(["North lift", "Pit 2", "Outside"], bays.All);
        Assert.All(bays.All, b => Assert.Equal(b, bays.At(Bays.Address(b))));
        Assert.Null(bays.At("bay-1"));
        Assert.False(bays.Has(null));
    }
}
