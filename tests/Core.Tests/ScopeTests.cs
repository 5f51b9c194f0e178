using Anakyklos.Core.Workshop;

namespace Anakyklos.Core.Tests;

/// <summary>Of what a person may do, what a program may do.</summary>
public sealed class ScopeTests
{
    [Fact]
    public void Each_scope_has_one_word_and_comes_back_from_it_with_reading()
    {
        Assert.Equal(Scopes.All.Count, Scopes.All.Select(s => s.Word()).Distinct().Count());
        Assert.All(Scopes.All, s => Assert.Equal(s | Scope.Read, Scopes.Read([s.Word()])));
        // No value of the enumeration is forgotten.
        Assert.Equal(Enum.GetValues<Scope>().Where(s => s != Scope.None).Order(), Scopes.All.Order());
    }

    [Fact]
    public void Words_and_scopes_are_the_same_thing_for_every_choice()
    {
        for (var bits = 1; bits < 16; bits++)
        {
            var chosen = Scopes.All.Where((_, i) => (bits >> i & 1) == 1).ToList();
            var read = Scopes.Read(chosen.Select(s => s.Word()))!.Value;
            Assert.Equal(read, Scopes.Read(read.Words().Split(' ')));
            Assert.All(Scopes.All, s => Assert.Equal(s == Scope.Read || chosen.Contains(s), read.HasFlag(s)));
        }
    }

    [Theory]
    [InlineData("")]
    [InlineData("all")]
    [InlineData("Read")]
    [InlineData("none")]
    public void What_is_no_word_of_a_scope_is_no_permission(string word)
    {
        Assert.Null(Scopes.Read([word]));
        Assert.Null(Scopes.Read(["read", word]));
        Assert.Null(Scopes.Read([]));
    }

    [Fact]
    public void Several_have_no_one_word() => Assert.Throws<ArgumentOutOfRangeException>(() => (Scope.Read | Scope.Cards).Word());
}
