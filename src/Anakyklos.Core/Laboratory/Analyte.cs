namespace Anakyklos.Core.Laboratory;

/// <summary>What a laboratory measures in an oil. The words are on disk and stay.</summary>
public enum Analyte
{
    /// <summary>Iron, mg/kg: cylinders, gears, shafts.</summary>
    Iron,

    /// <summary>Copper, mg/kg: bearings, bushes.</summary>
    Copper,

    /// <summary>Aluminium, mg/kg: pistons, housings.</summary>
    Aluminium,

    /// <summary>Lead, mg/kg: bearings.</summary>
    Lead,

    /// <summary>Chromium, mg/kg: piston rings.</summary>
    Chromium,

    /// <summary>Tin, mg/kg: bearings.</summary>
    Tin,

    /// <summary>Silicon, mg/kg: dust.</summary>
    Silicon,

    /// <summary>Sodium, mg/kg: coolant, road salt.</summary>
    Sodium,

    /// <summary>Water, percent by mass.</summary>
    Water,

    /// <summary>Fuel, percent by mass.</summary>
    Fuel,

    /// <summary>Soot, percent by mass.</summary>
    Soot,

    /// <summary>Kinematic viscosity at 100 °C, mm²/s.</summary>
    Viscosity,
}
