using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

/// <summary>Caption tracks, of which two people change different captions, or different tracks.</summary>
public sealed class TrackMergeTests
{
    private static readonly LessonDocument Bare = new("Ropes", "", "en-GB", "hash", [], [], []);

    private static readonly IReadOnlyList<Cue> Said = [At(1, "c1", "Take the rope"), At(3, "c2", "in both hands"), At(5, "c3", "and pull")];

    private static Cue At(double second, string id, string text) =>
        new(new TimeRange(TimeSpan.FromSeconds(second), TimeSpan.FromSeconds(second + 1)), text, Id: id);

    private static LessonWithCues With(params (string Id, string Language, IReadOnlyList<Cue> Cues)[] tracks) =>
        LessonWithCues.Of(Bare, tracks.Select(t => (CaptionTrack.Of(t.Id, t.Cues, t.Language, "ropes.vtt"), t.Cues)));

    private static LessonWithCues With(IReadOnlyList<Cue> cues) => With(("t1", "en-GB", cues));

    private static IReadOnlyList<Cue> Of(LessonMerge merge, int track = 0) => merge.Lesson.CuesOf(merge.Document.Captions[track]);

    [Fact]
    public void Who_change_different_captions_both_keep_their_work()
    {
        var merge = LessonMerge.Of(
            With(Said),
            With([Said[0] with { Text = "Take the line" }, Said[1], Said[2]]),
            With([Said[0], Said[2] with { Text = "and pull." }, At(8, "c4", "Done.")])
        );
        merge.Clashes.ShouldBeEmpty();
        Of(merge).ShouldBe([At(1, "c1", "Take the line"), At(5, "c3", "and pull."), At(8, "c4", "Done.")]);
        merge.Document.Captions[0].CueCount.ShouldBe(3);
    }

    [Fact]
    public void Who_change_words_and_times_of_one_caption_get_both_and_it_is_said()
    {
        var merge = LessonMerge.Of(
            With(Said),
            With([At(1.5, "c1", "Take the rope"), Said[1], Said[2]]),
            With([Said[0] with { Text = "Take the line" }, Said[1], Said[2]])
        );
        Of(merge)[0].ShouldBe(At(1.5, "c1", "Take the line"));
        merge.Clashes.ShouldBe(["the caption at 0:01"]);
    }

    [Fact]
    public void Different_tracks_and_a_new_language_stand_beside_each_other()
    {
        IReadOnlyList<Cue> spanish = [At(1, "c1", "Toma la cuerda")],
            french = [At(1, "c1", "Prenez la corde")];
        var merge = LessonMerge.Of(
            With(Said),
            With(("t1", "en-GB", Said), ("t2", "es-ES", spanish)),
            With(("t1", "en-GB", [Said[0]]), ("t3", "fr-FR", french))
        );
        merge.Clashes.ShouldBeEmpty();
        merge.Document.Captions.Select(t => t.Language).ShouldBe(["en-GB", "es-ES", "fr-FR"]);
        (Of(merge).Count, Of(merge, 1), Of(merge, 2)).ShouldBe((1, spanish, french));
    }

    [Fact]
    public void A_track_that_one_takes_away_and_the_other_corrects_stays()
    {
        var merge = LessonMerge.Of(With(Said), With([Said[0]]), With());
        merge.Document.Captions.ShouldHaveSingleItem().CueCount.ShouldBe(1);
        merge.Clashes.ShouldBe(["the captions in en-GB"]);
    }

    [Fact]
    public void What_stands_of_a_track_is_picked_field_by_field()
    {
        var (before, theirs, mine) = (With(Said), With(Said), With(Said));
        theirs = theirs with { Document = theirs.Document with { Captions = [theirs.Document.Captions[0] with { Language = "en-US" }] } };
        mine = mine with { Document = mine.Document with { Captions = [mine.Document.Captions[0] with { State = TrackState.Draft, FileName = "b.vtt" }] } };
        var merge = LessonMerge.Of(before, theirs, mine);
        merge.Clashes.ShouldBeEmpty();
        merge.Document.Captions[0].ShouldBe(before.Document.Captions[0] with { Language = "en-US", State = TrackState.Draft, FileName = "b.vtt" });
    }

    /// <summary>Each of the two changes, removes or leaves each caption: nothing that only one of them touched is lost, and nothing comes twice.</summary>
    [Fact]
    public void Nothing_that_one_did_is_lost() =>
        Gen.Select(Gen.Int[0, 2].Array[6], Gen.Int[0, 2].Array[6])
            .Sample(
                (theirs, mine) =>
                {
                    var before = Enumerable.Range(0, 6).Select(i => At(i, $"c{i}", "before")).ToList();
                    IReadOnlyList<Cue> Done(int[] acts, string by) =>
                        [
                            .. before
                                .Where((_, i) => acts[i] != 2)
                                .Select(c => acts[int.Parse(c.Id[1..], System.Globalization.CultureInfo.InvariantCulture)] == 1 ? c with { Text = by } : c),
                        ];
                    var merged = Of(LessonMerge.Of(With(before), With(Done(theirs, "theirs")), With(Done(mine, "mine")))).ToDictionary(c => c.Id, c => c.Text);
                    for (var i = 0; i < 6; i++)
                    {
                        var expected = (theirs[i], mine[i]) switch
                        {
                            (_, 1) => "mine",
                            (1, _) => "theirs",
                            (2, _) or (_, 2) => null,
                            _ => "before",
                        };
                        merged.GetValueOrDefault($"c{i}").ShouldBe(expected);
                    }
                }
            );

    [Fact]
    public void Drafts_are_not_for_learners()
    {
        var lesson = With(("t1", "en-GB", Said), ("t2", "es-ES", Said));
        lesson = lesson with
        {
            Document = lesson.Document with { Captions = [lesson.Document.Captions[0] with { State = TrackState.Draft }, lesson.Document.Captions[1]] },
        };
        lesson.ForLearners(Core.Placing.TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(10), [])).ShouldHaveSingleItem().Track.Language.ShouldBe("es-ES");
    }

    [Fact]
    public void A_draft_that_somebody_lets_out_comes_behind_what_is_corrected_and_is_another_lesson_to_learners()
    {
        var lesson = With(("t1", "en-GB", Said), ("t2", "es-ES", Said));
        var kept = lesson.Document with { Captions = [lesson.Document.Captions[0] with { State = TrackState.Draft }, lesson.Document.Captions[1]] };
        var let = kept with { Captions = [kept.Captions[0] with { GoesOut = true }, kept.Captions[1]] };
        var map = Core.Placing.TimeMap.Of(new FrameRate(30, 1), TimeSpan.FromSeconds(10), []);
        (lesson with { Document = let }).ForLearners(map).Select(t => t.Track.Language).ShouldBe(["es-ES", "en-GB"]);
        new[] { kept, let, lesson.Document }.Select(LessonKeys.DocumentKey).Distinct().Count().ShouldBe(3);
        // Who checked it is no matter of theirs.
        var seen = lesson.Document.Captions[0] with { State = TrackState.Checked, CheckedBy = "Ana Quill" };
        var document = lesson.Document with { Captions = [seen, lesson.Document.Captions[1]] };
        LessonKeys.DocumentKey(document).ShouldBe(LessonKeys.DocumentKey(lesson.Document));
    }

    /// <summary>One corrects while another cuts: both are there, and what is cut is not shown. With another take what is placed goes with its recording, and
    /// it is said that what was corrected meanwhile could not be put on it.</summary>
    [Fact]
    public void Captions_of_a_lesson_that_is_cut_or_taken_again_meanwhile_keep_what_can_be_kept()
    {
        var mine = With([Said[0] with { Text = "Take the line" }, Said[1], Said[2]]);
        var cut = With(Said) with { Document = With(Said).Document with { Cuts = [new TimeRange(TimeSpan.FromSeconds(2.5), TimeSpan.FromSeconds(4.5))] } };
        var merge = LessonMerge.Of(With(Said), cut, mine);
        merge.Clashes.ShouldBeEmpty();
        (Of(merge)[0].Text, merge.Document.Cuts.Count).ShouldBe(("Take the line", 1));
        var map = Wexel.Core.Placing.TimeMap.Of(new FrameRate(25, 1), TimeSpan.FromSeconds(10), merge.Document.Cuts);
        merge
            .Lesson.ForLearners(map)
            .ShouldHaveSingleItem()
            .Cues.Select(c => (c.Text, c.Span.Start))
            .ShouldBe([("Take the line", TimeSpan.FromSeconds(1)), ("and pull", TimeSpan.FromSeconds(3))]);

        var taken = With(Said) with { Document = With(Said).Document with { RecordingHash = "other" } };
        merge = LessonMerge.Of(With(Said), taken, mine);
        merge.Clashes.ShouldHaveSingleItem().ShouldContain("which are others now");
        merge.Document.RecordingHash.ShouldBe("other");
        Of(merge).ShouldBe(Said);
    }
}
