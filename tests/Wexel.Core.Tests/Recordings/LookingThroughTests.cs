using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Recordings;

public sealed class LookingThroughTests
{
    private static TimeRange Range(double start, double end) => new(TimeSpan.FromSeconds(start), TimeSpan.FromSeconds(end));

    private static SoundLevels Levels(params (double Seconds, int Dbfs)[] parts) =>
        new(20, [.. parts.SelectMany(p => Enumerable.Repeat(p.Dbfs, (int)Math.Round(p.Seconds * 20)))]);

    [Fact]
    public void Speech_is_heard_over_the_recordings_own_noise()
    {
        foreach (var noise in new[] { SoundLevels.Lowest, -70, -50, -42 })
        {
            var levels = Levels((2, noise), (3, -20), (4, noise), (1, -24), (2, noise));
            levels.NoiseFloor.ShouldBe(noise);
            levels.CarriesSound.ShouldBeTrue();
            levels.Heard(levels.Threshold).ShouldBe([Range(2, 5), Range(9, 10)], $"noise at {noise} dBFS");
        }
    }

    [Fact]
    public void A_click_is_not_speech_and_a_gap_between_syllables_is_not_silence()
    {
        var levels = Levels((1, -70), (0.1, -15), (1, -70), (0.5, -20), (0.2, -70), (0.5, -22), (1, -70));
        levels.Heard(levels.Threshold).ShouldBe([Range(2.1, 3.3)]);
    }

    [Fact]
    public void Speech_without_a_pause_is_heard_as_one()
    {
        var levels = Levels((10, -19), (5, -22), (5, -17));
        levels.Heard(levels.Threshold).ShouldBe([Range(0, 20)]);
    }

    [Fact]
    public void Hum_far_below_speech_is_nothing_that_can_be_heard()
    {
        Levels((30, -63)).CarriesSound.ShouldBeFalse();
        Levels().CarriesSound.ShouldBeFalse();
        Levels((30, -63), (2, -30)).CarriesSound.ShouldBeTrue();
    }

    [Fact]
    public void The_screen_stands_still_between_changes()
    {
        var changes = Enumerable.Range(0, 21).Select(i => new PictureChange(TimeSpan.FromSeconds(i / 2.0), i is 0 or 6 or 7 or 12 ? 0.2 : 0.00001)).ToList();
        StillStretches.Find(changes, TimeSpan.FromSeconds(10.3)).ShouldBe([Range(0, 2.5), Range(3.5, 5.5), Range(6, 10.3)]);
        StillStretches.Scenes(changes).Select(s => s.TotalSeconds).ShouldBe([3, 3.5, 6]);
        StillStretches.Find([], TimeSpan.Zero).ShouldBeEmpty();
    }

    [Fact]
    public void Borders_are_what_stays_black_in_every_picture()
    {
        var finder = new BorderFinder(new PictureSize(8, 6));
        byte[] Picture(int left, int top, int right, int bottom) =>
            [
                .. from y in Enumerable.Range(0, 6)
                from x in Enumerable.Range(0, 8)
                select (byte)(x >= left && x < 8 - right && y >= top && y < 6 - bottom ? 200 : BorderFinder.Dark),
            ];
        finder.Found().ShouldBeNull();
        finder.Show(Picture(2, 1, 2, 0));
        finder.Show(Picture(3, 0, 1, 1));
        finder.Found().ShouldBe(new PictureBorders(2, 0, 1, 0));
        finder.Show(Picture(0, 0, 0, 0));
        finder.Found().ShouldBeNull();
        var black = new BorderFinder(new PictureSize(8, 6));
        black.Show(new byte[48]);
        black.Found().ShouldBeNull("a black picture is not a border");
        Should.Throw<ArgumentException>(() => black.Show(new byte[47]));
    }

    [Fact]
    public void Says_what_the_look_through_found_that_somebody_should_know()
    {
        var analysis = Sample.Analysis() with { Levels = Levels((5, -80)), Borders = new PictureBorders(240, 0, 240, 0) };
        RecordingCheck
            .Notes(analysis)
            .ShouldBe([
                "There is a sound track, but hardly anything can be heard on it. Look whether the right microphone was chosen.",
                "The picture has black borders all the way through: 240 px at the left, 240 px at the right.",
            ]);
        RecordingCheck.Notes(Sample.Analysis()).ShouldBeEmpty();
        RecordingCheck
            .Notes(Sample.Analysis() with { PeaksPerSecond = 10, Peaks = [.. Enumerable.Repeat(60, 125), 100, 100, 80, 100] })
            .ShouldHaveSingleItem()
            .ShouldStartWith("The sound is clipped 3 times, first at 0:12:");
    }

    [Fact]
    public void A_border_is_what_stays_dark_in_all_pictures_at_every_side()
    {
        byte[] Picture(int left, int top, int right, int bottom)
        {
            var grey = new byte[10 * 8];
            for (var y = top; y < 8 - bottom; y++)
            for (var x = left; x < 10 - right; x++)
                grey[(y * 10) + x] = 200;
            return grey;
        }

        PictureBorders? Of(params (int Left, int Top, int Right, int Bottom)[] dark)
        {
            var finder = new BorderFinder(new PictureSize(10, 8));
            foreach (var (left, top, right, bottom) in dark)
                finder.Show(Picture(left, top, right, bottom));
            return finder.Found();
        }

        Of((1, 2, 3, 1)).ShouldBe(new PictureBorders(1, 2, 3, 1));
        // Whichever side was bright first: the others are waited for.
        foreach (var first in new[] { (0, 0, 0, 2), (0, 0, 2, 0), (0, 2, 0, 0), (2, 0, 0, 0), (2, 0, 2, 0), (0, 1, 0, 1) })
        {
            Of(first).ShouldBe(new PictureBorders(first.Item1, first.Item2, first.Item3, first.Item4));
            Of(first, (0, 0, 0, 0)).ShouldBeNull();
        }
    }

    [Fact]
    public void A_new_picture_is_a_change_of_so_much_and_not_less()
    {
        var moments = new PictureMoments();
        bool At(double seconds, double change) => moments.Take(new PictureChange(TimeSpan.FromSeconds(seconds), change));
        At(0, 0).ShouldBeTrue();
        At(2, PictureMoments.NewPicture).ShouldBeTrue();
        At(4, PictureMoments.NewPicture / 2).ShouldBeFalse();
        At(5.9, PictureMoments.NewPicture / 2).ShouldBeTrue();
        At(7.8, 1).ShouldBeFalse("it is too near");
        At(7.9, 0).ShouldBeTrue();
        At(17.8, 0).ShouldBeFalse();
        At(17.9, 0).ShouldBeTrue();
    }

    [Fact]
    public void Still_is_what_changes_as_little_as_coding_noise()
    {
        IReadOnlyList<TimeRange> Still(double change) =>
            StillStretches.Find(
                [.. Enumerable.Range(0, 5).Select(i => new PictureChange(TimeSpan.FromSeconds(i / 2.0), i == 0 ? 0 : change))],
                TimeSpan.FromSeconds(2.5)
            );
        Still(StillStretches.Unchanged).ShouldBe([Range(0, 2.5)]);
        Still(StillStretches.Unchanged * 1.01).ShouldBeEmpty();
    }

    [Fact]
    public void Three_twentieths_of_a_second_are_a_sound()
    {
        var levels = Levels((1, -70), (0.15, -15), (1, -70), (0.1, -15), (1, -70));
        levels.Heard(-40).ShouldBe([Range(1, 1.15)]);
        new PictureBorders(0, 0, 0, 0).Any.ShouldBeFalse();
        new PictureBorders(0, 0, 0, 1).Any.ShouldBeTrue();
    }
}
