using System.Text.Json;
using System.Text.Json.Nodes;

namespace Wexel.Core.Documents;

/// <summary>What all kept documents have in common.</summary>
public static class DocumentFormat
{
    /// <summary>Where a document says its version.</summary>
    public const string VersionName = "version";
}

/// <summary>
/// A kind of document that is kept: it says in which version it was written, and one of any earlier version is brought up to today's
/// when it is read. One that says no version is of the first.
/// </summary>
/// <typeparam name="T">What it holds today.</typeparam>
public sealed class DocumentFormat<T>
{
    private readonly IReadOnlyList<Action<JsonObject>> _migrations;

    /// <param name="name">What it is, for sentences.</param>
    /// <param name="migrations">The first brings a document of version 1 to version 2, and so on; each changes what it is given.</param>
    public DocumentFormat(string name, params IReadOnlyList<Action<JsonObject>> migrations) => (Name, _migrations) = (name, migrations);

    /// <summary>What it is, for sentences.</summary>
    public string Name { get; }

    /// <summary>The version that is written.</summary>
    public int Version => _migrations.Count + 1;

    /// <summary>A document as JSON, in today's version.</summary>
    public string Write(T value) => Node(value).ToJsonString(WexelJson.Options);

    /// <summary>A document as JSON, in today's version.</summary>
    public JsonObject Node(T value)
    {
        var document = JsonSerializer.SerializeToNode(value, WexelJson.Options)!.AsObject();
        document.Insert(0, DocumentFormat.VersionName, Version);
        return document;
    }

    /// <summary>Reads a document of any version so far.</summary>
    /// <exception cref="JsonException">It is none, or of a version that is not known yet.</exception>
    public T Read(string json)
    {
        // Nearly all that is read is of today's version, and needs no tree that a migration could change.
        var bytes = System.Text.Encoding.UTF8.GetBytes(json);
        if (VersionIn(bytes) == Version)
            return JsonSerializer.Deserialize<T>(bytes, WexelJson.Options) ?? throw Missing();
        return Read(JsonNode.Parse(bytes) as JsonObject ?? throw Missing());
    }

    /// <summary>The version that a document says, wherever in it; null where it says none, or is none.</summary>
    private static int? VersionIn(ReadOnlySpan<byte> json)
    {
        var reader = new Utf8JsonReader(json);
        if (!reader.Read() || reader.TokenType != JsonTokenType.StartObject)
            return null;
        while (reader.Read() && reader.TokenType == JsonTokenType.PropertyName)
        {
            var found = reader.ValueTextEquals(DocumentFormat.VersionName);
            reader.Read();
            if (found)
                return reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var version) ? version : null;
            reader.Skip();
        }

        return null;
    }

    private JsonException Missing() => new($"There is no {Name}.");

    /// <summary>Reads a document of any version so far, and takes it apart.</summary>
    /// <inheritdoc cref="Read(string)"/>
    public T Read(JsonObject document)
    {
        var version = document[DocumentFormat.VersionName]?.GetValue<int>() ?? 1;
        if (version < 1 || version > Version)
            throw new JsonException($"The {Name} is of version {version}, and this Wexel knows versions up to {Version}. It was written by a newer one.");
        document.Remove(DocumentFormat.VersionName);
        foreach (var migrate in _migrations.Skip(version - 1))
            migrate(document);
        return document.Deserialize<T>(WexelJson.Options) ?? throw Missing();
    }
}
