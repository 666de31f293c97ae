using Mono.Cecil;
using Mono.Cecil.Cil;

namespace Wexel.Server.Tests.Architecture;

/// <summary>Which folders of a project use which, read from what was compiled.</summary>
internal static class Arrows
{
    /// <summary>Every pair of folders of which the first uses the second. What lies at the project's top is not counted.</summary>
    /// <param name="project">The project's name, which is that of its assembly and of its namespace.</param>
    internal static ILookup<string, string> Within(string project)
    {
        using var assembly = AssemblyDefinition.ReadAssembly(Path.Combine(AppContext.BaseDirectory, project + ".dll"));
        return assembly
            .MainModule.GetTypes()
            .SelectMany(type => Used(type).Select(used => (From: Folder(type, project), To: Folder(used, project))))
            .Where(arrow => arrow.From is not null && arrow.To is not null && arrow.From != arrow.To)
            .Distinct()
            .ToLookup(arrow => arrow.From!, arrow => arrow.To!);
    }

    /// <summary>Every method that a project's code calls, as its type's name and its own.</summary>
    internal static IReadOnlyList<string> Calls(string project)
    {
        using var assembly = AssemblyDefinition.ReadAssembly(Path.Combine(AppContext.BaseDirectory, project + ".dll"));
        return
        [
            .. assembly
                .MainModule.GetTypes()
                .SelectMany(t => t.Methods)
                .Where(m => m.HasBody)
                .SelectMany(m => m.Body.Instructions)
                .Select(i => i.Operand)
                .OfType<MethodReference>()
                .Select(m => $"{m.DeclaringType.FullName}.{m.Name}")
                .Distinct(),
        ];
    }

    /// <summary>Every method called "Of" or "OfAsync" that does not make its own type.</summary>
    internal static IReadOnlyList<string> MakersOfOthers(string project)
    {
        using var assembly = AssemblyDefinition.ReadAssembly(Path.Combine(AppContext.BaseDirectory, project + ".dll"));
        return
        [
            .. assembly
                .MainModule.GetTypes()
                .SelectMany(type =>
                    type.Methods.Where(m => m.Name is "Of" or "OfAsync").Where(m => !Parts(m.ReturnType).Any(t => t?.FullName == type.FullName))
                )
                .Select(m => $"{m.DeclaringType.FullName}.{m.Name}"),
        ];
    }

    private static string? Folder(TypeReference type, string project)
    {
        while (type.DeclaringType is { } outer)
            type = outer;
        return type.Namespace.StartsWith(project + ".", StringComparison.Ordinal) ? type.Namespace[(project.Length + 1)..].Split('.')[0] : null;
    }

    private static IEnumerable<TypeReference> Used(TypeDefinition type)
    {
        List<TypeReference?> used =
        [
            type.BaseType,
            .. type.Interfaces.Select(i => i.InterfaceType),
            .. type.Fields.Select(f => f.FieldType),
            .. type.CustomAttributes.Select(a => a.AttributeType),
            .. type.GenericParameters.SelectMany(g => g.Constraints).Select(c => c.ConstraintType),
        ];
        foreach (var method in type.Methods)
        {
            used.Add(method.ReturnType);
            used.AddRange(method.Parameters.Select(p => p.ParameterType));
            if (!method.HasBody)
                continue;
            used.AddRange(method.Body.Variables.Select(v => v.VariableType));
            used.AddRange(method.Body.Instructions.SelectMany(Used));
        }

        return used.OfType<TypeReference>().SelectMany(Parts);
    }

    private static IEnumerable<TypeReference?> Used(Instruction instruction) =>
        instruction.Operand switch
        {
            TypeReference type => [type],
            FieldReference field => [field.DeclaringType, field.FieldType],
            GenericInstanceMethod method =>
            [
                method.DeclaringType,
                method.ReturnType,
                .. method.Parameters.Select(p => p.ParameterType),
                .. method.GenericArguments,
            ],
            MethodReference method => [method.DeclaringType, method.ReturnType, .. method.Parameters.Select(p => p.ParameterType)],
            _ => [],
        };

    /// <summary>A type and what stands between its angle brackets.</summary>
    private static IEnumerable<TypeReference> Parts(TypeReference type) =>
        type switch
        {
            GenericInstanceType generic => generic.GenericArguments.SelectMany(Parts).Prepend(generic.ElementType),
            TypeSpecification { ElementType: { } element } => Parts(element),
            _ => [type],
        };
}
