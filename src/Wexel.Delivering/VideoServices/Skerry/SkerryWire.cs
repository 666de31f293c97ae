using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;

namespace Wexel.Delivering.VideoServices.Skerry;

/// <summary>What goes over the line to Skerry, and comes back.</summary>
internal static class SkerryWire
{
    internal static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    internal enum State
    {
        Uploading,
        Processing,
        Small,
        Ready,
        Refused,
    }

    internal sealed record Texts(
        string? Title,
        string? Description,
        IReadOnlyList<string>? Tags,
        string? Category,
        bool? MadeForChildren,
        string? Licence,
        bool MayEmbed,
        bool TellFollowers,
        string? Visibility,
        IReadOnlyList<string>? Named,
        DateTimeOffset? PublishAt
    );

    internal sealed record Video(
        [property: JsonRequired] string Id,
        [property: JsonRequired] string Link,
        string? Embed,
        [property: JsonRequired] State State,
        string? Reason,
        DateTimeOffset? ReadyAt,
        [property: JsonRequired] Texts Texts,
        string? Thumbnail,
        IReadOnlyDictionary<string, string>? Captions,
        IReadOnlyList<string>? Lists
    );

    internal sealed record Account(
        [property: JsonRequired] string Id,
        [property: JsonRequired] string Name,
        [property: JsonRequired] IReadOnlyList<ServiceChannel> Channels,
        long? MostBytes,
        double? MostSeconds,
        int LongestDescription,
        IReadOnlyList<string>? Categories,
        IReadOnlyList<int>? Heights
    );

    internal sealed record List([property: JsonRequired] string Id, [property: JsonRequired] string Title, string? Visibility);

    internal sealed record Day([property: JsonPropertyName("day")] DateOnly On, int Views, double Minutes);

    internal sealed record Trouble(string? Title, string? Detail);

    /// <summary>A Creative Commons licence with attribution alone is the one that Skerry knows besides its own.</summary>
    private const string Attribution = "CC-BY-4.0";

    internal static Texts Written(VideoTexts texts) =>
        new(
            texts.Title,
            texts.Description,
            texts.Tags,
            texts.Category,
            texts.ForChildren,
            texts.Licence == Attribution ? "cc-by" : "standard",
            texts.MayEmbed,
            texts.TellFollowers,
            texts.Visibility switch
            {
                Visibility.Everybody => "public",
                Visibility.WithLink => "unlisted",
                _ => "private",
            },
            texts.Visibility == Visibility.Named ? texts.Named : [],
            texts.Visibility == Visibility.Everybody ? texts.OpensAt : null
        );

    /// <summary>What Skerry says, in Wexel's words; where Skerry knows fewer, what Wexel said stays.</summary>
    internal static VideoTexts Read(Texts there) =>
        new(
            there.Title ?? "",
            there.Description ?? "",
            there.Tags ?? [],
            there.Category,
            there.MadeForChildren,
            there.Licence == "cc-by" ? Attribution : null,
            there.MayEmbed,
            there.TellFollowers,
            there.Visibility switch
            {
                "public" => Visibility.Everybody,
                "unlisted" => Visibility.WithLink,
                _ => there.Named is { Count: > 0 } ? Visibility.Named : Visibility.OnlyMe,
            },
            there.Named ?? [],
            there.PublishAt
        );

    internal static VideoStage Read(State state) =>
        state switch
        {
            State.Uploading => VideoStage.Uploading,
            State.Processing => VideoStage.Processing,
            State.Small => VideoStage.SmallSize,
            State.Ready => VideoStage.Ready,
            _ => VideoStage.Refused,
        };
}
