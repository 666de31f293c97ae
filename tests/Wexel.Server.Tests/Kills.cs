using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Nodes;
using Npgsql;
using Wexel.Media.Tools;

namespace Wexel.Server.Tests;

/// <summary>Kills at random, and a person who works meanwhile as a browser does: tries again until it is acknowledged, and remembers what was.</summary>
/// <param name="seed">What the chances come from.</param>
/// <param name="most">How often is killed.</param>
/// <param name="longest">How long at most.</param>
/// <param name="say">Told what happens.</param>
internal sealed class Kills(int seed, int most, TimeSpan longest, Action<string> say)
{
    /// <summary>So many are a test; more have the time to wait for what takes a minute.</summary>
    internal const int Short = 20;

    private const string Profile = "small-480p";

    private static readonly TimeSpan Settles = TimeSpan.FromMinutes(1);

    private readonly Random _chance = new(seed);
    private readonly ConcurrentDictionary<string, int> _counts = new();
    private readonly List<Kept> _kept = [];
    private readonly Lock _writing = new();
    private string _folder = "";
    private PrivatePostgres _postgres = null!;
    private ServerProcess[] _servers = [];
    private HttpClient[] _clients = [];

    /// <summary>What was acknowledged and is not there, or is there and should not be.</summary>
    internal List<string> Lost { get; } = [];

    /// <summary>How many lessons went all the way.</summary>
    internal int Made => _counts.GetValueOrDefault("lessons made");

    internal string Report => string.Join(", ", _counts.OrderBy(c => c.Key).Select(c => $"{c.Key}: {c.Value}")) + $", lost: {Lost.Count}";

    /// <summary>What was acknowledged of one lesson.</summary>
    private sealed class Kept(int number)
    {
        internal int Number => number;
        internal byte[] Bytes { get; set; } = [];
        internal string? Upload { get; set; }
        internal long Arrived { get; set; }
        internal bool AllCame { get; set; }
        internal string? Lesson { get; set; }
        internal string? Title { get; set; }
        internal int Revision { get; set; }
        internal string? Token { get; set; }
        internal string? FileHash { get; set; }
        internal long WatchedUntil { get; set; }

        /// <summary>What was acknowledged until now: asked for later, it must be there.</summary>
        internal Kept UntilNow() => (Kept)MemberwiseClone();
    }

    internal async Task RunAsync()
    {
        _folder = Directory.CreateTempSubdirectory("wexel-kills-").FullName;
        var demo = Directory.CreateDirectory(Path.Combine(_folder, "demo")).FullName;
        await File.WriteAllTextAsync(Path.Combine(demo, "house.json"), ServerFixture.HouseSays);
        await File.WriteAllTextAsync(Path.Combine(demo, "lessons.json"), "[]");
        _postgres = await PrivatePostgres.StartAsync();
        try
        {
            await using (var connection = new NpgsqlConnection($"{_postgres.Connection};Database=postgres;Pooling=false"))
            {
                await connection.OpenAsync();
                await using var create = new NpgsqlCommand("create database wexel", connection);
                await create.ExecuteNonQueryAsync();
            }

            var settings = new Dictionary<string, string>
            {
                ["Wexel__Demo"] = demo,
                ["Wexel__TemporaryFilesEvery"] = "00:00:05",
                ["Wexel__SignInsAnAccount"] = "100000",
                ["Wexel__SignInsAnAddress"] = "100000",
            };
            _servers = [ServerProcess.On(_postgres, _folder, settings)];
            _servers = [_servers[0], _servers[0].Another()];
            _clients = [await _servers[0].StartAsync(), await _servers[1].StartAsync()];
            using var stop = new CancellationTokenSource();
            var people = Enumerable.Range(0, 2).Select(n => Task.Run(() => WorkAsync(n, stop.Token))).ToList();
            var clock = Stopwatch.StartNew();
            for (var i = 0; i < most && clock.Elapsed < longest && Lost.Count == 0; i++)
            {
                await Task.Delay(_chance.Next(100, 3000));
                var what = await KillAsync();
                await CheckAsync($"after kill {i + 1}, {what}");
            }

            // Whoever is in the middle of something comes to its end.
            await stop.CancelAsync();
            await Task.WhenAll(people);
            await CheckAsync("at the end");
            await NothingTemporaryAsync();
            if (most > Short)
                await NobodyDeadAsync();
        }
        finally
        {
            foreach (var server in _servers)
                await server.DisposeAsync();
            await _postgres.DisposeAsync();
            Directory.Delete(_folder, recursive: true);
        }
    }

    private async Task<string> KillAsync()
    {
        var what = _chance.Next(4);
        switch (what)
        {
            case 0 or 1:
                Count(what == 0 ? "kills of the server" : "kills of the second server");
                await _servers[what].KillAsync();
                await Task.Delay(_chance.Next(0, 2000));
                _servers[what].StartProcess();
                return $"server {what + 1}";
            case 2:
                var tools = Process
                    .GetProcessesByName("ffmpeg")
                    .Concat(Process.GetProcessesByName("ffprobe"))
                    .Where(p => Read($"/proc/{p.Id}/cmdline").Contains(_folder, StringComparison.Ordinal))
                    .ToList();
                if (tools.Count == 0)
                    goto default;
                Count("kills of ffmpeg");
                tools[_chance.Next(tools.Count)].Kill();
                return "ffmpeg";
            default:
                Count("kills of the database");
                await _postgres.KillAsync();
                await Task.Delay(_chance.Next(0, 2000));
                await _postgres.UpAsync();
                return "the database";
        }
    }

    /// <summary>One person, lesson after lesson.</summary>
    private async Task WorkAsync(int person, CancellationToken stop)
    {
        for (var n = 0; !stop.IsCancellationRequested; n++)
        {
            var kept = new Kept((person * 1000) + n) { Bytes = await ClipAsync((person * 1000) + n) };
            lock (_writing)
                _kept.Add(kept);
            try
            {
                await UploadAsync(kept);
                await EditAsync(kept);
                await RenderAsync(kept);
                await ReleaseAsync(kept);
                await WatchAsync(kept);
                Count("lessons made");
            }
            catch (TimeoutException stuck)
            {
                Lose($"lesson {kept.Number}: {stuck.Message}");
                return;
            }
        }
    }

    private async Task UploadAsync(Kept kept)
    {
        const int Pieces = 4;
        kept.Upload = (
            await AskAsync(() => Tus(HttpMethod.Post, "api/uploads", "Upload-Length", kept.Bytes.Length), HttpStatusCode.Created)
        ).Headers.Location!.ToString();
        while (!kept.AllCame)
        {
            var offset = await OffsetAsync(kept);
            if (offset < kept.Arrived)
                Lose($"lesson {kept.Number}: {kept.Arrived} bytes of its upload were acknowledged, and {offset} are there");
            if (offset == kept.Bytes.Length)
            {
                kept.AllCame = true;
                break;
            }

            var piece = kept.Bytes.AsSpan((int)offset, Math.Min((kept.Bytes.Length / Pieces) + 1, kept.Bytes.Length - (int)offset)).ToArray();
            var answer = await TryAsync(() => Tus(HttpMethod.Patch, kept.Upload, "Upload-Offset", offset, piece));
            if (answer is { StatusCode: HttpStatusCode.NoContent })
            {
                kept.Arrived = offset + piece.Length;
                kept.AllCame = kept.Arrived == kept.Bytes.Length;
            }
        }

        kept.Lesson = (
            await UntilAsync(kept.Upload, u => u.GetProperty("lessonId").ValueKind == JsonValueKind.String, $"lesson {kept.Number} is made of its upload")
        )
            .GetProperty("lessonId")
            .GetString();
    }

    private async Task<long> OffsetAsync(Kept kept) =>
        long.Parse(
            (await AskAsync(() => Tus(HttpMethod.Head, kept.Upload!, "X-None", 0), HttpStatusCode.OK)).Headers.GetValues("Upload-Offset").Single(),
            CultureInfo.InvariantCulture
        );

    private async Task EditAsync(Kept kept)
    {
        for (var n = 0; n < 3; n++)
        {
            var title = $"Lesson {kept.Number}, edit {n}";
            while (kept.Title != title)
            {
                var now = await JsonAsync($"api/lessons/{kept.Lesson}");
                var document = JsonNode.Parse(now.GetProperty("document").GetRawText())!;
                // An answer may have been lost on the way: then it is there already.
                if (document["title"]!.GetValue<string>() == title)
                {
                    (kept.Title, kept.Revision) = (title, now.GetProperty("revision").GetInt32());
                    break;
                }

                document["title"] = title;
                if (
                    await TryAsync(() =>
                        new HttpRequestMessage(HttpMethod.Put, $"api/lessons/{kept.Lesson}/document")
                        {
                            Content = JsonContent.Create(new { basedOn = now.GetProperty("revision").GetInt32(), document }),
                        }
                    )
                        is { StatusCode: HttpStatusCode.OK } saved
                    && await ReadAsync(saved) is { ValueKind: JsonValueKind.Object } then
                )
                    (kept.Title, kept.Revision) = (title, then.GetProperty("revision").GetInt32());
            }
        }
    }

    private async Task RenderAsync(Kept kept)
    {
        while (
            (
                await UntilAsync(
                    $"api/lessons/{kept.Lesson}/deliver",
                    d => d.GetProperty("profiles").GetArrayLength() > 0 || EndedTooOften(d),
                    $"lesson {kept.Number} is looked through"
                )
            )
                is var deliver
            && EndedTooOften(deliver)
        )
        {
            Count("look-throughs gone on with by hand");
            await AskAsync(
                () => new HttpRequestMessage(HttpMethod.Post, $"api/recordings/{Hash(kept)}/look-through"),
                HttpStatusCode.Accepted,
                HttpStatusCode.NoContent,
                HttpStatusCode.OK
            );
        }

        await AskAsync(
            () =>
                new HttpRequestMessage(HttpMethod.Post, "api/renditions")
                {
                    Content = JsonContent.Create(new { lessons = new[] { kept.Lesson }, profiles = new[] { Profile } }),
                },
            HttpStatusCode.OK
        );
        JsonElement Of(JsonElement queue) => queue.EnumerateArray().FirstOrDefault(r => r.GetProperty("lessonId").GetString() == kept.Lesson);
        while (true)
        {
            var rendition = Of(
                await UntilAsync(
                    "api/queue",
                    q => Of(q) is { ValueKind: JsonValueKind.Object } r && r.GetProperty("state").GetString() is "done" or "failed" or "held" or "cancelled",
                    $"lesson {kept.Number} is rendered"
                )
            );
            if (rendition.GetProperty("state").GetString() == "done")
                return;
            // Killed too often: a person presses the button, which is what it says.
            Count("renders gone on with by hand");
            await AskAsync(
                () => new HttpRequestMessage(HttpMethod.Post, $"api/renditions/{rendition.GetProperty("id").GetString()}/go-on"),
                HttpStatusCode.NoContent,
                HttpStatusCode.OK,
                HttpStatusCode.Conflict
            );
        }
    }

    /// <summary>A look-through in which the server was killed again and again waits for a person.</summary>
    private static bool EndedTooOften(JsonElement deliver) =>
        deliver.GetProperty("notReady") is { ValueKind: JsonValueKind.Object } why
        && why.GetProperty("sentence").GetString()!.StartsWith("The server ended", StringComparison.Ordinal);

    private static string Hash(Kept kept) => Convert.ToHexStringLower(SHA256.HashData(kept.Bytes));

    private async Task ReleaseAsync(Kept kept)
    {
        var channel = (await JsonAsync("api/outlets"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("id")
            .GetString();
        JsonElement Link(JsonElement outlets) => outlets.EnumerateArray().First(o => o.GetProperty("id").GetString() == channel).GetProperty("release");
        for (var clock = Stopwatch.StartNew(); kept.Token is null; )
        {
            if (clock.Elapsed > Settles * 5)
                throw new TimeoutException($"lesson {kept.Number} is not released for five minutes");
            await TryAsync(() =>
                new HttpRequestMessage(HttpMethod.Post, $"api/lessons/{kept.Lesson}/releases")
                {
                    Content = JsonContent.Create(
                        new
                        {
                            outletId = channel,
                            profileId = Profile,
                            visibility = "withLink",
                        }
                    ),
                }
            );
            var release = Link(await JsonAsync($"api/lessons/{kept.Lesson}/releases"));
            if (release.ValueKind == JsonValueKind.Object)
                kept.Token = release.GetProperty("link").GetString()!.Split('/')[^1];
        }

        kept.FileHash = Convert.ToHexStringLower(
            SHA256.HashData(
                await (
                    await AskAsync(() => new HttpRequestMessage(HttpMethod.Get, $"watch/{kept.Token}/video.mp4"), HttpStatusCode.OK)
                ).Content.ReadAsByteArrayAsync()
            )
        );
    }

    private async Task WatchAsync(Kept kept)
    {
        var learner = $"learner{kept.Number}";
        string? opened = null;
        for (var second = 1; second <= 3; second++)
        {
            var until = second * 1000L;
            opened ??= (await JsonAsync($"watch/{kept.Token}/progress?learner={learner}")).GetProperty("opened").GetString();
            while (kept.WatchedUntil < until)
            {
                await Task.Delay(200);
                var watched = new[] { new[] { 0, until } };
                if (
                    await TryAsync(() =>
                        new HttpRequestMessage(HttpMethod.Post, $"watch/{kept.Token}/progress")
                        {
                            Content = JsonContent.Create(
                                new
                                {
                                    learner,
                                    watched,
                                    position = until,
                                    opened,
                                }
                            ),
                        }
                    )
                        is { StatusCode: HttpStatusCode.OK } answer
                    && await ReadAsync(answer) is { ValueKind: JsonValueKind.Object } known
                    && known.GetProperty("watched").EnumerateArray().Max(r => (long?)r[1].GetInt64()) is { } reached
                )
                    kept.WatchedUntil = Math.Max(kept.WatchedUntil, reached);
            }
        }
    }

    /// <summary>All that was acknowledged is there, and nothing twice.</summary>
    private async Task CheckAsync(string when)
    {
        List<Kept> all;
        lock (_writing)
            all = _kept.ConvertAll(kept => kept.UntilNow());
        for (var i = 0; i < _servers.Length; i++)
        {
            if (_servers[i].HasEnded)
                Lose($"{when}: server {i + 1} has ended by itself");
        }

        try
        {
            var lessons = await JsonAsync("api/lessons");
            int recordings;
            lock (_writing)
                recordings = _kept.Count;
            foreach (var kept in all)
            {
                if (kept is { Lesson: null, AllCame: false, Upload: not null } && await OffsetAsync(kept) < kept.Arrived)
                    Lose($"lesson {kept.Number} {when}: its upload has lost bytes");
                if (kept.Lesson is null)
                    continue;
                var lesson = await JsonAsync($"api/lessons/{kept.Lesson}");
                if (
                    lesson.GetProperty("revision").GetInt32() < kept.Revision
                    || (
                        kept.Title is { } title
                        && lesson.GetProperty("revision").GetInt32() == kept.Revision
                        && lesson.GetProperty("document").GetProperty("title").GetString() != title
                    )
                )
                    Lose($"lesson {kept.Number} {when}: an edit that was acknowledged is gone");
                var hash = Hash(kept);
                if (
                    !File.Exists(Path.Combine(_folder, "data", "recordings", hash))
                    || Convert.ToHexStringLower(SHA256.HashData(await File.ReadAllBytesAsync(Path.Combine(_folder, "data", "recordings", hash)))) != hash
                )
                    Lose($"lesson {kept.Number} {when}: its recording is not as it came");
                if (
                    lessons
                        .EnumerateArray()
                        .SelectMany(c => c.GetProperty("lessons").EnumerateArray())
                        .Count(l => l.GetProperty("id").GetString() == kept.Lesson) != 1
                )
                    Lose($"lesson {kept.Number} {when}: it is not listed once");
                if (
                    kept.FileHash is { } file
                    && Convert.ToHexStringLower(
                        SHA256.HashData(
                            await (
                                await AskAsync(() => new HttpRequestMessage(HttpMethod.Get, $"watch/{kept.Token}/video.mp4"), HttpStatusCode.OK)
                            ).Content.ReadAsByteArrayAsync()
                        )
                    ) != file
                )
                    Lose($"lesson {kept.Number} {when}: its released file is another");
                if (
                    kept.WatchedUntil is > 0 and var until
                    && (await JsonAsync($"watch/{kept.Token}/progress?learner=learner{kept.Number}"))
                        .GetProperty("watched")
                        .EnumerateArray()
                        .Max(r => (long?)r[1].GetInt64()) < until
                )
                    Lose($"lesson {kept.Number} {when}: a stretch that was watched is gone");
            }

            var titles = lessons.EnumerateArray().SelectMany(c => c.GetProperty("lessons").EnumerateArray()).Count();
            if (titles > recordings)
                Lose($"{when}: there are {titles} lessons of {recordings} recordings");
            Count("checks");
        }
        catch (TimeoutException stuck)
        {
            Lose($"{when}: {stuck.Message}");
        }
    }

    /// <summary>The job storage knows the two that live, and none that was killed: each twice, for its two kinds of work.</summary>
    private async Task NobodyDeadAsync()
    {
        long? known = null;
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < Settles * 2; await Task.Delay(1000))
        {
            if ((known = await _servers[0].NumberAsync("select count(*) from hangfire.server")) == 4)
                return;
        }

        Lose($"the job storage still knows {known} servers");
    }

    private async Task NothingTemporaryAsync()
    {
        List<string> left = [];
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < Settles; await Task.Delay(500))
        {
            left =
            [
                .. Directory.EnumerateFileSystemEntries(Path.Combine(_folder, "data"), HalfMade.Beginning + "*", SearchOption.AllDirectories),
                .. Directory.EnumerateDirectories(Path.GetTempPath(), "wexel-work-*").Where(f => Owner.Lives(Path.GetFileName(f).Split('-')[^2]) == false),
            ];
            if (left.Count == 0)
                return;
        }

        Lose($"{left.Count} temporary files are left, such as {left[0]}");
    }

    private void Lose(string what)
    {
        lock (_writing)
            Lost.Add(what);
        say("LOST " + what);
    }

    private void Count(string what) => _counts.AddOrUpdate(what, 1, (_, n) => n + 1);

    private static HttpRequestMessage Tus(HttpMethod method, string address, string header, long number, byte[]? piece = null)
    {
        var request = new HttpRequestMessage(method, address)
        {
            Headers = { { "Tus-Resumable", "1.0.0" }, { header, number.ToString(CultureInfo.InvariantCulture) } },
        };
        if (piece is not null)
            request.Content = new ByteArrayContent(piece) { Headers = { ContentType = new MediaTypeHeaderValue("application/offset+octet-stream") } };
        return request;
    }

    /// <summary>Asks either server, once; null where nobody answered, or not with sense.</summary>
    private async Task<HttpResponseMessage?> TryAsync(Func<HttpRequestMessage> request)
    {
        try
        {
            return await _clients[Random.Shared.Next(_clients.Length)].SendAsync(request());
        }
        catch (Exception nobody) when (nobody is HttpRequestException or TaskCanceledException or IOException)
        {
            return null;
        }
    }

    /// <summary>What an answer says; nothing where it was broken off.</summary>
    private static async Task<JsonElement> ReadAsync(HttpResponseMessage answer)
    {
        try
        {
            return await answer.Content.ReadFromJsonAsync<JsonElement>();
        }
        catch (Exception brokenOff) when (brokenOff is HttpRequestException or IOException or JsonException)
        {
            return default;
        }
    }

    /// <summary>Asks until the answer is one of those.</summary>
    private async Task<HttpResponseMessage> AskAsync(Func<HttpRequestMessage> request, params HttpStatusCode[] until)
    {
        HttpResponseMessage? last = null;
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < Settles; await Task.Delay(100))
        {
            last = await TryAsync(request);
            if (last is not null && until.Contains(last.StatusCode))
                return last;
        }

        throw new TimeoutException($"{request().RequestUri} answers {(last is null ? "nothing" : last.StatusCode)} for a minute");
    }

    private async Task<JsonElement> JsonAsync(string address)
    {
        while (true)
        {
            // One may be killed in the middle of its answer.
            if (
                await ReadAsync(await AskAsync(() => new HttpRequestMessage(HttpMethod.Get, address), HttpStatusCode.OK)) is
                { ValueKind: not JsonValueKind.Undefined } said
            )
                return said;
        }
    }

    /// <summary>Nothing is stuck: what is waited for comes within a minute after the last kill, however long those go on.</summary>
    private async Task<JsonElement> UntilAsync(string address, Func<JsonElement, bool> so, string what)
    {
        for (var clock = Stopwatch.StartNew(); ; await Task.Delay(200))
        {
            var now = await JsonAsync(address);
            if (so(now))
                return now;
            if (clock.Elapsed > Settles * 5)
                throw new TimeoutException($"it is not so after five minutes that {what}: {now.ToString()[..Math.Min(300, now.ToString().Length)]}");
        }
    }

    private static async Task<byte[]> ClipAsync(int number)
    {
        var clip = Path.Combine(Path.GetTempPath(), $"wexel-kills-{Guid.NewGuid():N}.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-nostdin",
                "-v",
                "error",
                "-f",
                "lavfi",
                "-i",
                $"testsrc2=s=320x180:r=30:d=4,noise=alls=5:allf=t:all_seed={number}",
                "-c:v",
                "libx264",
                "-preset",
                "ultrafast",
                "-pix_fmt",
                "yuv420p",
                clip,
            ])
            .ExecuteAsync();
        var bytes = await File.ReadAllBytesAsync(clip);
        File.Delete(clip);
        return bytes;
    }

    private static string Read(string path)
    {
        try
        {
            return File.ReadAllText(path);
        }
        catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
        {
            return "";
        }
    }
}
