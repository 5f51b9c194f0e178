namespace Anakyklos.Web.Hosting;

/// <summary>How a workshop's samples stand.</summary>
public enum MadeUpStage
{
    /// <summary>There are none.</summary>
    None,

    /// <summary>Their past years are being worked through.</summary>
    Making,

    /// <summary>They are served.</summary>
    Runs,

    /// <summary>They could not be made or served; <see cref="MadeUpStanding.Trouble"/> says why.</summary>
    Failed,

    /// <summary>They are being taken out.</summary>
    Ending,
}

/// <summary>How a workshop's samples stand.</summary>
/// <param name="Stage">How far they are.</param>
/// <param name="Worked">How many services of their past are worked through.</param>
/// <param name="Of">How many there are.</param>
/// <param name="Trouble">Why they could not be made, for a person; empty for no trouble.</param>
public sealed record MadeUpStanding(MadeUpStage Stage, int Worked = 0, int Of = 0, string Trouble = "")
{
    /// <summary>Something goes on by itself: worth looking again soon.</summary>
    public bool IsOnTheWay => Stage is MadeUpStage.Making or MadeUpStage.Ending;
}

/// <summary>
/// The made-up depot beside a workshop of one's own: a workshop in a folder beside it, at an address of its own. Nothing of it is in the
/// workshop's file, so nothing of it is left once it is taken out.
/// </summary>
public interface IMadeUpDepot
{
    /// <summary>How it stands.</summary>
    MadeUpStanding Now { get; }

    /// <summary>Whether this workshop may have samples; the demo is made up itself.</summary>
    bool IsOffered { get; }

    /// <summary>Where it is reached by whoever reaches this workshop so.</summary>
    /// <param name="request">A request to this workshop.</param>
    string Address(HttpRequest request);

    /// <summary>Begins to bring it in, where there is none; it goes on by itself.</summary>
    void BringIn();

    /// <summary>Stops it and deletes its folder; what was done there is gone.</summary>
    Task TakeOut();
}
