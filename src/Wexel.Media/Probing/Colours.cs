using System.Text.Json;
using Wexel.Core.Recordings;

namespace Wexel.Media.Probing;

/// <summary>Reads colour tags as ffprobe prints them.</summary>
internal static class Colours
{
    internal static ColourFacts Read(JsonElement stream)
    {
        string? Tag(string name) => stream.TryGetProperty(name, out var value) && value.GetString() is { } text and not ("unknown" or "reserved") ? text : null;
        return new ColourFacts(
            Tag("color_space"),
            Tag("color_primaries"),
            Tag("color_transfer"),
            Tag("color_range") switch
            {
                "pc" => true,
                "tv" => false,
                _ => null,
            }
        );
    }
}
