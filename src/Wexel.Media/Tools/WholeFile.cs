namespace Wexel.Media.Tools;

/// <summary>Makes files that are either whole or not there.</summary>
public static class WholeFile
{
    /// <summary>
    /// Lets something write to a temporary name in the same folder, then flushes and renames it; what was half-made is removed.
    /// </summary>
    public static Task MakeAsync(string path, Func<string, Task> write) => MakeAllAsync([path], temporaries => write(temporaries[0]));

    /// <summary>The same for several files that are made at once: all of them are whole before the first is there.</summary>
    public static async Task MakeAllAsync(IReadOnlyList<string> paths, Func<IReadOnlyList<string>, Task> write)
    {
        foreach (var path in paths)
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        // The ending stays last, since tools tell the format by it.
        List<string> temporaries = [.. paths.Select(path => Path.Combine(Path.GetDirectoryName(path)!, $".making-{Guid.NewGuid():N}{Path.GetExtension(path)}"))];
        try
        {
            await write(temporaries);
            foreach (var temporary in temporaries)
            {
                await using var made = new FileStream(temporary, FileMode.Open, FileAccess.ReadWrite);
                made.Flush(flushToDisk: true);
            }

            foreach (var (temporary, path) in temporaries.Zip(paths))
                File.Move(temporary, path, overwrite: true);
        }
        finally
        {
            temporaries.ForEach(File.Delete);
        }
    }
}
