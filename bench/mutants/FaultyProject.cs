using System.Diagnostics;
using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Wexel.Mutants;

/// <summary>A copy of Core that has all faults in it, each behind a switch.</summary>
internal static partial class FaultyProject
{
    /// <summary>Whatever does not compile is left out, and so on until all does.</summary>
    private const int Rounds = 30;

    /// <summary>Which fault is on is said by the environment, once for a process; which were met can be written down.</summary>
    private const string Mutant = """
        namespace Wexel.Core;

        internal static class Mutant
        {
            private static readonly int On = int.Parse(System.Environment.GetEnvironmentVariable("MUTANT") ?? "-1");
            private static readonly string? Path = System.Environment.GetEnvironmentVariable("MUTANTS_MET");
            private static readonly bool[]? Met = Start();

            private static bool[]? Start()
            {
                if (Path is null) return null;
                System.AppDomain.CurrentDomain.ProcessExit += (_, _) => System.IO.File.WriteAllLines(Path, Indices());
                return new bool[1 << 16];
            }

            private static System.Collections.Generic.IEnumerable<string> Indices()
            {
                for (var i = 0; i < Met!.Length; i++) if (Met[i]) yield return i.ToString();
            }

            internal static bool Is(int id)
            {
                if (Met is not null) Met[id] = true;
                return id == On;
            }
        }
        """;

    /// <summary>Makes and builds it.</summary>
    /// <param name="home">The project's folder.</param>
    /// <param name="folder">Where the copy goes.</param>
    /// <returns>The assembly, and the faults that are in it.</returns>
    internal static async Task<(string Assembly, IReadOnlyList<Fault> Faults)> MakeAsync(string home, string folder)
    {
        var core = Path.Combine(home, "src", "Wexel.Core");
        var into = Path.Combine(folder, "src", "Wexel.Core");
        Directory.CreateDirectory(into);
        foreach (var file in new[] { "Directory.Build.props", "Directory.Packages.props", "global.json" })
            File.Copy(Path.Combine(home, file), Path.Combine(folder, file), overwrite: true);
        var sources = new Dictionary<string, SyntaxTree>();
        foreach (var path in Directory.EnumerateFiles(core, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
        {
            var name = Path.GetRelativePath(core, path).Replace('\\', '/');
            if (name.StartsWith("bin/", StringComparison.Ordinal) || name.StartsWith("obj/", StringComparison.Ordinal))
                continue;
            Directory.CreateDirectory(Path.GetDirectoryName(Path.Combine(into, name))!);
            if (name.EndsWith(".cs", StringComparison.Ordinal))
                sources[name] = CSharpSyntaxTree.ParseText(await File.ReadAllTextAsync(path), new CSharpParseOptions(LanguageVersion.Latest));
            else
                File.Copy(path, Path.Combine(into, name), overwrite: true);
        }

        await File.WriteAllTextAsync(Path.Combine(into, "Mutant.cs"), Mutant);
        var dropped = new HashSet<int>();
        for (var round = 0; round < Rounds; round++)
        {
            var (faults, texts) = (new List<Fault>(), new Dictionary<string, string>());
            var next = 0;
            foreach (var (name, tree) in sources)
            {
                var rewriter = new Faults(name, next, dropped);
                texts[name] = rewriter.Visit(await tree.GetRootAsync()).ToFullString();
                await File.WriteAllTextAsync(Path.Combine(into, name), texts[name]);
                faults.AddRange(rewriter.Found);
                next = rewriter.Next;
            }

            var errors = await BuildAsync(into);
            if (errors.Count == 0)
                return (Path.Combine(into, "bin", "Release", "net10.0", "Wexel.Core.dll"), faults);
            var before = dropped.Count;
            foreach (var (name, at) in errors)
                dropped.UnionWith(ToDrop(texts[name], at));
            Console.Error.WriteLine($"{errors.Count} places do not compile; {dropped.Count} of {next} faults are left out.");
            if (dropped.Count == before)
                throw new InvalidOperationException($"Core does not compile, at {errors[0]}, and no fault is the reason.");
        }

        throw new InvalidOperationException("Core with faults does not come to compile.");
    }

    private static async Task<IReadOnlyList<(string File, (int Line, int Column) At)>> BuildAsync(string folder)
    {
        var start = new ProcessStartInfo(
            "dotnet",
            ["build", "-c", "Release", "--tl:off", "-v", "quiet", "-p:RunAnalyzers=false", "-p:TreatWarningsAsErrors=false"]
        )
        {
            WorkingDirectory = folder,
            RedirectStandardOutput = true,
        };
        using var build = Process.Start(start)!;
        var said = await build.StandardOutput.ReadToEndAsync();
        await build.WaitForExitAsync();
        List<(string, (int, int))> errors =
        [
            .. ErrorLine()
                .Matches(said)
                .Select(m =>
                    (
                        Path.GetRelativePath(folder, m.Groups[1].Value).Replace('\\', '/'),
                        (int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture), int.Parse(m.Groups[3].Value, CultureInfo.InvariantCulture))
                    )
                )
                .Distinct(),
        ];
        return build.ExitCode == 0 || errors.Count > 0 ? errors : throw new InvalidOperationException("Core cannot be built: " + said);
    }

    /// <summary>The fault around an error; where there is none, all of the smallest piece of code around it that has any.</summary>
    private static List<int> ToDrop(string text, (int Line, int Column) at)
    {
        var tree = CSharpSyntaxTree.ParseText(text, new CSharpParseOptions(LanguageVersion.Latest));
        var position = tree.GetText().Lines[at.Line - 1].Start + at.Column - 1;
        var node = tree.GetRoot().FindToken(position).Parent!;
        if (node.AncestorsAndSelf().OfType<ConditionalExpressionSyntax>().Select(c => Number(c.Condition)).FirstOrDefault(n => n is not null) is { } inner)
            return [inner];
        return node.AncestorsAndSelf()
            .Where(n => n is StatementSyntax or MemberDeclarationSyntax)
            .Select(n => n.DescendantNodes().OfType<InvocationExpressionSyntax>().Select(Number).OfType<int>().ToList())
            .First(numbers => numbers.Count > 0);
    }

    private static int? Number(ExpressionSyntax node) =>
        node is InvocationExpressionSyntax { ArgumentList.Arguments: [{ Expression: LiteralExpressionSyntax { Token.Value: int number } }] } call
        && call.Expression.ToString() == Faults.Switch
            ? number
            : null;

    [GeneratedRegex(@"^\s*(.+\.cs)\((\d+),(\d+)\): error CS", RegexOptions.Multiline)]
    private static partial Regex ErrorLine();
}
