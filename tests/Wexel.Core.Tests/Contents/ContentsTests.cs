using CsCheck;
using Wexel.Core.Contents;
using Wexel.Core.Packages;

namespace Wexel.Core.Tests.Contents;

public class ContentsTests
{
    [Theory]
    [InlineData("0:00 Welcome", 0, "Welcome")]
    [InlineData("1:02:30 Last", 3_750_000, "Last")]
    [InlineData("0:05 - With a dash", 5_000, "With a dash")]
    [InlineData("[0:05] In brackets", 5_000, "In brackets")]
    [InlineData("(1:05)\tTabbed", 65_000, "Tabbed")]
    [InlineData("1:05\t\tTabs", 65_000, "Tabs")]
    [InlineData("- 0:45: A list", 45_000, "A list")]
    [InlineData("Behind it 2:10", 130_000, "Behind it")]
    [InlineData("Behind it (2:10)", 130_000, "Behind it")]
    [InlineData("0:10 <b>Bold</b> & \"quoted\"", 10_000, "<b>Bold</b> & \"quoted\"")]
    [InlineData("0:10 Part 2: 10:30 sailing", 10_000, "Part 2: 10:30 sailing")]
    public void Reads_a_line(string line, long at, string title)
    {
        var reading = ContentsText.Read(line);
        reading.Problems.ShouldBeEmpty();
        reading.Lines.ShouldHaveSingleItem().ShouldBe(new ContentsLine(Ms.Of(at), title, false));
    }

    [Fact]
    public void Says_for_each_line_why_it_cannot_be_read_and_keeps_the_rest()
    {
        var reading = ContentsText.Read("0:00 Welcome\n\nNo time here\n1:99 Bad seconds\n2:00\n3:00 Good\n");
        reading.Lines.Select(l => l.Title).ShouldBe(["Welcome", "Good"]);
        reading
            .Problems.Select(p => (p.Code, p.Field))
            .ShouldBe([("contents-no-time", "line 3"), ("contents-bad-time", "line 4"), ("contents-no-title", "line 5")]);
        reading.Problems.ShouldAllBe(p => p.Sentence.StartsWith("Line ") && p.Sentence.EndsWith('.'));
    }

    [Fact]
    public void A_line_that_is_set_in_is_nested() =>
        ContentsText.Read("0:00 One\n\t0:10 Under one\n  0:20 Under it too\n0:30 Two\r\n").Lines.Select(l => l.Nested).ShouldBe([false, true, true, false]);

    [Fact]
    public void Writing_and_reading_contents_is_the_identity() =>
        Gen.Select(Gen.Long[0, 30_000_000], Gen.String[Gen.Char['a', 'z'], 1, 20], Gen.Bool)
            .Array[1, 20]
            .Sample(items =>
            {
                var sections = SectionRules.Tidy(items.Select((x, i) => new Section($"{i}", Ms.Of(x.Item1), x.Item2, x.Item3)), TimeSpan.FromHours(10));
                var read = ContentsText.Read(ContentsText.Write(sections)).Lines;
                return read.SequenceEqual(sections.Select(s => new ContentsLine(s.At, s.Title, s.Nested)));
            });

    [Fact]
    public void Tidy_sorts_drops_what_is_outside_and_never_nests_the_first()
    {
        var tidy = SectionRules.Tidy(
            [new("b", Ms.Of(5000), " Two\nlines ", true), new("a", Ms.Of(-5), "One", true), new("c", Ms.Of(10_000), "Outside")],
            Ms.Of(10_000)
        );
        tidy.ShouldBe([new Section("a", TimeSpan.Zero, "One"), new Section("b", Ms.Of(5000), "Two lines", true)]);
    }

    [Fact]
    public void Chapters_end_where_the_next_starts_and_leave_out_those_of_no_length()
    {
        var chapters = Chapters.FromSections([new("a", Ms.Of(0), "A"), new("b", Ms.Of(1000), "B"), new("c", Ms.Of(1000), "C")], Ms.Of(2500));
        chapters.Select(c => (c.Title, c.Span.Start.TotalMilliseconds, c.Span.End.TotalMilliseconds)).ShouldBe([("A", 0, 1000), ("C", 1000, 2500)]);
    }

    [Fact]
    public void Chapter_files_follow_the_standard_and_escape_markup() =>
        WebVttChapters
            .Write(Chapters.FromSections([new("a", Ms.Of(0), "A <b> & --> C")], Ms.Of(90_000)))
            .ShouldBe("WEBVTT\n\n1\n00:00:00.000 --> 00:01:30.000\nA &lt;b&gt; &amp; --&gt; C\n");

    [Fact]
    public void A_shortened_title_is_never_longer_than_asked() =>
        Gen.Select(Gen.String[Pick.From('a', 'b', ' ', 'ö', '-'), 0, 60], Gen.Int[2, 40])
            .Sample(
                (title, most) =>
                {
                    var shorter = SectionRules.Shortened(title, most);
                    return shorter.Length <= most && (title.Length <= most ? shorter == title : shorter.EndsWith('…'));
                }
            );

    [Fact]
    public void What_two_people_changed_of_one_section_is_all_kept()
    {
        var before = new Section("s", Ms.Of(1000), "Fares");
        Section[] changes = [before with { At = Ms.Of(2000) }, before with { Title = "Coins" }, before with { Nested = true }];
        foreach (var theirs in changes)
        {
            Section.Kind.Merged(before, theirs, before).ShouldBe(theirs);
            Section.Kind.Merged(before, before, theirs).ShouldBe(theirs);
            foreach (var mine in changes.Where(c => c != theirs))
            {
                var both = Section.Kind.Merged(before, theirs, mine);
                (both.At != before.At, both.Title != before.Title, both.Nested).ShouldBe(
                    (theirs.At != before.At || mine.At != before.At, theirs.Title != before.Title || mine.Title != before.Title, theirs.Nested || mine.Nested)
                );
            }
        }

        // Where both changed the same, mine stands.
        Section.Kind.Merged(before, before with { At = Ms.Of(3000) }, before with { At = Ms.Of(2000) }).At.ShouldBe(Ms.Of(2000));
    }

    [Fact]
    public void A_chapter_of_a_millisecond_is_one_and_a_shorter_is_none()
    {
        Chapters.FromSections([new("a", Ms.Of(0), "A"), new("b", Ms.Of(999), "B")], Ms.Of(1000)).Count.ShouldBe(2);
        Chapters.FromSections([new("a", Ms.Of(0), "A"), new("b", Ms.Of(1000) - TimeSpan.FromTicks(9999), "B")], Ms.Of(1000)).Count.ShouldBe(1);
    }
}
