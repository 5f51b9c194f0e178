using System.Reflection;

namespace Anakyklos.Mutants;

/// <summary>The switch inside a bent assembly: which one of its bends holds, and which of them were passed.</summary>
internal sealed class Bent
{
    private readonly FieldInfo _active;
    private readonly FieldInfo _capture;
    private readonly MethodInfo _begin;
    private readonly MethodInfo _passed;

    private Bent(Type control)
    {
        _active = control.GetField("ActiveMutant", BindingFlags.Public | BindingFlags.Static)!;
        _capture = control.GetField("CaptureCoverage", BindingFlags.Public | BindingFlags.Static)!;
        _begin = control.GetMethod("InitCoverage", BindingFlags.Public | BindingFlags.Static)!;
        _passed = control.GetMethod("GetCoverageData", BindingFlags.Public | BindingFlags.Static)!;
    }

    /// <summary>The switch of an assembly, or null when it has none: then it was not bent.</summary>
    internal static Bent? In(Assembly core) =>
        core.GetTypes().FirstOrDefault(type => type.Name == "MutantControl") is { } control ? new Bent(control) : null;

    /// <summary>Lets one bend hold, and no other.</summary>
    internal void Hold(int mutant) => _active.SetValue(null, mutant);

    /// <summary>Lets none hold: the rules are as they were written.</summary>
    internal void HoldNone() => _active.SetValue(null, -1);

    /// <summary>Which bends an action passes: every time, and only while a type is loaded.</summary>
    internal (HashSet<int> Always, HashSet<int> AtLoad) PassedBy(Action action)
    {
        HoldNone();
        _begin.Invoke(null, null);
        _capture.SetValue(null, true);
        try
        {
            action();
        }
        finally
        {
            _capture.SetValue(null, false);
        }
        var passed = (IList<int>[])_passed.Invoke(null, null)!;
        return ([.. passed[0]], [.. passed[1]]);
    }
}
