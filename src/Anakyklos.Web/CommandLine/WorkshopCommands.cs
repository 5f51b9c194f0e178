using Anakyklos.Core.Rehearsal;
using System.Net;
using System.Net.Sockets;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Demo;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Serving;

namespace Anakyklos.Web.CommandLine;

/// <summary>What the application does from a shell. Exit codes: 0 well, 1 something was found wrong, 2 the call itself is wrong.</summary>
internal static class WorkshopCommands
{
    private const string Usage = """
        anakyklos serve [--data FOLDER] [--port N]      serves the workshop in FOLDER (default ./data) on port N (default 5180)
        anakyklos demo [--data FOLDER] [--port N] [--keep] [--speed N]
                                                        serves the demo depot; --keep keeps its last state,
                                                        --speed lets waits pass N times as fast
        anakyklos large [--data FOLDER] [--vehicles N] [--cards N] [--parts N]
                                                        makes a large demo depot for measuring in FOLDER (default .large);
                                                        demo --keep --data FOLDER serves it
        anakyklos sheet check FILE                      says everything that is wrong with a model sheet
        anakyklos sheet add FILE [--data FOLDER]        takes a model sheet into the workshop
        anakyklos backup FILE [--data FOLDER]           copies the whole workshop into FILE, also while it is served
        anakyklos restore FILE [--data FOLDER]          puts a backup in the place of the workshop, which is kept beside it
        anakyklos verify [FILE] [--data FOLDER]         checks the workshop's file, or a backup of it, and writes nothing
        anakyklos rebuild FILE [--data FOLDER]          writes what events and journal say into a new FILE
        everywhere: --seal FOLDER                       where the keys and anchors lie (default: the data folder's name with .seal)
                    --settings FILE                     where settings stand (default ./anakyklos.json); each may stand in the
                                                        environment, too, such as ANAKYKLOS_DATA
        serve, demo: --backups FOLDER --keep-backups N  where nightly copies lie, how many are kept
                    --proxies ADDRESS,... --hosts NAME,...
                                                        whose forwarded headers are believed; which names are answered
                    --samples-port N --samples-at URL   where samples are served (default: the next port), and reached
        """;

    internal static async Task<int> Run(string[] args)
    {
        OwnerOnly.FromNowOn();
        try
        {
            return args switch
            {
                ["serve", .. var rest] => await Serve(Options.Read(rest)),
                ["demo", .. var rest] => await ServeDemo(Options.Read(rest)),
                ["large", .. var rest] => await MakeLarge(Options.Read(rest)),
                ["sheet", "check", var file] => CheckSheet(file),
                ["sheet", "add", var file, .. var rest] => await AddSheet(file, Options.Read(rest)),
                ["backup", var file, .. var rest] => Backup(file, Options.Read(rest)),
                ["restore", var file, .. var rest] => Restore(file, Options.Read(rest)),
                ["verify", var file, .. var rest] when !file.StartsWith('-') => Verify(file, true, Options.Read(rest)),
                ["verify", .. var rest] when Options.Read(rest) is var options => Verify(Existing(options), false, options),
                ["rebuild", var file, .. var rest] => Rebuild(file, Options.Read(rest)),
                _ => Wrong(Usage),
            };
        }
        catch (OptionException e)
        {
            return Wrong($"{e.Message}\n\n{Usage}");
        }
        catch (WorkshopFileException e)
        {
            return Found(e.Message);
        }
        catch (IOException e)
        {
            return Found(e.Message);
        }
        catch (UnauthorizedAccessException e)
        {
            return Found(e.Message);
        }
    }

    private static int Wrong(string text)
    {
        Console.Error.WriteLine(text);
        return 2;
    }

    private static int Found(string text)
    {
        Console.Error.WriteLine(text);
        return 1;
    }

    private static async Task<int> Serve(Options options)
    {
        using var mine = FolderLock.Take(options.Folder);
        await using var app = WorkshopApplication.Build(options, TimeProvider.System);
        await app.Services.GetRequiredService<ShippedSheets>().BringIn(forPractice: true);
        return await Answer(app, options, "Anakyklos");
    }

    private static async Task<int> MakeLarge(Options options)
    {
        options = options with { Demo = true, Folder = options.FolderGiven ? options.Folder : ".large" };
        using var mine = FolderLock.Take(options.Folder);
        if (File.Exists(Path.Combine(options.Folder, Options.FileName)) && !DemoDepot.IsDemo(options.Folder))
            return Found($"{options.Folder} holds a workshop that is not the demo; it is left as it is. Name another with --data.");
        DemoDepot.Clear(options.Folder);
        options.Seals.ForgetAnchors();
        await using var app = WorkshopApplication.Build(options, TimeProvider.System);
        await app.Services.GetRequiredService<DemoDepot>().Fill();
        await app.Services.GetRequiredService<LargeWorkshop>().Fill(new(options.Size.Vehicles, options.Size.Cards, options.Size.Parts),
            Console.WriteLine);
        Console.WriteLine($"{options.Folder} is made; anakyklos demo --keep --data {options.Folder} serves it.");
        return 0;
    }

    private static async Task<int> ServeDemo(Options options)
    {
        if (options is { Demo: false })
            options = options with { Demo = true, Folder = options.FolderGiven ? options.Folder : ".demo" };
        // The port and the folder first: nothing is cleared away for a demo that cannot be served, or that somebody is looking at.
        if (!IsFree(options.Port))
            return Found($"Port {options.Port} is taken. Give another with --port.");
        using var mine = FolderLock.Take(options.Folder);
        var file = Path.Combine(options.Folder, Options.FileName);
        if (File.Exists(file) && !options.Keep && !DemoDepot.IsDemo(options.Folder))
            return Found($"{options.Folder} holds a workshop that is not the demo; it is left as it is. Give the demo another "
                + "folder with --data.");
        var keep = options.Keep && File.Exists(file);
        var clock = new HurriedClock(TimeProvider.System, options.Speed);
        await using var app = await DemoStart.Begin(options, keep, clock, () => WorkshopApplication.Build(options, clock));
        return await Answer(app, options, "The demo depot");
    }

    private static async Task<int> Answer(WebApplication app, Options options, string who)
    {
        try
        {
            await app.StartAsync();
        }
        catch (IOException)
        {
            return Found($"Port {options.Port} is taken. Give another with --port.");
        }
        Console.WriteLine($"{who} is at {(options.PortGiven || app.Urls.Count != 1 ? $"http://localhost:{options.Port}" : app.Urls.First()
            .Replace("*", "localhost").Replace("[::]", "localhost"))}");
        if (app.Services.GetRequiredService<PeopleStore>().Nobody)
            Console.WriteLine("Nobody is there yet. To make the first workshop lead, type this word in the browser: "
                + app.Services.GetRequiredService<SetupToken>().Word);
        await app.WaitForShutdownAsync();
        return 0;
    }

    private static bool IsFree(int port)
    {
        try
        {
            using var probe = new TcpListener(Socket.OSSupportsIPv6 ? IPAddress.IPv6Any : IPAddress.Any, port);
            if (Socket.OSSupportsIPv6)
                probe.Server.DualMode = true;
            probe.Start();
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }

    private static int CheckSheet(string file)
    {
        var reading = SheetRehearsal.Read(File.ReadAllBytes(file));
        foreach (var error in reading.Errors)
            Console.WriteLine($"{file}: {error}");
        if (reading.Sheet is not { } sheet)
            return Found(reading.Errors.Count == 1 ? "One error." : $"{reading.Errors.Count} errors.");
        Console.WriteLine($"{file}: {sheet.FullName}, revision {sheet.Revision}: {sheet.Jobs.Count} jobs, {sheet.Steps.Count} "
            + "steps, no errors.");
        return 0;
    }

    private static async Task<int> AddSheet(string file, Options options)
    {
        var text = await File.ReadAllTextAsync(file);
        if (SheetRehearsal.Read(await File.ReadAllBytesAsync(file)).Sheet is not { } sheet)
            return CheckSheet(file);
        using var database = Opened(options);
        var sheets = new SheetStore(database);
        if (sheets.Newest(sheet.Id) is { } inUse && inUse.Revision != sheet.Revision)
            throw new WorkshopFileException($"Revision {inUse.Revision} of {inUse.FullName} is in use. Take this file in at the library, "
                + "where the lead sees what it changes.");
        var added = await sheets.BringIn(sheet, text, TimeProvider.System.GetUtcNow());
        Console.WriteLine(added ? $"{sheet.FullName}, revision {sheet.Revision}, is in."
            : $"{sheet.FullName}, revision {sheet.Revision}, was in already.");
        if (added && SheetDesk.SaysIsRead(text))
            Console.WriteLine("Its file says that two have read its values. Nobody here has: have them read in the library.");
        return 0;
    }

    private static string Existing(Options options) => File.Exists(options.File) ? options.File
        : throw new WorkshopFileException($"There is no workshop in {options.Folder}. Name its folder with --data.");

    private static WorkshopDatabase Opened(Options options) => new(Existing(options), options.Seals);

    private static int Backup(string file, Options options)
    {
        using var database = Opened(options);
        database.Backup(Path.GetFullPath(file));
        Console.WriteLine($"Copied to {file}.");
        return 0;
    }

    private static int Restore(string backup, Options options)
    {
        using var mine = FolderLock.Take(options.Folder);
        var kept = BackupFile.Restore(backup, options.File, options.Seals, TimeProvider.System);
        Console.WriteLine($"{backup} is in place of {options.File}." + (kept is null ? "" : $" What was there is kept as {kept}."));
        return Verify(options.File, false, options);
    }

    private static int Rebuild(string file, Options options)
    {
        var (rows, events) = RebuiltFile.Write(Existing(options), Path.GetFullPath(file), options.Seals);
        Console.WriteLine($"{file} has {events} events and {rows} rows, as events and journal tell them. \"anakyklos restore {file}\" "
            + "puts it in place.");
        return Verify(file, true, options);
    }

    private static int Verify(string file, bool isBackup, Options options)
    {
        if (!File.Exists(file))
            return Found($"{file} is not there.");
        var found = Verification.Run(file, options.Seals, isBackup);
        foreach (var line in found.Faults)
            Console.WriteLine(line);
        Console.WriteLine($"{found.Cards} cards, {found.Events} events, {found.Rows} rows, {found.Entries} entries of the journal: "
            + (found.Faults.Count switch { 0 => "all is as it was written.", 1 => "1 fault.", var n => $"{n} faults." }));
        if (found.Place is { Entry: > 0 } place)
            Console.WriteLine($"The journal ends with entry {place.Entry}, seal {place.Seal}: to be written down or sent elsewhere.");
        return found.Faults.Count == 0 ? 0 : 1;
    }
}
