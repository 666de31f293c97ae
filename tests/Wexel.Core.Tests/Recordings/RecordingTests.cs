using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Recordings;

public class RecordingTests
{
    [Theory]
    [InlineData("Selling_a_vehicle-crossing 2026-11-04.mp4", "Selling a vehicle crossing")]
    [InlineData("refunds_take2_FINAL.mp4", "Refunds")]
    [InlineData("desk opening 2026-11-03.mp4", "Desk opening")]
    [InlineData("TillClosing (3).mkv", "Till Closing")]
    [InlineData("../../etc/OPENING THE DESK.mov", "Opening the desk")]
    [InlineData("Fähre \"Süd\" 🚢.webm", "Fähre Süd 🚢")]
    public void Proposes_a_title_from_a_name_that_says_something(string name, string expected) => TitleProposal.From(name).ShouldBe(expected);

    [Theory]
    [InlineData("Untitled 7.mov")]
    [InlineData("Recording 2026-11-04 101502.mkv")]
    [InlineData("screen-capture-12-11-2026_10-15-02.mp4")]
    [InlineData("IMG_0042.MOV")]
    [InlineData("2026-11-04.mp4")]
    [InlineData("🚢.mp4")]
    [InlineData("")]
    public void Asks_where_the_name_says_nothing(string name) => TitleProposal.From(name).ShouldBeNull();

    [Fact]
    public void Takes_a_usual_recording_without_a_word()
    {
        RecordingCheck.Refusal(Sample.Facts(), "a.mp4").ShouldBeNull();
        RecordingCheck.Notes(Sample.Facts()).ShouldBeEmpty();
    }

    [Fact]
    public void Refuses_with_one_sentence_that_names_the_file()
    {
        var usual = Sample.Facts();
        var refused = new Dictionary<string, RecordingFacts>
        {
            ["recording-container"] = usual with { Container = "gif" },
            ["recording-no-picture"] = usual with { Picture = null },
            ["recording-no-frames"] = usual with { Picture = usual.Picture! with { FrameCount = 0 } },
            ["recording-too-small"] = usual with { Picture = usual.Picture! with { Width = 1, Height = 1 } },
            ["recording-too-large"] = usual with { Picture = usual.Picture! with { Width = 20000 } },
            ["recording-no-length"] = usual with { Length = TimeSpan.Zero },
        };
        foreach (var (code, facts) in refused)
        {
            var problem = RecordingCheck.Refusal(facts, "lesson.mp4").ShouldNotBeNull();
            problem.Code.ShouldBe(code);
            problem.Sentence.ShouldContain("“lesson.mp4”");
            problem.Sentence.ShouldEndWith(".");
        }
    }

    /// <summary>Two frames of such a picture took 833 MB of a decoder.</summary>
    [Theory]
    [InlineData(7680, 4320, true)]
    [InlineData(4320, 7680, true)]
    [InlineData(7681, 4320, false)]
    [InlineData(16_000, 16_000, false)]
    public void More_pixels_than_the_largest_screens_have_are_refused(int width, int height, bool taken)
    {
        var usual = Sample.Facts();
        var refusal = RecordingCheck.Refusal(usual with { Picture = usual.Picture! with { Width = width, Height = height } }, "lesson.mp4");
        if (taken)
            refusal.ShouldBeNull();
        else
            refusal!.Code.ShouldBe("recording-too-large");
    }

    [Fact]
    public void Says_what_is_done_with_the_less_usual()
    {
        var usual = Sample.Facts();
        var odd = usual with
        {
            Sounds = [new("aac", 6, "5.1", 48000), new("aac", 2, "stereo", 48000), new("aac", 2, "stereo", 48000)],
            Picture = usual.Picture! with { Width = 1281, RotationDegrees = 90, RateVaries = true, Colour = usual.Picture.Colour with { FullRange = true } },
        };
        RecordingCheck.Notes(odd).Count.ShouldBe(6);
        RecordingCheck.Notes(usual with { Sounds = [] }).ShouldBe(["There is no sound."]);
    }

    [Fact]
    public void A_turned_picture_is_shown_upright_and_long_pixels_are_made_square()
    {
        var picture = Sample.Facts().Picture!;
        (picture with { Width = 1920, Height = 1080, RotationDegrees = 90 }).ShownSize.ShouldBe(new PictureSize(1080, 1920));
        // ITU-R BT.601 625-line picture at 16:9 as DV and DVD tag it, pixel aspect 64:45 (value from memory).
        (picture with { Width = 720, Height = 576, PixelAspect = 64.0 / 45 }).ShownSize.ShouldBe(new PictureSize(1024, 576));
    }

    [Theory]
    [InlineData("mp4", "h264", "yuv420p", "aac", true)]
    [InlineData("mov", "h264", "yuv420p", null, true)]
    [InlineData("webm", "vp9", "yuv420p", "opus", true)]
    [InlineData("matroska", "h264", "yuv420p", "opus", false)]
    [InlineData("mp4", "h264", "yuv444p", "aac", false)]
    [InlineData("mp4", "h264", "yuv420p", "ac3", false)]
    [InlineData("avi", "mpeg4", "yuv420p", "mp3", false)]
    [InlineData("mp4", "hevc", "yuv420p", "aac", false)]
    [InlineData("mp4", "hevc", "yuv420p", null, false)]
    public void Knows_what_browsers_play(string container, string codec, string format, string? sound, bool plays)
    {
        var usual = Sample.Facts();
        var facts = usual with
        {
            Container = container,
            Picture = usual.Picture! with { Codec = codec, PixelFormat = format },
            Sounds = sound is null ? [] : [new(sound, 2, "stereo", 48000)],
        };
        BrowserPlayback.CanPlay(facts).ShouldBe(plays);
    }

    [Fact]
    public void Pictures_stand_at_the_start_where_something_changes_and_every_ten_seconds()
    {
        var samples = Enumerable.Range(0, 61).Select(i => new PictureChange(TimeSpan.FromSeconds(i / 2.0), i is 0 or 25 or 26 or 27 ? 0.2 : 0)).ToList();
        Chosen(samples).Select(m => m.TotalSeconds).ShouldBe([0, 10, 12.5, 14.5, 24.5]);
    }

    private static IEnumerable<TimeSpan> Chosen(IEnumerable<PictureChange> samples)
    {
        var choice = new PictureMoments();
        return samples.Where(choice.Take).Select(s => s.At);
    }

    [Fact]
    public void Small_changes_add_up_to_a_new_picture()
    {
        var typing = Enumerable.Range(0, 20).Select(i => new PictureChange(TimeSpan.FromSeconds(i / 2.0), 0.0009)).ToList();
        Chosen(typing).Select(m => m.TotalSeconds).ShouldBe([0, 2.5, 5, 7.5]);
    }

    [Theory]
    [InlineData(0.1, 0.1, 0.0, SoundSides.Same)]
    [InlineData(0.1, 0.1, 0.1, SoundSides.Stereo)]
    [InlineData(0.1, 0.000001, 0.1, SoundSides.LeftOnly)]
    [InlineData(0.0, 0.1, 0.1, SoundSides.RightOnly)]
    [InlineData(1e-9, 1e-9, 1e-9, SoundSides.Silent)]
    public void Judges_which_sides_carry_sound(double left, double right, double difference, SoundSides expected) =>
        new SideSums(1, left, right, difference).Judge().ShouldBe(expected);

    [Theory]
    [InlineData("ab.mp4", "Ab")]
    [InlineData("a.mp4", null)]
    [InlineData("a 1 b.mp4", null)]
    public void A_word_of_two_letters_is_a_title(string file, string? title) => TitleProposal.From(file).ShouldBe(title);

    [Theory]
    [InlineData("webm", "vp9", "yuv420p", "opus", true)]
    [InlineData("webm", "vp9", "yuv420p", null, true)]
    [InlineData("webm", "vp9", "yuv420p", "aac", false)]
    [InlineData("webm", "vp9", "yuv444p", "opus", false)]
    [InlineData("webm", "h264", "yuv420p", "opus", false)]
    [InlineData("mp4", "h264", "yuv420p", "mp3", true)]
    [InlineData("mp4", "h264", "yuv420p", "ac3", false)]
    [InlineData("mp4", "h264", "yuv444p", "aac", false)]
    [InlineData("mp4", "hevc", "yuv420p", "aac", false)]
    [InlineData("mkv", "h264", "yuv420p", "aac", false)]
    public void What_browsers_play_is_told_by_all_of_container_picture_and_sound(string container, string codec, string format, string? sound, bool plays)
    {
        var usual = Sample.Facts();
        var facts = usual with
        {
            Container = container,
            Picture = usual.Picture! with { Codec = codec, PixelFormat = format },
            Sounds = sound is null ? [] : [new SoundFacts(sound, 2, "stereo", 48_000)],
        };
        BrowserPlayback.CanPlay(facts).ShouldBe(plays);
    }
}
