using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

public class CaptionTrackTests
{
    private static Cue At(int second, string id, string text = "Words") =>
        new(new TimeRange(TimeSpan.FromSeconds(second), TimeSpan.FromSeconds(second + 1)), text, Id: id);

    [Fact]
    public void Captions_keep_the_names_that_tell_them_apart_and_get_others() =>
        Cue
            .Kind.WithNames([At(0, "greeting"), At(1, ""), At(2, "c1"), At(3, "greeting"), At(4, new string('x', 65))])
            .Select(c => c.Id)
            .ShouldBe(["greeting", "c2", "c1", "c3", "c4"]);

    /// <summary>The identifier of a cue is the line above its times (W3C WebVTT, section 4.1).</summary>
    [Fact]
    public void A_track_is_kept_with_the_names_of_its_captions_and_read_again()
    {
        var cues = Cue.Kind.WithNames([At(0, "greeting"), At(1, "")]);
        var text = WebVttText.WriteKept(cues);
        text.ShouldBe("WEBVTT\n\ngreeting\n00:00:00.000 --> 00:00:01.000\nWords\n\nc1\n00:00:01.000 --> 00:00:02.000\nWords\n");
        WebVttText.Read(text).Cues.ShouldBe(cues);
    }

    [Fact]
    public void Naming_twice_is_naming_once() =>
        Gen.Int[0, 4]
            .Select(i => new[] { "", "c1", "c2", "a", "b" }[i])
            .Array[0, 9]
            .Sample(ids =>
            {
                var once = Cue.Kind.WithNames(ids.Select((id, i) => At(i, id)));
                return once.Select(c => c.Id).Distinct().Count() == once.Count && Cue.Kind.WithNames(once).SequenceEqual(once);
            });

    [Fact]
    public void The_hash_is_that_of_the_file_and_goes_by_what_is_said()
    {
        var track = CaptionTrack.Of("t1", [At(0, "c1")], "en-GB", "a.vtt");
        track.Hash.ShouldBe(
            Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(WebVttText.WriteKept([At(0, "c1")]))))
        );
        var corrected = track.With([At(0, "c1", "Other words"), At(1, "c2")]);
        (corrected.Id, corrected.CueCount, corrected.Hash == track.Hash).ShouldBe(("t1", 2, false));
        track.With([At(0, "c1")]).ShouldBe(track);
    }

    [Fact]
    public void Tracks_without_a_name_get_one_of_their_own() =>
        CaptionTrack
            .WithNames([.. new[] { "", "t2", "", "t2" }.Select(id => new CaptionTrack(id, "h", "en", "f", 1))])
            .Select(t => t.Id)
            .ShouldBe(["t1", "t2", "t3", "t4"]);

    [Fact]
    public void Files_of_tracks_are_told_apart_by_language_and_number() =>
        CaptionFileName.ForLanguages(["en-GB", "es-ES", "en-GB", "en-GB"]).ShouldBe(["en-GB", "es-ES", "en-GB-2", "en-GB-3"]);
}
