using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Laboratory;

/// <summary>A sample that was taken of an oil, as the laboratory is told of it.</summary>
/// <param name="Code">What stands on its label.</param>
/// <param name="Plate">The vehicle.</param>
/// <param name="Model">Its model's name.</param>
/// <param name="Fluid">The fluid, by id.</param>
/// <param name="FluidName">Its name.</param>
/// <param name="Grades">The grades that the model asks for.</param>
/// <param name="Card">The card on which it was taken.</param>
/// <param name="TakenAt">When.</param>
/// <param name="Odometer">Where the vehicle stood.</param>
/// <param name="OnOil">How far it ran on that oil; null where nobody knows.</param>
public sealed record OilSample(string Code, string Plate, string Model, FluidId Fluid, string FluidName, IReadOnlyList<string> Grades,
    CardNumber Card, DateTimeOffset TakenAt, Quantity<Distance> Odometer, Quantity<Distance>? OnOil);

/// <summary>What a laboratory answered.</summary>
/// <param name="Code">The code of the sample.</param>
/// <param name="Day">The day of the report.</param>
/// <param name="Values">What was measured, each from 0, in the unit of its <see cref="Analyte"/>.</param>
/// <param name="Remark">In the laboratory's own words, or empty.</param>
public sealed record OilResult(string Code, DateOnly Day, IReadOnlyDictionary<Analyte, decimal> Values, string Remark = "");

/// <summary>An earlier result of the same fluid of the same vehicle.</summary>
/// <param name="Result">The result.</param>
/// <param name="OnOil">How far it ran on that oil; null where nobody knows.</param>
public sealed record ResultBefore(OilResult Result, Quantity<Distance>? OnOil);
