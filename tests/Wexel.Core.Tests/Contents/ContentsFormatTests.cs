using System.Text.Json;
using CsCheck;
using Wexel.Core.Contents;

namespace Wexel.Core.Tests.Contents;

/// <summary>Contents as files: what is written is read back.</summary>
public class ContentsFormatTests
{
    private static readonly IReadOnlyList<Section> Some =
    [
        new("a", Ms.Of(0), "Choosing the sailing"),
        new("b", Ms.Of(61_250), "Price & <length>"),
        new("c", Ms.Of(90_000), "Cars --> lane B", true),
        new("d", Ms.Of(95_000), "Caravans", true),
        new("e", Ms.Of(125_000), "The receipt"),
    ];

    [Theory]
    [InlineData(".txt", true)]
    [InlineData(".vtt", true)]
    [InlineData(".json", false)]
    public void Each_format_is_known_by_its_beginning_and_read_back_without_loss(string ending, bool nests)
    {
        var format = ContentsFormats.Find(ending)!;
        var text = format.Write("Lesson", Some, Ms.Of(180_000));
        ContentsFormats.All.First(f => f.Is(text)).ShouldBe(format);
        var reading = ContentsFormats.Read(text);
        reading.Problems.ShouldBeEmpty();
        // JSON chapters are flat (Podcasting 2.0 namespace, "JSON Chapters Format").
        reading.Lines.ShouldBe(Some.Select(s => new ContentsLine(s.At, s.Title, nests && s.Nested)));
    }

    [Fact]
    public void Whatever_the_contents_are_each_format_reads_them_back() =>
        Gen.Select(Gen.Int[1, 20_000].Array[1, 20], Gen.Bool.Array[20])
            .Sample(
                (gaps, nested) =>
                {
                    var at = 0;
                    var sections = gaps.Select((g, i) => new Section($"{i}", Ms.Of(at += g), $"Part {i}", i > 0 && nested[i])).ToList();
                    foreach (var format in ContentsFormats.All)
                    {
                        var read = ContentsFormats.Read(format.Write("L", sections, Ms.Of(at + 5000)));
                        read.Problems.ShouldBeEmpty();
                        read.Lines.Select(l => (l.At, l.Title)).ShouldBe(sections.Select(s => (s.At, s.Title)));
                        if (format.Ending != ".json")
                            read.Lines.Select(l => l.Nested).ShouldBe(sections.Select(s => s.Nested));
                    }
                }
            );

    /// <summary>Held against the format's own example (Podcasting 2.0 namespace, chapters/jsonChapters.md; shortened, from memory).</summary>
    [Fact]
    public void Chapters_that_are_not_in_the_table_of_contents_are_left_out()
    {
        var reading = ContentsFormats.Read(
            """
            { "version": "1.2.0", "chapters": [
              { "startTime": 0, "title": "Intro" },
              { "startTime": 168.25, "title": "Hearing Aids", "img": "https://example.com/images/hearing_aids.jpg" },
              { "startTime": 260, "toc": false, "img": "https://example.com/images/wifi.jpg" },
              { "startTime": 410.0, "title": "Progress Report", "endTime": 450 } ] }
            """
        );
        reading.Problems.ShouldBeEmpty();
        reading.Lines.Select(l => (l.At.TotalSeconds, l.Title)).ShouldBe([(0, "Intro"), (168.25, "Hearing Aids"), (410, "Progress Report")]);
        using var written = JsonDocument.Parse(ContentsFormats.Find("json")!.Write("L", Some, Ms.Of(180_000)));
        written.RootElement.GetProperty("chapters")[1].GetProperty("startTime").GetDouble().ShouldBe(61.25);
    }

    [Theory]
    [InlineData("{", "is no JSON")]
    [InlineData("{\"a\": 1}", "no list named “chapters”")]
    [InlineData("{\"chapters\": [{\"title\": \"x\"}]}", "Chapter 1 has no start time")]
    [InlineData("{\"chapters\": [{\"startTime\": -3, \"title\": \"x\"}]}", "Chapter 1 has no start time")]
    [InlineData("{\"chapters\": [{\"startTime\": 1e300, \"title\": \"x\"}]}", "Chapter 1 has no start time")]
    [InlineData("{\"chapters\": [{\"startTime\": 3, \"title\": 7}]}", "time but no title")]
    [InlineData("{\"chapters\": [7]}", "Chapter 1 has no start time")]
    [InlineData("WEBVTT\n\n00:10.000 --> 00:05.000\nBack", "ends before it starts")]
    public void What_cannot_be_read_gets_a_sentence(string text, string said) => ContentsFormats.Read(text).Problems.Single().Sentence.ShouldContain(said);
}
