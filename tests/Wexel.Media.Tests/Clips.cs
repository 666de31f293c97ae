using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Media.Tests;

/// <summary>Makes small clips with plain ffmpeg, each awkward in one way; a folder that goes away after the tests.</summary>
public sealed class Clips : IDisposable
{
    private const string Picture = "testsrc2=s=320x240:r=30:d=3";
    private const string Tone = "sine=f=440:r=48000:d=3";

    public string Folder { get; } = Directory.CreateTempSubdirectory("wexel-clips-").FullName;

    public string Path(string name) => System.IO.Path.Combine(Folder, name);

    public void Dispose() => Directory.Delete(Folder, recursive: true);

    /// <summary>Filters that draw on each frame its own number, as twelve upright bars from the left, white for one and black for nought.</summary>
    public static string OwnNumbers(int barWidth, int height, int first = 0) =>
        string.Join(
            ',',
            Enumerable
                .Range(0, 12)
                .Select(bit => $"drawbox=x={bit * barWidth}:y=0:w={barWidth}:h={height}:c=white:t=fill:enable='mod(floor((n+{first})/{1 << bit}),2)'")
        );

    /// <summary>Runs plain ffmpeg; the last argument is the file's name in the folder, which is given back.</summary>
    public async Task<string> MakeAsync(params string[] arguments)
    {
        var path = Path(arguments[^1]);
        if (!File.Exists(path))
            await Cli.Wrap("ffmpeg").WithArguments(["-v", "error", "-y", .. arguments[..^1], path]).ExecuteBufferedAsync();
        return path;
    }

    /// <summary>A usual clip: 320 × 240, 30 a second, 3 s, stereo with two different sides.</summary>
    public Task<string> UsualAsync(string name = "usual.mp4", params string[] more) =>
        MakeAsync([
            "-f",
            "lavfi",
            "-i",
            Picture,
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.3*sin(2*PI*440*t)|0.3*sin(2*PI*660*t):s=48000:d=3",
            "-pix_fmt",
            "yuv420p",
            .. more,
            name,
        ]);

    /// <summary>A clip with another picture, made by a lavfi source, and a tone.</summary>
    public Task<string> PictureAsync(string source, string name, params string[] more) =>
        MakeAsync(["-f", "lavfi", "-i", source, "-f", "lavfi", "-i", Tone, .. more, "-shortest", name]);

    /// <summary>A quiet screen: one page that changes at 4 s and stands still otherwise, 8 s, no sound, lossless.</summary>
    public Task<string> QuietAsync() =>
        MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "color=c=white:s=640x480:r=30:d=8,drawbox=x=100:y=100:w=80:h=40:c=navy:t=fill:enable='gte(t,4)'",
            "-c:v",
            "libx264",
            "-preset",
            "ultrafast",
            "-qp",
            "0",
            "-pix_fmt",
            "yuv420p",
            "quiet.mkv"
        );
}
