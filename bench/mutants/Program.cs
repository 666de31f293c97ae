using System.Globalization;
using Wexel.Mutants;

// Puts small faults into Core, one at a time, and sees whether the Core tests catch them.
//   Wexel.Mutants HOME WORK [WHICH [SEED]]
// WHICH is how many of them are chosen at random, or a folder or file of Core such as "Placing/"; all without.
// Prints every fault that was not caught, and ends with a line "caught|of".
var (home, work) = (Path.GetFullPath(args[0]), Path.GetFullPath(args[1]));
var seed = args.Length > 3 ? int.Parse(args[3], CultureInfo.InvariantCulture) : Environment.TickCount & 0xFFFF;

var (project, faults) = await FaultyProject.MakeAsync(home, Path.Combine(work, "core"));
var same = SameFaults.Read(Path.Combine(home, "bench", "mutants", "same.txt"));
if (same.FirstOrDefault(line => !faults.Any(f => f.Names(line))) is { } gone)
{
    Console.Error.WriteLine($"same.txt names a fault that cannot be made any more: {gone}");
    return 1;
}

await File.WriteAllLinesAsync(Path.Combine(work, "faults.txt"), faults.Select(f => $"{f.Id} {f}"));
var tests = await CoreTests.PrepareAsync(home, Path.Combine(work, "tests"), project);
var tried = faults.Where(f => !same.Any(f.Names)).ToList();
if (args.Length > 2)
    tried = int.TryParse(args[2], CultureInfo.InvariantCulture, out var many)
        ? [.. Chosen(tried, many, new Random(seed))]
        : tried.FindAll(f => f.File.StartsWith(args[2], StringComparison.Ordinal));
Console.Error.WriteLine($"{faults.Count} faults can be made, {same.Count} of them mean the same; {tried.Count} are tried, seed {seed}.");

var (caught, done) = (0, 0);
await Parallel.ForEachAsync(tried, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, async (fault, cancel) =>
{
    if (await tests.CatchAsync(fault, cancel))
        Interlocked.Increment(ref caught);
    else
        Console.WriteLine($"{fault}");
    if (Interlocked.Increment(ref done) % 50 == 0)
        Console.Error.WriteLine($"{done} of {tried.Count}, {caught} caught");
});
Console.WriteLine($"{caught}|{tried.Count}");
return 0;

static IEnumerable<Fault> Chosen(IReadOnlyList<Fault> all, int many, Random random)
{
    var shuffled = all.ToArray();
    random.Shuffle(shuffled);
    return shuffled.Take(many);
}
