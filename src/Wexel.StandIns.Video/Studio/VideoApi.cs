using System.Security.Cryptography;
using System.Text.RegularExpressions;
using OpenIddict.Abstractions;
using Wexel.StandIns.Video.Door;

namespace Wexel.StandIns.Video.Studio;

/// <summary>A video, as programs see it.</summary>
internal sealed record VideoView(
    string Id,
    string Link,
    string? Embed,
    string Channel,
    int Version,
    VideoState State,
    string? Reason,
    DateTimeOffset? SmallAt,
    DateTimeOffset? ReadyAt,
    VideoTexts Texts,
    string? Thumbnail,
    IReadOnlyDictionary<string, string> Captions,
    IReadOnlyList<string> Lists
);

/// <summary>A video that somebody wants to publish.</summary>
/// <param name="Key">A name that the program gives: begun again by the same, it is the same video.</param>
internal sealed record BeginVideo(string Channel, string Key, long Bytes, VideoTexts Texts);

/// <summary>A file that is to be another's place.</summary>
internal sealed record BeginSource(string Key, long Bytes);

internal sealed record BeginList(string Channel, string Title, string Visibility);

/// <summary>The interface for programs.</summary>
internal static partial class VideoApi
{
    internal static void MapVideoApi(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").RequireAuthorization().AddEndpointFilter(StandingAsync);
        group.MapGet("/account", Whose);
        group.MapGet("/lists", (string channel, Store store) => store
                .Lists.Where(l => l.Channel == channel)
                .Select(l => new
                {
                    l.Id,
                    l.Title,
                    l.Visibility,
                }));
        group.MapPost("/lists", AddList);
        group.MapPut("/lists/{list}/{id}", (string list, string id, Store store) => Listed(store.ChangeList(list, all => [.. all.Where(v => v != id), id])));
        group.MapDelete("/lists/{list}/{id}", (string list, string id, Store store) => Listed(store.ChangeList(list, all => [.. all.Where(v => v != id)])));
        group.MapPost("/videos", Begin);
        group.MapGet("/videos/{id}", (string id, HttpContext http, Store store, Troubles troubles) =>
            Find(http, store, id) is { } v ? Results.Json(View(http, store, v, troubles)) : Gone()
        );
        group.MapPatch("/videos/{id}", Say);
        group.MapDelete("/videos/{id}", Remove);
        group.MapPost("/videos/{id}/source", Replace);
        group.MapPut("/videos/{id}/thumbnail", ThumbnailAsync);
        group.MapPut("/videos/{id}/captions/{language}", CaptionsAsync);
        group.MapDelete("/videos/{id}/captions/{language}", RemoveCaptions);
        group.MapGet("/videos/{id}/figures", Figures);
    }

    internal static string Whom(HttpContext http) => http.User.GetClaim(OpenIddictConstants.Claims.Subject)!;

    /// <summary>What was withdrawn opens nothing any more, also by a token that is still good by itself.</summary>
    internal static async ValueTask<object?> StandingAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next) =>
        context.HttpContext.RequestServices.GetRequiredService<Accounts>().Stands(context.HttpContext.User.GetClaim(Doors.Grant) ?? "")
            ? await next(context)
            : Results.Unauthorized();

    internal static Video? Find(HttpContext http, Store store, string id) => store.Find(id) is { } video && video.Account == Whom(http) ? video : null;

    internal static IResult Gone() => Results.Problem("There is no such video.", statusCode: 404, title: "Gone");

    private static IResult Listed(Playlist? list) => list is null ? Results.Problem("There is no such list.", statusCode: 404) : Results.NoContent();

    private static IResult Whose(HttpContext http, Store store)
    {
        var account = Account.Find(Whom(http))!;
        return Results.Json(
            new
            {
                account.Id,
                account.Name,
                Channels = account.Channels.Select(c => new { c.Id, c.Name }),
                Rules.MostBytes,
                MostSeconds = account.Longest?.TotalSeconds,
                Rules.MostAtOnce,
                Rules.LongestTitle,
                Rules.LongestDescription,
                Rules.Categories,
                Rules.Licences,
                Rules.Heights,
            }
        );
    }

    private static IResult AddList(BeginList wanted, HttpContext http, Store store)
    {
        if (Account.Of(wanted.Channel)?.Id != Whom(http))
            return Results.Problem("There is no such channel.", statusCode: 404);
        var list = store.AddList(wanted.Channel, wanted.Title, wanted.Visibility);
        return Results.Json(
            new
            {
                list.Id,
                list.Title,
                list.Visibility,
            },
            statusCode: 201
        );
    }

    private static IResult Begin(BeginVideo wanted, HttpContext http, Store store, Troubles troubles)
    {
        var account = Account.Find(Whom(http))!;
        if (account.Channels.All(c => c.Id != wanted.Channel))
            return Results.Problem("There is no such channel.", statusCode: 404);
        if (wanted.Bytes > Rules.MostBytes)
            return Refused("bytes", $"A video has at most {Rules.MostBytes / 1_000_000_000} GB.");
        if (Rules.Faults(wanted.Texts) is { Count: > 0 } faults)
            return Refused(faults);
        if (
            store.All.All(v => v.Key != wanted.Key)
            && store.All.Count(v => v.Account == account.Id && v.UploadedAt is null && File.Exists(store.Source(v)) && IsFresh(store.Source(v)))
                >= Rules.MostAtOnce
        )
        {
            http.Response.Headers.RetryAfter = "2";
            return Results.Problem($"At most {Rules.MostAtOnce} videos are uploaded at once.", statusCode: 429);
        }

        var video = store.Begin(account.Id, wanted.Channel, wanted.Key, wanted.Texts, wanted.Bytes);
        http.Response.Headers.Location = $"/upload/{video.Id}/{video.Source}";
        return Results.Json(View(http, store, video, troubles), statusCode: 201);
    }

    private static bool IsFresh(string file) => File.GetLastWriteTimeUtc(file) > DateTime.UtcNow.AddMinutes(-1);

    private static IResult Replace(string id, BeginSource wanted, HttpContext http, Store store, Troubles troubles)
    {
        if (Find(http, store, id) is not { } video)
            return Gone();
        if (video.SourceKey != wanted.Key)
            video = store.Change(id, v =>
                v with
                {
                    Source = v.Source + 1,
                    SourceKey = wanted.Key,
                    Bytes = wanted.Bytes,
                    UploadedAt = null,
                    Reason = null,
                    SmallAt = null,
                    ReadyAt = null,
                }
            )!;
        http.Response.Headers.Location = $"/upload/{video.Id}/{video.Source}";
        return Results.Json(View(http, store, video, troubles), statusCode: 201);
    }

    private static IResult Say(string id, VideoTexts texts, HttpContext http, Store store, Troubles troubles)
    {
        if (Find(http, store, id) is null)
            return Gone();
        if (Rules.Faults(texts) is { Count: > 0 } faults)
            return Refused(faults);
        return Results.Json(View(http, store, store.Change(id, v => v with { Texts = texts, Version = v.Version + 1 })!, troubles));
    }

    private static IResult Remove(string id, HttpContext http, Store store)
    {
        if (Find(http, store, id) is not { } video)
            return Gone();
        store.Remove(video);
        return Results.NoContent();
    }

    private static async Task<IResult> ThumbnailAsync(string id, HttpContext http, Store store)
    {
        if (Find(http, store, id) is not { } video)
            return Gone();
        if (video.State(DateTimeOffset.UtcNow) != VideoState.Ready)
            return Results.Problem("A thumbnail can be chosen once the video is ready.", statusCode: 409);
        var bytes = await ReadAsync(http, 2_000_000);
        if (bytes is not [0xff, 0xd8, ..])
            return Refused("thumbnail", "A thumbnail is a JPEG of at most 2 MB.");
        await File.WriteAllBytesAsync(store.Thumbnail(id), bytes);
        store.Change(id, v => v with { Thumbnail = Hash(bytes), Version = v.Version + 1 });
        return Results.NoContent();
    }

    private static async Task<IResult> CaptionsAsync(string id, string language, HttpContext http, Store store)
    {
        if (Find(http, store, id) is null)
            return Gone();
        var bytes = await ReadAsync(http, 5_000_000);
        if (
            !Language().IsMatch(language)
            || bytes is null
            || !System.Text.Encoding.UTF8.GetString(bytes).TrimStart('\ufeff').StartsWith("WEBVTT", StringComparison.Ordinal)
        )
            return Refused("captions", "Captions are WebVTT, for a language such as en-GB.");
        await File.WriteAllBytesAsync(store.Captions(id, language), bytes);
        store.Change(id, v => v with { Captions = new Dictionary<string, string>(v.Captions) { [language] = Hash(bytes) }, Version = v.Version + 1 });
        return Results.NoContent();
    }

    private static IResult RemoveCaptions(string id, string language, HttpContext http, Store store)
    {
        if (Find(http, store, id) is null)
            return Gone();
        store.Change(id, v => v with { Captions = v.Captions.Where(c => c.Key != language).ToDictionary(), Version = v.Version + 1 });
        return Results.NoContent();
    }

    /// <summary>How often it was watched: made up from its name, the same whenever it is asked.</summary>
    private static IResult Figures(string id, DateOnly since, DateOnly until, HttpContext http, Store store)
    {
        if (Find(http, store, id) is not { } video)
            return Gone();
        var first = DateOnly.FromDateTime(video.CreatedAt.UtcDateTime);
        var days =
            from day in Enumerable.Range(since.DayNumber, Math.Clamp(until.DayNumber - since.DayNumber + 1, 0, 400)).Select(DateOnly.FromDayNumber)
            where day >= first && day <= DateOnly.FromDateTime(DateTime.UtcNow)
            let views = 3 + SHA256.HashData(System.Text.Encoding.UTF8.GetBytes($"{id} {day:O}"))[0] % 40
            select new
            {
                Day = day,
                Views = views,
                Minutes = Math.Round(views * video.Seconds / 60 * 0.6, 1),
            };
        return Results.Json(days);
    }

    private static async Task<byte[]?> ReadAsync(HttpContext http, int most)
    {
        using var read = new MemoryStream();
        var piece = new byte[81920];
        for (int got; (got = await http.Request.Body.ReadAsync(piece, http.RequestAborted)) > 0; )
        {
            await read.WriteAsync(piece.AsMemory(0, got));
            if (read.Length > most)
                return null;
        }

        return read.ToArray();
    }

    private static string Hash(byte[] bytes) => Convert.ToHexStringLower(SHA256.HashData(bytes));

    private static IResult Refused(string field, string why) => Refused(new Dictionary<string, string> { [field] = why });

    private static IResult Refused(IReadOnlyDictionary<string, string> faults) =>
        Results.Problem(
            string.Join(' ', faults.Values),
            statusCode: 422,
            title: "Refused",
            extensions: new Dictionary<string, object?> { ["fields"] = faults }
        );

    private static VideoView View(HttpContext http, Store store, Video video, Troubles troubles)
    {
        // The times are told by the clock that is shown.
        var shift = troubles.Now - DateTimeOffset.UtcNow;
        return new VideoView(
            video.Id,
            $"{http.Request.Scheme}://{http.Request.Host}/v/{video.Id}",
            video.Texts.MayEmbed ? $"{http.Request.Scheme}://{http.Request.Host}/e/{video.Id}" : null,
            video.Channel,
            video.Version,
            video.State(DateTimeOffset.UtcNow),
            video.Reason,
            video.SmallAt + shift,
            video.ReadyAt + shift,
            video.Texts,
            video.Thumbnail,
            video.Captions,
            [.. store.Lists.Where(l => l.Videos.Contains(video.Id)).Select(l => l.Id)]
        );
    }

    [GeneratedRegex("^[a-zA-Z]{2,3}(-[a-zA-Z0-9]{2,8})*$")]
    private static partial Regex Language();
}
