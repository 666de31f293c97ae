using System.Text.Json;
using System.Text.Json.Serialization;

namespace Wexel.Core.Documents;

/// <summary>Writes times as whole milliseconds, as they stand on the wire and in stored documents.</summary>
public sealed class MillisecondsConverter : JsonConverter<TimeSpan>
{
    /// <summary>The longest time that is read: 1,000 hours, in milliseconds.</summary>
    private const long Longest = 3_600_000_000;

    /// <inheritdoc/>
    public override TimeSpan Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var milliseconds = reader.GetInt64();
        if (Math.Abs(milliseconds) > Longest)
            throw new JsonException("A time is outside 1,000 hours.");
        return TimeSpan.FromMilliseconds(milliseconds);
    }

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, TimeSpan value, JsonSerializerOptions options) =>
        writer.WriteNumberValue((long)Math.Round(value.TotalMilliseconds));
}
