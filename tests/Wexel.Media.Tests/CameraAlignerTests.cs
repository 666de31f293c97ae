using System.Globalization;
using CliWrap;
using Wexel.Core.Cameras;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;

namespace Wexel.Media.Tests;

/// <summary>
/// A camera is found to start where it was made to start. The sound is speech by espeak-ng; the camera's is what a second microphone in a
/// room would have of it: quieter, without deep tones, with echoes and noise of its own.
/// </summary>
public sealed class CameraAlignerTests(Clips clips) : IClassFixture<Clips>
{
    private const string Said = """
        Good morning, and welcome to the ticket desk. Today we look at how a foot passenger is booked on the first crossing to Tern Island.
        Open the desk, and wait until the list of sailings is there. The one that leaves next stands at the top. It is green while there is room.
        Press on it once. The sheet comes up at the right hand side, with the name, the fare and the number of people.
        Ask for the name first. People say it quickly, so read it back to them. Then ask how many they are, and whether a child is among them.
        A child under five travels free, but needs a ticket all the same. Under sixteen it is half the fare. You need not reckon it yourself.
        When the fare is there, say it aloud. Take the money, or hold out the reader for the card. The printer starts by itself.
        If the weather is bad, the captain may close the crossing. Then the line turns grey, and nothing can be sold for it any more.
        Whoever has a ticket gets their money back, or a place on the next one. Which of the two they take is up to them.
        At the end of the day, count what lies in the drawer. Write down the sum, press close the desk, and put the key where it belongs.
        That was all for today. In the next lesson we load the cars, from the longest to the shortest, and leave the lane by the door free.
        """;

    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    /// <summary>A frame at 30 a second.</summary>
    private static readonly TimeSpan Frame = TimeSpan.FromSeconds(1.0 / 30);

    /// <summary>Ten clips: from where in the speech the screen and the camera recorded, how long, and how much faster the camera's clock ran, in
    /// millionths.</summary>
    [Theory]
    [InlineData(5.000, 2.500, 40, 40, 0)]
    [InlineData(2.500, 5.000, 40, 40, 0)]
    [InlineData(0.000, 0.013, 30, 30, 0)]
    [InlineData(10.00, 0.000, 30, 60, 0)]
    [InlineData(0.000, 20.00, 60, 15, 0)]
    [InlineData(0.000, 31.37, 60, 25, 0)]
    [InlineData(3.217, 1.111, 55, 55, 1000)]
    [InlineData(1.111, 3.217, 55, 55, -1000)]
    [InlineData(7.900, 7.900, 12, 12, 0)]
    [InlineData(12.34, 4.321, 20, 45, 300)]
    public async Task Where_a_camera_starts_is_found_within_a_frame(double screenFrom, double cameraFrom, double screenLasts, double cameraLasts, double drift)
    {
        var found = await FindAsync(screenFrom, cameraFrom, screenLasts, cameraLasts, drift);
        found.Is(out var clock, out var problem).ShouldBeTrue(problem?.Sentence);
        // At the first and the last moment that both have recorded.
        foreach (var moment in new[] { Math.Max(screenFrom, cameraFrom), Math.Min(screenFrom + screenLasts, cameraFrom + (cameraLasts / (1 + (drift / 1e6)))) })
        {
            var meant = TimeSpan.FromSeconds((moment - cameraFrom) * (1 + (drift / 1e6)));
            var off = clock!.Clock.ToCamera(TimeSpan.FromSeconds(moment - screenFrom)) - meant;
            TestContext.Current.TestOutputHelper!.WriteLine(
                $"off {off.TotalMilliseconds:0.0} ms, drift {clock.Clock.Drift:0}, {clock.Agreeing} of {clock.Places}"
            );
            off.Duration().ShouldBeLessThan(Frame);
        }
    }

    [Fact]
    public async Task Other_speech_of_the_same_voice_is_no_match()
    {
        var screen = await SoundAsync("other-screen.mka", 0, 25, 0, "anull");
        var camera = await SoundAsync("other-camera.mka", 40, 25, 0, Room);
        (await FindAsync(screen, camera)).Is(out _, out var problem).ShouldBeFalse();
        problem.ShouldBe(SoundAlignment.NoMatch);
    }

    private const string Room = "volume=0.3,highpass=f=250,aecho=0.8:0.6:23|47:0.3|0.2";

    private async Task<Core.Result<FoundClock>> FindAsync(double screenFrom, double cameraFrom, double screenLasts, double cameraLasts, double drift)
    {
        string Name(double from, double lasts, string which) => string.Create(CultureInfo.InvariantCulture, $"{which}-{from}-{lasts}-{drift}.mka");
        return await FindAsync(
            await SoundAsync(Name(screenFrom, screenLasts, "screen"), screenFrom, screenLasts, 0, "anull"),
            await SoundAsync(Name(cameraFrom, cameraLasts, "camera"), cameraFrom, cameraLasts, drift, Room)
        );
    }

    private static async Task<Core.Result<FoundClock>> FindAsync(string screen, string camera) =>
        await CameraAligner.FindAsync(await ListenedAsync(screen), await ListenedAsync(camera), Cancel);

    private static async Task<Listened> ListenedAsync(string path) => new(path, await FactsAsync(path));

    private static async Task<Core.Recordings.RecordingFacts> FactsAsync(string path) =>
        (await Prober.ProbeAsync(path, Path.GetFileName(path), Cancel)).Is(out var facts, out var problem)
            ? facts
            : throw new InvalidOperationException(problem.Sentence);

    /// <summary>A piece of the speech with noise, as a recording with a small picture.</summary>
    private async Task<string> SoundAsync(string name, double from, double lasts, double drift, string heard)
    {
        var speech = clips.Path("speech.wav");
        if (!File.Exists(speech))
            await Cli.Wrap("espeak-ng").WithArguments(["-v", "en-us", "-s", "140", "-w", speech, Said]).ExecuteAsync(Cancel);
        var rate = string.Create(CultureInfo.InvariantCulture, $"aresample=48000,asetrate=48000/{1 + (drift / 1e6)},aresample=48000");
        return await clips.MakeAsync(
            "-i",
            speech,
            "-f",
            "lavfi",
            "-i",
            "color=c=gray:s=64x64:r=5",
            "-filter_complex",
            string.Create(
                CultureInfo.InvariantCulture,
                $"[0:a]atrim=start={from},asetpts=PTS-STARTPTS,{rate},{heard}[speech];"
                    + $"anoisesrc=a=0.002:seed={name.Length}[noise];[speech][noise]amix=duration=first:normalize=0[out]"
            ),
            "-map",
            "1:v",
            "-map",
            "[out]",
            "-t",
            lasts.ToString(CultureInfo.InvariantCulture),
            "-c:a",
            "aac",
            "-c:v",
            "libx264",
            name.Replace(".mka", ".mp4", StringComparison.Ordinal)
        );
    }
}
