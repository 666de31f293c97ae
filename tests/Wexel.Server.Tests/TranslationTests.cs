using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.DependencyInjection.Extensions;
using Wexel.Media.Tools;
using Wexel.Media.Translating;

namespace Wexel.Server.Tests;

/// <summary>A lesson in other languages: drafted by a machine that may fail, sent to translators, brought back.</summary>
public sealed class TranslationTests(TranslationTests.Translated fixture) : IClassFixture<TranslationTests.Translated>
{
    public sealed class Translated : ServerFixture
    {
        protected override void Set(IWebHostBuilder host) =>
            host.ConfigureTestServices(services => services.RemoveAll<ITranslator>().AddSingleton<ITranslator>(new Shouting()));
    }

    /// <summary>Knows German and Norwegian; Norwegian it never says.</summary>
    private sealed class Shouting : ITranslator
    {
        public string Name => "Shouting";

        public IReadOnlyList<string> Into(string from) => from.StartsWith("en", StringComparison.Ordinal) ? ["de", "nb"] : [];

        public Task<IReadOnlyList<string>> TranslateAsync(IReadOnlyList<string> sentences, string from, string to, CancellationToken cancel) =>
            to.StartsWith("nb", StringComparison.Ordinal)
                ? throw new ToolFailedException("shouting", "It lost its voice")
                : Task.FromResult<IReadOnlyList<string>>([.. sentences.Select(s => s.ToUpperInvariant())]);
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private const string Said = "WEBVTT\n\nc1\n00:00.500 --> 00:02.000\nTake the rope in\n\nc2\n00:02.000 --> 00:03.000\nboth hands. Pull.\n";

    [Fact]
    public async Task A_draft_is_made_of_what_nobody_translated_and_what_somebody_wrote_stays()
    {
        var (trainer, lesson) = await LessonAsync("Ropes");
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}/translations");
        (view.GetProperty("machine").GetString(), view.GetProperty("captions").GetInt32()).ShouldBe(("Shouting", 2));
        var made = await DraftAsync(trainer, lesson, "de-DE");
        Texts(made).ShouldBe([("title", "ROPES", true), ("section.s1", "START", true)]);
        var track = made.GetProperty("track");
        (track.GetProperty("kind").GetString(), track.GetProperty("state").GetString()).ShouldBe(("translation", "draft"));
        var cues = await trainer.JsonAsync($"/api/captions/{track.GetProperty("hash").GetString()}");
        cues.EnumerateArray()
            .Select(c => (c.GetProperty("id").GetString(), c.GetProperty("text").GetString()))
            .ShouldBe([("c1", "TAKE THE ROPE IN"), ("c2", "BOTH HANDS. PULL.")]);

        await ChangeAsync(trainer, lesson, d => d["translations"] = new[]
            {
                new
                {
                    language = "de-DE",
                    texts = new[]
                    {
                        new
                        {
                            of = "title",
                            source = "Ropes",
                            text = "Seile",
                        },
                    },
                },
            });
        Texts(await DraftAsync(trainer, lesson, "de-DE")).ShouldBe([("title", "Seile", false), ("section.s1", "START", true)], ignoreOrder: true);
    }

    [Theory]
    [InlineData("nb", "It lost its voice")]
    [InlineData("sv", "Nothing on this server translates from en-GB into sv")]
    [InlineData("no-such-thing", "is no language")]
    public async Task A_machine_that_fails_or_knows_no_way_is_said(string language, string said)
    {
        var (trainer, lesson) = await LessonAsync("Lines " + language);
        var answer = await trainer.PostAsync($"/api/lessons/{lesson}/translations/{language}/draft", null, Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.Content.ReadAsStringAsync(Cancel)).ShouldContain(said);
    }

    [Fact]
    public async Task A_file_goes_to_a_translator_and_what_is_taken_of_it_comes_back()
    {
        var (trainer, lesson) = await LessonAsync("Knots");
        var file = await trainer.GetStringAsync($"/api/lessons/{lesson}/translations/fr/file.xlf", Cancel);
        var back = file.Replace("Knots</source>", "Knots</source><target>Nœuds</target>", StringComparison.Ordinal)
            .Replace("rope in</source>", "rope in</source><target>Prenez la corde à deux</target>", StringComparison.Ordinal);
        var compared = await (await CompareAsync(trainer, lesson, back)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        compared.GetProperty("language").GetString().ShouldBe("fr");
        compared
            .GetProperty("differences")
            .EnumerateArray()
            .Select(d => (d.GetProperty("id").GetString(), d.GetProperty("change").GetString()))
            .ShouldBe([("title", "new"), ("section.s1", "untranslated"), ("caption.c1", "new"), ("caption.c2", "untranslated")]);
        var taken = await trainer.PostAsJsonAsync(
            $"/api/lessons/{lesson}/translations/fr",
            new { texts = new[] { new { id = "title", text = "Nœuds" }, new { id = "caption.c1", text = "Prenez la corde à deux" } }, fileName = "knots.xlf" },
            Cancel
        );
        var made = await taken.Content.ReadFromJsonAsync<JsonElement>(Cancel);
        Texts(made).ShouldBe([("title", "Nœuds", false)]);
        (made.GetProperty("track").GetProperty("cueCount").GetInt32(), made.GetProperty("track").GetProperty("state").GetString()).ShouldBe((1, "corrected"));

        var (_, other) = await LessonAsync("Hitches");
        var refused = await CompareAsync(trainer, other, back);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadAsStringAsync(Cancel)).ShouldContain("belongs to another lesson");
        (await (await CompareAsync(trainer, lesson, "PK no XML")).Content.ReadAsStringAsync(Cancel)).ShouldContain("no XML from line 1");
        (await trainer.GetAsync($"/api/lessons/{lesson}/translations/en-GB/file.xlf", Cancel)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await trainer.GetAsync($"/api/lessons/{Guid.NewGuid()}/translations/fr/file.xlf", Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private async Task<(HttpClient Trainer, string Lesson)> LessonAsync(string title)
    {
        var trainer = await fixture.SignedInAsync();
        var there = (await trainer.UntilAsync("/api/lessons", c => c.GetArrayLength() > 0 && c[0].GetProperty("lessons").GetArrayLength() > 0))[0]
            .GetProperty("lessons")[0]
            .GetProperty("id")
            .GetString()!;
        var copied = await trainer.PostAsync($"/api/lessons/{there}/copy", null, Cancel);
        var lesson = (await copied.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("id").GetString()!;
        var content = new StringContent(Said, Encoding.UTF8) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        var read = await (await trainer.PutAsync("/api/captions?fileName=a.vtt&language=en-GB", content, Cancel)).Content.ReadFromJsonAsync<JsonElement>(
            Cancel
        );
        await ChangeAsync(trainer, lesson, document =>
        {
            document["title"] = title;
            document["description"] = "";
            document["captions"] = new[] { read.GetProperty("track") };
            document["translations"] = Array.Empty<object>();
            document["sections"] = new[]
            {
                new
                {
                    id = "s1",
                    at = 0,
                    title = "Start",
                },
            };
        });
        return (trainer, lesson);
    }

    private static async Task ChangeAsync(HttpClient trainer, string lesson, Action<Dictionary<string, object>> change)
    {
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = view.GetProperty("document").Deserialize<Dictionary<string, object>>()!;
        change(document);
        var body = new { basedOn = view.GetProperty("revision").GetInt32(), document };
        (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", body, Cancel)).EnsureSuccessStatusCode();
    }

    private static async Task<JsonElement> DraftAsync(HttpClient trainer, string lesson, string language)
    {
        var answer = await trainer.PostAsync($"/api/lessons/{lesson}/translations/{language}/draft", null, Cancel);
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel);
    }

    private static async Task<HttpResponseMessage> CompareAsync(HttpClient trainer, string lesson, string file)
    {
        using var body = new ByteArrayContent(Encoding.UTF8.GetBytes(file));
        body.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        return await trainer.PutAsync($"/api/lessons/{lesson}/translations/file", body, Cancel);
    }

    private static IEnumerable<(string? Of, string? Text, bool Draft)> Texts(JsonElement made) =>
        made.GetProperty("translation")
            .GetProperty("texts")
            .EnumerateArray()
            .Select(t => (t.GetProperty("of").GetString(), t.GetProperty("text").GetString(), t.TryGetProperty("draft", out var draft) && draft.GetBoolean()));
}
