namespace Anakyklos.Core.Ids;

/// <summary>A step of a sheet or of a card.</summary>
public readonly struct AStep;

/// <summary>A job of a sheet.</summary>
public readonly struct AJob;

/// <summary>A fluid system of a sheet.</summary>
public readonly struct AFluid;

/// <summary>A part of a sheet.</summary>
public readonly struct APart;

/// <summary>A fastener of a sheet.</summary>
public readonly struct AFastener;

/// <summary>What is opened or set to reach something else.</summary>
public readonly struct AnAccess;

/// <summary>An indicator reset of a sheet.</summary>
public readonly struct AReset;

/// <summary>An interval of a sheet.</summary>
public readonly struct AnInterval;

/// <summary>A model sheet, whatever its revision.</summary>
public readonly struct ASheet;

/// <summary>A person of the workshop.</summary>
public readonly struct APerson;

/// <summary>A device that measures, by what is painted on it.</summary>
public readonly struct ADevice;

/// <summary>A lesson of the practice bay.</summary>
public readonly struct ALesson;
