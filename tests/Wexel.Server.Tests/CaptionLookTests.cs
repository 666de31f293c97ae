using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Validation;

namespace Wexel.Server.Tests;

/// <summary>A track is looked through, what is left stays left, and it goes out in every format as learners see it.</summary>
public sealed class CaptionLookTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private const string Vtt =
        "WEBVTT\n\n00:00:00.000 --> 00:00:00.400\nthen i count the flote, quickly\n\n00:00:00.900 --> 00:00:02.400 line:0\n<i>Press</i> open & wait.\n";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_breaks_a_guideline_and_what_is_written_wrong_is_said_until_it_is_left()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, track) = await LessonAsync(trainer);
        var address = $"/api/lessons/{lesson}/captions/{track.GetProperty("hash").GetString()}/look?language=en-GB";
        var look = await trainer.JsonAsync(address);
        var broken = look.GetProperty("findings").EnumerateArray().Select(f => f.GetProperty("break").GetString()).ToList();
        broken.ShouldContain("tooFast");
        var words = look.GetProperty("corrections").EnumerateArray().Select(c => $"{c.GetProperty("kind").GetString()} {c.GetProperty("written").GetString()}");
        words.ShouldBe(["capital then", "capital i", "spelling flote"]);
        look.GetProperty("noSpelling").ValueKind.ShouldBe(JsonValueKind.Null);

        // The mend that is offered can be made as it is.
        var mend = look.GetProperty("findings")[0].GetProperty("mend");
        (await trainer.PostAsJsonAsync($"/api/captions/{track.GetProperty("hash").GetString()}/changes", mend, Cancel)).EnsureSuccessStatusCode();

        (
            await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/captions/left", new { left = new[] { "c1:flote", "c1:flote", "" } }, Cancel)
        ).EnsureSuccessStatusCode();
        (await trainer.JsonAsync(address)).GetProperty("left").EnumerateArray().Select(l => l.GetString()).ShouldBe(["c1:flote"]);
        (await trainer.JsonAsync(address.Replace("en-GB", "qq", StringComparison.Ordinal))).GetProperty("noSpelling").GetString()!.ShouldContain("“qq”");
        (await trainer.GetAsync(address.Replace("en-GB", "nonsense", StringComparison.Ordinal), Cancel)).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await fixture.Anonymous().GetAsync(address, Cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task A_track_goes_out_in_every_format()
    {
        var trainer = await fixture.SignedInAsync();
        var (lesson, track) = await LessonAsync(trainer);
        Task<HttpResponseMessage> FileAsync(string ending) =>
            trainer.GetAsync($"/api/lessons/{lesson}/captions/{track.GetProperty("id").GetString()}/file.{ending}", Cancel);
        foreach (
            var (ending, type, text) in new[]
            {
                ("vtt", "text/vtt", "open &amp; wait"),
                ("srt", "application/x-subrip", "{\\an8}<i>Press</i> open & wait."),
                ("ttml", "application/ttml+xml", "fontStyle=\"italic\""),
                ("txt", "text/plain", "Press open & wait."),
            }
        )
        {
            var file = await FileAsync(ending);
            file.Content.Headers.ContentType!.MediaType.ShouldBe(type);
            file.Content.Headers.ContentDisposition!.FileName!.ShouldContain($"en-GB.{ending}");
            (await file.Content.ReadAsStringAsync(Cancel)).ShouldContain(text);
        }

        // ECMA-376's schemas, as the SDK carries them.
        using var bytes = new MemoryStream(await (await FileAsync("docx")).Content.ReadAsByteArrayAsync(Cancel));
        using (var document = WordprocessingDocument.Open(bytes, false))
        {
            new OpenXmlValidator().Validate(document, Cancel).ShouldBeEmpty();
            document.MainDocumentPart!.Document!.Body!.InnerText.ShouldContain("Press open & wait.");
        }

        new ZipArchive(bytes).Entries.ShouldNotBeEmpty();
        (await FileAsync("exe")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    /// <summary>The demo's lesson with a track of its own.</summary>
    private static async Task<(string Lesson, JsonElement Track)> LessonAsync(HttpClient trainer)
    {
        var lesson = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0 && c[0].GetProperty("lessons").GetArrayLength() > 0))[0]
            .GetProperty("lessons")[0]
            .GetProperty("id")
            .GetString()!;
        var content = new StringContent(Vtt, Encoding.UTF8) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        var read = await (await trainer.PutAsync("/api/captions?fileName=a.vtt&language=en-GB", content, Cancel)).Content.ReadFromJsonAsync<JsonElement>(
            Cancel
        );
        var track = read.GetProperty("track");
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = view.GetProperty("document").Deserialize<Dictionary<string, JsonElement>>()!;
        document["captions"] = JsonSerializer.SerializeToElement(new[] { track });
        var body = new { basedOn = view.GetProperty("revision").GetInt32(), document };
        (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", body, Cancel)).EnsureSuccessStatusCode();
        return (lesson, track);
    }
}
