using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>A file that was made to use up the machine uses up what one process may, and is said to.</summary>
public sealed class LimitsTests
{
    private static Task RunAsync(ChildLimits limits, params string[] arguments) =>
        MediaTool.RunAsync(arguments, null, null, TestContext.Current.CancellationToken, limits: limits);

    [Fact]
    public async Task A_picture_that_takes_more_memory_than_it_may_is_refused_with_a_sentence()
    {
        var picture = Path.Combine(Path.GetTempPath(), $"wexel-large-{Guid.NewGuid():N}.png");
        await RunAsync(ChildLimits.Usual, "-f", "lavfi", "-i", "color=c=white:s=8000x8000", "-frames:v", "1", picture);
        var failed = await Should.ThrowAsync<ToolFailedException>(() =>
            RunAsync(new ChildLimits(100_000_000, TimeSpan.FromMinutes(10)), "-i", picture, "-f", "null", "-")
        );
        File.Delete(picture);
        failed.Advice.ShouldBe("The machine ran out of memory. Try a smaller profile, or render when less is going on.");
    }

    /// <summary>One that waits for ever uses no processor time: without memory, a source of pictures asks for it again and again.</summary>
    [Fact]
    public async Task One_that_waits_for_ever_is_ended()
    {
        var failed = await Should.ThrowAsync<ToolFailedException>(() =>
            RunAsync(
                new ChildLimits(200_000_000, TimeSpan.FromMinutes(10), TimeSpan.FromSeconds(3)),
                "-f",
                "lavfi",
                "-i",
                "nullsrc=s=16000x16000:r=1:d=2",
                "-vf",
                "format=rgba,negate",
                "-f",
                "null",
                "-"
            )
        );
        failed.Said.ShouldBe("ffmpeg was ended after using all the time that it may.");
    }

    [Fact]
    public async Task One_that_takes_more_time_than_it_may_is_ended_and_not_tried_again()
    {
        var failed = await Should.ThrowAsync<ToolFailedException>(() =>
            RunAsync(ChildLimits.Usual with { Processor = TimeSpan.FromSeconds(1) }, "-f", "lavfi", "-i", "testsrc2=s=1920x1080:r=30:d=600", "-f", "null", "-")
        );
        failed.Said.ShouldBe("ffmpeg was ended after using all the time that it may.");
        failed.Advice.ShouldStartWith("The file takes far longer than files of its length do.");
        (failed.MayHelpToTryAgain, failed.MayPass).ShouldBe((false, false));
    }

    /// <summary>proc(5), limits: what the system holds the process to.</summary>
    [Fact]
    public async Task Every_process_runs_in_limits()
    {
        var limits = "";
        await MediaTool.RunAsync(
            ["-f", "lavfi", "-re", "-i", "anullsrc=d=1", "-f", "null", "-"],
            null,
            id => limits = Limits(id),
            TestContext.Current.CancellationToken
        );
        limits.ShouldMatch($@"Max cpu time\s+{(long)ChildLimits.Usual.Processor.TotalSeconds}\s");
        limits.ShouldMatch($@"Max data size\s+{ChildLimits.Usual.MemoryBytes}\s");
        limits.ShouldMatch(@"Max core file size\s+0\s");
    }

    /// <summary>prlimit becomes the tool that it was told to run.</summary>
    private static string Limits(int id)
    {
        for (var i = 0; i < 500 && File.ReadAllText($"/proc/{id}/comm").Trim() != "ffmpeg"; i++)
            Thread.Sleep(1);
        return File.ReadAllText($"/proc/{id}/limits");
    }
}
