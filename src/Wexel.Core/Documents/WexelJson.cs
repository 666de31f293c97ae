using System.Text.Json;
using System.Text.Json.Serialization;

namespace Wexel.Core.Documents;

/// <summary>The one way in which Wexel writes JSON: camel case, names for enumerations, times in whole milliseconds.</summary>
public static class WexelJson
{
    /// <summary>Options for stored documents and files; safe inside an HTML script element, since &lt;, &gt; and &amp; are escaped.</summary>
    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions(JsonSerializerDefaults.Web));

    /// <summary>Sets the same rules on options that a framework made.</summary>
    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.Converters.Add(new MillisecondsConverter());
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase));
        options.NumberHandling = JsonNumberHandling.Strict;
        // The database keeps documents with their names in an order of its own, and what says of which kind something is may not come first.
        options.AllowOutOfOrderMetadataProperties = true;
        return options;
    }

    /// <summary>A value as JSON.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>A value from JSON.</summary>
    /// <exception cref="JsonException">It is none, or says nothing.</exception>
    public static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, Options) ?? throw new JsonException("There is nothing but null.");
}
