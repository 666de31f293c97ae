using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Timing;
using Wexel.Media.Measuring;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>What a few seconds of a lesson say of all of it, against encoding all of it.</summary>
public class SampleTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private async Task<(Reel Reel, string Source)> LessonAsync(string name, string picture, int seconds)
    {
        var source = clips.Path(name + ".mp4");
        await MediaTool.RunAsync(
            [
                "-f",
                "lavfi",
                "-i",
                $"{picture},format=yuv420p",
                "-f",
                "lavfi",
                "-i",
                $"anoisesrc=a=0.05:d={seconds}:r=48000",
                "-t",
                $"{seconds}",
                "-c:v",
                "libx264",
                "-preset",
                "ultrafast",
                "-g",
                "60",
                "-c:a",
                "aac",
                source,
            ],
            null,
            null,
            Cancel
        );
        return (Reel.Of(Making.Encoded((await Prober.ProbeAsync(source, name, Cancel)).Value!)), source);
    }

    /// <summary>A screen on which letters come, twice a second, for the first half; then it stands still.</summary>
    [Fact]
    public async Task The_size_of_the_whole_is_estimated_within_15_per_cent()
    {
        const int seconds = 60;
        var (reel, source) = await LessonAsync(
            "typing",
            $"color=white:s=640x360:r=30:d={seconds},"
                + $"drawtext=fontfile=/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf:fontsize=28:x=20+24*mod(floor(2*min(t\\,30))\\,"
                + $"20):y=40+40*floor(min(t\\,30)/10):text='%{{eif\\:floor(2*min(t\\,30))\\:d}}'",
            seconds
        );
        var map = reel.Map([]);
        IReadOnlyList<TimeRange> still = [new TimeRange(TimeSpan.FromSeconds(30), TimeSpan.FromSeconds(seconds))];
        var plan = RenderPlanner.Plan(reel, map, Making.AsLoudAsRecorded, new LessonLook());
        var inputs = new EncodeInputs([source]);
        var samples = new LessonSamples(
            await SampleEncoder.MeasureAsync(plan.Pictures, inputs, Samples.Choose(map, still), Cancel),
            await SampleEncoder.MeasureSoundAsync(plan.Sound!, reel, map, [source], Samples.OfSound(map), Cancel)
        );
        var estimate = RenderEstimator.FromSamples(plan, reel, map, still, samples, MachineSpeed.Small);
        var made = await Making.MakeAsync(source, clips.Path("typing-made.mp4"), profile: Making.AsLoudAsRecorded);
        (estimate.Bytes / (double)made.Measured.Bytes).ShouldBeInRange(0.85, 1.15);
        ((double)made.Measured.Bytes).ShouldBeInRange(estimate.Size.Least, estimate.Size.Most);
        estimate.Sampled.ShouldBeTrue();
    }

    /// <summary>A sample is the lesson's own frames: those that a whole encode has there, and not a moment beside.</summary>
    [Fact]
    public async Task A_sample_shows_the_lessons_own_frames()
    {
        var (reel, source) = await LessonAsync("counting", "testsrc2=s=320x180:r=30:d=30", 30);
        var map = reel.Map([new TimeRange(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(5))]);
        var plan = RenderPlanner.Plan(reel, map, Profiles.Web, new LessonLook());
        var window = new SampleWindow(300, 60, 1);
        var path = clips.Path("sample.mp4");
        var trial = await Trial.MakeAsync(plan.Picture!, null, new EncodeInputs([source]), window, path, Cancel);
        // Were it a frame beside, the counting picture would be unlike its source.
        trial.WorstSsim.ShouldBeGreaterThan(0.97);
        trial.MeanSsim.ShouldBeGreaterThanOrEqualTo(trial.WorstSsim);
        trial.Bytes.ShouldBe(new FileInfo(path).Length);
        var png = clips.Path("frame.png");
        await Trial.FrameAsync(trial, path, 59, png, Cancel);
        await SourcePicture.TakeAsync(plan.Picture!, new EncodeInputs([source]), source, 359, Side.Source, clips.Path("source.png"), Cancel);
        var said = await PlainFfmpeg.SaidAsync(
            [.. MediaTool.OwnInput(png), .. MediaTool.OwnInput(clips.Path("source.png")), "-lavfi", "ssim", "-f", "null", "-"],
            Cancel
        );
        double.Parse(said.Split("All:")[1].Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture).ShouldBeGreaterThan(0.95);
    }

    [Fact]
    public async Task A_poorer_quality_is_less_like_the_source_and_smaller()
    {
        var (reel, source) = await LessonAsync("busy", "testsrc2=s=640x360:r=30:d=8", 8);
        async Task<TrialMeasured> TryAsync(int quality) =>
            await Trial.MakeAsync(
                RenderPlanner
                    .Plan(reel, reel.Map([]), Profiles.Web with { Picture = Profiles.Web.Picture! with { Rate = RateSettings.Of(quality) } }, new LessonLook())
                    .Picture!,
                null,
                new EncodeInputs([source]),
                new SampleWindow(60, 60, 1),
                clips.Path($"q{quality}.mp4"),
                Cancel
            );
        var (good, poor) = (await TryAsync(18), await TryAsync(40));
        poor.Bytes.ShouldBeLessThan(good.Bytes / 2);
        poor.WorstSsim.ShouldBeLessThan(good.WorstSsim);
    }

    [Fact]
    public async Task The_sound_of_silence_and_of_noise_is_told_apart()
    {
        var (reel, source) = await LessonAsync("noise", "color=white:s=320x180:r=30:d=40", 40);
        var quiet = clips.Path("quiet.mp4");
        await MediaTool.RunAsync(
            [
                "-f",
                "lavfi",
                "-i",
                "color=white:s=320x180:r=30:d=40",
                "-f",
                "lavfi",
                "-i",
                "anullsrc=r=48000:cl=mono",
                "-t",
                "40",
                "-c:v",
                "libx264",
                "-preset",
                "ultrafast",
                "-c:a",
                "aac",
                quiet,
            ],
            null,
            null,
            Cancel
        );
        var silent = Reel.Of((await Prober.ProbeAsync(quiet, "quiet", Cancel)).Value!);
        async Task<double> SecondAsync(Reel lesson, string path)
        {
            var plan = RenderPlanner.Plan(lesson, lesson.Map([]), Profiles.PodcastSound, new LessonLook()).Sound!;
            return (await SampleEncoder.MeasureSoundAsync(plan, lesson, lesson.Map([]), [path], Samples.OfSound(lesson.Map([])), Cancel)).Average();
        }

        (await SecondAsync(reel, source)).ShouldBeInRange(96_000 / 8 * 0.7, 96_000 / 8 * 1.1);
        (await SecondAsync(silent, quiet)).ShouldBeLessThan(96_000 / 8 * 0.2);
    }
}
