using DbUp.Engine.Output;

namespace Anakyklos.Storage;

/// <summary>Migrations are silent: a failure comes back as an exception with its own words.</summary>
internal sealed class NoUpgradeLog : IUpgradeLog
{
    public void LogTrace(string format, params object[] args) { }

    public void LogDebug(string format, params object[] args) { }

    public void LogInformation(string format, params object[] args) { }

    public void LogWarning(string format, params object[] args) { }

    public void LogError(string format, params object[] args) { }

    public void LogError(Exception ex, string format, params object[] args) { }
}
