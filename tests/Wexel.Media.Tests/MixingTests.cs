using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Analysing;
using Wexel.Media.Mixing;
using Wexel.Media.Probing;
using Wexel.Media.Rendering;

namespace Wexel.Media.Tests;

/// <summary>Sounds under a voice, mixed by real programs and measured by ffmpeg's own meter (ITU-R BS.1770, EBU R 128).</summary>
public sealed class MixingTests(Clips clips) : IClassFixture<Clips>
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>Somebody speaks for four seconds and is silent for six, again and again; 30 s.</summary>
    private const string Spoken = "aevalsrc=0.2*sin(2*PI*500*t)*lt(mod(t\\,10)\\,4)+0.0001*(random(0)-0.5):s=48000:d=30";

    private Task<string> LessonAsync() =>
        clips.MakeAsync(
            "-f",
            "lavfi",
            "-i",
            "testsrc2=s=320x240:r=30:d=30",
            "-f",
            "lavfi",
            "-i",
            Spoken,
            "-c:a",
            "aac",
            "-b:a",
            "192k",
            "-shortest",
            "voice.mp4"
        );

    /// <summary>Twelve seconds of music, 120 beats a minute, both sides different.</summary>
    private Task<string> MusicAsync(string name = "music.wav", params string[] more) =>
        clips.MakeAsync(["-f", "lavfi", "-i", "aevalsrc=0.3*sin(2*PI*330*t)|0.3*sin(2*PI*440*t):s=48000:d=12", .. more, name]);

    private static async Task<ShelfSound> ShelvedAsync(string path, double? tempo)
    {
        var facts = (await SoundFile.ReadAsync(path, Cancel)).Value!;
        return new ShelfSound("music", "Music", "", "CC0-1.0", facts.Length, facts.Channels, facts.Lufs, facts.TruePeak, TimeSpan.Zero, tempo);
    }

    private sealed record Mixed(SoundPlan Plan, string Path, Voice Voice);

    private async Task<Mixed> MixAsync(string name, SoundBed bed, string music, double? target = null, bool voiced = true)
    {
        var source = await LessonAsync();
        var facts = (await Prober.ProbeAsync(source, "voice.mp4", Cancel)).Value!;
        var reel = Reel.Of(facts, SoundSides.Same);
        var map = reel.Map([]);
        var voice = Voice.Of(reel, [await RecordingAnalyser.ListenAsync(facts, source, Cancel)], map);
        var profile = Profiles.Web with { Sound = Profiles.Web.Sound! with { TargetLufs = target } };
        var plan = RenderPlanner.Plan(reel, map, profile, new LessonLook(Under: MixPlanner.Plan([bed], voice, map.Length))).Sound!;
        // To measure the music alone nobody speaks, and nothing else is otherwise.
        var done = voiced ? plan : plan with { Mixes = [null] };
        var copy = clips.Path(Path.GetFileNameWithoutExtension(music) + ".copy.flac");
        await SoundFile.CopyAsync(music, bed.Sound.Channels, copy, Cancel);
        var path = clips.Path(name);
        await SoundComposer.ComposeAsync(
            done,
            reel,
            map,
            new EncodeInputs([source], Sounds: new Dictionary<string, string> { ["music"] = copy }),
            path,
            Cancel
        );
        return new Mixed(plan, path, voice);
    }

    private Task<string> PartAsync(string of, double from, double to, string name) =>
        clips.MakeAsync("-ss", from.ToString(CultureInfo.InvariantCulture), "-t", (to - from).ToString(CultureInfo.InvariantCulture), "-i", of, name);

    private async Task<double> LufsAsync(string of, double from, double to, string name) =>
        (await ReferenceMeter.MeasureAsync(await PartAsync(of, from, to, name))).Integrated!.Value;

    private static SoundBed Under(ShelfSound sound) =>
        new(
            "s1",
            new TimeRange(TimeSpan.Zero, TimeSpan.FromSeconds(30)),
            sound,
            TimeSpan.Zero,
            TimeSpan.Zero,
            SoundBed.UsualApart,
            10,
            TimeSpan.FromSeconds(0.3),
            TimeSpan.FromSeconds(0.8),
            true,
            false
        );

    /// <summary>WCAG 2.2, success criterion 1.4.7, asks for 20 dB between speech and what lies under it; common practice goes down to 15.</summary>
    [Fact]
    public async Task Where_somebody_speaks_music_lies_as_far_under_the_voice_as_was_asked()
    {
        var music = await MusicAsync();
        var bed = Under(await ShelvedAsync(music, 120));
        var mixed = await MixAsync("mixed.flac", bed, music);
        mixed.Voice.Spoken.Select(s => (Math.Round(s.Start.TotalSeconds, 1), Math.Round(s.End.TotalSeconds, 1))).ShouldBe([(0, 4), (10, 14), (20, 24)]);
        mixed.Plan.Channels.ShouldBe(2, "The music has two sides.");
        var alone = await MixAsync("alone.flac", bed, music, voiced: false);
        var voice = await LufsAsync(await LessonAsync(), 10, 14, "said.wav");
        (voice - await LufsAsync(alone.Path, 10, 14, "down.wav")).ShouldBe(20, 0.5);
        (voice - await LufsAsync(alone.Path, 15, 19, "up.wav")).ShouldBe(10, 0.5);
        // The joint of two turns, at 12 s, is as loud as what is around it: nothing is missing, nothing is doubled.
        (await LufsAsync(alone.Path, 11.6, 12.4, "joint.wav")).ShouldBe(await LufsAsync(alone.Path, 10.5, 11.3, "before.wav"), 0.2);
        (await LufsAsync(mixed.Path, 10, 14, "both.wav")).ShouldBe(voice, 0.5);
    }

    [Fact]
    public async Task The_whole_is_brought_to_the_houses_loudness_and_nothing_clips()
    {
        var music = await MusicAsync();
        var bed = Under(await ShelvedAsync(music, 120)) with { Apart = SoundBed.LeastApart, Duck = SoundBed.MostDuck };
        var mixed = await MixAsync("loud.flac", bed, music, Levelling.UsualTarget);
        mixed.Plan.Under!.Gain.ShouldBeLessThan(1, "So loud is the music where nobody speaks.");
        (await ReferenceMeter.MeasureAsync(mixed.Path)).TruePeak!.Value.ShouldBeLessThan(0);
        var output = clips.Path("loud.m4a");
        var reel = Reel.Of((await Prober.ProbeAsync(await LessonAsync(), "voice.mp4", Cancel)).Value!, SoundSides.Same);
        var sound = await LessonSound.MakeAsync(mixed.Plan, reel, reel.Map([]), new EncodeInputs([]), mixed.Path, Cancel);
        await Encoder.EncodeAsync(
            new EncodeWork(new EncodeInputs([]), [], [new SoundOutput(mixed.Plan, _ => Task.FromResult(sound), output)]),
            null,
            null,
            Cancel
        );
        var made = await ReferenceMeter.MeasureAsync(output);
        made.Integrated!.Value.ShouldBe(Levelling.UsualTarget, 0.7);
        made.TruePeak!.Value.ShouldBeLessThanOrEqualTo(Levelling.Ceiling + 0.1);
    }

    [Fact]
    public async Task A_sound_that_is_not_there_any_more_is_said_in_a_sentence()
    {
        var source = await LessonAsync();
        var reel = Reel.Of((await Prober.ProbeAsync(source, "voice.mp4", Cancel)).Value!, SoundSides.Same);
        var bed = Under(await ShelvedAsync(await MusicAsync(), 120));
        var look = new LessonLook(Under: MixPlanner.Plan([bed], new Voice([], null, null), reel.Length));
        var plan = RenderPlanner.Plan(reel, reel.Map([]), Profiles.Web, look).Sound!;
        (
            await Should.ThrowAsync<Tools.ToolFailedException>(() =>
                SoundComposer.ComposeAsync(plan, reel, reel.Map([]), new EncodeInputs([source]), clips.Path("none.flac"), Cancel)
            )
        ).Said.ShouldContain("is not on the shelf any more");
        File.Exists(clips.Path("none.flac")).ShouldBeFalse();
    }

    /// <summary>What a trainer has at hand: telephone quality, a cover picture, a click of a tenth of a second.</summary>
    [Fact]
    public async Task Sounds_of_all_kinds_are_taken_and_measured()
    {
        var low = await clips.MakeAsync("-f", "lavfi", "-i", "sine=f=300:r=22050:d=5", "-ac", "1", "low.wav");
        var facts = (await SoundFile.ReadAsync(low, Cancel)).Value!;
        (facts.Channels, facts.Length, facts.Title).ShouldBe((1, TimeSpan.FromSeconds(5), null));
        facts.Lufs.ShouldBe((await ReferenceMeter.MeasureAsync(low)).Integrated!.Value, 0.3);
        var cover = await clips.MakeAsync([
            "-f",
            "lavfi",
            "-i",
            "aevalsrc=0.3*sin(2*PI*330*t)|0.2*sin(2*PI*440*t):s=44100:d=4",
            "-f",
            "lavfi",
            "-i",
            "color=red:s=200x200:d=1",
            "-map",
            "0",
            "-map",
            "1",
            "-frames:v",
            "1",
            "-disposition:v",
            "attached_pic",
            "-metadata",
            "title=Harbour",
            "-metadata",
            "artist=Elin Moor",
            "-metadata",
            "TBPM=96",
            "cover.mp3",
        ]);
        var tagged = (await SoundFile.ReadAsync(cover, Cancel)).Value!;
        (tagged.Title, tagged.Author, tagged.Tempo, tagged.Channels).ShouldBe(("Harbour", "Elin Moor", 96, 2));
        var copy = clips.Path("cover.flac");
        await SoundFile.CopyAsync(cover, 2, copy, Cancel);
        (await PlainFfmpeg.SaidAsync(["-i", copy, "-f", "null", "-"], Cancel)).ShouldNotContain("Stream #0:1");
        var click = await clips.MakeAsync("-f", "lavfi", "-i", "sine=f=1000:r=48000:d=0.1", "click.flac");
        (await SoundFile.ReadAsync(click, Cancel)).Value!.Lufs.ShouldBeInRange(-40, -10);
    }

    [Theory]
    [InlineData("silent", "sound-silent")]
    [InlineData("text", "sound-unreadable")]
    [InlineData("empty", "sound-empty")]
    [InlineData("long", "sound-too-long")]
    [InlineData("picture", "sound-none")]
    [InlineData("short", "sound-too-short")]
    public async Task What_cannot_be_used_is_refused_in_a_sentence(string which, string code)
    {
        var path = which switch
        {
            "silent" => await clips.MakeAsync("-f", "lavfi", "-i", "anullsrc=r=44100:cl=stereo:d=3", "silent.wav"),
            "long" => await clips.MakeAsync("-f", "lavfi", "-i", "sine=f=300:r=8000:d=1260", "-c:a", "pcm_u8", "long.wav"),
            "picture" => await clips.MakeAsync("-f", "lavfi", "-i", "testsrc2=s=64x64:d=1", "picture.mp4"),
            "short" => await clips.MakeAsync("-f", "lavfi", "-i", "sine=f=300:r=48000:d=0.01", "short.wav"),
            _ => clips.Path(which + ".mp3"),
        };
        if (which is "text" or "empty")
            await File.WriteAllTextAsync(path, which == "text" ? string.Concat(Enumerable.Repeat("This is no sound. ", 200)) : "", Cancel);
        var (facts, problem) = await SoundFile.ReadAsync(path, Cancel);
        (facts, problem?.Code).ShouldBe((null, code), problem?.Sentence);
    }

    [Fact]
    public async Task A_copy_that_was_broken_off_is_refused_where_the_file_says_how_long_it_is()
    {
        var bytes = await File.ReadAllBytesAsync(await MusicAsync("entire.flac"), Cancel);
        await File.WriteAllBytesAsync(clips.Path("half.flac"), bytes[..(bytes.Length / 2)], Cancel);
        (await SoundFile.ReadAsync(clips.Path("half.flac"), Cancel)).Problem!.Code.ShouldBe("sound-damaged");
    }

    [Theory]
    [InlineData("mp3")]
    [InlineData("flac")]
    public async Task A_file_that_is_broken_in_the_middle_is_refused(string kind)
    {
        var whole = await MusicAsync("whole." + kind);
        (await SoundFile.ReadAsync(whole, Cancel)).Problem.ShouldBeNull();
        var bytes = await File.ReadAllBytesAsync(whole, Cancel);
        new Random(7).NextBytes(bytes.AsSpan(bytes.Length / 2, bytes.Length / 4));
        await File.WriteAllBytesAsync(clips.Path("broken." + kind), bytes, Cancel);
        (await SoundFile.ReadAsync(clips.Path("broken." + kind), Cancel)).Problem!.Code.ShouldBe("sound-damaged");
    }
}
