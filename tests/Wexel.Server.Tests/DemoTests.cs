using System.Net.Http.Json;

namespace Wexel.Server.Tests;

public sealed class DemoTests
{
    /// <summary>Broken off at its second lesson, as a killed server breaks it off at any: the next start loads what is missing, and nothing twice.</summary>
    [Fact]
    public async Task A_demo_whose_loading_was_broken_off_is_loaded_to_its_end_at_the_next_start()
    {
        var (folder, database) = (Directory.CreateTempSubdirectory("wexel-demo-").FullName, $"wexel_demo_{Guid.NewGuid():N}");
        var recordings = Directory.CreateDirectory(Path.Combine(folder, "recordings")).FullName;
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=320x180:r=30:d=1", "-pix_fmt", "yuv420p", Path.Combine(recordings, "one.mp4")])
            .ExecuteAsync();
        await File.WriteAllTextAsync(
            Path.Combine(folder, "lessons.json"),
            """
            [{ "course": "Desk", "file": "one.mp4", "title": "One", "length": "0:01", "description": "d" },
             { "course": "Deck", "file": "two.mp4", "title": "Two", "length": "0:02", "description": "d" }]
            """
        );
        await ServerFixture.ExecuteAsync($"create database {database}");
        await using var outside = await StandInsFixture.StartAsync();
        Microsoft.AspNetCore.Mvc.Testing.WebApplicationFactory<Setup.WexelOptions> Start() =>
            ServerFixture.Start($"{ServerFixture.Postgres};Database={database};Pooling=false", Path.Combine(folder, "data"), folder, outside);
        try
        {
            await using (var server = Start())
                Should.Throw<FileNotFoundException>(() => server.Server);
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=320x180:r=30:d=2", "-pix_fmt", "yuv420p", Path.Combine(recordings, "two.mp4")])
                .ExecuteAsync();
            // Again and once more: whatever is whole stays as it is.
            for (var start = 0; start < 2; start++)
            {
                await using var server = Start();
                var trainer = server.CreateClient();
                (
                    await trainer.PostAsJsonAsync("/api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })
                ).EnsureSuccessStatusCode();
                var courses = (await trainer.JsonAsync("/api/lessons"))
                    .EnumerateArray()
                    .ToDictionary(
                        c => c.GetProperty("title").GetString()!,
                        c => c.GetProperty("lessons").EnumerateArray().Select(l => l.GetProperty("title").GetString()).ToArray()
                    );
                courses["Desk"].ShouldBe(["One"]);
                courses["Deck"].ShouldBe(["Two"]);
                (await trainer.JsonAsync("/api/outlets")).GetArrayLength().ShouldBe(4);
            }
        }
        finally
        {
            await ServerFixture.ExecuteAsync($"drop database {database} with (force)");
            Directory.Delete(folder, recursive: true);
        }
    }
}
