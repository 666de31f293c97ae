namespace Wexel.Media.Tools;

/// <summary>Makes folders that are either whole or not there.</summary>
public static class WholeFolder
{
    /// <summary>
    /// Lets something fill a folder of a temporary name beside, then flushes its files and renames it, once each is seen to be whole; what was
    /// half-made is removed.
    /// </summary>
    /// <exception cref="ToolFailedException">One of the files is not whole.</exception>
    public static async Task MakeAsync(string path, Func<string, Task> fill)
    {
        var temporary = HalfMade.Beside(path);
        Directory.CreateDirectory(temporary);
        try
        {
            await fill(temporary);
            foreach (var file in Directory.EnumerateFiles(temporary, "*", SearchOption.AllDirectories))
                WholeFile.Settle(file, Path.GetRelativePath(temporary, file));
            Directory.Move(temporary, path);
        }
        catch (IOException) when (Directory.Exists(path))
        {
            // Whoever made the same at the same time was quicker; what is made of the same things is the same.
        }
        finally
        {
            if (Directory.Exists(temporary))
                Directory.Delete(temporary, recursive: true);
        }
    }
}
