using CsCheck;
using Wexel.Core.Recordings;

namespace Wexel.Core.Tests.Recordings;

/// <summary>Which pictures could stand for a lesson. What makes a good one is common practice, no source.</summary>
public class PictureProposalsTests
{
    private static readonly PictureSize Size = new(320, 180);

    /// <summary>A page with lines of text on the left of a place, each letter a stroke of some pixels; softened by a mean over its neighbours.</summary>
    private static PictureLook Page(int seconds, int lines, int softened = 0, int from = 0, byte paper = 250)
    {
        var grey = new byte[Size.Width * Size.Height];
        Array.Fill(grey, paper);
        for (var line = 0; line < lines; line++)
        for (var y = 0; y < 6; y++)
        for (var x = from; x < Math.Min(Size.Width, from + 200); x++)
        {
            if (x % 4 < 2 && (line * 12) + y < Size.Height)
                grey[(((line * 12) + y) * Size.Width) + x] = 20;
        }

        for (var pass = 0; pass < softened; pass++)
            grey = Softened(grey);
        return PictureLooks.Measure(TimeSpan.FromSeconds(seconds), grey, Size);
    }

    private static byte[] Softened(byte[] grey)
    {
        var soft = (byte[])grey.Clone();
        for (var y = 1; y < Size.Height - 1; y++)
        for (var x = 1; x < Size.Width - 1; x++)
        {
            var sum = 0;
            for (var dy = -1; dy <= 1; dy++)
            for (var dx = -1; dx <= 1; dx++)
                sum += grey[((y + dy) * Size.Width) + x + dx];
            soft[(y * Size.Width) + x] = (byte)(sum / 9);
        }

        return soft;
    }

    private static IEnumerable<double> Chosen(params PictureLook[] looks) => PictureProposals.Choose(looks).Select(l => l.At.TotalSeconds);

    [Fact]
    public void What_is_full_is_taken_before_what_is_bare_and_nothing_never()
    {
        Chosen(Page(0, 0), Page(5, 2), Page(10, 12)).ShouldBe([10, 5]);
        Page(0, 0).Filled.ShouldBe(0);
        Page(0, 0).Sharpness.ShouldBe(0);
        Page(10, 12).Filled.ShouldBeInRange(0.3, 0.7);
    }

    [Fact]
    public void What_is_sharp_is_taken_before_what_is_soft() => Chosen(Page(5, 12, softened: 1), Page(10, 12)).First().ShouldBe(10);

    [Fact]
    public void Pictures_that_look_alike_are_proposed_once() => Chosen(Page(5, 12), Page(10, 12), Page(15, 12), Page(20, 12, from: 120)).Count().ShouldBe(2);

    [Fact]
    public void Of_many_three_are_proposed_that_are_unlike_each_other()
    {
        var chosen = PictureProposals.Choose([
            .. Enumerable.Range(0, 12).Select(i => Page(i * 10, 2 + i, from: i % 3 * 60, paper: (byte)(i % 2 == 0 ? 250 : 120))),
        ]);
        chosen.Count.ShouldBe(PictureProposals.Most);
        foreach (var a in chosen)
        foreach (var b in chosen.Where(b => b != a))
            PictureProposals.Difference(a, b).ShouldBeGreaterThanOrEqualTo(PictureProposals.Unlike);
    }

    [Fact]
    public void Where_nothing_is_drawn_anywhere_the_first_stands() => Chosen(Page(3, 0), Page(9, 0)).ShouldBe([3]);

    [Fact]
    public void Where_there_is_no_picture_none_is_proposed() => Chosen().ShouldBeEmpty();

    /// <summary>Whatever there is: at most three, of those that there are, no two alike, and the first is worth most.</summary>
    [Fact]
    public void What_is_proposed_is_there_and_apart() =>
        Gen.Select(Gen.Double[0, 1], Gen.Double[0, 1], Gen.Byte.Array[PictureLooks.TonesAcross * PictureLooks.TonesDown])
            .Array[0, 12]
            .Sample(all =>
            {
                var looks = all.Select((l, i) => new PictureLook(TimeSpan.FromSeconds(i), l.Item1, l.Item2, l.Item3)).ToList();
                var chosen = PictureProposals.Choose(looks);
                chosen.Count.ShouldBeLessThanOrEqualTo(PictureProposals.Most);
                chosen.ShouldBeSubsetOf(looks);
                if (chosen.Count > 0)
                    looks.Max(l => l.Filled * l.Sharpness).ShouldBe(chosen[0].Filled * chosen[0].Sharpness);
                for (var i = 0; i < chosen.Count; i++)
                for (var j = 0; j < i; j++)
                    PictureProposals.Difference(chosen[i], chosen[j]).ShouldBeGreaterThanOrEqualTo(PictureProposals.Unlike);
            });

    [Fact]
    public void Tones_are_the_means_of_their_parts()
    {
        var grey = new byte[Size.Width * Size.Height];
        for (var i = 0; i < grey.Length; i++)
            grey[i] = (byte)(i % Size.Width < Size.Width / 2 ? 0 : 200);
        var tones = PictureLooks.Measure(TimeSpan.Zero, grey, Size).Tones;
        tones.Take(PictureLooks.TonesAcross).ShouldBe([0, 0, 0, 0, 0, 0, 0, 0, 200, 200, 200, 200, 200, 200, 200, 200]);
        tones.Length.ShouldBe(PictureLooks.TonesAcross * PictureLooks.TonesDown);
    }
}
