using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Nodes;
using Npgsql;
using Wexel.Core.Recordings;
using Wexel.Making.Storage;
using Wexel.Media.Tools;

namespace Wexel.Server.Tests;

/// <summary>Faults that nobody expects: each is said as what it is, none is taken for another, and what failed can be asked for again.</summary>
public sealed class FaultTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static async Task<Guid> LessonAsync(HttpClient trainer)
    {
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        await trainer.UntilAsync($"/api/lessons/{lesson}/deliver", d => d.GetProperty("profiles").GetArrayLength() > 0);
        return lesson;
    }

    private static async Task<Guid> AskAsync(HttpClient trainer, Guid lesson) =>
        (
            await (await trainer.PostAsJsonAsync("/api/renditions", new { lessons = new[] { lesson }, profiles = new[] { "small-480p" } }))
                .EnsureSuccessStatusCode()
                .Content.ReadFromJsonAsync<JsonElement>()
        )
            .GetProperty("renditions")[0]
            .GetProperty("id")
            .GetGuid();

    private static async Task<JsonElement> QueueAsync(HttpClient trainer, Guid rendition, params string[] states)
    {
        JsonElement Of(JsonElement queue) => queue.EnumerateArray().First(r => r.GetProperty("id").GetGuid() == rendition);
        return Of(await trainer.UntilAsync("/api/queue", q => states.Contains(Of(q).GetProperty("state").GetString())));
    }

    private async Task<T> AskDatabaseAsync<T>(string sql)
    {
        await using var connection = new NpgsqlConnection(fixture.Connection + ";Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        return (T)(await command.ExecuteScalarAsync())!;
    }

    /// <summary>Tried again and again it would look like a server that dies over it.</summary>
    [Fact]
    public async Task A_fault_that_nobody_expects_in_a_render_is_said_at_once_and_not_tried_for_ever()
    {
        var trainer = await fixture.SignedInAsync();
        var rendition = await AskAsync(trainer, await LessonAsync(trainer));
        await QueueAsync(trainer, rendition, "done");
        // What it is to be made of is gone, as nothing goes that Wexel keeps.
        await AskDatabaseAsync<int>($"""update "Renditions" set "State" = 'Held', "Attempts" = 0, "Revision" = 999 where "Id" = '{rendition}' returning 1""");
        (await trainer.PostAsync($"/api/renditions/{rendition}/go-on", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var failed = await QueueAsync(trainer, rendition, "failed", "done");
        failed.GetProperty("state").GetString().ShouldBe("failed");
        failed.GetProperty("said").GetString()!.ShouldStartWith("Wexel itself failed");
        failed.GetProperty("advice").GetString()!.ShouldContain("log");
        (await AskDatabaseAsync<int>($"""select "Attempts" from "Renditions" where "Id" = '{rendition}'""")).ShouldBe(1);
    }

    /// <summary>Who stops it while its end is written down has stopped it.</summary>
    [Fact]
    public async Task Stopped_while_it_finishes_it_stays_stopped()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await QueueAsync(trainer, await AskAsync(trainer, lesson), "done");
        // All is encoded: the second time it finishes at once.
        await using var stopping = new NpgsqlConnection(fixture.Connection + ";Pooling=false;Application Name=stopping");
        await stopping.OpenAsync();
        // It is at work for so long that there is time to stop it, however little there is to do.
        await AskDatabaseAsync<int>(
            """
            create function slowly() returns trigger language plpgsql as $$
            begin if current_setting('application_name') <> 'stopping' then perform pg_sleep(0.5); end if; return null; end $$;
            create trigger slowly before update on "Renditions" execute function slowly();
            select 1
            """
        );
        var rendition = await AskAsync(trainer, lesson);
        await using var transaction = await stopping.BeginTransactionAsync();
        await using (
            var stop = new NpgsqlCommand(
                $"""update "Renditions" set "State" = 'Cancelled' where "Id" = '{rendition}' and "State" = 'Working'""",
                stopping,
                transaction
            )
        )
        {
            for (var i = 0; i < 6000 && await stop.ExecuteNonQueryAsync() == 0; i++)
                await Task.Delay(5);
        }

        for (
            var i = 0;
            i < 1200
                && await AskDatabaseAsync<long>("select count(*) from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'") == 0;
            i++
        )
            await Task.Delay(50);
        await transaction.CommitAsync();
        // Whatever waited for the row has had its turn.
        for (var i = 0; i < 1200 && await AskDatabaseAsync<long>("select count(*) from hangfire.job where statename in ('Enqueued', 'Processing')") > 0; i++)
            await Task.Delay(50);
        await AskDatabaseAsync<int>("""drop trigger slowly on "Renditions"; drop function slowly; select 1""");
        (await QueueAsync(trainer, rendition, "cancelled", "done", "failed")).GetProperty("state").GetString().ShouldBe("cancelled");
    }

    [Fact]
    public async Task A_database_that_refuses_to_keep_a_lesson_is_not_taken_for_somebody_else()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = JsonNode.Parse(now.GetProperty("document").GetRawText())!.AsObject();
        document["description"] = "What is kept of it.";
        await ServerFixture.ExecuteAsync(
            """alter table "LessonRevisions" add constraint refusing check ("Number" < 0) not valid""",
            new NpgsqlConnectionStringBuilder(fixture.Connection).Database!
        );
        try
        {
            var refused = await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document });
            refused.StatusCode.ShouldBe(HttpStatusCode.InternalServerError);
        }
        finally
        {
            await ServerFixture.ExecuteAsync(
                """alter table "LessonRevisions" drop constraint refusing""",
                new NpgsqlConnectionStringBuilder(fixture.Connection).Database!
            );
        }

        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", new { basedOn = now.GetProperty("revision").GetInt32(), document })
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    /// <summary>Where nothing can be written the recording is not "being looked through" until the server starts anew.</summary>
    [Fact]
    public async Task Looking_through_that_cannot_write_says_so_and_can_be_asked_for_again()
    {
        var trainer = await fixture.SignedInAsync();
        var (bytes, hash) = await ClipAsync("2.3");
        // Where its pictures would go lies a file.
        var blocked = new FileStore(fixture.Data, HalfMade.Beside).Folder(RecordingKeys.Pictures(hash));
        if (Directory.Exists(blocked))
            Directory.Delete(blocked);
        Directory.CreateDirectory(Path.GetDirectoryName(blocked)!);
        await File.WriteAllTextAsync(blocked, "", TestContext.Current.CancellationToken);
        var failed = await BroughtInAsync(trainer, bytes, hash);
        failed.GetProperty("analysisFailure").GetString()!.ShouldStartWith("It could not be looked through");
        File.Delete(blocked);
        (await trainer.PostAsync($"/api/recordings/{hash}/look-through", null)).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/recordings/{hash}", r => r.GetProperty("analysis").ValueKind == JsonValueKind.Object);
    }

    private static bool LookedThrough(JsonElement recording) =>
        recording.GetProperty("analysis").ValueKind == JsonValueKind.Object
        && recording.GetProperty("analysis").GetProperty("lookedUntil").ValueKind == JsonValueKind.Null;

    /// <summary>As a machine does that has no memory left; nobody has to press anything.</summary>
    [Fact]
    public async Task A_look_through_whose_encoder_is_killed_is_begun_again()
    {
        var trainer = await fixture.SignedInAsync();
        var (bytes, hash) = await ClipAsync("47");
        (
            await trainer.PutAsync(
                "/api/recordings?fileName=long.mp4",
                new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            )
        ).EnsureSuccessStatusCode();
        var killed = false;
        for (var i = 0; i < 3000 && !killed; i++)
        {
            foreach (var encoder in Process.GetProcessesByName("ffmpeg"))
            {
                if (
                    File.Exists($"/proc/{encoder.Id}/cmdline")
                    && (await File.ReadAllTextAsync($"/proc/{encoder.Id}/cmdline", TestContext.Current.CancellationToken)).Contains(
                        hash,
                        StringComparison.Ordinal
                    )
                )
                {
                    encoder.Kill();
                    killed = true;
                }
            }

            if (!killed)
                await Task.Delay(10);
        }

        killed.ShouldBeTrue();
        var recording = await trainer.UntilAsync($"/api/recordings/{hash}", r =>
            LookedThrough(r) || r.GetProperty("analysisFailure").ValueKind == JsonValueKind.String
        );
        recording.GetProperty("analysisFailure").ValueKind.ShouldBe(JsonValueKind.Null);
        (await AskDatabaseAsync<int>($"""select "LookThroughs" from "Recordings" where "Hash" = '{hash}'""")).ShouldBe(0);
    }

    /// <summary>What brings down whoever does it is not begun for ever; but somebody who asks, by the button or by bringing it in again, has it
    /// tried.</summary>
    [Theory]
    [InlineData("2.5", true)]
    [InlineData("2.6", false)]
    public async Task Looking_through_that_ended_too_often_says_so_and_is_tried_again_when_somebody_asks(string length, bool byButton)
    {
        var trainer = await fixture.SignedInAsync();
        var (bytes, hash) = await ClipAsync(length);
        await BroughtInAsync(trainer, bytes, hash);
        await trainer.UntilAsync($"/api/recordings/{hash}", LookedThrough);
        await AskDatabaseAsync<int>($"""update "Recordings" set "Analysis" = null, "LookThroughs" = 4 where "Hash" = '{hash}' returning 1""");
        var failed = await trainer.UntilAsync($"/api/recordings/{hash}", r => r.GetProperty("analysisFailure").ValueKind == JsonValueKind.String);
        failed.GetProperty("analysisFailure").GetString()!.ShouldStartWith("The server ended 4 times");
        if (byButton)
            (await trainer.PostAsync($"/api/recordings/{hash}/look-through", null)).EnsureSuccessStatusCode();
        else
            await BroughtInAsync(trainer, bytes, hash);
        await trainer.UntilAsync($"/api/recordings/{hash}", r => LookedThrough(r) && r.GetProperty("analysisFailure").ValueKind == JsonValueKind.Null);
    }

    [Fact]
    public async Task What_was_looked_through_well_is_looked_through_again_from_the_start_when_somebody_asks()
    {
        var trainer = await fixture.SignedInAsync();
        var (bytes, hash) = await ClipAsync("2.7");
        await BroughtInAsync(trainer, bytes, hash);
        await trainer.UntilAsync($"/api/recordings/{hash}", LookedThrough);
        // A picture of the sheet went bad on the disk.
        var pictures = new FileStore(fixture.Data, HalfMade.Beside).Folder(RecordingKeys.Pictures(hash));
        var spoilt = Directory.EnumerateFiles(pictures).Order().First();
        await File.WriteAllTextAsync(spoilt, "", TestContext.Current.CancellationToken);
        (await trainer.PostAsync($"/api/recordings/{hash}/look-through", null)).EnsureSuccessStatusCode();
        await trainer.UntilAsync($"/api/recordings/{hash}", LookedThrough);
        Wholeness.IsWhole(spoilt).ShouldBeTrue();
    }

    /// <summary>An encode that is broken on the disk is not finished into a file for learners, but made again.</summary>
    [Fact]
    public async Task A_made_file_that_cannot_be_read_counts_as_not_there()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await QueueAsync(trainer, await AskAsync(trainer, lesson), "done");
        var made = Directory
            .EnumerateFiles(Path.Combine(fixture.Data, "derived"), "*.mp4", SearchOption.AllDirectories)
            .Where(f => Path.GetFileName(f) is "picture.mp4" or "lesson.mp4")
            .ToList();
        made.Count.ShouldBeGreaterThanOrEqualTo(2);
        foreach (var file in made)
        {
            await using var cut = new FileStream(file, FileMode.Open);
            cut.SetLength(cut.Length - 100);
        }

        var again = await QueueAsync(trainer, await AskAsync(trainer, lesson), "done", "failed");
        again.GetProperty("state").GetString().ShouldBe("done");
        made.ShouldAllBe(file => Wholeness.IsWhole(file));
    }

    /// <summary>A recorder that was stopped at once leaves a single frame, of which there is no picture for the sheet.</summary>
    [Fact]
    public async Task A_recording_of_one_frame_is_looked_through()
    {
        var trainer = await fixture.SignedInAsync();
        var (bytes, hash) = await ClipAsync("0.03");
        (await BroughtInAsync(trainer, bytes, hash)).GetProperty("analysisFailure").ValueKind.ShouldBe(JsonValueKind.Null);
    }

    private static async Task<(byte[] Bytes, string Hash)> ClipAsync(string seconds)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-fault-{Guid.NewGuid():N}.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-f", "lavfi", "-i", $"testsrc2=s=320x180:r=30:d={seconds}", "-pix_fmt", "yuv420p", clip])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(clip, TestContext.Current.CancellationToken);
        File.Delete(clip);
        return (bytes, Convert.ToHexStringLower(SHA256.HashData(bytes)));
    }

    /// <summary>Brings it in, and gives what is known of it once it was looked through or could not be.</summary>
    private static async Task<JsonElement> BroughtInAsync(HttpClient trainer, byte[] bytes, string hash)
    {
        (
            await trainer.PutAsync(
                "/api/recordings?fileName=deck.mp4",
                new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            )
        ).EnsureSuccessStatusCode();
        return await trainer.UntilAsync($"/api/recordings/{hash}", r =>
            r.GetProperty("analysis").ValueKind == JsonValueKind.Object || r.GetProperty("analysisFailure").ValueKind == JsonValueKind.String
        );
    }
}
