using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Data;

namespace Wexel.Server.Tests;

/// <summary>Served as a web server should: what browsers may do with it, how long they may keep it, and as small as it gets.</summary>
public sealed class ServingTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    private async Task<(HttpClient Trainer, JsonElement Release, string Watch)> ReleaseAsync()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
        var release = (await trainer.JsonAsync($"/api/lessons/{lesson}/releases"))
            .EnumerateArray()
            .First(o => o.GetProperty("kind").GetString() == "channel")
            .GetProperty("release");
        return (trainer, release, new Uri(release.GetProperty("link").GetString()!).AbsolutePath);
    }

    private static string Header(HttpResponseMessage answer, string name) =>
        string.Join(
            ", ",
            answer.Headers.TryGetValues(name, out var values) ? values
                : answer.Content.Headers.TryGetValues(name, out values) ? values
                : []
        );

    private static HttpRequestMessage Taking(string address, string coding) => new(HttpMethod.Get, address) { Headers = { { "Accept-Encoding", coding } } };

    [Theory]
    [InlineData("br")]
    [InlineData("gzip")]
    public async Task What_was_built_comes_smaller_to_whoever_takes_that(string coding)
    {
        var client = fixture.Anonymous();
        var plain = await client.GetByteArrayAsync("/player/wexel-player.js", TestContext.Current.CancellationToken);
        var smaller = await client.SendAsync(Taking("/player/wexel-player.js", $"deflate, {coding}"), TestContext.Current.CancellationToken);
        smaller.Content.Headers.ContentEncoding.ShouldBe([coding]);
        smaller.Content.Headers.ContentType!.MediaType.ShouldBe("text/javascript");
        Header(smaller, "Vary").ShouldContain("Accept-Encoding");
        var bytes = await smaller.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken);
        bytes.Length.ShouldBeLessThan(plain.Length / 2);
        await using Stream packed =
            coding == "br"
                ? new BrotliStream(new MemoryStream(bytes), CompressionMode.Decompress)
                : new GZipStream(new MemoryStream(bytes), CompressionMode.Decompress);
        using var unpacked = new MemoryStream();
        await packed.CopyToAsync(unpacked, TestContext.Current.CancellationToken);
        unpacked.ToArray().ShouldBe(plain);
        (
            await client.SendAsync(Taking("/player/wexel-player.js", $"{coding};q=0"), TestContext.Current.CancellationToken)
        ).Content.Headers.ContentEncoding.ShouldBeEmpty();
    }

    [Fact]
    public async Task How_long_something_may_be_kept_is_said_of_everything()
    {
        var (trainer, _, watch) = await ReleaseAsync();
        var page = await (await trainer.GetAsync("/", TestContext.Current.CancellationToken)).Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        var script = page.Split("src=\"")[1].Split('"')[0];
        async Task<string> KeptAsync(string address) => Header(await trainer.GetAsync(address, TestContext.Current.CancellationToken), "Cache-Control");
        (await KeptAsync(script)).ShouldBe("public, max-age=31536000, immutable");
        (await KeptAsync("/")).ShouldBe("public, no-cache");
        (await KeptAsync("/player/wexel-player.js")).ShouldBe("public, no-cache");
        (await KeptAsync("/api/lessons")).ShouldBe("no-store, private");
        (await KeptAsync(watch)).ShouldBe("no-store, private");
        (await KeptAsync(watch + "/video.mp4")).ShouldBe("no-cache, private");
        (await KeptAsync("/api/nothing-of-the-kind")).ShouldBe("no-store, private");
        // Asked for again, it is only said that it has not changed.
        var first = await trainer.GetAsync(watch + "/video.mp4", TestContext.Current.CancellationToken);
        var again = new HttpRequestMessage(HttpMethod.Get, watch + "/video.mp4") { Headers = { IfNoneMatch = { first.Headers.ETag! } } };
        (await trainer.SendAsync(again, TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.NotModified);
    }

    [Theory]
    [InlineData("/")]
    [InlineData("/sign-in")]
    [InlineData("/watch")]
    [InlineData("/embed")]
    [InlineData("/watch/none")]
    [InlineData("/nowhere")]
    [InlineData("/channel")]
    public async Task No_page_lets_a_script_run_that_stands_in_it(string address)
    {
        var (trainer, release, _) = await ReleaseAsync();
        if (address is "/watch" or "/embed")
            address += "/" + release.GetProperty("link").GetString()!.Split('/')[^1];
        var answer = await trainer.GetAsync(address, TestContext.Current.CancellationToken);
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/html");
        var policy = Header(answer, "Content-Security-Policy").Split(';', StringSplitOptions.TrimEntries).ToDictionary(d => d.Split(' ')[0], d => d);
        policy["default-src"].ShouldBe("default-src 'none'");
        policy["script-src"].ShouldBe("script-src 'self'");
        policy["base-uri"].ShouldBe("base-uri 'none'");
        policy["frame-ancestors"]
            .ShouldBe(
                address.StartsWith("/embed", StringComparison.Ordinal) ? "frame-ancestors *"
                : address is "/" or "/sign-in" ? "frame-ancestors 'none'"
                : "frame-ancestors 'self'"
            );
        Header(answer, "X-Content-Type-Options").ShouldBe("nosniff");
        Header(answer, "Referrer-Policy").ShouldNotBeEmpty();
        Header(answer, "Permissions-Policy").ShouldContain("camera=()");
        var html = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        System.Text.RegularExpressions.Regex.Matches(html, "<script(?![^>]*(src=|application/(ld\\+)?json))").ShouldBeEmpty();
        System.Text.RegularExpressions.Regex.Matches(html, "\\son[a-z]+=").ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_no_page_lets_nothing_run_and_faults_say_so_too()
    {
        var (trainer, _, watch) = await ReleaseAsync();
        foreach (var address in new[] { "/api/lessons", "/api/nothing-of-the-kind", watch + "/video.mp4", watch + "/poster.jpg", "/healthz" })
        {
            var answer = await trainer.GetAsync(address, TestContext.Current.CancellationToken);
            Header(answer, "Content-Security-Policy").ShouldBe("default-src 'none'; frame-ancestors 'none'", address);
            Header(answer, "X-Content-Type-Options").ShouldBe("nosniff", address);
        }
    }

    [Theory]
    [InlineData("exe", HttpStatusCode.NotFound)]
    [InlineData("html", HttpStatusCode.NotFound)]
    [InlineData("mp4", HttpStatusCode.OK)]
    public async Task A_video_is_served_under_endings_of_videos_alone(string ending, HttpStatusCode status)
    {
        var (_, _, watch) = await ReleaseAsync();
        (await fixture.Anonymous().GetAsync($"{watch}/video.{ending}", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(status);
    }

    /// <summary>Who may see it is remembered; not for a moment longer than it is so.</summary>
    [Fact]
    public async Task What_is_taken_away_is_away_at_once_here_and_on_another_server()
    {
        var (trainer, release, watch) = await ReleaseAsync();
        var learner = fixture.Anonymous();
        await using var other = fixture.Server.WithWebHostBuilder(_ => { });
        var elsewhere = other.CreateClient();
        for (var i = 0; i < 5; i++)
        {
            (await learner.GetAsync(watch + "/video.mp4", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await elsewhere.GetAsync(watch + "/video.mp4", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        // Signed-in people alone from now on: by a hand in the database, as another program would.
        using var scope = fixture.Server.Services.CreateScope();
        var db = scope.ServiceProvider.GetRequiredService<WexelDb>();
        var id = release.GetProperty("id").GetGuid();
        var row = await db.Releases.FirstAsync(r => r.Id == id, TestContext.Current.CancellationToken);
        var before = row.Visibility;
        row.Visibility = Core.People.Visibility.SignedIn;
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        try
        {
            (await learner.GetAsync(watch + "/video.mp4", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            await elsewhere.UntilStatusAsync(watch + "/video.mp4", HttpStatusCode.Unauthorized);
            await ServerFixture.ExecuteAsync(
                $"update \"Releases\" set \"Visibility\" = 'WithLink' where \"Id\" = '{id}'",
                new Npgsql.NpgsqlConnectionStringBuilder(fixture.Connection).Database!
            );
            await learner.UntilStatusAsync(watch + "/video.mp4", HttpStatusCode.OK);
        }
        finally
        {
            await ServerFixture.ExecuteAsync(
                $"update \"Releases\" set \"Visibility\" = '{before}' where \"Id\" = '{id}'",
                new Npgsql.NpgsqlConnectionStringBuilder(fixture.Connection).Database!
            );
        }
    }

    [Fact]
    public async Task A_proxy_that_is_named_is_believed_and_no_other()
    {
        await using var server = fixture.Server.WithWebHostBuilder(host =>
            host.UseSetting("Wexel:PublicAddress", "https://wexel.example/").UseSetting("Wexel:Proxies:0", "10.1.0.0/16")
        );
        async Task<HttpResponseMessage> SignInAsync(string from)
        {
            var context = await server.Server.SendAsync(
                http =>
                {
                    (http.Request.Method, http.Request.Scheme, http.Request.Path, http.Request.Host) = (
                        "POST",
                        "http",
                        "/api/sign-in",
                        new Microsoft.AspNetCore.Http.HostString("wexel.example")
                    );
                    http.Connection.RemoteIpAddress = IPAddress.Parse(from);
                    http.Request.Headers["X-Forwarded-For"] = "203.0.113.7";
                    http.Request.Headers["X-Forwarded-Proto"] = "https";
                    http.Request.Headers.ContentType = "application/json";
                    http.Request.Headers.ContentLength = Body.Length;
                    http.Request.Body = new MemoryStream(Body);
                    http.Features.Set<IHttpRequestBodyDetectionFeature>(new HasBody());
                },
                TestContext.Current.CancellationToken
            );
            var answer = new HttpResponseMessage((HttpStatusCode)context.Response.StatusCode);
            foreach (var (name, value) in context.Response.Headers)
                answer.Headers.TryAddWithoutValidation(name, value.ToArray());
            return answer;
        }

        var believed = await SignInAsync("10.1.2.3");
        believed.StatusCode.ShouldBe(HttpStatusCode.OK);
        var cookie = Header(believed, "Set-Cookie");
        cookie.ShouldContain("__Host-wexel=");
        cookie.ShouldContain("secure", Case.Insensitive);
        cookie.ShouldContain("httponly", Case.Insensitive);
        cookie.ShouldContain("samesite=lax", Case.Insensitive);
        Header(believed, "Strict-Transport-Security").ShouldNotBeEmpty();
        Header(await SignInAsync("192.0.2.9"), "Strict-Transport-Security").ShouldBeEmpty();
        using var scope = fixture.Server.Services.CreateScope();
        (
            await scope
                .ServiceProvider.GetRequiredService<WexelDb>()
                .SignedIn.OrderByDescending(s => s.Since)
                .Take(2)
                .Select(s => s.Address)
                .ToListAsync(TestContext.Current.CancellationToken)
        ).ShouldBe(["192.0.2.9", "203.0.113.7"]);
    }

    private sealed class HasBody : IHttpRequestBodyDetectionFeature
    {
        public bool CanHaveBody => true;
    }

    private static byte[] Body => JsonSerializer.SerializeToUtf8Bytes(new { email = ServerFixture.Learner, password = ServerFixture.Password });

    /// <summary>After a power cut both are started at once.</summary>
    [Fact]
    public async Task It_waits_for_a_database_that_is_not_there_yet()
    {
        await using var process = await ServerProcess.CreateAsync();
        var away = process.TakeDatabaseAwayAsync(TimeSpan.FromSeconds(10));
        await Task.Delay(500, TestContext.Current.CancellationToken);
        await process.StartAsync();
        (await away).ShouldBe(0);
        process.HasEnded.ShouldBeFalse();
    }

    [Fact]
    public async Task It_lives_without_its_database_and_is_not_ready()
    {
        await using var process = await ServerProcess.CreateAsync();
        await process.StartAsync();
        var client = process.Client();
        (await client.GetAsync("readyz", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var away = process.TakeDatabaseAwayAsync(TimeSpan.FromSeconds(4));
        await Task.Delay(1500, TestContext.Current.CancellationToken);
        (await client.GetAsync("healthz", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var not = await client.GetAsync("readyz", TestContext.Current.CancellationToken);
        not.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        (await not.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).ShouldBe("not ready: database");
        await away;
        for (var i = 0; i < 100 && !(await client.GetAsync("readyz", TestContext.Current.CancellationToken)).IsSuccessStatusCode; i++)
            await Task.Delay(100, TestContext.Current.CancellationToken);
        (await client.GetAsync("readyz", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}
