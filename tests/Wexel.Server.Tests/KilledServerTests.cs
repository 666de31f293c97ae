using System.Diagnostics;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Wexel.Making.Storage;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

/// <summary>The server is killed in the middle of its work and started again: the work is finished, and nothing is left lying about.</summary>
public sealed class KilledServerTests
{
    [Fact]
    public async Task Looking_through_and_rendering_are_finished_by_the_server_that_is_started_next()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-killed-{Guid.NewGuid():N}.avi");
        try
        {
            // Noise encodes slowly, and AVI needs a viewing copy.
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=400x300:r=30:d=10,noise=alls=12:allf=t", "-c:v", "mpeg4", "-q:v", "4", clip])
                .ExecuteAsync();
            await using var bytes = File.OpenRead(clip);
            var answer = await trainer.PutAsync(
                "api/recordings?fileName=deck.avi",
                new StreamContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            );
            var (hash, lesson) = (await answer.Content.ReadFromJsonAsync<JsonElement>()) is var done
                ? (done.GetProperty("hash").GetString(), done.GetProperty("lessonId").GetString())
                : default;
            await process.KillAsync();

            trainer = await process.StartAsync();
            await trainer.UntilAsync($"api/recordings/{hash}", r =>
                r.GetProperty("analysis").ValueKind == JsonValueKind.Object && r.GetProperty("viewable").GetBoolean()
            );

            (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } })).EnsureSuccessStatusCode();
            await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() == "working" && q[0].GetProperty("progress").GetDouble() > 0);
            await process.KillAsync();

            trainer = await process.StartAsync();
            var queue = await trainer.UntilAsync("api/queue", q => q[0].GetProperty("state").GetString() is "done" or "failed");
            queue[0].GetProperty("state").GetString().ShouldBe("done");
            queue.GetArrayLength().ShouldBe(1);
            var delivered = await trainer.JsonAsync($"api/lessons/{lesson}/deliver");
            // Noise is what an encoder leaves away first, and the check says so; nothing else may be wrong.
            delivered
                .GetProperty("renditions")[0]
                .GetProperty("check")
                .EnumerateArray()
                .Where(f => f.GetProperty("verdict").GetString() == "wrong")
                .Select(f => f.GetProperty("code").GetString())
                .ShouldBe(["ssim"]);

            // The killed server's unfinished files went when the next one started.
            Directory.EnumerateFiles(process.Data, ".making-*", SearchOption.AllDirectories).ShouldBeEmpty();
            Directory.EnumerateFiles(Path.Combine(process.Data, "working")).ShouldBeEmpty();
        }
        finally
        {
            File.Delete(clip);
        }
    }

    [Fact]
    public async Task All_encoders_that_a_killed_server_left_behind_are_ended_and_nothing_else()
    {
        var store = new FileStore(Directory.CreateTempSubdirectory("wexel-orphans-").FullName, HalfMade.Beside);
        Process Encoding(string into) =>
            Process.Start("ffmpeg", ["-nostdin", "-v", "quiet", "-re", "-f", "lavfi", "-i", "anullsrc", "-f", "wav", "-y", Path.Combine(into, "sound.wav")]);
        var elsewhere = Directory.CreateTempSubdirectory("wexel-elsewhere-").FullName;
        using Process picture = Encoding(store.Root),
            sound = Encoding(store.Root),
            others = Encoding(elsewhere);
        try
        {
            var left = new OrphanMark(store, "work");
            foreach (var encoder in new[] { picture, sound, others })
                left.Note(encoder.Id);
            using var next = new OrphanMark(store, "work");
            await Task.WhenAll(picture.WaitForExitAsync(), sound.WaitForExitAsync()).WaitAsync(TimeSpan.FromSeconds(30));
            others.HasExited.ShouldBeFalse();
            Directory.EnumerateFiles(Path.Combine(store.Root, "working")).ShouldBeEmpty();
        }
        finally
        {
            foreach (var encoder in new[] { picture, sound, others })
                encoder.Kill();
            Directory.Delete(store.Root, recursive: true);
            Directory.Delete(elsewhere, recursive: true);
        }
    }

    /// <summary>What a process that has ended left goes at once; what another machine's left, when nobody has written to it for an hour.</summary>
    [Fact]
    public async Task What_was_half_made_is_removed_when_its_maker_has_ended_and_what_is_being_made_is_not()
    {
        var folder = Directory.CreateTempSubdirectory("wexel-store-").FullName;
        using var ended = Process.Start("sleep", ["600"]);
        var itsName = Owner.Mine.Split('.') is [var machine, _, _] ? $"{machine}.{ended.Id}.{Ticks(ended.Id)}" : "";
        Owner.Lives(itsName).ShouldBe(true);
        ended.Kill();
        await ended.WaitForExitAsync(TestContext.Current.CancellationToken);
        try
        {
            var store = new FileStore(folder, HalfMade.Beside);
            var kept = store.Derived("abcdef", "encode.mp4");
            Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
            string[] files =
            [
                kept,
                HalfMade.Beside(kept),
                store.Derived("abcdef", $".making-{itsName}-0123.mp4"),
                store.Derived("abcdef", ".making-other.1.2-0123.mp4"),
                store.Derived("abcdef", ".making-other.1.2-4567.mp4"),
                store.Arriving(),
                Path.Combine(folder, "arriving", $".making-{itsName}-89"),
                Path.Combine(Path.GetTempPath(), $"wexel-work-{itsName}-{Guid.NewGuid():N}", "moves-0"),
                Path.Combine(HalfMade.Folder(), "moves-0"),
            ];
            foreach (var (file, i) in files.Select((f, i) => (f, i)))
            {
                Directory.CreateDirectory(Path.GetDirectoryName(file)!);
                File.WriteAllText(file, "x");
                if (i is not 4)
                    File.SetLastWriteTimeUtc(file, DateTime.UtcNow.AddHours(-2));
            }

            var anHourAgo = DateTimeOffset.UtcNow.AddHours(-1);
            store.RemoveAbandoned(entry => HalfMade.IsAbandoned(entry, anHourAgo));
            HalfMade.SweepFolders(anHourAgo);
            files.Select(File.Exists).ShouldBe([true, true, false, false, true, true, false, false, true]);
            Directory.Delete(Path.GetDirectoryName(files[^1])!, recursive: true);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }

        // The 22nd field of proc(5)'s stat; a name in brackets may hold blanks.
        static string Ticks(int id) => File.ReadAllText($"/proc/{id}/stat") is var stat ? stat[(stat.LastIndexOf(')') + 2)..].Split(' ')[19] : "";
    }

    [Fact]
    public async Task An_upload_goes_on_after_the_server_was_killed()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-killed-{Guid.NewGuid():N}.mp4");
        try
        {
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments(["-v", "error", "-f", "lavfi", "-i", "testsrc2=s=640x360:r=30:d=3", "-pix_fmt", "yuv420p", clip])
                .ExecuteAsync();
            var bytes = await File.ReadAllBytesAsync(clip);
            HttpRequestMessage Tus(HttpMethod method, string address, string header, long number, byte[]? piece = null)
            {
                var request = new HttpRequestMessage(method, address)
                {
                    Headers = { { "Tus-Resumable", "1.0.0" }, { header, number.ToString(System.Globalization.CultureInfo.InvariantCulture) } },
                };
                if (piece is not null)
                    request.Content = new ByteArrayContent(piece) { Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") } };
                return request;
            }

            var created = await trainer.SendAsync(Tus(HttpMethod.Post, "api/uploads", "Upload-Length", bytes.Length));
            var at = created.Headers.Location!.ToString();
            (await trainer.SendAsync(Tus(HttpMethod.Patch, at, "Upload-Offset", 0, bytes[..5000]))).EnsureSuccessStatusCode();
            await process.KillAsync();

            trainer = await process.StartAsync();
            (await trainer.SendAsync(Tus(HttpMethod.Head, at, "X-None", 0))).Headers.GetValues("Upload-Offset").Single().ShouldBe("5000");
            (await trainer.SendAsync(Tus(HttpMethod.Patch, at, "Upload-Offset", 5000, bytes[5000..]))).EnsureSuccessStatusCode();
            // Killed again before anybody asked what came of it: the next start takes it up.
            await process.KillAsync();
            trainer = await process.StartAsync();
            await trainer.UntilAsync(at, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String);
        }
        finally
        {
            File.Delete(clip);
        }
    }
}
