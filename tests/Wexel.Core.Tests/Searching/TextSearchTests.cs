using CsCheck;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Lessons;
using Wexel.Core.Searching;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Searching;

public class TextSearchTests
{
    private static readonly IReadOnlyList<LessonText> Lesson = LessonText.Of(
        LessonWithCues.Of(
            new LessonDocument(
                "Selling a vehicle crossing",
                "What a crossing costs.\n\nAnd how\ta caravan is measured.",
                "en-GB",
                "aa11",
                [],
                [new Section("s1", Ms.Of(0), "Choosing the sailing"), new Section("s2", Ms.Of(41_000), "The length")],
                [],
                details: new DetailSet(
                    ShortTitle: "Vehicle crossing",
                    Tags: ["tickets", "vehicles"],
                    Category: "Ticket desk",
                    Author: new Author("Mara Tarn", "training@brackwater.example")
                )
            ),
            [
                (
                    CaptionTrack.Of("t1", [new Cue(new TimeRange(Ms.Of(12_500), Ms.Of(14_000)), "A caravan is\na vehicle of its own.")], "en-GB", "a.vtt"),
                    [new Cue(new TimeRange(Ms.Of(12_500), Ms.Of(14_000)), "A caravan is\na vehicle of its own.")]
                ),
            ]
        ),
        [new TextLine(Ms.Of(30_000), "Booking 2117")]
    );

    private static IReadOnlyList<TextHit> Found(string typed) => TextSearch.Parse(typed)!.In(Lesson);

    [Fact]
    public void All_that_a_lesson_says_is_searched() =>
        Lesson
            .Select(t => (t.Kind, string.Join(" | ", t.Lines.Select(l => l.Text))))
            .ShouldBe([
                (TextKind.Title, "Selling a vehicle crossing | Vehicle crossing"),
                (TextKind.Tag, "tickets | vehicles | Ticket desk"),
                (TextKind.Author, "Mara Tarn"),
                (TextKind.Section, "Choosing the sailing | The length"),
                (TextKind.Description, "What a crossing costs. | And how a caravan is measured."),
                (TextKind.Caption, "A caravan is a vehicle of its own."),
                (TextKind.Screen, "Booking 2117"),
            ]);

    [Fact]
    public void A_place_says_when_it_is()
    {
        var length = Found("LENGTH").ShouldHaveSingleItem();
        (length.Kind, length.At, length.Text).ShouldBe((TextKind.Section, Ms.Of(41_000), "The length"));
        length.Found.ShouldBe([new FoundWord(4, 6)]);
        Found("caravan").Select(h => (h.Kind, h.At)).ShouldBe([(TextKind.Description, null), (TextKind.Caption, Ms.Of(12_500))]);
    }

    [Fact]
    public void Who_says_more_of_the_words_comes_first()
    {
        var hits = Found("caravan vehicle");
        hits[0].Text.ShouldBe("A caravan is a vehicle of its own.");
        hits[0].Found.Select(f => hits[0].Text.Substring(f.Start, f.Length)).ShouldBe(["caravan", "vehicle"]);
        hits.Count.ShouldBe(TextSearch.MostHits);
        hits.Skip(1).Select(h => h.Kind).ShouldBe([TextKind.Title, TextKind.Title, TextKind.Tag]);
    }

    [Theory]
    [InlineData("caravan submarine")]
    [InlineData("12500")]
    [InlineData("t1")]
    public void What_is_not_said_is_not_found(string typed) => Found(typed).ShouldBeEmpty();

    [Theory]
    [InlineData("")]
    [InlineData("   \t ")]
    public void Nothing_is_nothing_to_look_for(string typed) => TextSearch.Parse(typed).ShouldBeNull();

    [Fact]
    public void Words_that_touch_are_one_place() => Found("ve vehicle hic").First(h => h.Kind == TextKind.Caption).Found.ShouldBe([new FoundWord(15, 7)]);

    /// <summary>Parse of print is identity.</summary>
    [Fact]
    public void What_is_kept_is_read_as_it_was() =>
        Gen.Select(Gen.Bool, Gen.Int[0, 3_600_000], Gen.String[Gen.Char[' ', '~'], 1, 20].Where(s => s.Trim().Length > 0))
            .Array[0, 8]
            .Sample(lines =>
            {
                var text = new LessonText(
                    TextKind.Caption,
                    "h",
                    [.. lines.Select(l => new TextLine(l.Item1 ? TimeSpan.FromMilliseconds(l.Item2) : null, l.Item3))]
                );
                var read = LessonText.Read(TextKind.Caption, "h", text.Text);
                (read.Kind, read.Ref).ShouldBe((text.Kind, text.Ref));
                read.Lines.ShouldBe(text.Lines);
            });

    /// <summary>Whatever is looked for: each place that is found is one of the words, where the text says it.</summary>
    [Fact]
    public void What_is_marked_is_what_was_looked_for() =>
        Gen.Select(Gen.String[Gen.Char['a', 'c'], 1, 3], Gen.String[Gen.Char['a', 'd'], 1, 12])
            .Sample(
                (word, line) =>
                {
                    var hits = TextSearch.Parse(word)!.In([new LessonText(TextKind.Title, "", [new TextLine(null, line)])]);
                    (hits.Count == 1).ShouldBe(line.Contains(word, StringComparison.Ordinal));
                    foreach (var hit in hits)
                    {
                        hit.Found.ShouldNotBeEmpty();
                        hit.Found.ShouldAllBe(f => hit.Text.Substring(f.Start, f.Length).StartsWith(word, StringComparison.Ordinal));
                    }
                }
            );
}
