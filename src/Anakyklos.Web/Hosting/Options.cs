using System.Net;
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

    /// <summary>Where nightly copies lie; beside the folder where that is not said.</summary>
    public string BackupFolder { get; init; } = "";

    /// <summary>How many nightly copies are kept.</summary>
    public int KeptBackups { get; init; } = 14;

    /// <summary>Where nightly copies lie.</summary>
    public string Backups => Path.GetFullPath(BackupFolder.Length > 0 ? BackupFolder
        : Path.TrimEndingDirectorySeparator(Path.GetFullPath(Folder)) + ".backups");

    /// <summary>The workshop's file.</summary>
    internal string File => Path.Combine(Folder, FileName);

    /// <summary>Where the keys and anchors of its journal lie.</summary>
    public SealFolder Seals => SealFolder.Length > 0 ? new(SealFolder) : Storage.Sealing.SealFolder.Beside(Folder);

    /// <summary>Whether the folder was named.</summary>
    public bool FolderGiven { get; init; }

    /// <summary>The port to serve on, all addresses.</summary>
    public int Port { get; init; } = 5180;

    /// <summary>Keep the demo's last state.</summary>
    public bool Keep { get; init; }

    /// <summary>The demo depot is served.</summary>
    public bool Demo { get; init; }

    /// <summary>This is the made-up depot beside a workshop of one's own.</summary>
    public bool IsMadeUp { get; init; }

    /// <summary>The name of the cookie of whoever is signed in; those of other things begin with it. Cookies know no ports, so that samples
    /// have their own.</summary>
    public string Cookie => IsMadeUp ? "anakyklos-samples" : "anakyklos";

    /// <summary>The port of the workshop beside which this is; 0 for none.</summary>
    public int MadeUpOf { get; init; }

    /// <summary>The port on which samples are served; 0 for the one after the workshop's own.</summary>
    public int MadeUpPort { get; init; }

    /// <summary>The address at which samples are reached, where a proxy stands before them; empty for the host and their port.</summary>
    public string MadeUpAt { get; init; } = "";

    /// <summary>How many times as fast the demo's clock goes.</summary>
    public int Speed { get; init; } = 1;

    /// <summary>How large a workshop for measuring is to be: vehicles, cards and parts.</summary>
    public (int Vehicles, int Cards, int Parts) Size { get; init; } = (10_000, 100_000, 50_000);

    /// <summary>Whether the port was named.</summary>
    public bool PortGiven { get; init; }

    /// <summary>Addresses of the reverse proxies that say from where a request came and by which scheme; nobody else is believed.</summary>
    public IReadOnlyList<IPAddress> Proxies { get; init; } = [];

    /// <summary>Names under which the workshop is reached; none for any.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>The file of settings where none is named.</summary>
    internal const string SettingFile = "anakyklos.json";

    // What may stand in the environment (ANAKYKLOS_DATA and so on) and in the file ("data" and so on): as on the command line.
    private static readonly string[] Named = ["data", "port", "seal", "backups", "keep-backups", "proxies", "hosts", "samples-port",
        "samples-at"];

    /// <summary>Reads the options: the command line before the environment, that before the file.</summary>
    /// <param name="args">What stands behind the command.</param>
    /// <exception cref="OptionException">Something is none, or is known to nobody.</exception>
    public static Options Read(string[] args)
    {
        var named = Array.IndexOf(args, "--settings") is >= 0 and var at && at + 1 < args.Length ? args[at + 1] : null;
        if (named is not null && !System.IO.File.Exists(named))
            throw new OptionException($"There is no file {named}.");
        IConfigurationRoot settings;
        try
        {
            settings = new ConfigurationBuilder().AddJsonFile(Path.GetFullPath(named ?? SettingFile), optional: true)
                .AddEnvironmentVariables("ANAKYKLOS_").Build();
        }
        catch (InvalidDataException e)
        {
            throw new OptionException($"{named ?? SettingFile} cannot be read: {e.InnerException?.Message ?? e.Message}");
        }
        var before = Named.Where(n => Setting(settings, n).Length > 0).SelectMany(n => new[] { $"--{n}", Setting(settings, n) });
        return Read([.. before], args);
    }

    // In an environment a dash cannot stand in a name.
    private static string Setting(IConfiguration settings, string name) => settings[name] ?? settings[name.Replace('-', '_')]
        ?? string.Join(',', settings.GetSection(name).GetChildren().Select(c => c.Value));

    private static Options Read(string[] settings, string[] line)
    {
        string[] args = [.. settings, .. line];
        var options = new Options();
        for (var i = 0; i < args.Length; i++)
        {
            string Next() => ++i < args.Length ? args[i] : throw new OptionException($"{args[i - 1]} needs a value.");
            int Number(int low, int high) => Next() is var text && int.TryParse(text, out var n) && n >= low && n <= high ? n
                : throw new OptionException($"{args[i - 1]} takes a whole number from {low} to {high}.");
            options = args[i] switch
            {
                "--settings" => options with { Settings = Next() },
                "--data" => options with { Folder = Next(), FolderGiven = true },
                "--port" => options with { Port = Number(1, 65535), PortGiven = true },
                "--seal" => options with { SealFolder = Next() },
                "--backups" => options with { BackupFolder = Next() },
                "--keep-backups" => options with { KeptBackups = Number(1, 1000) },
                "--proxies" => options with { Proxies = [.. Parts(Next()).Select(Address)] },
                "--hosts" => options with { Hosts = [.. Parts(Next())] },
                "--samples-port" => options with { MadeUpPort = Number(1, 65535) },
                "--samples-at" => options with { MadeUpAt = WebAddress(Next()) },
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

    /// <summary>The file that the settings were named in; empty for the usual one.</summary>
    public string Settings { get; init; } = "";

    private static string[] Parts(string list) =>
        list.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static string WebAddress(string text) => Uri.TryCreate(text, UriKind.Absolute, out var at) && at.Scheme is "http" or "https"
        ? text : throw new OptionException($"--samples-at takes an address such as https://samples.example; “{text}” is none.");

    private static IPAddress Address(string text) => IPAddress.TryParse(text, out var address) ? address
        : throw new OptionException($"--proxies takes IP addresses with commas between them; “{text}” is none.");
}

/// <summary>An option that is none; the message says which.</summary>
/// <param name="message">For a person.</param>
public sealed class OptionException(string message) : Exception(message);
