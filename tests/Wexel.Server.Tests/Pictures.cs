using CliWrap;

namespace Wexel.Server.Tests;

/// <summary>Pictures as somebody might give them.</summary>
internal static class Pictures
{
    /// <summary>A test card as a PNG, JPEG or another, as its name's ending says.</summary>
    internal static async Task<byte[]> MadeAsync(int width, int height, string ending = ".png", string source = "testsrc")
    {
        var path = Path.Combine(Directory.CreateTempSubdirectory("wexel-picture-").FullName, "picture" + ending);
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-f", "lavfi", "-i", $"{source}=s={width}x{height}", "-frames:v", "1", path])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(path);
        Directory.Delete(Path.GetDirectoryName(path)!, recursive: true);
        return bytes;
    }
}
