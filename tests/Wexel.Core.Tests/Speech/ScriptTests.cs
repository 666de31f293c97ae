using Wexel.Core.Speech;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Speech;

/// <summary>A script is laid along the voice; what was said otherwise is found out and not guessed.</summary>
public class ScriptTests
{
    private static readonly string[] Paragraphs =
    [
        "Welcome to the crossing desk. In this lesson you open the desk for the day.",
        "You need your name and the float that was counted last night. It lies in the grey box.",
        "Type your name. It is printed on every ticket that you sell, so write it as it stands on your card.",
        "Now enter the float. It must be the sum on the yellow sheet, to the last coin.",
        "If the sheet says something else, count again before you go on. Two people count, and both sign.",
        "Press open the desk, and wait for the yellow line. The first sailing that you can sell is marked.",
    ];

    private static readonly string Script = string.Join("\n\n", Paragraphs);

    [Fact]
    public void Marks_of_Markdown_are_not_spoken_and_headings_are_headings()
    {
        var script = ScriptText.Parse(
            "# Opening the desk\n\n- *Press* **open** [the desk](http://x.example) .\n\n[wait for the line]\n\n"
                + "## The float ##\n1) Count `it`\ntwice!\n\n---\n> Then go."
        );
        string.Join(' ', script.Words.Select(w => w.Text)).ShouldBe("Press open the desk . Count it twice! Then go.");
        script.Words.Select(w => w.Paragraph).Distinct().Count().ShouldBe(3);
        script.Words.Count(w => w.EndsSentence).ShouldBe(2);
        script.Headings.ShouldBe([new ScriptHeading("Opening the desk", 0), new ScriptHeading("The float", 4)]);
        ScriptText.Parse("").Words.ShouldBeEmpty();
        ScriptText.Parse(string.Join(' ', Enumerable.Repeat("word", 70_000))).Words.Count.ShouldBe(ScriptText.MostWords);
    }

    [Fact]
    public void What_is_read_as_it_stands_is_found_word_for_word()
    {
        var aligned = ScriptAlignment.Of(ScriptText.Parse(Script), Heard(Paragraphs));
        aligned.Share.ShouldBe(1);
        aligned.Differences.ShouldBeEmpty();
        string.Join(' ', aligned.Words.Select(w => w.Text)).ShouldBe(string.Join(' ', Paragraphs));
        aligned.Words.Zip(Heard(Paragraphs)).ShouldAllBe(w => w.First.Span == w.Second.Span);
    }

    /// <summary>Every fifth word is heard as another, some twice, some not at all: each word of the script still begins where it is spoken.</summary>
    [Fact]
    public void Words_that_are_heard_wrong_are_written_as_in_the_script_where_they_are_spoken()
    {
        var truth = Heard(Paragraphs);
        var heard = truth
            .SelectMany(
                (w, i) =>
                    (i % 10) switch
                    {
                        3 => [w with { Text = "flood" }],
                        7 =>
                        [
                            w with
                            {
                                Text = "uh",
                                Span = new TimeRange(w.Span.Start, w.Span.Start + TimeSpan.FromSeconds(0.15)),
                            },
                            w with
                            {
                                Text = "ticked",
                                Span = new TimeRange(w.Span.Start + TimeSpan.FromSeconds(0.15), w.Span.End),
                            },
                        ],
                        _ => new[] { w },
                    }
            )
            .ToList();
        var aligned = ScriptAlignment.Of(ScriptText.Parse(Script), heard);
        aligned.Share.ShouldBeGreaterThan(0.75);
        aligned.Words.Count.ShouldBe(truth.Count);
        aligned.Differences.ShouldBeEmpty();
        aligned.Starts.Zip(truth).ShouldAllBe(w => Math.Abs((w.First!.Value - w.Second.Span.Start).TotalSeconds) < 0.4);
    }

    [Fact]
    public void A_paragraph_that_is_not_said_is_left_out()
    {
        var aligned = ScriptAlignment.Of(ScriptText.Parse(Script), Heard([.. Paragraphs.Where((_, i) => i != 2)]));
        var difference = aligned.Differences.ShouldHaveSingleItem();
        difference.Kind.ShouldBe(ScriptDifferenceKind.LeftOut);
        difference.Words.ShouldStartWith("Type your name.");
        aligned.Words.ShouldNotContain(w => w.Text == "card.");
    }

    [Fact]
    public void A_paragraph_that_stands_nowhere_is_said_to_be_added()
    {
        List<string> said = [.. Paragraphs];
        said.Insert(3, "Ah sorry I lost my place there let me look for it once more");
        var difference = ScriptAlignment.Of(ScriptText.Parse(Script), Heard(said)).Differences.ShouldHaveSingleItem();
        difference.Kind.ShouldBe(ScriptDifferenceKind.Added);
        difference.Words.ShouldStartWith("ah sorry i lost");
    }

    [Fact]
    public void Paragraphs_that_are_swapped_are_found_where_they_are_said()
    {
        List<string> said = [.. Paragraphs];
        (said[1], said[4]) = (said[4], said[1]);
        var aligned = ScriptAlignment.Of(ScriptText.Parse(Script), Heard(said));
        aligned.Differences.ShouldNotBeEmpty();
        aligned.Differences.ShouldAllBe(d => d.Kind == ScriptDifferenceKind.Elsewhere);
        aligned.Share.ShouldBeGreaterThan(0.9);
        var text = string.Join(' ', aligned.Words.Select(w => w.Text));
        text.IndexOf("count again", StringComparison.Ordinal).ShouldBeLessThan(text.IndexOf("grey box", StringComparison.Ordinal));
    }

    [Fact]
    public void A_heading_stands_where_what_is_under_it_is_said_and_one_of_which_nothing_is_said_stands_nowhere()
    {
        var script = ScriptText.Parse(
            $"# Before\n\n{Paragraphs[0]}\n\n## Second\n\n{Paragraphs[1]}\n\n# Left out\n\nzzyx qwrt plmk vbnh trew\n\n# Last\n\n{Paragraphs[2]}"
        );
        var heard = Heard(Paragraphs.Take(3));
        var placed = ScriptAlignment.Of(script, heard).Place(script);
        placed.Select(h => h.Title).ShouldBe(["Before", "Second", "Last"]);
        placed[0].At.ShouldBe(heard[0].Span.Start);
        placed[1].At.ShouldBe(heard[WordList.PlainWords(Paragraphs[0]).Length].Span.Start);
    }

    [Fact]
    public void A_script_of_another_language_is_not_found()
    {
        var aligned = ScriptAlignment.Of(
            ScriptText.Parse("Willkommen am Schalter. In dieser Lektion öffnen Sie den Schalter für den Tag. Sie brauchen Ihren Namen und das Wechselgeld."),
            Heard(Paragraphs)
        );
        aligned.Share.ShouldBeLessThan(0.5);
        ScriptAlignment.Of(ScriptText.Parse(Script), []).Share.ShouldBe(0);
        ScriptAlignment.Of(ScriptText.Parse(""), Heard(Paragraphs)).Words.ShouldBeEmpty();
    }

    [Fact]
    public void Sixty_thousand_words_are_aligned()
    {
        var random = new Random(7);
        var long1 = string.Join(' ', Enumerable.Range(0, ScriptText.MostWords).Select(_ => "w" + random.Next(4000)));
        var heard = Heard([long1]).Where((_, i) => i % 9 != 4).ToList();
        ScriptAlignment.Of(ScriptText.Parse(long1), heard).Share.ShouldBeGreaterThan(0.88);
    }

    /// <summary>Words as they are spoken, 0.3 s each, a second between paragraphs.</summary>
    private static List<HeardWord> Heard(IEnumerable<string> paragraphs)
    {
        var (heard, at) = (new List<HeardWord>(), 1.0);
        foreach (var paragraph in paragraphs)
        {
            foreach (var word in WordList.PlainWords(paragraph))
            {
                heard.Add(new HeardWord(new TimeRange(TimeSpan.FromSeconds(at), TimeSpan.FromSeconds(at + 0.3)), word, 0.9));
                at += 0.3;
            }

            at += 1;
        }

        return heard;
    }
}
