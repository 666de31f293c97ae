namespace Wexel.Mutants;

/// <summary>Faults that mean the same as what stands there, so that no test can catch them.</summary>
internal static class SameFaults
{
    /// <summary>Reads the list: a fault a line, with the reason in the line before, behind "#".</summary>
    internal static IReadOnlyList<string> Read(string path) => [.. File.ReadLines(path).Where(line => line.Length > 0 && !line.StartsWith('#'))];
}
