using System.Text.Json;
using System.Text.Json.Nodes;
using Wexel.Core.Documents;

namespace Wexel.Core.Contents;

/// <summary>Contents as JSON chapters 1.2 (Podcasting 2.0 namespace, "JSON Chapters Format"); times in seconds. The format is flat.</summary>
public static class JsonChapters
{
    private const double LongestSeconds = 1_000_000;

    /// <summary>Prints chapters.</summary>
    /// <param name="title">The title of what they are of.</param>
    /// <param name="chapters">In order.</param>
    public static string Write(string title, IReadOnlyList<Chapter> chapters) =>
        new JsonObject
        {
            ["version"] = "1.2.0",
            ["title"] = title,
            ["chapters"] = new JsonArray([
                .. chapters.Select(c => new JsonObject
                {
                    ["startTime"] = Seconds(c.Span.Start),
                    ["endTime"] = Seconds(c.Span.End),
                    ["title"] = c.Title,
                }),
            ]),
        }.ToJsonString(WexelJson.Options);

    /// <summary>Reads chapters; those that are not shown in a table of contents (<c>toc</c> is false) are left out, as the format has it.</summary>
    /// <param name="text">A whole file.</param>
    public static ContentsReading Read(string text)
    {
        var (lines, problems) = (new List<ContentsLine>(), new List<Problem>());
        try
        {
            using var json = JsonDocument.Parse(text.TrimStart('\uFEFF'));
            if (
                json.RootElement.ValueKind != JsonValueKind.Object
                || !json.RootElement.TryGetProperty("chapters", out var chapters)
                || chapters.ValueKind != JsonValueKind.Array
            )
                return new ContentsReading([], [new Problem("contents-no-chapters", "The file has no list named “chapters”, so it holds no JSON chapters.")]);
            foreach (var (index, chapter) in chapters.EnumerateArray().Take(ContentsText.MostSections).Index())
            {
                if (problems.Count == Problem.Most)
                    break;
                var place = $"chapter {index + 1}";
                if (chapter.ValueKind != JsonValueKind.Object || !Start(chapter, out var at))
                    problems.Add(new Problem("contents-no-time", $"Chapter {index + 1} has no start time in seconds; it was left out.", place));
                else if (chapter.TryGetProperty("toc", out var toc) && toc.ValueKind == JsonValueKind.False)
                    continue;
                else if (SectionRules.OneLine(Title(chapter)) is { Length: > 0 } title)
                    lines.Add(new ContentsLine(at, title, Nested: false));
                else
                    problems.Add(new Problem("contents-no-title", $"Chapter {index + 1} has a time but no title; it was left out.", place));
            }
        }
        catch (JsonException)
        {
            problems.Add(new Problem("contents-unreadable", "The file is no JSON; save it again as JSON chapters, or paste lines of time and title."));
        }

        return new ContentsReading([.. lines.OrderBy(l => l.At)], problems);
    }

    private static string Title(JsonElement chapter) =>
        chapter.TryGetProperty("title", out var title) && title.ValueKind == JsonValueKind.String ? title.GetString()! : "";

    private static bool Start(JsonElement chapter, out TimeSpan at)
    {
        at = default;
        if (
            !chapter.TryGetProperty("startTime", out var start)
            || start.ValueKind != JsonValueKind.Number
            || start.GetDouble() is not (>= 0 and < LongestSeconds and var seconds)
        )
            return false;
        at = TimeSpan.FromMilliseconds(Math.Round(seconds * 1000));
        return true;
    }

    private static decimal Seconds(TimeSpan time) => (long)time.TotalMilliseconds / 1000m;
}
