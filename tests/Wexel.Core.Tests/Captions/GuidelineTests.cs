using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>What breaks a guideline is found, and its mend mends it. Where each figure is from stands in <see cref="CaptionGuidelines"/>.</summary>
public class GuidelineTests
{
    private static readonly FrameRate Thirty = new(30, 1);
    private static readonly TimeSpan Hour = TimeSpan.FromHours(1);

    [Theory]
    [InlineData("Press open and wait for the yellow line.", 2000, null)]
    [InlineData("Press open and wait for the yellow line, please.", 2500, GuidelineBreak.LineTooLong)]
    [InlineData("Press\nopen\nnow", 2000, GuidelineBreak.TooManyLines)]
    [InlineData("Press open and wait for the\nyellow line.", 3000, GuidelineBreak.BadLineBreak)]
    [InlineData("Press open and wait for it.", 1000, GuidelineBreak.TooFast)]
    [InlineData("Yes.", 600, GuidelineBreak.TooShort)]
    [InlineData("Press open.", 7500, GuidelineBreak.TooLong)]
    public void Each_guideline_is_looked_at(string text, int length, GuidelineBreak? broken)
    {
        var found = Find([Cue("a", 10_000, 10_000 + length, text)]);
        found.Select(f => (GuidelineBreak?)f.Break).ShouldBe(broken is null ? [] : [broken]);
        found.ShouldAllBe(f => f.MendWords != null && f.Mend != null);
    }

    [Fact]
    public void Neighbours_are_looked_at()
    {
        var found = Find([Cue("a", 0, 2000, "Press open."), Cue("b", 1800, 3000, "And wait."), Cue("c", 3020, 4200, "Then go.")]);
        found.Select(f => (f.Cue, f.Break)).ShouldBe([("a", GuidelineBreak.Overlaps), ("b", GuidelineBreak.GapTooShort)]);
        found[0].Sentence.ShouldBe("It is still there for 0.2 s when the next one comes.");
        found[0].Mend!.Set[0].Span.End.ShouldBe(TimeSpan.FromSeconds(1.8) - TimeSpan.FromSeconds(2.0 / 30), TimeSpan.FromMilliseconds(1));
    }

    [Fact]
    public void What_is_too_fast_takes_what_is_free_after_it_and_then_before()
    {
        Cue[] cues = [Cue("a", 0, 1000, "Yes."), Cue("b", 2000, 3000, "Press open and wait for the yellow line."), Cue("c", 3500, 5000, "Then go.")];
        var mend = Find(cues).Single(f => f.Break == GuidelineBreak.TooFast).Mend!.Set[0].Span;
        mend.End.ShouldBe(TimeSpan.FromSeconds(3.5) - TimeSpan.FromSeconds(2.0 / 30), TimeSpan.FromMilliseconds(1));
        mend.Length.ShouldBe(TimeSpan.FromSeconds(2), TimeSpan.FromMilliseconds(2));
    }

    [Fact]
    public void What_goes_over_a_cut_is_parted_there()
    {
        var cut = new TimeRange(TimeSpan.FromSeconds(2), TimeSpan.FromSeconds(4));
        var check = new GuidelineCheck(CaptionGuidelines.Adults, Thirty, [cut], Hour);
        var mend = check.Find([Cue("a", 1000, 5000, "Before it. After it.")]).Single(f => f.Break == GuidelineBreak.OverCut).Mend!;
        mend.Set.Select(c => (c.Text, c.Span.Start, c.Span.End))
            .ShouldBe([("Before it.", TimeSpan.FromSeconds(1), cut.Start), ("After it.", cut.End, TimeSpan.FromSeconds(5))]);
        check.Find([Cue("a", 1000, 2500, "Into it.")]).ShouldBeEmpty();
    }

    [Fact]
    public void Children_read_slower()
    {
        Cue[] cues = [Cue("a", 0, 2000, "Press open and wait for the line.")];
        Find(cues).ShouldBeEmpty();
        new GuidelineCheck(CaptionGuidelines.Children, Thirty, [], Hour).Find(cues)[0].Sentence.ShouldBe("16.5 characters a second; 15 can be read.");
    }

    /// <summary>Whatever the captions, each mend leaves no word out, and after enough mends none is offered any more.</summary>
    [Fact]
    public void Mends_lose_no_word_and_come_to_an_end()
    {
        string[] words = ["the", "desk", "counted", "a", "reservation", "passengers", "of", "now"];
        var text = Gen.Int[0, words.Length - 1].Array[1, 24].Select(w => string.Join(' ', w.Select(i => words[i])));
        var cue = Gen.Select(text, Gen.Int[200, 9000], Gen.Int[-300, 900], (t, length, gap) => (t, length, gap));
        cue.Array[1, 6]
            .Sample(said =>
            {
                var (cues, at) = ((IReadOnlyList<Cue>)[], 1000);
                foreach (var (t, length, gap) in said)
                {
                    cues = [.. cues, Cue($"c{cues.Count}", at, at + length, t)];
                    at += Math.Max(150, length + gap);
                }

                var before = Said(cues);
                for (var round = 0; round < 200 && Find(cues).FirstOrDefault(f => f.Mend is not null) is { } finding; round++)
                {
                    finding.Mend!.Refusal(cues).ShouldBeNull();
                    var fresh = finding.Mend with { Set = [.. finding.Mend.Set.Select(c => c.Id.EndsWith('+') ? c with { Id = $"n{round}" } : c)] };
                    cues = fresh.Apply(cues);
                    round.ShouldBeLessThan(199, finding.ToString());
                }

                Said(cues).ShouldBe(before);
            });
    }

    private static string Said(IReadOnlyList<Cue> cues) => string.Join(' ', cues.SelectMany(c => c.Text.Split(' ', '\n')).Order());

    private static IReadOnlyList<GuidelineFinding> Find(IReadOnlyList<Cue> cues) => new GuidelineCheck(CaptionGuidelines.Adults, Thirty, [], Hour).Find(cues);

    private static Cue Cue(string id, int from, int to, string text) => new(new TimeRange(Ms.Of(from), Ms.Of(to)), text, Id: id);
}
