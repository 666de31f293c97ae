using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Wexel.Core.Documents;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>Profiles as JSON documents, as they are handed on and brought in.</summary>
public static class ProfileText
{
    /// <summary>The media type of a profile document.</summary>
    public const string MediaType = "application/json";

    private static readonly JsonSerializerOptions Options = WexelJson.Configure(
        new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
            RespectNullableAnnotations = true,
            RespectRequiredConstructorParameters = true,
            WriteIndented = true,
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { AddVersion } },
        }
    );

    /// <summary>What the picture of a profile's own mark is called in its document.</summary>
    private const string MarkPicture = "ownMarkPicture";

    /// <summary>Prints a profile.</summary>
    /// <param name="profile">The profile.</param>
    /// <param name="mark">The picture of its own mark, a PNG or JPEG; null where it has none.</param>
    public static string Write(Profile profile, byte[]? mark = null)
    {
        var document = JsonSerializer.SerializeToNode(profile, Options)!.AsObject();
        if (mark is not null)
            document[MarkPicture] = Convert.ToBase64String(mark);
        return document.ToJsonString(Options);
    }

    /// <summary>The picture of a profile's own mark as its document holds it; null where it holds none.</summary>
    /// <param name="text">A document that <see cref="Read"/> has read.</param>
    public static byte[]? Mark(string text)
    {
        using var document = JsonDocument.Parse(text);
        return document.RootElement.TryGetProperty(MarkPicture, out var picture) && picture.TryGetBytesFromBase64(out var bytes) ? bytes : null;
    }

    /// <summary>Why a profile whose own mark has no picture here cannot be used.</summary>
    public static Problem NoMark(Profile profile) =>
        new(
            "profile-mark-not-here",
            $"The profile “{Problem.Shown(profile.Title)}” brings a mark of its own, and its picture is not here. Choose the picture again, take the mark out "
                + "of it, or bring in the file of the profile, which holds it.",
            "picture.ownMark"
        );

    /// <summary>Reads a profile strictly: what is not in the schema is a problem that names its place, and so is the first fault.</summary>
    public static Result<Profile> Read(string text)
    {
        try
        {
            var profile = JsonSerializer.Deserialize<Profile>(text, Options);
            if (profile is null)
                return new Problem("profile-unreadable", "The file holds no profile.");
            return ProfileRules.Refusal(profile) is { } fault ? fault : profile;
        }
        catch (JsonException failed)
        {
            var place = failed.Path is { Length: > 2 } path ? $" at “{path[2..]}”" : "";
            return new Problem(
                "profile-unreadable",
                $"The file is not a profile as the schema describes it: line {failed.LineNumber + 1}{place} cannot be "
                    + $"read.{(Missing(failed) is { } missing ? $" It lacks {missing}." : "")}",
                failed.Path?.TrimStart('$', '.')
            );
        }
    }

    /// <summary>The version stands in the document and not in the profile; only today's is read strictly, since there was no other.</summary>
    private static void AddVersion(JsonTypeInfo type)
    {
        if (type.Type != typeof(Profile))
            return;
        var version = type.CreateJsonPropertyInfo(typeof(int?), DocumentFormat.VersionName);
        version.Get = _ => Profile.Format.Version;
        version.Set = (_, value) =>
        {
            if (value is int written && written != Profile.Format.Version)
                throw new JsonException($"It is of version {written}, and this Wexel reads version {Profile.Format.Version}.");
        };
        type.Properties.Insert(0, version);
        // The picture of its own mark goes along with it, and is no setting.
        var picture = type.CreateJsonPropertyInfo(typeof(byte[]), MarkPicture);
        (picture.Get, picture.Set, picture.ShouldSerialize) = (_ => null, (_, _) => { }, (_, _) => false);
        type.Properties.Add(picture);
    }

    /// <summary>The JSON Schema (2020-12) of a profile document; each setting with its unit, what is usual and what it costs.</summary>
    public static JsonNode Schema()
    {
        var schema = Options
            .GetJsonSchemaAsNode(typeof(Profile), new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true, TransformSchemaNode = Describe })
            .AsObject();
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "Wexel profile");
        var version = schema["properties"]![DocumentFormat.VersionName]!.AsObject();
        (version["title"], version["description"], version["x-unit"], version["x-usual"], version["x-cost"]) = (
            "Version",
            $"The version of this schema. Usual: {Profile.Format.Version}. Costs nothing.",
            "",
            $"{Profile.Format.Version}",
            "costs nothing"
        );
        var mark = schema["properties"]![MarkPicture]!.AsObject();
        (mark["title"], mark["description"], mark["x-unit"], mark["x-usual"], mark["x-cost"]) = (
            "Picture of its own mark",
            "The picture of the profile's own mark, a PNG or JPEG, in base 64. Usual: none. Costs nothing.",
            "",
            "none",
            "costs nothing"
        );
        return schema;
    }

    private static JsonNode Describe(JsonSchemaExporterContext context, JsonNode node)
    {
        if (
            node is not JsonObject schema
            || (
                context.PropertyInfo?.AttributeProvider?.GetCustomAttributes(typeof(SettingAttribute), false) is [SettingAttribute declared]
                    ? declared
                    : OfMark(context)
            )
                is not { } setting
        )
            return node;
        schema["title"] = setting.Title;
        schema["description"] =
            $"{setting.Title}{(setting.Unit.Length > 0 ? $", in {setting.Unit}" : "")}. "
            + $"{(setting.Usual.Length > 0 ? $"Usual: {setting.Usual}. " : "")}{char.ToUpperInvariant(setting.Cost[0])}{setting.Cost[1..]}.";
        schema["x-unit"] = setting.Unit;
        schema["x-usual"] = setting.Usual;
        schema["x-cost"] = setting.Cost;
        if (double.IsFinite(setting.Least))
            (schema["minimum"], schema["maximum"]) = (setting.Least, setting.Most);
        return schema;
    }

    /// <summary>What is said of the fields of a mark, which is no setting of a profile by itself.</summary>
    private static SettingAttribute? OfMark(JsonSchemaExporterContext context) =>
        context.PropertyInfo is not { } property || property.DeclaringType is not { } of
            ? null
            : (of.Name, property.Name) switch
            {
                (nameof(MarkOnPicture), "key") => new("Picture", "the one that is in the file", "another picture encodes the picture again"),
                (nameof(MarkOnPicture), "size") => new("Size of the mark's picture", "as it is", "costs nothing"),
                (nameof(MarkOnPicture), "placement") => new("Where the mark stands", "bottom right", "another place encodes the picture again"),
                (nameof(PictureSize), _) => new($"The mark's own {property.Name}", "as it is", "costs nothing") { Unit = "pixels" },
                (nameof(MarkPlacement), "opacityPercent") => Placed("Opacity of the mark", "50", 5, 100),
                (nameof(MarkPlacement), "widthPercent") => Placed("Width of the mark, of the picture's", "20", 2, 60),
                (nameof(MarkPlacement), "distancePercent") => Placed("Distance of the mark from the edges", "5", 0, 30),
                (nameof(MarkPlacement), "offsetX") => Placed("How much farther right", "0", -100, 100),
                (nameof(MarkPlacement), "offsetY") => Placed("How much farther down", "0", -100, 100),
                (nameof(MarkPlacement), "position") => new("Place of the mark", "bottomRight", "another place encodes the picture again"),
                _ => null,
            };

    private static SettingAttribute Placed(string title, string usual, double least, double most) =>
        new(title, usual, "another value encodes the picture again")
        {
            Unit = "%",
            Least = least,
            Most = most,
        };

    /// <summary>What a document lacks, where that is what is wrong: the message names it in quotes.</summary>
    private static string? Missing(JsonException failed) =>
        failed.Message.Contains("missing required properties", StringComparison.Ordinal) && failed.Message.Split('\'') is { Length: > 3 } parts
            ? string.Join(", ", parts.Skip(3).Where((_, i) => i % 2 == 0))
            : null;
}
