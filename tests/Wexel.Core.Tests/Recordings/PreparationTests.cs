using Wexel.Core.Encoding;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Recordings;

public class PreparationTests
{
    private static RecordingFacts With(Func<PictureFacts, PictureFacts> changed)
    {
        var facts = Sample.Facts();
        return facts with { Picture = changed(facts.Picture!) };
    }

    private static RecordingFacts Coloured(string? matrix, string? primaries, string? transfer, string pixels = "yuv420p10le") =>
        With(p => p with { PixelFormat = pixels, Colour = new ColourFacts(matrix, primaries, transfer, null) });

    private static RecordingFacts Interlaced(int frames, int seconds = 1) =>
        With(p => p with { Fields = FieldOrder.TopFirst, Rate = new FrameRate(frames, seconds), NominalRate = new FrameRate(frames, seconds) });

    [Fact]
    public void A_usual_recording_is_taken_as_it_is() => Sample.Facts().Picture!.Preparation.ShouldBeNull();

    [Fact]
    public void Each_field_becomes_a_picture()
    {
        Reel.Of(Interlaced(25)).Grid.ShouldBe(new FrameRate(50, 1));
        Reel.Of(Interlaced(30_000, 1001)).Grid.ShouldBe(new FrameRate(60_000, 1001));
        RecordingCheck
            .Notes(Interlaced(30_000, 1001))
            .ShouldContain(note =>
                note.Contains("29.97 frames of two fields", StringComparison.Ordinal) && note.Contains("59.94 a second", StringComparison.Ordinal)
            );
        BrowserPlayback.CanPlay(Interlaced(25)).ShouldBeFalse();
    }

    [Fact]
    public void What_is_prepared_is_in_the_plan_and_its_colours_are_converted_once()
    {
        var reel = Reel.Of(Coloured("bt2020nc", "bt2020", "smpte2084"));
        var part = RenderPlanner.Plan(reel, reel.Map([]), Profiles.Web, new LessonLook()).Picture!.Parts[0];
        part.Prepared.ShouldBe(new PicturePreparation(null, new WideColour("bt2020nc", "bt2020", "smpte2084", false)));
        part.Colour.ShouldBeNull();
    }

    [Theory]
    [InlineData("bt2020nc", "bt2020", "smpte2084", "yuv420p10le", "high dynamic range (PQ)")]
    [InlineData(null, null, "arib-std-b67", "yuv420p10le", "high dynamic range (HLG)")]
    [InlineData("bt2020nc", "bt2020", "bt2020-10", "yuv420p10le", "BT.2020")]
    [InlineData("bt2020nc", null, null, "yuv420p10le", "BT.2020")]
    [InlineData("bt709", "smpte432", "bt709", "yuv420p", "Display P3")]
    [InlineData("gbr", "bt2020", "smpte2084", "gbrp10le", "high dynamic range (PQ)")]
    [InlineData("bt709", "bt709", "bt709", "yuv420p", null)]
    [InlineData("smpte170m", "smpte170m", "smpte170m", "yuv420p", null)]
    [InlineData(null, null, null, "yuv420p", null)]
    [InlineData("gbr", null, "iec61966-2-1", "gbrp", null)]
    public void What_a_usual_screen_cannot_show_is_known_by_its_tags(string? matrix, string? primaries, string? transfer, string pixels, string? name) =>
        (Coloured(matrix, primaries, transfer, pixels).Picture!.Preparation?.Colour?.Name).ShouldBe(name);

    [Fact]
    public void A_file_that_tells_of_red_green_and_blue_has_no_matrix_and_all_codes() =>
        WideColour.Of(Coloured("gbr", "bt2020", "smpte2084", "gbrp10le").Picture!).ShouldBe(new WideColour(null, "bt2020", "smpte2084", true));

    [Fact]
    public void Where_a_filter_is_missing_it_is_refused_in_a_sentence()
    {
        var high = Coloured("bt2020nc", "bt2020", "smpte2084");
        RecordingCheck.Refusal(high, "talk.mp4", new HashSet<string> { "zscale", "tonemap" }).ShouldBeNull();
        RecordingCheck
            .Refusal(high, "talk.mp4", new HashSet<string> { "tonemap" })!
            .Sentence.ShouldBe(
                "“talk.mp4” is in high dynamic range (PQ), and this server’s ffmpeg has no zscale filter to bring it to BT.709; install an ffmpeg "
                    + "with zscale, or record in standard range."
            );
        RecordingCheck.Refusal(Coloured("bt2020nc", "bt2020", "bt2020-10"), "talk.mp4", new HashSet<string> { "zscale" }).ShouldBeNull();
        RecordingCheck.Refusal(Sample.Facts(), "talk.mp4", new HashSet<string>()).ShouldBeNull();
    }

    [Fact]
    public void What_is_done_with_colours_is_said()
    {
        RecordingCheck
            .Notes(Coloured("bt2020nc", "bt2020", "smpte2084"))
            .ShouldContain(note =>
                note.StartsWith("The picture is in high dynamic range (PQ); it is brought to what every screen shows", StringComparison.Ordinal)
            );
        RecordingCheck
            .Notes(Coloured("bt2020nc", "bt2020", "bt709"))
            .ShouldContain("The colours are BT.2020; they are brought to what every screen shows (BT.709).");
    }

    [Fact]
    public void The_first_filter_that_lacks_is_named()
    {
        var usual = Sample.Facts();
        var high = usual with
        {
            Picture = usual.Picture! with { PixelFormat = "yuv420p10le", Colour = new ColourFacts("bt2020nc", "bt2020", "smpte2084", false) },
        };
        RecordingCheck.FiltersNeeded(high).ShouldBe(["zscale", "tonemap"]);
        RecordingCheck.Refusal(high, "r.mp4", new HashSet<string>())!.Sentence.ShouldContain("no zscale filter");
        RecordingCheck.Refusal(high, "r.mp4", new HashSet<string> { "zscale" })!.Sentence.ShouldContain("no tonemap filter");
        RecordingCheck.Refusal(high, "r.mp4", new HashSet<string> { "zscale", "tonemap" }).ShouldBeNull();
    }
}
