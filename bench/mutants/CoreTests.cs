using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Wexel.Mutants;

/// <summary>The Core tests over the faulty Core. Only classes that meet a fault are run for it.</summary>
internal sealed class CoreTests(string home, string folder, IReadOnlyDictionary<string, (HashSet<int> Met, TimeSpan Took)> classes)
{
    private static readonly TimeSpan AtLeast = TimeSpan.FromSeconds(30);

    /// <summary>Sees which test class meets which faults.</summary>
    /// <param name="home">The project's folder; the tests are built.</param>
    /// <param name="folder">Where a copy of them goes.</param>
    /// <param name="assembly">The faulty Core.</param>
    internal static async Task<CoreTests> PrepareAsync(string home, string folder, string assembly)
    {
        var built = Path.Combine(home, "tests", "Wexel.Core.Tests", "bin", "Release", "net10.0");
        foreach (var file in Directory.EnumerateFiles(built, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(folder, Path.GetRelativePath(built, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to, overwrite: true);
        }

        File.Copy(assembly, Path.Combine(folder, "Wexel.Core.dll"), overwrite: true);
        var (_, listed) = await RunAsync(folder, home, ["-list", "classes", "-noLogo"], null, null, TimeSpan.FromMinutes(1), CancellationToken.None);
        var names = listed.Split('\n', StringSplitOptions.TrimEntries).Where(l => l.StartsWith("Wexel.", StringComparison.Ordinal)).ToList();
        if (names.Count == 0)
            throw new InvalidOperationException("There are no tests: " + listed);
        var classes = new ConcurrentDictionary<string, (HashSet<int>, TimeSpan)>();
        await Parallel.ForEachAsync(names, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, async (name, cancel) =>
        {
            var (met, begun) = (Path.Combine(folder, name + ".met"), Stopwatch.StartNew());
            var (passed, said) = await RunAsync(folder, home, ["-class", name], null, met, TimeSpan.FromMinutes(5), cancel);
            if (!passed)
                throw new InvalidOperationException($"{name} fails without any fault: {said}");
            classes[name] = (File.Exists(met) ? [.. File.ReadLines(met).Select(l => int.Parse(l, CultureInfo.InvariantCulture))] : [], begun.Elapsed);
        });
        return new CoreTests(home, folder, classes);
    }

    /// <summary>Whether a test fails with a fault, or does not come to its end.</summary>
    internal async Task<bool> CatchAsync(Fault fault, CancellationToken cancel)
    {
        var meet = classes.Where(c => c.Value.Met.Contains(fault.Id)).OrderBy(c => c.Value.Took).ToList();
        // Those of the same folder are asked first: they know most of it, and the others are many.
        var own = "." + Path.GetDirectoryName(fault.File)!.Replace('/', '.') + ".";
        foreach (var some in meet.GroupBy(c => c.Key.Contains(own, StringComparison.Ordinal)).OrderByDescending(g => g.Key))
        {
            var time = AtLeast + TimeSpan.FromTicks(some.Sum(c => c.Value.Took.Ticks) * 4);
            var (passed, _) = await RunAsync(folder, home, [.. some.SelectMany(c => new[] { "-class", c.Key }), "-stopOnFail"], fault.Id, null, time, cancel);
            if (!passed)
                return true;
        }

        return false;
    }

    private static async Task<(bool Passed, string Said)> RunAsync(
        string folder,
        string home,
        IEnumerable<string> arguments,
        int? fault,
        string? met,
        TimeSpan most,
        CancellationToken cancel
    )
    {
        var start = new ProcessStartInfo(Path.Combine(folder, "Wexel.Core.Tests"), [.. arguments, "-noColor", "-maxThreads", "1"])
        {
            WorkingDirectory = folder,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.Environment["WEXEL_HOME"] = home;
        if (fault is { } id)
            start.Environment["MUTANT"] = id.ToString(CultureInfo.InvariantCulture);
        if (met is not null)
            start.Environment["MUTANTS_MET"] = met;
        using var process = Process.Start(start)!;
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limit.CancelAfter(most);
        _ = process.StandardError.ReadToEndAsync(cancel);
        try
        {
            var said = await process.StandardOutput.ReadToEndAsync(limit.Token);
            await process.WaitForExitAsync(limit.Token);
            return (process.ExitCode == 0, said);
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            process.Kill(entireProcessTree: true);
            return (false, "It does not come to its end.");
        }
    }
}
