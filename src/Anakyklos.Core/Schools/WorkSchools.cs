namespace Anakyklos.Core.Schools;

/// <summary>When air is let in above an oil that is drained from below.</summary>
public enum DrainSchool
{
    /// <summary>Filler cap and dipstick are loosened before the plug comes out: it runs fast and clean.</summary>
    AirFirst,

    /// <summary>They are loosened when the plug is out: the first gush is gentler.</summary>
    PlugFirst,
}

/// <summary>How a new oil filter is fitted where it hangs open side up.</summary>
public enum FilterSchool
{
    /// <summary>Dry: the first run fills it.</summary>
    Dry,

    /// <summary>Filled with fresh oil first: the pump has less to do on the first run.</summary>
    Filled,
}

/// <summary>In what a workshop works by its own school where the trade has several. It is frozen with a card.</summary>
/// <param name="Drain">When air is let in.</param>
/// <param name="DripMinutes">For how many minutes an oil runs out at least, from 0 to 120; 0 leaves it to the sheet.</param>
/// <param name="Filter">How a new filter is fitted that can be filled first.</param>
public sealed record WorkSchools(DrainSchool Drain = DrainSchool.AirFirst, int DripMinutes = 0, FilterSchool Filter = FilterSchool.Dry)
{
    /// <summary>The longest that a workshop may want to wait, in minutes.</summary>
    public const int LongestDrip = 120;

    /// <summary>What holds where nothing was set.</summary>
    public static WorkSchools Usual { get; } = new();

    /// <summary>How long something runs out in this workshop.</summary>
    /// <param name="sheet">How long the sheet wants at least.</param>
    /// <returns>The longer of the two.</returns>
    public TimeSpan Drips(TimeSpan sheet) => TimeSpan.FromMinutes(DripMinutes) is var own && own > sheet ? own : sheet;
}
