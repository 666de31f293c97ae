using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core;
using Wexel.Server.Setup;

namespace Wexel.Server.Serving;

/// <summary>A text was sent with signs in it that no text has.</summary>
internal sealed class UnusableTextException() : JsonException("the text has signs in it that no text has (NUL, or half a character).");

/// <summary>Texts as they come from outside: what the database and files cannot hold is refused at the edge, for every endpoint in one place.</summary>
internal sealed class PlainTextConverter : JsonConverter<string>
{
    public override string? Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        string? text;
        try
        {
            text = reader.GetString();
        }
        catch (InvalidOperationException)
        {
            // Half of a pair of surrogates.
            throw new UnusableTextException();
        }

        return text?.Contains('\0', StringComparison.Ordinal) == true ? throw new UnusableTextException() : text;
    }

    public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) => writer.WriteStringValue(value);

    public override string ReadAsPropertyName(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        Read(ref reader, typeToConvert, options)!;

    public override void WriteAsPropertyName(Utf8JsonWriter writer, string value, JsonSerializerOptions options) => writer.WritePropertyName(value);
}

/// <summary>The same for addresses.</summary>
internal sealed class PlainAddresses(RequestDelegate next)
{
    public Task InvokeAsync(HttpContext http) =>
        http.Request.Path.Value?.Contains('\0', StringComparison.Ordinal) == true
        || http.Request.QueryString.Value?.Contains("%00", StringComparison.Ordinal) == true
            ? Problems
                .Answer(new Problem("request-unreadable", "The address has signs in it that no address has."), StatusCodes.Status400BadRequest)
                .ExecuteAsync(http)
            : next(http);
}
