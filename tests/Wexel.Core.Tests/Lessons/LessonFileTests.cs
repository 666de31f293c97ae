using System.Text.Json.Nodes;
using Wexel.Core.Captions;
using Wexel.Core.Lessons;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Lessons;

public class LessonFileTests
{
    private static string Fixture(string name) => File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Documents", "Fixtures", name + ".json"));

    private static readonly IReadOnlyList<Cue> Cues =
    [
        new(new TimeRange(Ms.Of(0), Ms.Of(900)), "Good morning.", Id: "c1"),
        new(new TimeRange(Ms.Of(1000), Ms.Of(2000)), "The till.", Id: "greeting"),
    ];

    [Theory]
    [InlineData("lesson-1-first")]
    [InlineData("lesson-1")]
    [InlineData("lesson-2")]
    public void What_was_exported_is_imported_as_the_same(string fixture)
    {
        var lesson = LessonDocument.Format.Read(Fixture(fixture));
        var text = LessonFile
            .Of(
                lesson,
                Guid.NewGuid().ToString("N"),
                [.. lesson.Recordings.Select((_, i) => ($"{i}.mp4", (IReadOnlyList<int>?)null))],
                [.. lesson.Captions.Select((_, i) => $"captions-{i}.vtt")],
                null
            )
            .Text();
        LessonFile.Read(text).Is(out var file, out var problem).ShouldBeTrue(problem?.Sentence);
        var back = file!.Lesson([.. file.Recordings.Select(r => r.Hash!)], [.. lesson.Captions.Select(_ => Cues)]);
        LessonDocument
            .Format.Write(back.Document)
            .ShouldBe(LessonDocument.Format.Write(lesson with { Captions = [.. lesson.Captions.Select(t => t.With(Cues))] }));
    }

    [Fact]
    public void A_lesson_can_be_written_by_hand_with_what_there_is()
    {
        LessonFile
            .Read(
                """{ "title": "Fares", "language": "en-GB", "recordings": [{ "file": "fares.mp4" }], """
                    + """ "sections": [{ "at": 0, "title": "Start" }, { "at": 5000, "title": "Zones" }] }"""
            )
            .Is(out var file, out _)
            .ShouldBeTrue();
        var lesson = file!.Lesson(["aa"], []).Document;
        (lesson.Title, lesson.HouseMark, lesson.Cuts.Count).ShouldBe(("Fares", true, 0));
        lesson.Sections.Select(s => (s.Id, s.Title)).ShouldBe([("s1", "Start"), ("s2", "Zones")]);
    }

    [Theory]
    [InlineData("""{ "title": "Fares", "language": "en-GB" }""", "lacks a title, a language or its recordings")]
    [InlineData("""{ "title": "Fares", "language": "en-GB", "recordings": [{ "file": "" }] }""", "name no file")]
    [InlineData("""{ "version": 99, "title": "Fares" }""", "written by a newer one")]
    [InlineData("""{ "title": "Fares", "language": "en-GB", "recordings": [{ "file": "f.mp4" }], "cuts": [{ "start": "soon" }] }""", "at “cuts")]
    [InlineData("""{ "title": "Fares", "language": "en-GB", "recordings": [{ "file": "f.mp4" }], "id": "7" }""", "32 hexadecimal digits")]
    [InlineData("[1]", "There is no lesson file")]
    [InlineData("{", "cannot be read")]
    public void What_is_none_says_why(string text, string said)
    {
        LessonFile.Read(text).Is(out _, out var problem).ShouldBeFalse();
        problem!.Sentence.ShouldContain(said);
    }

    /// <summary>The schema names what the file has, and the file has nothing else (JSON Schema 2020-12, section 10.3.2.1).</summary>
    [Fact]
    public void The_schema_knows_every_field()
    {
        var schema = LessonFile.Schema();
        schema["$schema"]!.GetValue<string>().ShouldBe("https://json-schema.org/draft/2020-12/schema");
        Known(JsonNode.Parse(Fixture("lessonfile-2"))!, schema, "$");
    }

    private static void Known(JsonNode node, JsonNode schema, string place)
    {
        foreach (var (name, value) in node as JsonObject ?? [])
        {
            (schema["properties"]?[name]).ShouldNotBeNull($"{place}.{name}");
            if (value is not null)
                Known(value, schema["properties"]![name]!, $"{place}.{name}");
        }

        foreach (var item in node as JsonArray ?? [])
            Known(item!, schema["items"]!, place + "[]");
    }
}
