using System.Text.Json;
using Wexel.Server.Uploads;

namespace Wexel.Server.Tests;

public sealed class HandInTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private string In(params string[] names) => Path.Combine([fixture.HandIn, .. names]);

    private static async Task UntilAsync(Func<bool> so)
    {
        for (var i = 0; i < 600 && !so(); i++)
            await Task.Delay(100);
        so().ShouldBeTrue();
    }

    private async Task<string> ClipAsync(string name, double seconds)
    {
        var clip = Path.Combine(fixture.Data, name);
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                FormattableString.Invariant($"testsrc2=s=320x180:r=30:d={seconds}"),
                "-pix_fmt",
                "yuv420p",
                clip,
            ])
            .ExecuteAsync();
        return clip;
    }

    private static async Task<List<string?>> FilesAsync(HttpClient trainer) =>
        [
            .. (await trainer.JsonAsync("/api/lessons"))
                .EnumerateArray()
                .SelectMany(c => c.GetProperty("lessons").EnumerateArray())
                .Select(l => l.GetProperty("fileName").GetString()),
        ];

    [Fact]
    public async Task A_recording_that_is_complete_is_taken_and_one_that_still_grows_is_not()
    {
        var trainer = await fixture.SignedInAsync();
        var clip = await ClipAsync("growing.mp4", 3.3);
        var bytes = await File.ReadAllBytesAsync(clip);
        await using (var growing = File.Create(In("Ramp safety.mp4")))
        {
            // It grows for longer than a file must be quiet, in steps that are shorter.
            const int Steps = 10;
            for (var i = 0; i < Steps; i++)
            {
                await growing.WriteAsync(bytes.AsMemory(bytes.Length * i / Steps, (bytes.Length * (i + 1) / Steps) - (bytes.Length * i / Steps)));
                await growing.FlushAsync();
                await Task.Delay(200);
                File.Exists(In("Ramp safety.mp4")).ShouldBeTrue();
            }

            (await FilesAsync(trainer)).ShouldNotContain("Ramp safety.mp4");
        }

        await UntilAsync(() => File.Exists(In(HandIn.Taken, "Ramp safety.mp4")));
        File.Exists(In("Ramp safety.mp4")).ShouldBeFalse();
        (await FilesAsync(trainer)).ShouldContain("Ramp safety.mp4");

        // The same again under the same name: stored once, moved beside the first.
        File.Copy(clip, In("Ramp safety.mp4"));
        await UntilAsync(() => File.Exists(In(HandIn.Taken, "Ramp safety (2).mp4")));
        (await FilesAsync(trainer)).Count(f => f == "Ramp safety.mp4").ShouldBe(1);
    }

    [Fact]
    public async Task What_cannot_be_used_is_refused_with_the_reason_and_what_is_unfinished_is_left_alone()
    {
        await File.WriteAllTextAsync(In("notes.mp4"), "just text");
        await File.WriteAllTextAsync(In(".hidden.mp4"), "a");
        await File.WriteAllTextAsync(In("lesson.mp4.part"), "a");
        await UntilAsync(() => File.Exists(In(HandIn.Refused, "notes.mp4.txt")));
        (await File.ReadAllTextAsync(In(HandIn.Refused, "notes.mp4.txt"))).ShouldStartWith("“notes.mp4” is not a video file");
        File.Exists(In(HandIn.Refused, "notes.mp4")).ShouldBeTrue();
        File.Exists(In(".hidden.mp4")).ShouldBeTrue();
        File.Exists(In("lesson.mp4.part")).ShouldBeTrue();
    }

    /// <summary>Whoever opened one of these as a file would wait for ever, or read what is none of theirs, or fill the disk.</summary>
    [Fact]
    public async Task Nothing_but_regular_files_is_opened_and_the_folder_is_gone_through_all_the_same()
    {
        var elsewhere = await ClipAsync("elsewhere.mp4", 2.9);
        (await CliWrap.Cli.Wrap("mkfifo").WithArguments([In("pipe.mp4")]).ExecuteAsync()).ExitCode.ShouldBe(0);
        File.CreateSymbolicLink(In("link.mp4"), elsewhere);
        File.CreateSymbolicLink(In("endless.mp4"), "/dev/zero");
        File.CreateSymbolicLink(In("dangling.mp4"), "/nowhere/lesson.mp4");
        File.Copy(await ClipAsync("behind them.mp4", 3.1), In("behind them.mp4"));
        await UntilAsync(() => File.Exists(In(HandIn.Taken, "behind them.mp4")));
        foreach (var name in new[] { "pipe.mp4", "link.mp4", "endless.mp4", "dangling.mp4" })
        {
            await UntilAsync(() => File.Exists(In(HandIn.Refused, name + ".txt")));
            (await File.ReadAllTextAsync(In(HandIn.Refused, name + ".txt"), TestContext.Current.CancellationToken)).ShouldStartWith(
                $"“{name}” is no file with something in it but a link, a pipe or empty."
            );
            new FileInfo(In(name)).LinkTarget.ShouldBeNull();
        }

        (await FilesAsync(await fixture.SignedInAsync())).ShouldNotContain("link.mp4");
        File.Exists(elsewhere).ShouldBeTrue();
    }

    /// <summary>The server makes the folder anew whenever it is missing, which may come between.</summary>
    private void Insist(Action act)
    {
        for (var tries = 0; ; tries++)
        {
            try
            {
                act();
                return;
            }
            catch (Exception between) when (between is IOException or UnauthorizedAccessException && Directory.Exists(fixture.HandIn) && tries < 20)
            {
                Directory.Delete(fixture.HandIn, recursive: true);
            }
        }
    }

    [Fact]
    public async Task A_folder_that_goes_away_does_not_end_the_server_and_is_taken_up_again()
    {
        var trainer = await fixture.SignedInAsync();
        var away = fixture.HandIn + "-away";
        Directory.Move(fixture.HandIn, away);
        Insist(() => File.WriteAllText(fixture.HandIn, "a file where the folder was"));
        await Task.Delay(1000);
        (await trainer.GetAsync("/api/me")).EnsureSuccessStatusCode();
        File.Delete(fixture.HandIn);
        Insist(() => Directory.Move(away, fixture.HandIn));
        await File.WriteAllTextAsync(In("after.mp4"), "just text, after");
        await UntilAsync(() => File.Exists(In(HandIn.Refused, "after.mp4.txt")));
    }
}
