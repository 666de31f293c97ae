using System.Globalization;
using System.Text.RegularExpressions;
using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Media.Tests;

/// <summary>ffmpeg as anybody runs it: its filters are a reference that is not Wexel's.</summary>
internal static class PlainFfmpeg
{
    /// <summary>Runs it and gives back all that it said.</summary>
    internal static async Task<string> SaidAsync(IEnumerable<string> arguments, CancellationToken cancel) =>
        (await Cli.Wrap("ffmpeg").WithArguments(["-hide_banner", "-nostdin", "-nostats", "-y", .. arguments]).ExecuteBufferedAsync(cancel)).StandardError;

    /// <summary>A picture's first frame in grey.</summary>
    internal static Task<byte[]> GreyAsync(string path, CancellationToken cancel) => RawAsync(path, "format=gray", cancel);

    /// <summary>A BT.709 picture's first frame in red, green and blue.</summary>
    internal static Task<byte[]> RgbAsync(string path, CancellationToken cancel) =>
        RawAsync(path, "scale=in_color_matrix=bt709:in_range=tv:flags=accurate_rnd+full_chroma_int,format=rgb24", cancel);

    /// <summary>The structural similarity of two pictures, of the frame that is least like the other's; both brought to a rate.</summary>
    internal static async Task<double> LeastSsimAsync(string a, string b, string rate, CancellationToken cancel)
    {
        var each = await Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-nostdin",
                "-i",
                a,
                "-i",
                b,
                "-lavfi",
                $"[0:v]fps={rate}:start_time=0[a];[1:v]fps={rate}:start_time=0[b];[a][b]ssim=stats_file=-",
                "-f",
                "null",
                "-",
            ])
            .ExecuteBufferedAsync(cancel);
        return Regex.Matches(each.StandardOutput, "Y:([0-9.]+)").Min(m => double.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture));
    }

    private static async Task<byte[]> RawAsync(string path, string filters, CancellationToken cancel)
    {
        var raw = new MemoryStream();
        await Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-nostdin", "-i", path, "-frames:v", "1", "-vf", filters, "-f", "rawvideo", "-"])
            .WithStandardOutputPipe(PipeTarget.ToStream(raw))
            .ExecuteAsync(cancel);
        return raw.ToArray();
    }
}
