using CliWrap;

namespace Wexel.Server.Tests;

/// <summary>Pictures and films as somebody might give them.</summary>
internal static class Pictures
{
    /// <summary>A test card as a PNG, JPEG, film or another, as its name's ending says.</summary>
    internal static async Task<byte[]> MadeAsync(int width, int height, string ending = ".png", string source = "testsrc")
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("wexel-picture-").FullName, "picture" + ending);
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-f",
                "lavfi",
                "-i",
                $"{source}{(source.Contains('=', StringComparison.Ordinal) ? ":" : "=")}s={width}x{height}",
                .. ending == ".mp4" ? [] : new[] { "-frames:v", "1" },
                path,
            ])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(path);
        Directory.Delete(Path.GetDirectoryName(path)!, recursive: true);
        return bytes;
    }
}
