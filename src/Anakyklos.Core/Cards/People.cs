namespace Anakyklos.Core.Cards;

/// <summary>What a person may do.</summary>
public enum Role
{
    /// <summary>Works through cards.</summary>
    Technician,

    /// <summary>Workshop lead: works through cards, countersigns, keeps people and settings.</summary>
    Lead,

    /// <summary>Parts and oil.</summary>
    Stores,

    /// <summary>Reads.</summary>
    Viewer,
}

/// <summary>Who does something to a card.</summary>
/// <param name="Id">Lasting id.</param>
/// <param name="Name">Name as shown.</param>
/// <param name="Role">Role at the time.</param>
public sealed record Person(PersonId Id, string Name, Role Role)
{
    /// <summary>Whether this person may work on cards and sign them.</summary>
    public bool WorksOnCards => Role is Role.Technician or Role.Lead;
}
