using System.IO.Compression;
using System.Net;
using CliWrap.Buffered;

namespace Wexel.Server.Tests;

/// <summary>The outside world's podcast app and directory, given feeds that lie on its web host.</summary>
public sealed class ListeningTests(StandInsFixture outside) : IClassFixture<StandInsFixture>, IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("wexel-listening-test-").FullName;

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private async Task<string> PlacedAsync(string site, byte[] zip)
    {
        (await outside.Client.PutAsync($"sites/{site}", new ByteArrayContent(zip))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return new Uri(outside.Client.BaseAddress!, $"sites/{site}/feed.xml").AbsoluteUri;
    }

    private Task<string> PlacedAsync(string site, string feed)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var entry = new StreamWriter(zip.CreateEntry("feed.xml").Open());
            entry.Write(feed);
        }

        return PlacedAsync(site, bytes.ToArray());
    }

    private async Task<string> PostedAsync(string to, string? feed = null)
    {
        using var form = new FormUrlEncodedContent(feed is null ? [] : [KeyValuePair.Create("address", feed)]);
        var answer = await outside.Client.PostAsync(to, form);
        answer.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return answer.Headers.Location!.ToString();
    }

    private async Task<string> ShownAsync(string feed) => WebUtility.HtmlDecode(await outside.Client.GetStringAsync(await PostedAsync("podcasts", feed)));

    private async Task<string> SubmittedAsync(string feed)
    {
        await PostedAsync("directory", feed);
        for (var i = 0; i < 100; i++)
        {
            var page = await outside.Client.GetStringAsync("directory");
            if (!page.Contains("waiting", StringComparison.Ordinal))
                return WebUtility.HtmlDecode(page);
            await Task.Delay(100);
        }

        throw new TimeoutException("The directory did not come to a verdict.");
    }

    [Fact]
    public async Task A_folder_of_wexel_make_on_a_plain_web_server_is_listed_downloaded_in_pieces_and_accepted()
    {
        var clip = Path.Combine(_folder, "a.mp4");
        await CliWrap
            .Cli.Wrap("ffmpeg")
            .WithArguments([
                "-v",
                "error",
                "-y",
                "-f",
                "lavfi",
                "-i",
                "testsrc2=s=640x360:r=30:d=3",
                "-f",
                "lavfi",
                "-i",
                "sine=d=3",
                "-pix_fmt",
                "yuv420p",
                clip,
            ])
            .ExecuteAsync();
        await File.WriteAllTextAsync(Path.Combine(_folder, "a.txt"), "0:00 First\n0:01 Second\n");
        await File.WriteAllTextAsync(Path.Combine(_folder, "a.vtt"), "WEBVTT\n\n00:00.500 --> 00:01.000\nHello\n");
        await File.WriteAllTextAsync(
            Path.Combine(_folder, "course.json"),
            """
            { "title": "Placed", "feed": { "author": "Staff training", "ownerMail": "mara.tarn@brackwater.example" },
              "lessons": [{ "recording": "a.mp4", "title": "Ropes", "contents": "a.txt", "captions": "a.vtt" }] }
            """
        );
        var address = new Uri(outside.Client.BaseAddress!, "sites/placed/").AbsoluteUri;
        var made = await CliWrap
            .Cli.Wrap("dotnet")
            .WithArguments([
                Path.Combine(AppContext.BaseDirectory, "Wexel.Cli.dll"),
                "make",
                Path.Combine(_folder, "course.json"),
                "--for",
                "podcast",
                "--base-url",
                address,
                "--out",
                Path.Combine(_folder, "feed.zip"),
            ])
            .WithValidation(CliWrap.CommandResultValidation.None)
            .ExecuteBufferedAsync();
        made.ExitCode.ShouldBe(0, made.StandardError);
        var feed = await PlacedAsync("placed", await File.ReadAllBytesAsync(Path.Combine(_folder, "feed.zip")));

        var show = await PostedAsync("podcasts", feed);
        var page = WebUtility.HtmlDecode(await outside.Client.GetStringAsync(show));
        page.ShouldContain("<h2>What is wrong with it</h2>\n<p>Nothing.</p>");
        await PostedAsync(show[1..] + "/refresh");
        (await outside.Client.GetStringAsync(show)).ShouldContain("if it changed: 304");

        await PostedAsync(show[1..] + "/0/download");
        var media = await outside.Client.GetAsync(show + "/0/media");
        media.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await media.Content.ReadAsByteArrayAsync()).ShouldBe(await outside.Client.GetByteArrayAsync("sites/placed/episodes/01-ropes.m4v"));
        (await outside.Client.GetStringAsync(show)).ShouldContain("bytes=0-");
        var episode = await outside.Client.GetStringAsync(show + "/0");
        episode.ShouldContain("0:01 Second");
        episode.ShouldContain("Hello");

        (await SubmittedAsync(feed)).ShouldContain("<b>Placed</b>: accepted");
        var mails = await outside.Client.UntilAsync("mail.json", m => m.GetArrayLength() > 0);
        mails
            .EnumerateArray()
            .ShouldContain(m =>
                m.GetProperty("subject").GetString() == "Accepted: Placed" && m.GetProperty("to").GetString() == "mara.tarn@brackwater.example"
            );
    }

    [Fact]
    public async Task What_is_wrong_with_a_feed_is_listed_and_a_directory_refuses_it()
    {
        var feed = await PlacedAsync(
            "poor",
            """
            <rss version="2.0"><channel><title>Poor &lt;b&gt;</title>
            <item><title>No file</title></item>
            <item><title>No size</title><enclosure url="http://127.0.0.1:9/a.m4a" type="audio/x-m4a"/></item>
            </channel></rss>
            """
        );
        var page = await ShownAsync(feed);
        foreach (
            var trouble in new[]
            {
                "The show has no link.",
                "The show names no author.",
                "The show has no category.",
                "The show has no artwork.",
                "“No file” has nothing to play.",
                "“No size” does not say how large it is.",
                "“No size” has no guid.",
                "“No size” has no date.",
            }
        )
            page.ShouldContain(trouble);
        (await SubmittedAsync(feed)).ShouldContain("The feed names no owner to write to.");
    }

    [Theory]
    [InlineData("<rss><channel>", "It is not well-formed")]
    [InlineData(
        "<?xml version=\"1.0\"?><!DOCTYPE rss [<!ENTITY e SYSTEM \"file:///etc/hostname\">]><rss><channel><title>&e;</title></channel></rss>",
        "It is not well-formed"
    )]
    [InlineData("<html><body/></html>", "it is no podcast")]
    public async Task What_is_no_feed_is_said_so(string text, string says) =>
        (await ShownAsync(await PlacedAsync("none", text) + "?" + Guid.NewGuid())).ShouldContain(says);

    [Theory]
    [InlineData("http://127.0.0.1:9/feed.xml", "(not reached)")]
    [InlineData("sites/nothing/feed.xml", "(not there)")]
    public async Task A_feed_that_is_not_there_is_said_so(string address, string says) =>
        (await ShownAsync(new Uri(outside.Client.BaseAddress!, address).AbsoluteUri)).ShouldContain(says);
}
