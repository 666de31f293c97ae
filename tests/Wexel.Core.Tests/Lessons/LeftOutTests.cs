using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public class LeftOutTests
{
    private static readonly TimeSpan Length = TimeSpan.FromSeconds(60);

    private static IReadOnlyList<string> Of(IReadOnlyList<Section> sections, IReadOnlyList<Cue> cues, params TimeRange[] cuts) =>
        LeftOut.InWords(
            LessonWithCues.Of(
                new LessonDocument("T", "", "en", "h", cuts, sections, []),
                [(CaptionTrack.Of("t1", Cue.Kind.WithNames(cues), "en", "f.vtt"), Cue.Kind.WithNames(cues))]
            ),
            Length,
            TimeMap.Of(new FrameRate(30, 1), Length, cuts)
        );

    private static Section At(double seconds, string title) => new(title, TimeSpan.FromSeconds(seconds), title);

    private static Cue Said(double from, double to) => new(Span(from, to), "words");

    private static TimeRange Span(double from, double to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));

    [Fact]
    public void Nothing_is_said_where_all_of_it_is_seen() => Of([At(0, "A"), At(59.9, "B")], [Said(1, 2), Said(58, 70)], Span(20, 30)).ShouldBeEmpty();

    [Fact]
    public void What_lies_past_the_end_or_wholly_inside_a_cut_is_named() =>
        Of(
                [At(0, "A"), At(22, "Fares"), At(26, "C"), At(40, "D"), At(60, "Till")],
                [Said(1, 2), Said(3, 4), Said(21, 22), Said(19, 21), Said(61, 62)],
                Span(20, 30)
            )
            .ShouldBe([
                "The section “Till” starts at 1:00, past the end at 1:00; it was left out.",
                "The section “Fares” at 0:22 lies wholly inside a cut; it was left out.",
                "1 caption lies past the end at 1:00, the first at 1:01; left out.",
                "1 caption lies wholly inside cuts; left out.",
            ]);

    [Fact]
    public void A_file_of_another_recording_is_noticed() =>
        Of([At(0, "A"), At(90, "B"), At(120, "C")], [Said(61, 62), Said(63, 64)])
            .Take(2)
            .ShouldBe([
                "2 of 3 sections lie past the end at 1:00: is that file of another recording?",
                "2 of 2 captions lie past the end at 1:00: is that file of another recording?",
            ]);

    [Fact]
    public void Learners_get_no_track_of_which_cuts_leave_nothing()
    {
        IReadOnlyList<Cue> cues = Cue.Kind.WithNames([Said(21, 22)]);
        var document = new LessonDocument("T", "", "en", "h", [Span(20, 30)], [], []);
        var lesson = LessonWithCues.Of(document, [(CaptionTrack.Of("t1", cues, "en", "f.vtt"), cues)]);
        lesson.ForLearners(TimeMap.Of(new FrameRate(30, 1), Length, document.Cuts)).ShouldBeEmpty();
        lesson.ForLearners(TimeMap.Of(new FrameRate(30, 1), Length, [])).Single().Cues.Count.ShouldBe(1);
    }

    [Fact]
    public void What_a_cut_takes_nothing_of_is_not_named()
    {
        IReadOnlyList<Cue> cues = Cue.Kind.WithNames([Said(1, 2)]);
        var before = new LessonDocument("T", "", "en", "h", [], [At(0, "A"), At(22, "B"), At(28, "C")], []);
        GoneWithCuts
            .InWords(
                LessonWithCues.Of(before, [(CaptionTrack.Of("t1", cues, "en", "f.vtt"), cues)]),
                TimeMap.Of(new FrameRate(30, 1), Length, []),
                TimeMap.Of(new FrameRate(30, 1), Length, [Span(20, 30)])
            )
            .ShouldBe(["the section “B”"]);
    }
}
