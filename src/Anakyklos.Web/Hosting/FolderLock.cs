using Anakyklos.Storage;

namespace Anakyklos.Web.Hosting;

/// <summary>Keeps a workshop's folder for one serving process, for as long as that lives.</summary>
internal sealed class FolderLock : IDisposable
{
    private readonly FileStream _file;

    private FolderLock(FileStream file) => _file = file;

    /// <summary>Takes the folder, from others, too; it is made when it is missing.</summary>
    /// <exception cref="WorkshopFileException">Another process serves it.</exception>
    internal static FolderLock Take(string folder)
    {
        OwnerOnly.MakeFolder(folder);
        OwnerOnly.Take(folder);
        try
        {
            return new(new FileStream(Path.Combine(folder, "served.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None));
        }
        catch (IOException e)
        {
            throw new WorkshopFileException($"The workshop in {folder} is served already. Stop that first, or name another folder "
                + "with --data.", e);
        }
    }

    /// <inheritdoc />
    public void Dispose() => _file.Dispose();
}
