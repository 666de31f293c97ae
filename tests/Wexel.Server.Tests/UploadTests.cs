using System.Globalization;
using System.IO.Pipelines;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Options;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Uploads;

namespace Wexel.Server.Tests;

/// <summary>The upload endpoint against the tus resumable upload protocol, version 1.0.0: core, creation, creation-with-upload, termination, checksum,
/// expiration.</summary>
public sealed class UploadTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private static HttpRequestMessage Tus(HttpMethod method, string address, byte[]? piece = null, params (string Name, string Value)[] headers)
    {
        var request = new HttpRequestMessage(method, address);
        request.Headers.Add("Tus-Resumable", "1.0.0");
        foreach (var (name, value) in headers)
            request.Headers.Add(name, value);
        if (piece is not null)
            request.Content = new ByteArrayContent(piece) { Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") } };
        return request;
    }

    private static string Metadata(params (string Key, string Value)[] pairs) =>
        string.Join(',', pairs.Select(p => $"{p.Key} {Convert.ToBase64String(Encoding.UTF8.GetBytes(p.Value))}"));

    private static async Task<string> CreateAsync(HttpClient trainer, long bytes, string name)
    {
        var created = await trainer.SendAsync(
            Tus(
                HttpMethod.Post,
                "/api/uploads",
                null,
                ("Upload-Length", bytes.ToString(CultureInfo.InvariantCulture)),
                ("Upload-Metadata", Metadata(("filename", name)))
            )
        );
        created.StatusCode.ShouldBe(HttpStatusCode.Created);
        return created.Headers.Location!.ToString();
    }

    private static Task<HttpResponseMessage> PatchAsync(HttpClient trainer, string at, long offset, byte[] piece, params (string, string)[] more) =>
        trainer.SendAsync(Tus(HttpMethod.Patch, at, piece, [("Upload-Offset", offset.ToString(CultureInfo.InvariantCulture)), .. more]));

    private static string Header(HttpResponseMessage response, string name) => response.Headers.GetValues(name).Single();

    private static async Task<string> OffsetAsync(HttpClient trainer, string at) => Header(await trainer.SendAsync(Tus(HttpMethod.Head, at)), "Upload-Offset");

    private async Task<byte[]> ClipAsync(string name)
    {
        var clip = Path.Combine(fixture.Data, name + ".mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments(["-v", "error", "-y", "-f", "lavfi", "-i", $"testsrc2=s=320x180:r=30:d={2 + name.Length / 10.0}", "-pix_fmt", "yuv420p", clip])
            .ExecuteAsync();
        return await File.ReadAllBytesAsync(clip);
    }

    [Fact]
    public async Task Says_what_it_can()
    {
        var trainer = await fixture.SignedInAsync();
        var offer = await trainer.SendAsync(new HttpRequestMessage(HttpMethod.Options, "/api/uploads"));
        offer.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Header(offer, "Tus-Version").ShouldBe("1.0.0");
        Header(offer, "Tus-Resumable").ShouldBe("1.0.0");
        Header(offer, "Tus-Extension").ShouldBe("creation,creation-with-upload,termination,checksum,expiration");
        Header(offer, "Tus-Max-Size").ShouldBe((20L * 1024 * 1024 * 1024).ToString(CultureInfo.InvariantCulture));
        Header(offer, "Tus-Checksum-Algorithm").Split(',').ShouldContain("sha1");
        var other = await trainer.PostAsync("/api/uploads", null);
        other.StatusCode.ShouldBe(HttpStatusCode.PreconditionFailed);
        Header(other, "Tus-Version").ShouldBe("1.0.0");
        (await fixture.Anonymous().SendAsync(Tus(HttpMethod.Post, "/api/uploads", null, ("Upload-Length", "1")))).StatusCode.ShouldBe(
            HttpStatusCode.Unauthorized
        );
    }

    [Fact]
    public async Task A_recording_comes_in_pieces_goes_on_where_it_stopped_and_becomes_a_lesson()
    {
        var trainer = await fixture.SignedInAsync();
        var bytes = await ClipAsync("pieces");
        var at = await CreateAsync(trainer, bytes.Length, "../Ropes für alle_final.mp4");
        (await OffsetAsync(trainer, at)).ShouldBe("0");
        var first = await PatchAsync(trainer, at, 0, bytes[..1000]);
        first.StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Header(first, "Upload-Offset").ShouldBe("1000");
        DateTimeOffset.Parse(Header(first, "Upload-Expires"), CultureInfo.InvariantCulture).ShouldBeGreaterThan(DateTimeOffset.UtcNow.AddDays(6));
        var head = await trainer.SendAsync(Tus(HttpMethod.Head, at));
        (Header(head, "Upload-Offset"), Header(head, "Upload-Length"), head.Headers.CacheControl!.NoStore).ShouldBe(
            ("1000", bytes.Length.ToString(CultureInfo.InvariantCulture), true)
        );

        // The title is typed while the file still comes; it is listed for whoever opens the desk again.
        (await trainer.PutAsJsonAsync($"{at}/title", new { title = " Ropes\nfor everybody " })).EnsureSuccessStatusCode();
        var listed = (await trainer.JsonAsync("/api/uploads"))
            .EnumerateArray()
            .Single(u => at.EndsWith(u.GetProperty("id").GetString()!, StringComparison.Ordinal));
        (listed.GetProperty("fileName").GetString(), listed.GetProperty("arrived").GetInt64(), listed.GetProperty("title").GetString()).ShouldBe(
            ("Ropes für alle_final.mp4", 1000, "Ropes for everybody")
        );
        (await PatchAsync(trainer, at, 1000, bytes[1000..])).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var done = await trainer.UntilAsync(at, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String);
        (await trainer.JsonAsync($"/api/lessons/{done.GetProperty("lessonId").GetString()}"))
            .GetProperty("document")
            .GetProperty("title")
            .GetString()
            .ShouldBe("Ropes for everybody");
        (await File.ReadAllBytesAsync(Path.Combine(fixture.Data, "recordings", Convert.ToHexStringLower(SHA256.HashData(bytes))))).ShouldBe(bytes);
        Directory
            .EnumerateFiles(Path.Combine(fixture.Data, "uploads"))
            .ShouldNotContain(f => at.Replace("-", "", StringComparison.Ordinal).EndsWith(Path.GetFileName(f), StringComparison.Ordinal));
        (await OffsetAsync(trainer, at)).ShouldBe(bytes.Length.ToString(CultureInfo.InvariantCulture));

        // The same bytes again, all at once with the creation: stored once, and the lesson is found.
        var again = await trainer.SendAsync(
            Tus(
                HttpMethod.Post,
                "/api/uploads",
                bytes,
                ("Upload-Length", bytes.Length.ToString(CultureInfo.InvariantCulture)),
                ("Upload-Metadata", Metadata(("filename", "b.mp4")))
            )
        );
        again.StatusCode.ShouldBe(HttpStatusCode.Created);
        Header(again, "Upload-Offset").ShouldBe(bytes.Length.ToString(CultureInfo.InvariantCulture));
        var known = await trainer.UntilAsync(again.Headers.Location!.ToString(), u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String);
        known.GetProperty("knownBefore").GetBoolean().ShouldBeTrue();
        known.GetProperty("lessonId").GetString().ShouldBe(done.GetProperty("lessonId").GetString());
    }

    [Fact]
    public async Task A_client_that_lies_is_refused_and_what_came_before_stays()
    {
        var trainer = await fixture.SignedInAsync();
        var at = await CreateAsync(trainer, 100, "lies.mp4");
        await PatchAsync(trainer, at, 0, new byte[10]);
        var gap = await PatchAsync(trainer, at, 20, new byte[10]);
        gap.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await gap.ProblemAsync()).GetProperty("detail").GetString().ShouldBe("The piece must start at 10, where what has come ends.");
        (await PatchAsync(trainer, at, 0, new byte[10])).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await PatchAsync(trainer, at, 10, new byte[91])).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        // Without a length of its own the piece is only seen to be too long while it comes.
        var endless = Tus(HttpMethod.Patch, at, null, ("Upload-Offset", "10"));
        endless.Content = new StreamContent(new MemoryStream(new byte[5000]))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") },
        };
        endless.Headers.TransferEncodingChunked = true;
        (await trainer.SendAsync(endless)).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        var otherType = Tus(HttpMethod.Patch, at, null, ("Upload-Offset", "10"));
        otherType.Content = new ByteArrayContent(new byte[5]);
        (await trainer.SendAsync(otherType)).StatusCode.ShouldBe(HttpStatusCode.UnsupportedMediaType);
        (await trainer.SendAsync(Tus(HttpMethod.Patch, at, new byte[5]))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await OffsetAsync(trainer, at)).ShouldBe("10");

        foreach (var length in new[] { "-1", "many", "9999999999999999999999" })
            (await trainer.SendAsync(Tus(HttpMethod.Post, "/api/uploads", null, ("Upload-Length", length)))).StatusCode.ShouldBe(
                HttpStatusCode.BadRequest,
                length
            );
        (await trainer.SendAsync(Tus(HttpMethod.Post, "/api/uploads"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await trainer.SendAsync(Tus(HttpMethod.Post, "/api/uploads", null, ("Upload-Length", "5"), ("Upload-Metadata", "filename %%%")))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        var huge = await trainer.SendAsync(
            Tus(
                HttpMethod.Post,
                "/api/uploads",
                null,
                ("Upload-Length", (21L * 1024 * 1024 * 1024).ToString(CultureInfo.InvariantCulture)),
                ("Upload-Metadata", Metadata(("filename", "huge.mp4")))
            )
        );
        huge.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await huge.ProblemAsync()).GetProperty("detail").GetString()!.ShouldStartWith("“huge.mp4” is larger than 21 GB");
    }

    [Fact]
    public async Task A_piece_with_another_checksum_is_not_kept()
    {
        var trainer = await fixture.SignedInAsync();
        var at = await CreateAsync(trainer, 100, "sums.mp4");
        var piece = RandomNumberGenerator.GetBytes(50);
#pragma warning disable CA5350 // The protocol requires SHA-1, against accidents and not against attackers.
        string Sha1(byte[] bytes) => "sha1 " + Convert.ToBase64String(SHA1.HashData(bytes));
#pragma warning restore CA5350
        (await PatchAsync(trainer, at, 0, piece, ("Upload-Checksum", Sha1(new byte[50])))).StatusCode.ShouldBe((HttpStatusCode)460);
        (await OffsetAsync(trainer, at)).ShouldBe("0");
        foreach (var unusable in new[] { "crc32 AAAA", "sha1", "sha1 %%" })
            (await PatchAsync(trainer, at, 0, piece, ("Upload-Checksum", unusable))).StatusCode.ShouldBe(HttpStatusCode.BadRequest, unusable);
        (await PatchAsync(trainer, at, 0, piece, ("Upload-Checksum", Sha1(piece)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (
            await PatchAsync(trainer, at, 50, piece[..10], ("Upload-Checksum", "sha256 " + Convert.ToBase64String(SHA256.HashData(piece[..10]))))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await OffsetAsync(trainer, at)).ShouldBe("60");
    }

    [Fact]
    public async Task A_connection_that_breaks_off_keeps_what_came()
    {
        var trainer = await fixture.SignedInAsync();
        var at = await CreateAsync(trainer, 10_000_000, "broken.mp4");
        using var stop = new CancellationTokenSource();
        var broken = Tus(HttpMethod.Patch, at, null, ("Upload-Offset", "0"));
        broken.Content = new StreamContent(new StopsAfter(3_000_000, stop))
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") },
        };
        await Should.ThrowAsync<Exception>(() => trainer.SendAsync(broken, stop.Token));
        string came = "";
        for (var i = 0; i < 100 && (came is "" or "0"); i++, await Task.Delay(50))
            came = await OffsetAsync(trainer, at);
        var offset = long.Parse(came, CultureInfo.InvariantCulture);
        offset.ShouldBeInRange(1, 3_000_000);
        HttpResponseMessage on;
        do on = await PatchAsync(trainer, at, long.Parse(await OffsetAsync(trainer, at), CultureInfo.InvariantCulture), new byte[10]);
        while (on.StatusCode is HttpStatusCode.Locked or HttpStatusCode.Conflict);
        on.StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task What_cannot_be_used_says_why_and_leaves_nothing()
    {
        var trainer = await fixture.SignedInAsync();
        var text = "just text"u8.ToArray();
        var at = await CreateAsync(trainer, text.Length, "notes.mp4");
        await PatchAsync(trainer, at, 0, text);
        var refused = await trainer.UntilAsync(at, u => u.GetProperty("problem").ValueKind == JsonValueKind.Object);
        refused.GetProperty("problem").GetProperty("sentence").GetString()!.ShouldStartWith("“notes.mp4” is not a video file");
        File.Exists(Path.Combine(fixture.Data, "uploads", Guid.Parse(at[^36..]).ToString("N"))).ShouldBeFalse();
        var empty = await CreateAsync(trainer, 0, "empty.mp4");
        (await trainer.UntilAsync(empty, u => u.GetProperty("problem").ValueKind == JsonValueKind.Object))
            .GetProperty("problem")
            .GetProperty("code")
            .GetString()
            .ShouldBe("recording-empty");
    }

    [Fact]
    public async Task It_is_ended_by_whoever_began_it_and_by_nobody_else()
    {
        var trainer = await fixture.SignedInAsync();
        var at = await CreateAsync(trainer, 100, "ended.mp4");
        (await (await fixture.SignedInAsync(ServerFixture.Learner)).SendAsync(Tus(HttpMethod.Delete, at))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await trainer.SendAsync(Tus(HttpMethod.Delete, at))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await trainer.SendAsync(Tus(HttpMethod.Head, at))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await PatchAsync(trainer, at, 0, [1])).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        File.Exists(Path.Combine(fixture.Data, "uploads", Guid.Parse(at[^36..]).ToString("N"))).ShouldBeFalse();
    }

    /// <summary>A client that asks meanwhile must not send everything again.</summary>
    [Fact]
    public async Task How_far_it_is_never_falls_while_it_is_brought_in()
    {
        var trainer = await fixture.SignedInAsync();
        var bytes = await ClipAsync("never falls");
        var database = new Npgsql.NpgsqlConnectionStringBuilder(fixture.Connection).Database!;
        await ServerFixture.ExecuteAsync(
            """create function slow() returns trigger as $$ begin perform pg_sleep(1); return new; end $$ language plpgsql; """
                + """create trigger slow before insert on "Recordings" for each row execute function slow();""",
            database
        );
        try
        {
            var at = await CreateAsync(trainer, bytes.Length, "falls.mp4");
            (await PatchAsync(trainer, at, 0, bytes)).EnsureSuccessStatusCode();
            var (seen, asked) = (new HashSet<string>(), 0);
            JsonElement view;
            do
            {
                seen.Add(await OffsetAsync(trainer, at));
                view = await trainer.JsonAsync(at);
                seen.Add(view.GetProperty("arrived").GetInt64().ToString(CultureInfo.InvariantCulture));
                asked++;
            } while (view.GetProperty("lessonId").ValueKind == JsonValueKind.Null);
            asked.ShouldBeGreaterThan(10);
            seen.ShouldBe([bytes.Length.ToString(CultureInfo.InvariantCulture)]);
        }
        finally
        {
            await ServerFixture.ExecuteAsync("""drop trigger slow on "Recordings"; drop function slow();""", database);
        }
    }

    [Fact]
    public async Task The_same_bytes_four_times_at_once_make_one_lesson()
    {
        var trainer = await fixture.SignedInAsync();
        var bytes = await ClipAsync("four");
        var ats = await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(async i =>
                {
                    var at = await CreateAsync(trainer, bytes.Length, $"four {i}.mp4");
                    (await PatchAsync(trainer, at, 0, bytes)).EnsureSuccessStatusCode();
                    return at;
                })
        );
        var done = await Task.WhenAll(ats.Select(at => trainer.UntilAsync(at, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String)));
        done.Select(u => u.GetProperty("lessonId").GetString()).Distinct().ShouldHaveSingleItem();
        done.Count(u => !u.GetProperty("knownBefore").GetBoolean()).ShouldBe(1);
        (await trainer.JsonAsync("/api/lessons"))
            .EnumerateArray()
            .SelectMany(c => c.GetProperty("lessons").EnumerateArray())
            .Count(l => l.GetProperty("fileName").GetString()!.StartsWith("four ", StringComparison.Ordinal))
            .ShouldBe(1);
    }

    [Fact]
    public async Task Room_on_the_disk_is_checked_first()
    {
        var options = fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value;
        var trainer = await fixture.SignedInAsync();
        var at = await CreateAsync(trainer, 100, "filling.mp4");
        await PatchAsync(trainer, at, 0, new byte[10]);
        options.KeepFree = long.MaxValue / 2;
        try
        {
            // One that has begun is told too, and keeps what came; also where it does not say how long it is.
            (await PatchAsync(trainer, at, 10, new byte[10])).StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
            var unsized = Tus(HttpMethod.Patch, at, null, ("Upload-Offset", "10"));
            unsized.Content = new StreamContent(PipeReader.Create(new MemoryStream(new byte[10])).AsStream())
            {
                Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") },
            };
            unsized.Headers.TransferEncodingChunked = true;
            (await trainer.SendAsync(unsized)).StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
            (await OffsetAsync(trainer, at)).ShouldBe("10");
            var full = await trainer.SendAsync(
                Tus(HttpMethod.Post, "/api/uploads", null, ("Upload-Length", "100"), ("Upload-Metadata", Metadata(("filename", "a.mp4"))))
            );
            full.StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
            (await full.ProblemAsync()).GetProperty("code").GetString().ShouldBe("disk-full");
        }
        finally
        {
            options.KeepFree = 0;
        }
    }

    /// <summary>What others have announced and not sent yet is spoken for.</summary>
    [Fact]
    public async Task What_is_announced_counts_against_the_room()
    {
        var options = fixture.Server.Services.GetRequiredService<IOptions<WexelOptions>>().Value;
        var trainer = await fixture.SignedInAsync();
        var free = fixture.Server.Services.GetRequiredService<FileStore>().FreeBytes;
        var room = Math.Min(free / 2, 20L * 1024 * 1024 * 1024);
        options.KeepFree = free - room;
        try
        {
            var first = await CreateAsync(trainer, room * 4 / 10, "first.mp4");
            var second = await CreateAsync(trainer, room * 4 / 10, "second.mp4");
            var third = await trainer.SendAsync(
                Tus(
                    HttpMethod.Post,
                    "/api/uploads",
                    null,
                    ("Upload-Length", (room * 4 / 10).ToString(CultureInfo.InvariantCulture)),
                    ("Upload-Metadata", Metadata(("filename", "third.mp4")))
                )
            );
            third.StatusCode.ShouldBe(HttpStatusCode.InsufficientStorage);
            (await trainer.SendAsync(Tus(HttpMethod.Delete, first))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
            await CreateAsync(trainer, room * 4 / 10, "third.mp4");
            (await trainer.SendAsync(Tus(HttpMethod.Delete, second))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }
        finally
        {
            options.KeepFree = 0;
        }
    }

    [Fact]
    public async Task A_person_has_so_many_uploads_under_way_and_begins_so_many_at_once()
    {
        await using var server = fixture.Server.WithWebHostBuilder(host => host.UseSetting("Wexel:UploadsBegun", "5").UseSetting("Wexel:UploadsUnderWay", "3"));
        var trainer = server.CreateClient();
        (await trainer.PostAsJsonAsync("/api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password })).EnsureSuccessStatusCode();
        var codes = new List<string>();
        for (var i = 0; i < 20; i++)
        {
            var answer = await trainer.SendAsync(
                Tus(HttpMethod.Post, "/api/uploads", null, ("Upload-Length", "100"), ("Upload-Metadata", Metadata(("filename", $"{i}.mp4"))))
            );
            codes.Add(answer.StatusCode == HttpStatusCode.Created ? "begun" : (await answer.ProblemAsync()).GetProperty("code").GetString()!);
        }

        codes.Count(c => c == "begun").ShouldBeLessThanOrEqualTo(3);
        codes.ShouldContain("uploads-too-many");
        codes.ShouldContain("too-often");
    }

    /// <summary>As the core's readers of text (<c>HostileTextTests</c>): in proportion to its length.</summary>
    [Theory]
    [InlineData(" ")]
    [InlineData(",")]
    [InlineData("a,")]
    [InlineData("a b,")]
    [InlineData("a QUJD,")]
    [InlineData("=")]
    [InlineData("QUJD")]
    [InlineData("sha256 QUJD ")]
    [InlineData("a QUJD,a QUJD,")]
    public async Task No_header_takes_longer_than_in_proportion_to_its_length(string pattern)
    {
        var request = new DefaultHttpContext().Request;
        var text = new StringBuilder().Insert(0, pattern, 500_000 / pattern.Length).ToString();
        foreach (var header in new[] { "Upload-Metadata", "Upload-Checksum", "Upload-Length" })
            request.Headers[header] = text;
        await Task.Run(() => (TusHeaders.Metadata(request), TusHeaders.Checksum(request), TusHeaders.Bytes(request, "Upload-Length")))
            .WaitAsync(TimeSpan.FromMinutes(2));
    }

    /// <summary>Gives so many bytes, then stops the request that reads it.</summary>
    private sealed class StopsAfter(int bytes, CancellationTokenSource stop) : Stream
    {
        private int _given;

        public override int Read(byte[] buffer, int offset, int count)
        {
            if (_given >= bytes)
            {
                stop.Cancel();
                stop.Token.ThrowIfCancellationRequested();
            }

            var now = Math.Min(count, bytes - _given);
            _given += now;
            return now;
        }

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position
        {
            get => _given;
            set => throw new NotSupportedException();
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }
}
