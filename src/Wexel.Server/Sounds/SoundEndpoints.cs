using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core.Details;
using Wexel.Core.Mixing;
using Wexel.Making.Storage;
using Wexel.Media.Mixing;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Sounds;

/// <summary>A sound as it stands on the shelf.</summary>
/// <param name="Sound">What it is.</param>
/// <param name="Licence">Its licence, as it is said to people.</param>
/// <param name="Credit">What is said of it in a lesson's description; null where its licence does not ask for it.</param>
/// <param name="BarSeconds">How long a bar is, in seconds; null where it has none.</param>
/// <param name="IsShipped">Whether it came with Wexel, and stays.</param>
internal sealed record ShelvedView(ShelvedSound Sound, string Licence, string? Credit, double? BarSeconds, bool IsShipped);

/// <summary>What was found on the shelf.</summary>
/// <inheritdoc cref="ShelfAnswer"/>
internal sealed record ShelfView(
    IReadOnlyList<ShelvedView> Sounds,
    IReadOnlyList<ShelfChoice> Genres,
    IReadOnlyList<ShelfChoice> Moods,
    IReadOnlyList<ShelfChoice> Lengths,
    IReadOnlyList<string> UsualGenres,
    IReadOnlyList<string> UsualMoods
);

/// <summary>A file that was taken in, and is not on the shelf yet.</summary>
/// <param name="Key">What names it.</param>
/// <param name="Facts">What it is.</param>
internal sealed record TakenSound(string Key, SoundFileFacts Facts);

/// <summary>The shelf of sounds.</summary>
internal static class SoundEndpoints
{
    internal static void MapSounds(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/sounds");
        group.MapGet("", FindAsync).WithName("Sounds");
        group.MapPut("file", TakeAsync).WithName("TakeSound").Accepts<Stream>("application/octet-stream");
        group.MapPut("", PutAsync).WithName("ShelveSound");
        group.MapDelete("{key}", RemoveAsync).WithName("RemoveSound");
        group.MapGet("{key}.flac", CopyAsync).WithName("Sound").ExcludeFromDescription();
    }

    /// <summary>What stands on the shelf.</summary>
    /// <param name="use">What it is to be for.</param>
    /// <param name="genre">Any of these genres.</param>
    /// <param name="mood">Any of these moods.</param>
    /// <param name="length">Any of these lengths.</param>
    /// <param name="words">Words that it must have.</param>
    /// <param name="order">In which order.</param>
    private static async Task<Ok<ShelfView>> FindAsync(
        string? use,
        string[]? genre,
        string[]? mood,
        string[]? length,
        string? words,
        string? order,
        SoundShelf shelf,
        CancellationToken cancel
    )
    {
        var found = new ShelfQuery(Named(use, SoundUse.Music), genre ?? [], mood ?? [], length ?? [], words ?? "", Named(order, ShelfOrder.Title)).Ask(
            await shelf.ReadAsync(cancel)
        );
        return TypedResults.Ok(
            new ShelfView([.. found.Sounds.Select(s => View(s, shelf))], found.Genres, found.Moods, found.Lengths, ShelvedSound.Genres, ShelvedSound.UsualMoods)
        );
    }

    private static T Named<T>(string? name, T otherwise)
        where T : struct, Enum => Enum.TryParse<T>(name, ignoreCase: true, out var value) && Enum.IsDefined(value) ? value : otherwise;

    private static ShelvedView View(ShelvedSound sound, SoundShelf shelf) =>
        new(
            sound,
            Licences.Find(sound.Sound.Licence)?.Name ?? sound.Sound.Licence,
            sound.Sound.AsksForCredit ? sound.Sound.Credit : null,
            sound.Sound.Bar?.TotalSeconds,
            shelf.IsShipped(sound.Sound.Key)
        );

    private static async Task<Results<Ok<TakenSound>, ProblemHttpResult>> TakeAsync(
        HttpRequest request,
        SoundShelf shelf,
        FileStore store,
        CancellationToken cancel
    )
    {
        request.TakeAnySize();
        var arriving = store.Arriving();
        try
        {
            if (!await PictureTaker.ReceiveAsync(request.Body, arriving, SoundFile.MostBytes, cancel))
                return Problems.Answer(
                    new("sound-too-heavy", $"The file has more than {SoundFile.MostBytes / 1_000_000} MB. Save it as FLAC, or take a part of it.", "sound")
                );
            return (await shelf.TakeAsync(arriving, cancel)).Is(out var taken, out var problem)
                ? TypedResults.Ok(new TakenSound(taken.Key, taken.Facts))
                : Problems.Answer(problem);
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> PutAsync(
        ShelvedSound sound,
        SoundShelf shelf,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        await shelf.PutAsync(sound, user.FindFirstValue(ClaimTypes.GivenName) ?? "", cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(string key, SoundShelf shelf, CancellationToken cancel) =>
        await shelf.RemoveAsync(key, cancel) ? TypedResults.NoContent() : Problems.NotThere("sound");

    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> CopyAsync(
        string key,
        SoundShelf shelf,
        HttpResponse response,
        CancellationToken cancel
    )
    {
        if (await shelf.CopyAsync(key, cancel) is not { } path)
            return Problems.NotThere("sound");
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        return TypedResults.PhysicalFile(path, "audio/flac", enableRangeProcessing: true);
    }
}
