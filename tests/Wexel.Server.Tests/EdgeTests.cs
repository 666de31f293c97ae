using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Wexel.Server.Tests;

/// <summary>What comes to the server's edge: from pages of other sites, without sense, or too much of it. Each is answered with a sentence, and
/// nothing fails inside.</summary>
public sealed partial class EdgeTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private async Task<HttpResponseMessage> SendAsync(HttpMethod method, string address, object? body = null, params (string Name, string Value)[] headers)
    {
        var request = new HttpRequestMessage(method, address) { Content = body is null ? null : body as HttpContent ?? JsonContent.Create(body) };
        foreach (var (name, value) in headers)
            request.Headers.TryAddWithoutValidation(name, value);
        return await (await fixture.SignedInAsync()).SendAsync(request);
    }

    private static StringContent Raw(string json) => new(json, Encoding.UTF8, "application/json");

    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site", false)]
    [InlineData("Sec-Fetch-Site", "same-site", false)]
    [InlineData("Sec-Fetch-Site", "same-origin", true)]
    [InlineData("Sec-Fetch-Site", "none", true)]
    [InlineData("Origin", "https://pier.example", false)]
    [InlineData("Origin", "null", false)]
    [InlineData("Origin", "http://localhost", true)]
    [InlineData("Origin", "http://127.0.0.1:5080", true)]
    [InlineData("X-No-Browser", "1", true)]
    public async Task What_changes_something_is_taken_from_pages_of_ours_alone(string header, string value, bool taken)
    {
        // The house's colour as it is: it may be set by whoever may.
        var house = await (await fixture.SignedInAsync()).JsonAsync("/api/house");
        var answer = await SendAsync(HttpMethod.Put, "/api/house", new { colour = house.GetProperty("colour").GetString() }, (header, value));
        if (taken)
        {
            answer.StatusCode.ShouldNotBe(HttpStatusCode.Forbidden);
        }
        else
        {
            answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden);
            (await answer.ProblemAsync()).GetProperty("code").GetString().ShouldBe("other-site");
        }

        // Reading changes nothing; whether a page of another site may see it, its browser decides by what is not said (CORS).
        (await SendAsync(HttpMethod.Get, "/api/me", null, (header, value))).StatusCode.ShouldBe(HttpStatusCode.OK);
        var live = await SendAsync(HttpMethod.Post, "/live/negotiate?negotiateVersion=1", new { }, (header, value));
        live.StatusCode.ShouldBe(taken ? HttpStatusCode.OK : HttpStatusCode.Forbidden);
        var socket = await SendAsync(HttpMethod.Get, "/live", null, (header, value), ("Connection", "Upgrade"), ("Upgrade", "websocket"));
        (socket.StatusCode == HttpStatusCode.Forbidden).ShouldBe(!taken);
    }

    [Theory]
    [InlineData("POST", "/api/contents/read", """{ "text": null }""")]
    [InlineData("POST", "/api/contents/read", """{ }""")]
    [InlineData("POST", "/api/contents/read", """{ "text": "0:00 a\u0000b" }""")]
    [InlineData("POST", "/api/contents/read", """{ "text": "\ud800" }""")]
    [InlineData("POST", "/api/contents/read", "null")]
    [InlineData("POST", "/api/contents/read", "[")]
    [InlineData("POST", "/api/contents/read", "\"a\"")]
    [InlineData("PUT", "/api/lessons/LESSON/document", """{ "basedOn": 1, "document": null }""")]
    [InlineData("PUT", "/api/lessons/LESSON/document", """{ "basedOn": 1, "document": { "title": null } }""")]
    [InlineData("POST", "/api/sign-in", """{ "email": null, "password": "x" }""")]
    [InlineData("POST", "/api/sign-in", """{ "email": "a\u0000@b.example", "password": "x" }""")]
    [InlineData("PUT", "/api/me/password", """{ "now": "a" }""")]
    [InlineData("GET", "/api/lessons?x=%00", "")]
    public async Task What_makes_no_sense_is_refused_with_a_sentence(string method, string address, string body)
    {
        var lesson = (await (await fixture.SignedInAsync()).JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetString();
        var answer = await SendAsync(new HttpMethod(method), address.Replace("LESSON", lesson, StringComparison.Ordinal), body.Length == 0 ? null : Raw(body));
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await answer.ProblemAsync()).GetProperty("detail").GetString()!.Length.ShouldBeGreaterThan(10);
    }

    /// <summary>No part of a lesson's document makes the server fail, or say that somebody else has saved, whatever stands in it.</summary>
    [Fact]
    public async Task A_document_with_nonsense_anywhere_in_it_is_refused_as_what_it_is()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = (await trainer.JsonAsync("/api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetString();
        var now = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var good = now.GetProperty("document").GetRawText();
        var places = new List<string[]>();
        Walk(JsonNode.Parse(good)!, []);
        places.Count.ShouldBeGreaterThan(10);
        foreach (var place in places)
        {
            foreach (var nonsense in new[] { "null", "\"\\u0000\"", "-1", "1e99", "[]", "{}", "[null]", "\"" + new string('x', 100_000) + "\"" })
            {
                var document = JsonNode.Parse(good)!;
                JsonNode at = document;
                foreach (var step in place[..^1])
                    at = int.TryParse(step, out var index) && at is JsonArray ? at[index]! : at[step]!;
                if (at is JsonArray list)
                    list[int.Parse(place[^1], System.Globalization.CultureInfo.InvariantCulture)] = JsonNode.Parse(nonsense);
                else
                    at[place[^1]] = JsonNode.Parse(nonsense);
                var saved = await trainer.PutAsJsonAsync(
                    $"/api/lessons/{lesson}/document",
                    new { basedOn = (await trainer.JsonAsync($"/api/lessons/{lesson}")).GetProperty("revision").GetInt32(), document }
                );
                saved.StatusCode.ShouldBeOneOf(HttpStatusCode.OK, HttpStatusCode.BadRequest, HttpStatusCode.UnprocessableEntity);
            }
        }

        void Walk(JsonNode node, string[] path)
        {
            if (path.Length > 0)
                places.Add(path);
            if (node is JsonObject members)
            {
                foreach (var (name, value) in members)
                    Visit(value, [.. path, name]);
            }
            else if (node is JsonArray items)
            {
                foreach (var (index, value) in items.Take(2).Index())
                    Visit(value, [.. path, index.ToString(System.Globalization.CultureInfo.InvariantCulture)]);
            }
        }

        void Visit(JsonNode? value, string[] path)
        {
            if (value is null)
                places.Add(path);
            else
                Walk(value, path);
        }
    }

    [Fact]
    public async Task More_than_is_taken_is_refused_as_too_much()
    {
        var captions = await SendAsync(
            HttpMethod.Put,
            "/api/captions?fileName=a.vtt&language=en-GB",
            new ByteArrayContent(new byte[31_000_000]) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
        );
        captions.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await captions.ProblemAsync()).GetProperty("code").GetString().ShouldBe("body-too-large");
        (
            await SendAsync(
                HttpMethod.Put,
                "/api/captions?fileName=a.vtt&language=not%20a%20language",
                new ByteArrayContent("WEBVTT"u8.ToArray()) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    /// <summary>The limit is the web server's own, which the tests' usual server is not.</summary>
    [Fact]
    public async Task A_body_that_is_too_large_is_not_read_to_its_end()
    {
        await using var process = await ServerProcess.CreateAsync();
        var trainer = await process.StartAsync();
        // Whoever waits for the answer before the body gets it.
        trainer.DefaultRequestHeaders.ExpectContinue = true;
        var refused = await trainer.PostAsync(
            "api/contents/read",
            new StringContent($"{{\"text\":\"{new string('a', 31_000_000)}\"}}", Encoding.UTF8, "application/json"),
            TestContext.Current.CancellationToken
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await refused.ProblemAsync()).GetProperty("code").GetString().ShouldBe("body-too-large");
        // Without a length it is counted as it comes.
        using var line = new TcpClient();
        await line.ConnectAsync(IPAddress.Loopback, trainer.BaseAddress!.Port, TestContext.Current.CancellationToken);
        var stream = line.GetStream();
        const int TooMuch = (8 * 1024 * 1024) + 1;
        var signedIn = await process
            .Client()
            .PostAsJsonAsync("api/sign-in", new { email = ServerFixture.Trainer, password = ServerFixture.Password }, TestContext.Current.CancellationToken);
        var cookie = string.Join("; ", signedIn.Headers.GetValues("Set-Cookie").Select(c => c.Split(';')[0]));
        await stream.WriteAsync(
            Encoding.ASCII.GetBytes(
                $"PUT /api/captions?fileName=a.vtt&language=en-GB HTTP/1.1\r\nHost: {trainer.BaseAddress.Authority}\r\nCookie: "
                    + $"{cookie}\r\nContent-Type: application/octet-stream\r\nTransfer-Encoding: chunked\r\n\r\n{TooMuch:x}\r\n"
            ),
            TestContext.Current.CancellationToken
        );
        await stream.WriteAsync(new byte[TooMuch], TestContext.Current.CancellationToken);
        using var reader = new StreamReader(stream);
        (await reader.ReadLineAsync(TestContext.Current.CancellationToken)).ShouldBe("HTTP/1.1 413 Payload Too Large");
    }

    [Theory]
    [InlineData("/nowhere", 404)]
    [InlineData("/lessons", 404)]
    [InlineData("/board/more", 404)]
    [InlineData("/wp-login.php", 404)]
    [InlineData("/assets/none.js", 404)]
    [InlineData("/board", 200)]
    [InlineData("/lessons/0199c0de/tidy", 200)]
    [InlineData("/account", 200)]
    public async Task An_address_that_leads_nowhere_says_so(string address, int status) =>
        ((int)(await SendAsync(HttpMethod.Get, address)).StatusCode).ShouldBe(status);

    /// <summary>The server knows the desk's addresses, and the desk's own list is another file: they are the same.</summary>
    [Fact]
    public async Task The_desk_has_the_addresses_that_the_server_answers()
    {
        var app = await File.ReadAllTextAsync(Path.Combine(ServerFixture.Home, "web", "desk", "src", "app", "App.tsx"), TestContext.Current.CancellationToken);
        foreach (var view in Route().Matches(app).Select(m => m.Groups[1].Value).Where(v => v != "*"))
        {
            var address = Parameter().Replace(view, "1");
            (await SendAsync(HttpMethod.Get, address)).StatusCode.ShouldBe(HttpStatusCode.OK, view);
        }
    }

    [GeneratedRegex("path=\"([^\"]+)\"")]
    private static partial Regex Route();

    [GeneratedRegex(@":[a-z]+\??")]
    private static partial Regex Parameter();
}
