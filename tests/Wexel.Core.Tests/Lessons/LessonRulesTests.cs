using System.Text.Json;
using Wexel.Core.Contents;
using Wexel.Core.Lessons;

namespace Wexel.Core.Tests.Lessons;

public class LessonRulesTests
{
    private static readonly LessonDocument Before = new("Title", "", "en", "hash", [new("a", Ms.Of(0), "A"), new("b", Ms.Of(5000), "B")], null);

    [Fact]
    public void Says_in_words_what_changed()
    {
        var after = Before with
        {
            Title = "New",
            Sections = [new("b", Ms.Of(6000), "B"), new("c", Ms.Of(7000), "C"), new("d", Ms.Of(8000), "D")],
            Captions = new("h", "en", "a.vtt", 3),
        };
        LessonRules.Describe(Before, after).ShouldBe("title, captions, 2 sections added, 1 section removed, 1 section moved");
        LessonRules.Describe(Before, Before).ShouldBe("");
    }

    [Fact]
    public void A_lesson_without_a_title_is_not_ready()
    {
        LessonRules.NotReady(Before).ShouldBeNull();
        LessonRules.NotReady(Before with { Title = "" })!.Field.ShouldBe("title");
    }

    [Fact]
    public void Tidies_what_is_saved()
    {
        var tidy = LessonRules.Tidy(Before with { Title = "  Two\r\nlines\u0007 ", Description = new string('x', 5000) }, Ms.Of(4000));
        tidy.Title.ShouldBe("Two lines");
        tidy.Description.Length.ShouldBe(LessonRules.LongestDescription);
        tidy.Sections.ShouldHaveSingleItem().Id.ShouldBe("a");
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
