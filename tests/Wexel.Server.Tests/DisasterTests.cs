using System.Diagnostics;
using System.Net.Http.Json;
using CliWrap;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>What befalls the machine: its disk is full, or it goes off and comes up again. No job is lost, and nothing half-made is seen.</summary>
public sealed class DisasterTests
{
    [Fact]
    public async Task A_disk_that_fills_up_fails_the_render_with_a_sentence_and_trying_again_makes_it()
    {
        await using var process = await ServerProcess.CreateAsync();
        Directory.CreateDirectory(process.Data);
        if (
            (
                await CliWrap
                    .Cli.Wrap("mount")
                    .WithArguments(["-t", "tmpfs", "-o", "size=64m", "tmpfs", process.Data])
                    .WithValidation(CommandResultValidation.None)
                    .ExecuteBufferedAsync()
            ).ExitCode != 0
        )
            Assert.Skip("Only root can mount a small disk.");
        try
        {
            var trainer = await process.StartAsync();
            var lesson = await SharedQueueTests.LessonAsync(trainer, 10);
            var asked = await (
                await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })
            ).Content.ReadFromJsonAsync<System.Text.Json.JsonElement>();
            var id = asked.GetProperty("renditions")[0].GetProperty("id").GetGuid();
            await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() == "working" && q[0].GetProperty("progress").GetDouble() > 0);
            var filler = Path.Combine(process.Data, "filler");
            await Should.ThrowAsync<IOException>(async () =>
            {
                await using var file = File.Create(filler, 1 << 16);
                for (var zeros = new byte[1 << 16]; ; )
                    await file.WriteAsync(zeros);
            });
            var failed = (await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() is "done" or "failed"))[0];
            failed.GetProperty("state").GetString().ShouldBe("failed");
            failed.GetProperty("said").GetString()!.ShouldContain("No space left");
            failed.GetProperty("advice").GetString()!.ShouldContain("disk is full");
            Directory.EnumerateFiles(process.Data, ".making-*", SearchOption.AllDirectories).ShouldBeEmpty();
            (await trainer.JsonAsync($"api/lessons/{lesson}/files")).GetProperty("files").GetArrayLength().ShouldBe(0);

            File.Delete(filler);
            (await trainer.PostAsync($"api/renditions/{id}/go-on", null)).EnsureSuccessStatusCode();
            (await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() is "done" or "failed"))[0]
                .GetProperty("state")
                .GetString()
                .ShouldBe("done");
        }
        finally
        {
            await process.KillAsync();
            await CliWrap.Cli.Wrap("umount").WithArguments(["-l", process.Data]).ExecuteAsync();
        }
    }

    /// <summary>As when the power goes: server and encoder end at once, and when it comes back their numbers belong to others.</summary>
    [Fact]
    public async Task After_the_machine_went_off_the_work_is_done_and_a_program_with_the_old_number_lives()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var lesson = await SharedQueueTests.LessonAsync(trainer, 11);
        (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
        await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() == "working" && q[0].GetProperty("progress").GetDouble() > 0);
        var note = Directory.EnumerateFiles(Path.Combine(process.Data, "working")).Single();
        await process.KillAsync();
        Process.GetProcessById(int.Parse(await File.ReadAllTextAsync(note), System.Globalization.CultureInfo.InvariantCulture)).Kill();
        using var innocent = Process.Start("sleep", ["600"]);
        try
        {
            await File.WriteAllTextAsync(note, $"{innocent.Id}");
            trainer = await process.StartAsync();
            var queue = await trainer.UntilAsync("api/queue", q => q.EnumerateArray().All(r => r.GetProperty("state").GetString() is "done" or "failed"));
            queue[0].GetProperty("state").GetString().ShouldBe("done");
            innocent.HasExited.ShouldBeFalse();
            Directory.EnumerateFiles(Path.Combine(process.Data, "working")).ShouldBeEmpty();
        }
        finally
        {
            innocent.Kill();
        }
    }
}
