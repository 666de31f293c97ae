using CsCheck;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Lessons;

public class LessonPictureTests
{
    private static readonly LessonDocument Lesson = new("Fares", "", "en-GB", "aa11", [], [], []);

    private static LessonDocument At(int seconds) => Lesson with { Picture = new LessonPicture(TimeSpan.FromSeconds(seconds)) };

    [Theory]
    [InlineData("png", 1280, 720, "")]
    [InlineData("webp", 1280, 200, "")]
    [InlineData("mjpeg", 1279, 1279, "picture-too-small")]
    [InlineData("png", 20_000, 11_250, "picture-too-large")]
    [InlineData("png", 12_001, 2000, "picture-too-large")]
    [InlineData("png", 12_000, 4_200, "picture-too-large")]
    [InlineData("png", 12_000, 4_000, "")]
    [InlineData("gif", 1280, 720, "picture-format")]
    [InlineData("bmp", 300, 720, "picture-format picture-too-small")]
    public void Says_what_is_wrong_with_a_picture(string format, int width, int height, string codes) =>
        string.Join(' ', LessonPicture.Wrong(new ImageFacts(format, width, height, ImageColour.Rgb, false, 1000)).Select(p => p.Code)).ShouldBe(codes);

    [Theory]
    [InlineData(1920, 1080, 1280, 720)]
    [InlineData(640, 480, 1280, 960)]
    [InlineData(1366, 768, 1280, 720)]
    public void A_given_picture_becomes_one_of_the_lessons_shape(int width, int height, int madeWidth, int madeHeight) =>
        LessonPicture.SizeOfOwn(new PictureSize(width, height)).ShouldBe(new PictureSize(madeWidth, madeHeight));

    [Fact]
    public void Of_sound_alone_it_is_as_wide_as_screens_are() => LessonPicture.SizeOfOwn(null).ShouldBe(new PictureSize(1280, 720));

    /// <summary>Whatever is given: what is seen lies within it, in its middle, has the shape that is wanted, and touches two sides.</summary>
    [Fact]
    public void What_is_seen_of_it_lies_within_it() =>
        Gen.Select(Gen.Int[1280, 6000], Gen.Int[100, 6000], Gen.Int[100, 2000], Gen.Int[100, 2000])
            .Sample(g =>
            {
                var (given, wanted) = (new PictureSize(g.Item1, g.Item2), new PictureSize(g.Item3, g.Item4));
                var seen = LessonPicture.Seen(given, wanted);
                seen.X.ShouldBeGreaterThanOrEqualTo(0);
                seen.Y.ShouldBeGreaterThanOrEqualTo(0);
                (seen.X + seen.Width).ShouldBeLessThanOrEqualTo(given.Width);
                (seen.Y + seen.Height).ShouldBeLessThanOrEqualTo(given.Height);
                Math.Abs(given.Width - seen.Width - (2 * seen.X)).ShouldBeLessThanOrEqualTo(1);
                Math.Abs(given.Height - seen.Height - (2 * seen.Y)).ShouldBeLessThanOrEqualTo(1);
                (given.Width == seen.Width || given.Height == seen.Height).ShouldBeTrue();
                // The shape, as near as whole pixels come to it.
                var (x, y) = ((double)seen.Width / wanted.Width, (double)seen.Height / wanted.Height);
                (Math.Abs(x - y) <= (0.51 / wanted.Width) + (0.51 / wanted.Height)).ShouldBeTrue($"{seen} of {given} for {wanted}");
            });

    [Fact]
    public void A_picture_is_a_frame_that_there_is_or_one_that_was_given()
    {
        LessonPicture? Tidied(LessonPicture? picture) =>
            LessonRules.Tidy(Lesson with { Picture = picture }, TimeSpan.FromSeconds(60), new Core.Timing.FrameRate(30, 1)).Picture;
        Tidied(new LessonPicture(TimeSpan.FromSeconds(70))).ShouldBe(new LessonPicture(TimeSpan.FromSeconds(60)));
        Tidied(new LessonPicture(TimeSpan.FromSeconds(-1))).ShouldBe(new LessonPicture(TimeSpan.Zero));
        Tidied(new LessonPicture(TimeSpan.FromSeconds(7), "k")).ShouldBe(new LessonPicture(Own: "k"));
        Tidied(new LessonPicture()).ShouldBeNull();
        Tidied(null).ShouldBeNull();
    }

    [Fact]
    public void It_is_said_in_words_and_makes_another_lesson_of_it()
    {
        LessonRules.Describe(Lesson, At(7)).ShouldBe("the lesson’s picture");
        new[] { Lesson, At(7), At(8), Lesson with { Picture = new LessonPicture(Own: "k") } }.Select(LessonKeys.DocumentKey).ShouldBeUnique();
    }

    [Fact]
    public void Split_it_stays_with_the_part_that_it_is_of()
    {
        LessonSplit.At(At(7), TimeSpan.FromSeconds(30), Map()).Is(out var early, out _).ShouldBeTrue();
        (early!.First.Picture, early.Second.Picture).ShouldBe((At(7).Picture, null));
        LessonSplit.At(At(30), TimeSpan.FromSeconds(30), Map()).Is(out var late, out _).ShouldBeTrue();
        (late!.First.Picture, late.Second.Picture).ShouldBe((null, At(30).Picture));

        static TimeMap Map() => TimeMap.Of(new Core.Timing.FrameRate(30, 1), TimeSpan.FromSeconds(60), []);
    }

    [Fact]
    public void It_goes_with_its_recording_and_is_told_of_where_that_is_gone()
    {
        LessonDocument Moved(int at, out IReadOnlyList<string> lost)
        {
            // The recording is cut off at 20 s and stands behind another of 10 s.
            Core.Timing.TimeRange Span(int from, int to) => new(TimeSpan.FromSeconds(from), TimeSpan.FromSeconds(to));
            var change = ReelChange.Of(
                LessonWithCues.Without(At(at)),
                ["bb22", "aa11"],
                [new ReelPlace(null, Span(0, 10)), new ReelPlace(Span(0, 60), Span(10, 30))],
                [null, "aa11"]
            );
            lost = change.Lost;
            return change.Document;
        }

        Moved(7, out var none).Picture.ShouldBe(new LessonPicture(TimeSpan.FromSeconds(17)));
        none.ShouldBeEmpty();
        Moved(40, out var lost).Picture.ShouldBeNull();
        lost.ShouldHaveSingleItem().ShouldBe("the lesson’s picture at 0:40");
    }

    [Fact]
    public void Two_who_choose_at_once_are_told()
    {
        var merge = LessonMerge.Of(LessonWithCues.Without(Lesson), LessonWithCues.Without(At(7)), LessonWithCues.Without(At(9)));
        merge.Document.Picture.ShouldBe(At(9).Picture);
        merge.Clashes.ShouldBe(["the lesson’s picture"]);
        var apart = LessonMerge.Of(LessonWithCues.Without(Lesson), LessonWithCues.Without(At(7)), LessonWithCues.Without(Lesson with { Title = "Fares 2" }));
        (apart.Document.Picture, apart.Document.Title, apart.Clashes.Count).ShouldBe((At(7).Picture, "Fares 2", 0));
    }
}
