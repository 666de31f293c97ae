using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Captions;

/// <summary>Captions as plain text with times.</summary>
public sealed class TimedTextTests
{
    private static CaptionReading Read(string text) => CaptionFile.Read(System.Text.Encoding.UTF8.GetBytes(text));

    [Fact]
    public void A_line_lasts_until_the_next_or_as_long_as_it_is_said()
    {
        var read = Read("0:01 Take the rope.\r\n[0:03.500] Pull\n  with both hands.\n\n1:00:00 - Done, and this is all that there is.\n");
        read.Problems.ShouldBeEmpty();
        read.Cues.Select(c => c.Text).ShouldBe(["Take the rope.", "Pull with both hands.", "Done, and this is all that there is."]);
        read.Cues.Select(c => c.Span.Start).ShouldBe([Ms.Of(1000), Ms.Of(3500), Ms.Of(3_600_000)]);
        // 15 characters a second: 14, 21 and 36 of them.
        read.Cues.Select(c => c.Span.End).ShouldBe([Ms.Of(1933), Ms.Of(4900), Ms.Of(3_602_400)]);
    }

    [Fact]
    public void What_is_long_is_parted_and_no_word_is_lost() =>
        Gen.Select(Gen.String[Gen.Char["abc .,"], 1, 400].Array[1, 10], Gen.Int[0, 4000].Array[10])
            .Sample(
                (texts, gaps) =>
                {
                    var at = 0;
                    var lines = texts.Select((t, i) => $"{TimeCode.Brief(TimeSpan.FromSeconds(at += gaps[i] + 1))} x{t.Trim()}").ToList();
                    var read = Read(string.Join('\n', lines));
                    Words(string.Join(' ', read.Cues.Select(c => c.Text))).ShouldBe(texts.SelectMany(t => Words("x" + t.Trim())));
                    read.Cues.ShouldAllBe(c => c.Span.End > c.Span.Start);
                    read.Cues.Zip(read.Cues.Skip(1)).ShouldAllBe(p => p.First.Span.End <= p.Second.Span.Start);
                }
            );

    [Fact]
    public void Times_that_go_back_or_stand_twice_are_said()
    {
        var read = Read("0:05 Second.\n0:02 First.\n0:05 Third.");
        read.Cues.Select(c => c.Text).ShouldBe(["First.", "Third."]);
        read.Problems.Select(p => p.Sentence)
            .ShouldBe(["Line 2 is at 0:02, before the line above it; it stands where it says.", "Two lines are at 0:05; the first one is left out."]);
    }

    [Theory]
    [InlineData("Take the rope.\n0:05 Pull.")]
    [InlineData("1\n00:00:01,000 --> 00:00:02,000\n0:05 Pull.\n")]
    public void Another_text_is_none(string text) => TimedText.Is(text).ShouldBeFalse();

    [Fact]
    public void A_text_without_times_is_said_to_be_a_script() =>
        Read("Take the rope.\nPull.").Problems.ShouldHaveSingleItem().Sentence.ShouldContain("is a script");

    private static string[] Words(string text) => text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
}
