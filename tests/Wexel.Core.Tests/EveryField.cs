using System.Text.Json.Nodes;
using Wexel.Core.Documents;

namespace Wexel.Core.Tests;

/// <summary>Looks whether a key goes by every field of a document: whoever adds one and forgets to declare it would be given what was made of
/// another.</summary>
internal static class EveryField
{
    /// <summary>Changes one value of a document after the other, and sees that each makes another key.</summary>
    internal static void MakesADifference<T>(T value, Func<T, string> key, int least, string[] but)
    {
        var (before, written, changed) = (key(value), WexelJson.Write(value), 0);
        foreach (var place in All(JsonNode.Parse(written)).Select(leaf => leaf.GetPath()).Except(but).ToList())
        {
            var document = JsonNode.Parse(written)!;
            var leaf = All(document).Single(n => n.GetPath() == place).AsValue();
            leaf.ReplaceWith(Another(leaf));
            var other = WexelJson.Read<T>(document.ToJsonString());
            // What follows from other fields is written, and not read.
            if (WexelJson.Write(other) == written)
                continue;
            key(other).ShouldNotBe(before, place);
            changed++;
        }

        changed.ShouldBeGreaterThanOrEqualTo(least);
    }

    private static JsonNode Another(JsonValue leaf)
    {
        if (leaf.TryGetValue<bool>(out var flag))
            return !flag;
        if (leaf.TryGetValue<decimal>(out var number))
            return number + 1;
        return leaf.GetValue<string>() switch
        {
            "part" or "whole" => "fill",
            "fill" => "whole",
            "asCanvas" or "atMostHeight" => "exact",
            "constant" => "asRecorded",
            "fileSize" => "average",
            "inside" => "beside",
            "h264" => "av1",
            "high" => "main",
            "quality" => "average",
            "topLeft" => "topRight",
            "large" or "hidden" => "small",
            "balanced" => "smaller",
            "smaller" => "balanced",
            "aac" => "opus",
            "mono" => "stereo",
            "withLink" => "everybody",
            "2026-12-01T12:00:00+00:00" => "2026-12-01T13:00:00+00:00",
            "stereo" => "mono",
            "topFirst" => "bottomFirst",
            "mp4" => "mov",
            "captions" => "translation",
            "corrected" => "draft",
            "here" or "lessonEnd" => "sectionEnd",
            "sectionEnd" => "here",
            "ellipse" => "rectangle",
            "rectangle" => "ellipse",
            "polygon" => "rectangle",
            "bottomLeft" => "middle",
            "topRight" => "middle",
            "both" => "score",
            "watched" => "score",
            var text => text + "x",
        };
    }

    private static IEnumerable<JsonNode> All(JsonNode? node) =>
        node switch
        {
            JsonObject o => o.SelectMany(p => All(p.Value)),
            JsonArray a => a.SelectMany(All),
            JsonValue v => [v],
            _ => [],
        };
}
