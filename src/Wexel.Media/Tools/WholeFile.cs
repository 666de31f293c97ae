namespace Wexel.Media.Tools;

/// <summary>Makes files that are either whole or not there.</summary>
public static class WholeFile
{
    /// <summary>
    /// Lets something write to a temporary name in the same folder, then flushes and renames it, once what was written is seen to be whole; what was
    /// half-made is removed.
    /// </summary>
    /// <exception cref="ToolFailedException">What was written is not whole.</exception>
    public static Task MakeAsync(string path, Func<string, Task> write) => MakeAllAsync([path], temporaries => write(temporaries[0]));

    /// <summary>The same for several files that are made at once: all of them are whole before the first is there.</summary>
    /// <exception cref="ToolFailedException">One of them is not whole.</exception>
    public static async Task MakeAllAsync(IReadOnlyList<string> paths, Func<IReadOnlyList<string>, Task> write)
    {
        foreach (var path in paths)
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        List<string> temporaries = [.. paths.Select(HalfMade.Beside)];
        try
        {
            await write(temporaries);
            foreach (var (temporary, path) in temporaries.Zip(paths))
                Settle(temporary, Path.GetFileName(path));
            foreach (var (temporary, path) in temporaries.Zip(paths))
                File.Move(temporary, path, overwrite: true);
        }
        finally
        {
            temporaries.ForEach(File.Delete);
        }
    }

    /// <summary>Puts on disk what was written, and looks whether it is whole.</summary>
    /// <exception cref="ToolFailedException">It is not.</exception>
    internal static void Settle(string written, string name)
    {
        using (var file = new FileStream(written, FileMode.Open, FileAccess.ReadWrite))
            file.Flush(flushToDisk: true);
        if (!Wholeness.IsWhole(written))
            throw new ToolFailedException("ffmpeg", $"{name} {ToolFailedException.NotWhole}.");
    }
}
