using Anakyklos.Storage.Sealing;

namespace Anakyklos.Web.Hosting;

/// <summary>The options of a call.</summary>
public sealed record Options
{
    /// <summary>Everybody's PIN, in the demo only.</summary>
    public const string DemoPin = "2468";

    /// <summary>The name of the workshop's file.</summary>
    internal const string FileName = "anakyklos.db";

    /// <summary>Where the workshop's file and keys lie.</summary>
    public string Folder { get; init; } = "data";

    /// <summary>Where the keys and anchors of its journal lie; beside the folder where that is not said.</summary>
    public string SealFolder { get; init; } = "";

    /// <summary>The workshop's file.</summary>
    internal string File => Path.Combine(Folder, FileName);

    /// <summary>Where the keys and anchors of its journal lie.</summary>
    internal SealFolder Seals => SealFolder.Length > 0 ? new(SealFolder) : Storage.Sealing.SealFolder.Beside(Folder);

    /// <summary>Whether the folder was named.</summary>
    public bool FolderGiven { get; init; }

    /// <summary>The port to serve on, all addresses.</summary>
    public int Port { get; init; } = 5180;

    /// <summary>Keep the demo's last state.</summary>
    public bool Keep { get; init; }

    /// <summary>The demo depot is served.</summary>
    public bool Demo { get; init; }

    /// <summary>How many times as fast the demo's clock goes.</summary>
    public int Speed { get; init; } = 1;

    /// <summary>How large a workshop for measuring is to be: vehicles, cards and parts.</summary>
    public (int Vehicles, int Cards, int Parts) Size { get; init; } = (10_000, 100_000, 50_000);

    internal static Options Read(string[] args)
    {
        var options = new Options();
        for (var i = 0; i < args.Length; i++)
        {
            string Next() => ++i < args.Length ? args[i] : throw new OptionException($"{args[i - 1]} needs a value.");
            int Number(int low, int high) => Next() is var text && int.TryParse(text, out var n) && n >= low && n <= high ? n
                : throw new OptionException($"{args[i - 1]} takes a whole number from {low} to {high}.");
            options = args[i] switch
            {
                "--data" => options with { Folder = Next(), FolderGiven = true },
                "--seal" => options with { SealFolder = Next() },
                "--port" => options with { Port = Number(1, 65535) },
                "--keep" => options with { Keep = true },
                "--vehicles" => options with { Size = options.Size with { Vehicles = Number(1, 100_000) } },
                "--cards" => options with { Size = options.Size with { Cards = Number(0, 1_000_000) } },
                "--parts" => options with { Size = options.Size with { Parts = Number(0, 500_000) } },
                "--speed" => options with { Speed = Number(1, 600) },
                var other => throw new OptionException($"{other} is not known here."),
            };
        }
        return options;
    }
}

internal sealed class OptionException(string message) : Exception(message);
