namespace Anakyklos.Storage;

/// <summary>Files and folders that only their owner reads and writes: 0600 and 0700.</summary>
public static class OwnerOnly
{
    private const UnixFileMode OfFile = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private const UnixFileMode OfFolder = OfFile | UnixFileMode.UserExecute;

    /// <summary>Makes a folder, where it is missing, for its owner only; one that is there keeps the way it is.</summary>
    /// <exception cref="IOException">It cannot be made.</exception>
    /// <exception cref="UnauthorizedAccessException">It may not be made.</exception>
    public static void MakeFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
            Directory.CreateDirectory(folder);
        else if (!Directory.Exists(folder))
            Directory.CreateDirectory(folder, OfFolder);
    }

    /// <summary>Makes an empty file, where it is missing, for its owner only, and takes it from others where it is there.</summary>
    /// <exception cref="IOException">It cannot be made.</exception>
    /// <exception cref="UnauthorizedAccessException">It may not be made or changed.</exception>
    public static void MakeFile(string file)
    {
        if (!File.Exists(file))
        {
            var options = new FileStreamOptions { Mode = FileMode.OpenOrCreate, Access = FileAccess.Write };
            if (!OperatingSystem.IsWindows())
                options.UnixCreateMode = OfFile;
            new FileStream(file, options).Dispose();
        }
        else if (!OperatingSystem.IsWindows() && File.GetUnixFileMode(file) != OfFile)
            File.SetUnixFileMode(file, OfFile);
    }

    /// <summary>Takes a folder and everything in it from others; whoever does not own it leaves it as it is.</summary>
    public static void Take(string folder)
    {
        if (OperatingSystem.IsWindows())
            return;
        Take(folder, OfFolder);
        foreach (var inside in Directory.EnumerateDirectories(folder, "*", SearchOption.AllDirectories))
            Take(inside, OfFolder);
        foreach (var file in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories))
            Take(file, OfFile);
    }

    /// <summary>What this process makes from now on, in whichever way, is its owner's only.</summary>
    public static void FromNowOn()
    {
        if (!OperatingSystem.IsWindows())
            _ = umask((int)(UnixFileMode.GroupRead | UnixFileMode.GroupWrite | UnixFileMode.GroupExecute | UnixFileMode.OtherRead
                | UnixFileMode.OtherWrite | UnixFileMode.OtherExecute));
    }

    [System.Runtime.InteropServices.DllImport("libc")]
    private static extern int umask(int mask);

    private static void Take(string path, UnixFileMode mode)
    {
        if (OperatingSystem.IsWindows() || File.GetUnixFileMode(path) == mode)
            return;
        try
        {
            File.SetUnixFileMode(path, mode);
        }
        catch (UnauthorizedAccessException)
        {
            // What somebody else made for the program, such as a mounted folder, is theirs to guard.
        }
    }
}
