using System.Text.Json;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public class LessonRulesTests
{
    private static readonly LessonDocument Before = new("Title", "", "en", "hash", [], [new("a", Ms.Of(0), "A"), new("b", Ms.Of(5000), "B")], []);

    [Fact]
    public void Says_in_words_what_changed()
    {
        var after = Before with
        {
            Title = "New",
            Sections = [new("b", Ms.Of(6000), "B"), new("c", Ms.Of(7000), "C"), new("d", Ms.Of(8000), "D")],
            Captions = [new("t1", "h", "en", "a.vtt", 3)],
        };
        LessonRules.Describe(Before, after).ShouldBe("title, captions, 2 sections added, 1 section removed, 1 section moved");
        LessonRules.Describe(Before, Before).ShouldBe("");
    }

    [Fact]
    public void Says_how_much_was_cut_and_restored()
    {
        var cut = Before with { Cuts = [new(Ms.Of(0), Ms.Of(3200)), new(Ms.Of(60_000), Ms.Of(135_000))] };
        LessonRules.Describe(Before, cut).ShouldBe("1:18 min cut");
        LessonRules.Describe(cut, cut with { Cuts = [new(Ms.Of(0), Ms.Of(2700)), new(Ms.Of(60_000), Ms.Of(136_000))] }).ShouldBe("1.0 s cut, 0.5 s restored");
        LessonRules.Describe(cut, Before).ShouldBe("1:18 min restored");
    }

    [Fact]
    public void A_document_from_before_there_were_cuts_has_none() =>
        JsonSerializer
            .Deserialize<LessonDocument>(
                """{"title":"T","description":"","language":"en","recordingHash":"h","sections":[],"captions":null}""",
                WexelJson.Options
            )!
            .Cuts.ShouldBeEmpty();

    [Fact]
    public void A_lesson_without_a_title_is_not_ready()
    {
        LessonRules.NotReady(Before).ShouldBeNull();
        LessonRules.NotReady(Before with { Title = "" })!.Field.ShouldBe("title");
    }

    [Fact]
    public void Tidies_what_is_saved()
    {
        var tidy = LessonRules.Tidy(
            Before with
            {
                Title = "  Two\r\nlines\u0007 ",
                Description = new string('x', 5000),
                Cuts = [new(Ms.Of(3000), Ms.Of(9000)), new(Ms.Of(1000), Ms.Of(1010)), new(Ms.Of(2500), Ms.Of(3100))],
            },
            Ms.Of(4000),
            new FrameRate(30, 1)
        );
        tidy.Title.ShouldBe("Two lines");
        tidy.Description.Length.ShouldBe(DetailFields.LongestText);
        tidy.Sections.ShouldHaveSingleItem().Id.ShouldBe("a");
        tidy.Cuts.ShouldBe([new TimeRange(Ms.Of(2500), Ms.Of(4000))]);
    }

    [Fact]
    public void Documents_keep_times_in_whole_milliseconds()
    {
        var json = JsonSerializer.Serialize(Before, WexelJson.Options);
        json.ShouldContain("\"at\":5000");
        var back = JsonSerializer.Deserialize<LessonDocument>(json, WexelJson.Options)!;
        back.Sections.ShouldBe(Before.Sections);
    }
}
