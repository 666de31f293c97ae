using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Core.Captions;
using Wexel.Core.Speech;
using Wexel.Media.Speech;

namespace Wexel.Server.Tests;

/// <summary>A draft of captions comes unasked, after the look-through; it can be stopped, gone on with and taken, and goes to learners only where
/// somebody says so.</summary>
public sealed class HearingTests(HearingTests.Listening fixture) : IClassFixture<HearingTests.Listening>
{
    public sealed class Listening : ServerFixture
    {
        internal StandInEngine Engine { get; } = new();

        internal string? Lesson { get; set; }

        protected override void Set(IWebHostBuilder host)
        {
            host.UseSetting("Wexel:SpeechDrafts", "true");
            host.UseSetting("Wexel:SpeechEvery", "00:00:00.2");
            // Beside the one that is there: a language that no other knows.
            host.ConfigureServices(services => services.AddSingleton<ISpeechEngine>(Engine));
        }
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_draft_is_there_when_the_trainer_gets_to_it()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var draft = await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        draft.GetProperty("engine").GetString()!.ShouldContain("pocketsphinx");
        draft.GetProperty("share").GetDouble().ShouldBe(1);
        draft.GetProperty("sure").GetDouble().ShouldBeInRange(0.3, 1);
        var cues = draft.GetProperty("cues").EnumerateArray().ToList();
        var said = WordList.PlainWords(Said());
        var heard = WordList.PlainWords(string.Join(' ', cues.Select(c => c.GetProperty("text").GetString())));
        WordErrors.Of(said, heard).Rate.ShouldBeLessThan(0.5);
        cues[0].GetProperty("text").GetString()![0].ShouldSatisfyAllConditions(c => char.IsUpper(c).ShouldBeTrue());
        draft.GetProperty("unsure").EnumerateArray().ShouldAllBe(w => w.GetProperty("confidence").GetDouble() < HeardWord.Sure);
        // What to look at in it is said before it is anybody's track.
        var look = await trainer.JsonAsync($"/api/lessons/{lesson}/captions/draft/look?language=en-GB");
        look.GetProperty("noSpelling").ValueKind.ShouldBe(JsonValueKind.Null);
        look.GetProperty("corrections")
            .EnumerateArray()
            .ShouldAllBe(c => cues.Exists(cue => cue.GetProperty("id").GetString() == c.GetProperty("cue").GetString()));
    }

    [Fact]
    public async Task What_the_house_writes_otherwise_is_in_the_draft_at_once()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        var draft = await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        var word = WordList.PlainWords(Text(draft)).First(w => w.Length > 4);
        (
            await trainer.PutAsJsonAsync(
                "/api/house/words",
                new
                {
                    words = new[]
                    {
                        new
                        {
                            written = "QUAY-7",
                            said = "",
                            heardAs = new[] { word },
                        },
                    },
                },
                Cancel
            )
        ).EnsureSuccessStatusCode();
        Text(await trainer.JsonAsync(Draft(lesson))).ShouldContain("QUAY-7");
        var clash = await trainer.PutAsJsonAsync(
            "/api/house/words",
            new
            {
                words = new[]
                {
                    new
                    {
                        written = "One",
                        said = "",
                        heardAs = new[] { "won" },
                    },
                    new
                    {
                        written = "Won",
                        said = "",
                        heardAs = Array.Empty<string>(),
                    },
                },
            },
            Cancel
        );
        clash.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await clash.ProblemAsync()).GetProperty("code").GetString().ShouldBe("words-clash");
        (await trainer.PutAsJsonAsync("/api/house/words", new { words = Array.Empty<object>() }, Cancel)).EnsureSuccessStatusCode();
        Text(await trainer.JsonAsync(Draft(lesson))).ShouldNotContain("QUAY-7");
    }

    [Fact]
    public async Task A_draft_becomes_a_track_that_no_learner_gets_unless_the_trainer_says_so()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        var taken = await (await trainer.PostAsync($"{Draft(lesson)}", null, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        taken.GetProperty("kind").GetString().ShouldBe("machineDraft");
        taken.GetProperty("state").GetString().ShouldBe("draft");
        var hash = taken.GetProperty("hash").GetString();
        var cues = await trainer.JsonAsync($"/api/captions/{hash}");
        cues.GetArrayLength().ShouldBe(taken.GetProperty("cueCount").GetInt32());

        // Corrected cue by cue: the rest stays, and so does what it was made from.
        var first = cues[0];
        var set = new[]
        {
            new
            {
                id = first.GetProperty("id").GetString(),
                span = first.GetProperty("span"),
                text = "Corrected",
            },
        };
        var changed = await (
            await trainer.PostAsJsonAsync($"/api/captions/{hash}/changes", new { set, removed = new[] { cues[1].GetProperty("id").GetString() } }, Cancel)
        ).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        changed.GetProperty("cueCount").GetInt32().ShouldBe(cues.GetArrayLength() - 1);
        var now = await trainer.JsonAsync($"/api/captions/{changed.GetProperty("hash").GetString()}");
        now[0].GetProperty("text").GetString().ShouldBe("Corrected");
        now[1].ToString().ShouldBe(cues[2].ToString());
        (await trainer.JsonAsync($"/api/captions/{hash}"))[0].GetProperty("text").GetString().ShouldBe(first.GetProperty("text").GetString());
    }

    [Fact]
    public async Task Changes_that_cannot_stand_are_refused_with_a_sentence()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        var taken = await (await trainer.PostAsync(Draft(lesson), null, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        var backward = new
        {
            set = new[]
            {
                new
                {
                    id = "x",
                    span = new { start = 5, end = 5 },
                    text = "x",
                },
            },
            removed = Array.Empty<string>(),
        };
        var answer = await trainer.PostAsJsonAsync($"/api/captions/{taken.GetProperty("hash").GetString()}/changes", backward, Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await answer.ProblemAsync()).GetProperty("code").GetString().ShouldBe("captions-backward");
        (await trainer.PostAsJsonAsync($"/api/captions/{new string('0', 64)}/changes", backward, Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Listening_is_stopped_gone_on_with_and_its_failure_is_said()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer, "fo");
        await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        fixture.Engine.Forget();
        // It hangs: that can be stopped, and what there is stays.
        fixture.Engine.Does = async (_, cancel) =>
        {
            await Task.Delay(Timeout.Infinite, cancel);
            return [];
        };
        (await trainer.PostAsync($"{Draft(lesson)}/listen", null, Cancel)).EnsureSuccessStatusCode();
        await fixture.Engine.BegunAsync(Cancel).WaitAsync(TimeSpan.FromMinutes(1), Cancel);
        State(await trainer.JsonAsync(Draft(lesson))).ShouldBe("listening");
        (await trainer.PostAsync($"{Draft(lesson)}/stop", null, Cancel)).EnsureSuccessStatusCode();
        State(await trainer.JsonAsync(Draft(lesson))).ShouldBe("stopped");

        // It fails: that is said, with what to do.
        fixture.Engine.Does = (_, _) => throw new Media.Tools.ToolFailedException("stand-in", "no model");
        (await trainer.PostAsync($"{Draft(lesson)}/listen", null, Cancel)).EnsureSuccessStatusCode();
        var failed = await trainer.UntilAsync(Draft(lesson), d => State(d) == "failed");
        failed.GetProperty("failure").GetString()!.ShouldContain("no model");

        // It works: it goes on where it was.
        fixture.Engine.Does = (_, _) => Task.FromResult<IReadOnlyList<HeardWord>>([new HeardWord(new(TimeSpan.Zero, TimeSpan.FromSeconds(0.5)), "Hev.", 0.9)]);
        (await trainer.PostAsync($"{Draft(lesson)}/listen", null, Cancel)).EnsureSuccessStatusCode();
        var done = await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        Text(done).ShouldStartWith("Hev.");
        done.GetProperty("language").GetString().ShouldBe("fo");
    }

    [Fact]
    public async Task A_script_is_laid_along_the_voice_and_one_of_another_lesson_is_refused()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        await trainer.UntilAsync(Draft(lesson), d => State(d) == "done");
        var extra = " Nobody says this in the lesson, and so it must not stand there.";
        (await ScriptAsync("# The start\n\n" + Said() + "\n\n" + extra)).EnsureSuccessStatusCode();
        var script = $"/api/lessons/{lesson}/script";
        (await trainer.JsonAsync(script)).GetProperty("laid").GetBoolean().ShouldBeFalse();
        await trainer.UntilAsync(script, s => !s.GetProperty("waiting").GetBoolean());
        // An engine that knows the script hears nearly all of it as it is.
        WordErrors.Of(WordList.PlainWords(Said()), WordList.PlainWords(Text(await trainer.JsonAsync(Draft(lesson))))).Rate.ShouldBeLessThan(0.1);
        var read = await (await trainer.PostAsync($"{script}/lay", null, Cancel)).Content.ReadFromJsonAsync<JsonElement>(Cancel);
        read.GetProperty("share").GetDouble().ShouldBeGreaterThan(0.6);
        var left = read.GetProperty("differences").EnumerateArray().ToList();
        left.ShouldContain(d => d.GetProperty("kind").GetString() == "leftOut" && d.GetProperty("words").GetString()!.Contains("must not stand"));
        var cues = await trainer.JsonAsync($"/api/captions/{read.GetProperty("track").GetProperty("hash").GetString()}");
        var text = string.Join(' ', cues.EnumerateArray().Select(c => c.GetProperty("text").GetString()!.Replace('\n', ' ')));
        text.ShouldContain("You need your name and the float");
        text.ShouldNotContain("must not stand");

        // Its heading is proposed, and its differences stay until somebody has looked at them.
        var proposed = (await trainer.JsonAsync($"/api/lessons/{lesson}/proposals")).GetProperty("proposals").EnumerateArray().ToList();
        proposed.ShouldContain(p => p.GetProperty("title").GetString() == "The start");
        var differences = (await trainer.JsonAsync(script)).GetProperty("differences");
        differences.GetArrayLength().ShouldBe(left.Count);
        (await trainer.PutAsJsonAsync($"{script}/differences", differences.EnumerateArray().Skip(1), Cancel)).EnsureSuccessStatusCode();
        (await trainer.JsonAsync(script)).GetProperty("differences").GetArrayLength().ShouldBe(left.Count - 1);

        var other = await ScriptAsync("Willkommen am Schalter, heute lernen wir etwas ganz anderes über Schiffe und ihre Häfen.");
        other.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await other.ProblemAsync()).GetProperty("code").GetString().ShouldBe("script-other");
        (await (await ScriptAsync(" \n ")).ProblemAsync()).GetProperty("code").GetString().ShouldBe("script-empty");
        (await (await ScriptAsync("PK\u0003\u0004 no document")).ProblemAsync()).GetProperty("code").GetString().ShouldBe("script-broken");

        Task<HttpResponseMessage> ScriptAsync(string text) =>
            trainer.PutAsync(
                $"/api/lessons/{lesson}/script?fileName=script.md",
                new StringContent(text) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } },
                Cancel
            );
    }

    [Fact]
    public async Task A_language_that_no_engine_knows_is_said()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer, "mi");
        (await trainer.PostAsync($"{Draft(lesson)}/listen", null, Cancel)).EnsureSuccessStatusCode();
        var draft = await trainer.UntilAsync(Draft(lesson), d => State(d) == "noEngine");
        draft.GetProperty("failure").GetString()!.ShouldContain("“mi”");
        var taken = await trainer.PostAsync(Draft(lesson), null, Cancel);
        taken.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Nobody_but_a_trainer_hears_of_it()
    {
        var trainer = await fixture.SignedInAsync();
        var lesson = await LessonAsync(trainer);
        (await fixture.Anonymous().GetAsync(Draft(lesson), Cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await trainer.GetAsync(Draft(Guid.NewGuid().ToString()), Cancel)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static string Draft(string lesson) => $"/api/lessons/{lesson}/draft";

    private static string? State(JsonElement draft) => draft.GetProperty("state").GetString();

    private static string Text(JsonElement draft) =>
        string.Join(' ', draft.GetProperty("cues").EnumerateArray().Select(c => c.GetProperty("text").GetString()));

    /// <summary>What is said in the demo's recording, by the file beside it.</summary>
    private static string Said() =>
        string.Join(' ', WebVttText.Read(File.ReadAllText(Path.Combine(ServerFixture.Home, "demo", "recordings", "opening.en.vtt"))).Cues.Select(c => c.Text));

    /// <summary>A lesson of the demo's first recording, spoken in a language, and listened to as that.</summary>
    private async Task<string> LessonAsync(HttpClient trainer, string language = "en-GB")
    {
        fixture.Lesson ??= await BringInAsync(trainer);
        var lesson = fixture.Lesson;
        var view = await trainer.JsonAsync($"/api/lessons/{lesson}");
        var document = view.GetProperty("document").Deserialize<Dictionary<string, JsonElement>>()!;
        document["language"] = JsonSerializer.SerializeToElement(language);
        var body = new { basedOn = view.GetProperty("revision").GetInt32(), document };
        (await trainer.PutAsJsonAsync($"/api/lessons/{lesson}/document", body, Cancel)).EnsureSuccessStatusCode();
        if ((await trainer.JsonAsync(Draft(lesson))).GetProperty("language").GetString() != language)
            (await trainer.PostAsync($"{Draft(lesson)}/listen", null, Cancel)).EnsureSuccessStatusCode();
        return lesson;
    }

    private static async Task<string> BringInAsync(HttpClient trainer)
    {
        await using var bytes = File.OpenRead(Path.Combine(ServerFixture.Home, "demo", "recordings", "desk opening 2026-11-03.mp4"));
        var content = new StreamContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };
        var answer = await trainer.PutAsync("/api/recordings?fileName=desk.mp4", content, Cancel);
        return (await answer.Content.ReadFromJsonAsync<JsonElement>(Cancel)).GetProperty("lessonId").GetString()!;
    }
}

/// <summary>Stands in for an engine that is configured: it does what a test says.</summary>
internal sealed class StandInEngine : ISpeechEngine
{
    private TaskCompletionSource _begun = new();

    internal Func<string, CancellationToken, Task<IReadOnlyList<HeardWord>>> Does { get; set; } = (_, _) => Task.FromResult<IReadOnlyList<HeardWord>>([]);

    public string Name => "Stand-in";

    public bool Writes => true;

    public bool Knows(string language) => language == "fo";

    public Core.Problem? Missing() => null;

    public Task<IReadOnlyList<HeardWord>> ListenAsync(
        string sound,
        string language,
        SpeechHints? hints,
        Media.Tools.ChildLimits limits,
        CancellationToken cancel
    )
    {
        _begun.TrySetResult();
        return Does(sound, cancel);
    }

    public Task<SpeechHints?> PrepareAsync(ScriptText script, string language, string folder, CancellationToken cancel) => Task.FromResult<SpeechHints?>(null);

    /// <summary>What was begun so far does not count.</summary>
    internal void Forget() => _begun = new TaskCompletionSource();

    internal Task BegunAsync(CancellationToken cancel) => _begun.Task.WaitAsync(cancel);
}
