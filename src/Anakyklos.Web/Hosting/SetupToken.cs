using System.Security.Cryptography;
using System.Text;

namespace Anakyklos.Web.Hosting;

/// <summary>A word that the console prints at the first start: whoever types it keeps the program, and may make the first lead.</summary>
public sealed class SetupToken
{
    /// <summary>The word.</summary>
    public string Word { get; } = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(8));

    /// <summary>Whether this is the word, in a time that tells nothing of it.</summary>
    public bool Is(string typed) =>
        CryptographicOperations.FixedTimeEquals(Encoding.UTF8.GetBytes(typed.Trim().ToLowerInvariant()), Encoding.UTF8.GetBytes(Word));
}
