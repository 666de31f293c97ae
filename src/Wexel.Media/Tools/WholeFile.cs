namespace Wexel.Media.Tools;

/// <summary>Makes files that are either whole or not there.</summary>
public static class WholeFile
{
    /// <summary>
    /// Lets something write to a temporary name in the same folder, then flushes and renames it; what was half-made is removed.
    /// </summary>
    public static async Task MakeAsync(string path, Func<string, Task> write)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        // The ending stays last, since tools tell the format by it.
        var temporary = Path.Combine(Path.GetDirectoryName(path)!, $".making-{Guid.NewGuid():N}{Path.GetExtension(path)}");
        try
        {
            await write(temporary);
            await using (var made = new FileStream(temporary, FileMode.Open, FileAccess.ReadWrite))
                made.Flush(flushToDisk: true);
            File.Move(temporary, path, overwrite: true);
        }
        finally
        {
            File.Delete(temporary);
        }
    }
}
