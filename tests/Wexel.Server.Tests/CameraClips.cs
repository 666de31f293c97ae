using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;

namespace Wexel.Server.Tests;

/// <summary>Small recordings of cameras and of the screens that they are laid over.</summary>
internal static class CameraClips
{
    private const string Said =
        "Good morning, and welcome to the ticket desk. Open the list of sailings, and choose the one that leaves next. "
        + "Ask for the name first, then how many they are. When the fare is there, say it aloud, and hold out the reader for the card.";

    /// <summary>A camera’s picture without sound, so many seconds long, with black borders at both sides.</summary>
    internal static Task<byte[]> PictureAsync(int seconds) =>
        ClipAsync(
            "-f",
            "lavfi",
            "-i",
            string.Create(CultureInfo.InvariantCulture, $"testsrc2=s=240x180:r=25:d={seconds},pad=320:180:40:0"),
            "-pix_fmt",
            "yuv420p"
        );

    /// <summary>A screen that stands still, but for something small that moves at the bottom right between 4 and 5 s, and what is said beside it.</summary>
    internal static Task<byte[]> ScreenAsync() =>
        SpokenAsync(
            "color=0x808080:s=640x360:r=30:d=16,drawbox=x='580+20*sin(t*6)':y=310:w=10:h=16:c=white:t=fill:enable='between(t,4,5)'",
            from: 1,
            lasts: 11,
            "anull"
        );

    /// <summary>A camera that started a second before that screen, and hears the same from farther away.</summary>
    internal static Task<byte[]> CameraAsync() =>
        SpokenAsync("testsrc2=s=320x180:r=25:d=16", from: 0, lasts: 12, "volume=0.4,highpass=f=250,aecho=0.8:0.6:23:0.3");

    /// <summary>Brings it in as a recording of a lesson.</summary>
    /// <returns>Its hash.</returns>
    internal static async Task<string> BroughtInAsync(HttpClient trainer, string lesson, byte[] clip, string name = "mara.mp4")
    {
        using var body = new ByteArrayContent(clip) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        var answer = await trainer.PutAsync($"/api/recordings?fileName={name}{(lesson.Length > 0 ? $"&forLesson={lesson}" : "")}", body);
        answer.EnsureSuccessStatusCode();
        var hash = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("hash").GetString()!;
        await trainer.UntilAsync($"/api/recordings/{hash}", r =>
            r.GetProperty("analysis") is { ValueKind: JsonValueKind.Object } a && a.GetProperty("lookedUntil").ValueKind == JsonValueKind.Null
        );
        return hash;
    }

    private static async Task<byte[]> SpokenAsync(string picture, int from, int lasts, string heard)
    {
        var speech = Path.Combine(Path.GetTempPath(), $"wexel-said-{Guid.NewGuid():N}.wav");
        try
        {
            await CliWrap.Cli.Wrap("espeak-ng").WithArguments(["-v", "en-us", "-s", "140", "-w", speech, Said]).ExecuteAsync();
            return await ClipAsync(
                "-f",
                "lavfi",
                "-i",
                picture,
                "-ss",
                from.ToString(CultureInfo.InvariantCulture),
                "-i",
                speech,
                "-af",
                $"{heard},aresample=48000",
                "-t",
                lasts.ToString(CultureInfo.InvariantCulture),
                "-pix_fmt",
                "yuv420p",
                "-c:a",
                "aac"
            );
        }
        finally
        {
            File.Delete(speech);
        }
    }

    private static async Task<byte[]> ClipAsync(params string[] arguments)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-camera-{Guid.NewGuid():N}.mp4");
        await CliWrap.Cli.Wrap("ffmpeg").WithArguments(["-v", "error", .. arguments, clip]).ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(clip, TestContext.Current.CancellationToken);
        File.Delete(clip);
        return bytes;
    }
}
