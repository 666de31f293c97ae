using System.Diagnostics;
using System.Text.Json.Nodes;

namespace Wexel.StandIns.Video.Studio;

/// <summary>What Skerry finds in a file.</summary>
internal sealed record Probe(double Seconds, int Width, int Height)
{
    /// <summary>Looks at a file; null where it is no video.</summary>
    internal static async Task<Probe?> ReadAsync(string file)
    {
        var start = new ProcessStartInfo("ffprobe") { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in new[] { "-v", "error", "-select_streams", "v:0", "-show_entries", "stream=width,height:format=duration", "-of", "json", file })
            start.ArgumentList.Add(argument);
        using var process = Process.Start(start)!;
        var errors = process.StandardError.ReadToEndAsync();
        var text = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        await errors;
        var found = process.ExitCode == 0 ? JsonNode.Parse(text) : null;
        return
            found?["streams"]?[0] is { } picture
            && double.TryParse((string?)found["format"]?["duration"], System.Globalization.CultureInfo.InvariantCulture, out var seconds)
            ? new Probe(seconds, (int)picture["width"]!, (int)picture["height"]!)
            : null;
    }
}
