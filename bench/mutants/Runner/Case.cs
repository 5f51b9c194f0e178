using System.Collections;
using System.Reflection;

namespace Anakyklos.Mutants;

/// <summary>One case of a test class: a fact, or one row of a theory. It runs in this process and costs what it does, no more.</summary>
internal sealed record Case(Type Class, MethodInfo Method, object?[] Row, int Index)
{
    /// <summary>Name that stays the same between two runs of one build.</summary>
    internal string Name => $"{Class.Name}.{Method.Name}#{Index}";

    /// <summary>All cases of an assembly whose class names are asked for.</summary>
    internal static List<Case> Of(Assembly tests, Func<string, bool> wanted) =>
    [
        .. from type in tests.GetExportedTypes()
           where !type.IsAbstract && wanted(type.Name)
           from method in type.GetMethods(BindingFlags.Public | BindingFlags.Instance | BindingFlags.DeclaredOnly)
           from known in Rows(method).Select((row, index) => new Case(type, method, row, index))
           select known,
    ];

    /// <summary>Runs it once. Returns null when it passes, or what it said when it does not.</summary>
    internal string? Run()
    {
        try
        {
            var room = Activator.CreateInstance(Class);
            try
            {
                var result = Method.Invoke(room, Row);
                (result as Task)?.GetAwaiter().GetResult();
            }
            finally
            {
                (room as IDisposable)?.Dispose();
            }
            return null;
        }
        catch (TargetInvocationException wrapped)
        {
            return wrapped.InnerException?.Message ?? "failed";
        }
        catch (Exception other)
        {
            return other.Message;
        }
    }

    // The frame of the tests is known by the names of its attributes only: either version of it will do.
    private static IEnumerable<object?[]> Rows(MethodInfo method)
    {
        var attributes = method.GetCustomAttributes().ToList();
        if (attributes.Any(attribute => attribute.GetType().Name == "FactAttribute"))
        {
            return [[]];
        }
        if (!attributes.Any(attribute => attribute.GetType().Name == "TheoryAttribute"))
        {
            return [];
        }
        return attributes.Where(attribute => IsRows(attribute.GetType()))
            .SelectMany(attribute => Rows(attribute, method))
            .Select(row => Fitted(row, method));
    }

    private static bool IsRows(Type? type) => type is not null && (type.Name == "DataAttribute" || IsRows(type.BaseType));

    private static IEnumerable<object?[]> Rows(Attribute attribute, MethodInfo method)
    {
        var rows = (IEnumerable)attribute.GetType().GetMethod("GetData", [typeof(MethodInfo)])!.Invoke(attribute, [method])!;
        return rows.Cast<object?[]?>().Select(row => row ?? [null]);
    }

    private static object?[] Fitted(object?[] row, MethodInfo method) =>
    [
        .. method.GetParameters().Select((parameter, index) =>
            index >= row.Length ? parameter.DefaultValue : Fitted(row[index], parameter.ParameterType)),
    ];

    private static object? Fitted(object? value, Type type)
    {
        type = Nullable.GetUnderlyingType(type) ?? type;
        return value is IConvertible && value.GetType() != type && typeof(IConvertible).IsAssignableFrom(type) && !type.IsEnum
            ? Convert.ChangeType(value, type, System.Globalization.CultureInfo.InvariantCulture)
            : value;
    }
}
