using System.Diagnostics;
using CliWrap;
using Wexel.Core.Recordings;
using Wexel.Core.Speech;
using Wexel.Core.Timing;
using Wexel.Media.Probing;
using Wexel.Media.Speech;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>Speech becomes words with their times, by engines that are processes of their own and may die.</summary>
public sealed class SpeechTests(Clips clips) : IClassFixture<Clips>
{
    /// <summary>Debian's pocketsphinx-testdata: recordings with what is read in them.</summary>
    private const string Known = "/usr/share/pocketsphinx/test/data/librivox";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>Each of the known recordings, with what is read in it and what was heard of it without a script: listened to once.</summary>
    private static readonly Lazy<Task<IReadOnlyList<(string Sound, string Said, IReadOnlyList<HeardWord> Heard)>>> Alone = new(async () =>
    {
        var all = new List<(string, string, IReadOnlyList<HeardWord>)>();
        foreach (var line in await File.ReadAllLinesAsync(Path.Combine(Known, "transcription")))
        {
            var sound = Path.Combine(Known, line[(line.LastIndexOf('(') + 1)..].TrimEnd(')') + ".wav");
            var said = line[4..line.LastIndexOf("</s>", StringComparison.Ordinal)].Trim();
            all.Add((sound, said, await new PocketSphinx().ListenAsync(sound, "en-US", null, Limits(400), CancellationToken.None)));
        }

        return all;
    });

    /// <summary>Held against the transcription that Debian's pocketsphinx-testdata ships with its recordings: 71 words read aloud.</summary>
    [Fact]
    public async Task Most_words_of_known_recordings_are_heard_and_none_overlaps()
    {
        var (said, heard) = (new List<string>(), new List<string>());
        foreach (var known in await Alone.Value)
        {
            said.AddRange(known.Said.Split(' ', StringSplitOptions.RemoveEmptyEntries));
            known.Heard.Zip(known.Heard.Skip(1)).ShouldAllBe(w => w.First.Span.End <= w.Second.Span.Start);
            known.Heard.ShouldAllBe(w => w.Confidence >= 0 && w.Confidence <= 1 && !w.Text.Contains('('));
            heard.AddRange(known.Heard.Select(w => WordList.Plain(w.Text)));
        }

        said.Count.ShouldBe(71);
        WordErrors.Of(said, heard).Rate.ShouldBeLessThan(0.4);
    }

    /// <summary>A stretch of a recording: its words count from the recording's start, and what is not in it is not heard.</summary>
    [Fact]
    public async Task A_stretch_of_a_recording_is_listened_to_in_the_recordings_own_time()
    {
        var spoken = Path.Combine(Known, "sense_and_sensibility_01_austen_64kb-0880.wav");
        // Three seconds of silence, then the sentence, then the same once more.
        var clip = await clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=10:d=10",
            "-i",
            spoken,
            "-filter_complex",
            "[1:a]adelay=3000:all=1,asplit[a][b];[b]adelay=3500:all=1[c];[a][c]amix=inputs=2:normalize=0",
            "-t",
            "10",
            "twice.mp4"
        );
        var facts = await FactsAsync(clip);
        var stretch = new TimeRange(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(6.2));
        var words = await SpeechListener.ListenAsync(new PocketSphinx(), clip, facts, stretch, "en-GB", null, Cancel);
        words.Select(w => w.Text).ShouldContain("man");
        words.Count(w => w.Text == "man").ShouldBe(1);
        words.ShouldAllBe(w => w.Span.Start >= TimeSpan.FromSeconds(2.9) && w.Span.End <= stretch.End);
    }

    [Theory]
    [InlineData("exit 3", "ended with code 3")]
    [InlineData("echo 'model is broken' >&2; exit 1", "model is broken")]
    [InlineData("kill -9 $$", "ended with code 137")]
    [InlineData("printf 'Segmentation { fault } 12\\n'", "which is no word")]
    [InlineData("printf 'word 2.0 1.0 0.5\\n'", "which is no word")]
    [InlineData("head -c 3000000 /dev/zero | tr '\\0' 'a'", "rubbish")]
    [InlineData("exec sleep 60", "all the time that it may")]
    public async Task An_engine_that_dies_hangs_or_prints_rubbish_is_ended_with_a_sentence(string script, string said)
    {
        var began = Stopwatch.GetTimestamp();
        var failed = await Should.ThrowAsync<ToolFailedException>(
            new PocketSphinx(await EngineAsync(script), "/").ListenAsync("x.wav", "en", null, Limits(2), Cancel)
        );
        failed.Said.ShouldContain(said);
        Stopwatch.GetElapsedTime(began).ShouldBeLessThan(TimeSpan.FromSeconds(50));
    }

    [Fact]
    public async Task An_engine_that_is_stopped_leaves_nothing_behind()
    {
        var engine = new PocketSphinx(await EngineAsync("exec sleep 61"), "/");
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(Cancel);
        var listening = engine.ListenAsync("x.wav", "en", null, Limits(100), stop.Token);
        await Task.Delay(500, Cancel);
        await stop.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(listening);
        // It was told to end; a busy machine takes a moment until it has.
        async Task<bool> IsThereAsync() =>
            (await Cli.Wrap("pgrep").WithArguments(["-f", "^sleep 61"]).WithValidation(CommandResultValidation.None).ExecuteAsync(Cancel)).ExitCode == 0;
        var began = Stopwatch.GetTimestamp();
        while (await IsThereAsync() && Stopwatch.GetElapsedTime(began) < TimeSpan.FromSeconds(30))
            await Task.Delay(200, Cancel);
        (await IsThereAsync()).ShouldBeFalse();
    }

    [Fact]
    public async Task Words_are_read_with_their_times_and_noises_are_none()
    {
        var engine = new PocketSphinx(
            await EngineAsync(
                "printf 'press it\\n<s> 0.0 0.1 1.0\\npress(2) 0.10 0.40 0.91\\n[NOISE] 0.4 0.5 0.2\\n++UH++ 0.5 0.6 0.2\\nit 0.35 0.80 1.0003\\n'"
            ),
            "/"
        );
        (await engine.ListenAsync("x.wav", "en", null, Limits(5), Cancel)).ShouldBe([
            new HeardWord(Span(0.1, 0.4), "press", 0.91),
            new HeardWord(Span(0.4, 0.8), "it", 1),
        ]);
    }

    [Fact]
    public void An_engine_says_what_it_lacks_and_which_languages_it_knows()
    {
        new PocketSphinx().Missing().ShouldBeNull();
        new PocketSphinx("no-such-program").Missing()!.Code.ShouldBe("speech-no-pocketsphinx");
        new PocketSphinx(model: "/nowhere").Missing()!.Sentence.ShouldContain("pocketsphinx-en-us");
        (new PocketSphinx().Knows("en-GB"), new PocketSphinx().Knows("es"), new PocketSphinx().Knows("enm")).ShouldBe((true, false, false));
    }

    private static TimeRange Span(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static ChildLimits Limits(int seconds) => new(2L << 30, TimeSpan.FromSeconds(seconds), TimeSpan.FromSeconds(seconds));

    private static async Task<RecordingFacts> FactsAsync(string clip)
    {
        (await Prober.ProbeAsync(clip, Path.GetFileName(clip), Cancel)).Is(out var facts, out var problem).ShouldBeTrue(problem?.Sentence);
        return facts!;
    }

    /// <summary>The same known recording, read with its own words as script: at most a third of the errors are left. A word that no dictionary has is
    /// pronounced by espeak-ng.</summary>
    [Fact]
    public async Task With_the_script_at_most_a_third_of_the_errors_are_left()
    {
        var (said, alone, known) = (new List<string>(), new List<string>(), new List<string>());
        var engine = new PocketSphinx();
        var recordings = await Alone.Value;
        var script = ScriptText.Parse(string.Join("\n\n", recordings.Select(r => r.Said)) + "\n\nBrackwaterish 4.6 m!");
        var hints = await engine.PrepareAsync(script, "en-US", clips.Folder, Cancel);
        var dictionary = await File.ReadAllLinesAsync(hints!.Dictionary, Cancel);
        dictionary.ShouldContain(l => l.StartsWith("brackwaterish B R AE K W AH T ER", StringComparison.Ordinal));
        dictionary.ShouldContain("46 F AO R P OY N T S IH K S");
        foreach (var (sound, words, heard) in recordings)
        {
            said.AddRange(words.Split(' '));
            alone.AddRange(heard.Select(w => WordList.Plain(w.Text)));
            known.AddRange((await engine.ListenAsync(sound, "en-US", hints, Limits(400), Cancel)).Select(w => WordList.Plain(w.Text)));
        }

        WordErrors.Of(said, known).Rate.ShouldBeLessThanOrEqualTo(WordErrors.Of(said, alone).Rate / 3);
        (await engine.PrepareAsync(ScriptText.Parse(""), "en-US", clips.Folder, Cancel)).ShouldBeNull();
    }

    /// <summary>No model can be had without a network: a stand-in says what the program says with one, and the program itself is run with a file that is
    /// none, which its native code refuses.</summary>
    [Fact]
    public async Task Whisper_listens_with_the_model_that_is_there_and_is_refused_without_one()
    {
        var model = clips.Path("ggml-tiny.bin");
        await File.WriteAllTextAsync(model, "no model", Cancel);
        var engine = new WhisperEngine(model, [await EngineAsync("echo \"$2 0.10 0.40 0.91\"; echo \"it. 0.40 0.80 0.7\"")]);
        (engine.Name, engine.Writes, engine.Missing()).ShouldBe(("Whisper, ggml-tiny", true, null));
        engine.Knows("de-DE").ShouldBeTrue();
        (await engine.ListenAsync("x.wav", "de-DE", null, Limits(20), Cancel)).ShouldBe([
            new HeardWord(Span(0.1, 0.4), "de", 0.91),
            new HeardWord(Span(0.4, 0.8), "it.", 0.7),
        ]);
        (await engine.PrepareAsync(ScriptText.Parse("One."), "en", clips.Folder, Cancel)).ShouldBeNull();
        new WhisperEngine(clips.Path("ggml-base.en-q5_1.bin"), ["x"]).Knows("de").ShouldBeFalse();
        new WhisperEngine(clips.Path("ggml-base.en.bin"), ["x"]).Missing()!.Sentence.ShouldContain("is not there");
        new WhisperEngine(null, ["x"]).Knows("en").ShouldBeFalse();

        var sound = clips.Path("silence.wav");
        await PlainFfmpeg.SaidAsync(["-f", "lavfi", "-i", "anullsrc=r=16000:cl=mono:d=1", sound], Cancel);
        // It is built beside this, and stands where its own project does.
        var program = Path.GetFullPath("../../../../../src/Wexel.Whisper/bin/Release/net10.0/Wexel.Whisper.dll", AppContext.BaseDirectory);
        var failed = await Should.ThrowAsync<ToolFailedException>(
            new WhisperEngine(model, ["dotnet", program]).ListenAsync(sound, "en", null, Limits(60), Cancel)
        );
        failed.Said.ShouldContain("model");
        failed.Said.ShouldNotContain("   at ");
    }

    /// <summary>Music of chords and two people who speak at once: whatever is heard, words follow each other within what was listened to, and none is sure.
    /// espeak-ng says the two voices.</summary>
    [Fact]
    public async Task Music_alone_and_two_voices_at_once_end_in_order()
    {
        var (one, two, both, music) = (clips.Path("one.wav"), clips.Path("two.wav"), clips.Path("both.wav"), clips.Path("music.wav"));
        await Cli.Wrap("espeak-ng").WithArguments(["-v", "en-us", "-w", one, "Take the rope in both hands and pull it to you."]).ExecuteAsync(Cancel);
        await Cli.Wrap("espeak-ng").WithArguments(["-v", "en-us+f3", "-w", two, "The second sailing leaves at half past nine today."]).ExecuteAsync(Cancel);
        await PlainFfmpeg.SaidAsync(["-i", one, "-i", two, "-filter_complex", "amix=2", "-ar", "16000", "-ac", "1", both], Cancel);
        await PlainFfmpeg.SaidAsync(
            ["-f", "lavfi", "-i", "aevalsrc='0.2*(sin(2*PI*220*t)+sin(2*PI*277*t)+sin(2*PI*330*t))*(0.6+0.4*sin(2*PI*2*t))':s=16000:d=8", music],
            Cancel
        );
        foreach (var sound in new[] { both, music })
        {
            var words = await new PocketSphinx().ListenAsync(sound, "en-US", null, Limits(120), Cancel);
            words.Zip(words.Skip(1)).ShouldAllBe(p => p.First.Span.End <= p.Second.Span.Start);
            if (sound == music)
                words.Count(w => !w.IsUnsure).ShouldBeLessThan(4);
        }
    }

    /// <summary>A program that stands in for an engine.</summary>
    private async Task<string> EngineAsync(string script)
    {
        var path = clips.Path($"engine-{Guid.NewGuid():N}");
        await File.WriteAllTextAsync(path, $"#!/bin/bash\n{script}\n", Cancel);
        File.SetUnixFileMode(path, UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.UserWrite);
        return path;
    }
}
