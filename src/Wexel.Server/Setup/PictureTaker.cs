using System.Security.Cryptography;
using Wexel.Core;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;

namespace Wexel.Server.Setup;

/// <summary>A picture that was taken in.</summary>
internal sealed record TakenPicture(string Key, ImageFacts Facts);

/// <summary>Takes pictures that trainers send: measured, judged, and kept under the hash of what is in them.</summary>
internal sealed class PictureTaker(FileStore store)
{
    /// <summary>Takes one in, or says all that is wrong with it; then nothing of it is kept.</summary>
    /// <param name="body">The picture.</param>
    /// <param name="mostBytes">How large it may be.</param>
    /// <param name="field">What it is to be; the field of problems.</param>
    /// <param name="wrong">The rules it must keep.</param>
    /// <param name="name">Its name in the store.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<Result<TakenPicture>> TakeAsync(
        Stream body,
        long mostBytes,
        string field,
        Func<ImageFacts, IReadOnlyList<Problem>> wrong,
        string name,
        CancellationToken cancel
    )
    {
        var arriving = store.Arriving();
        try
        {
            if (!await ReceiveAsync(body, arriving, mostBytes, cancel))
                return TooHeavy(mostBytes, field);
            if (await ArtworkMeasurer.MeasureAsync(arriving, cancel) is not { } facts)
                return NoPicture(field);
            if (wrong(facts) is { Count: > 0 } problems)
                return new Problem(problems[0].Code, string.Join(' ', problems.Select(p => p.Sentence)), field);
            string key;
            await using (var picture = File.OpenRead(arriving))
                key = ImageFacts.Key(Convert.ToHexStringLower(await SHA256.HashDataAsync(picture, cancel)));
            var kept = store.Derived(key, name);
            Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
            File.Move(arriving, kept, overwrite: true);
            return new TakenPicture(key, facts);
        }
        finally
        {
            File.Delete(arriving);
        }
    }

    /// <summary>Takes a picture in that somebody gives for a lesson, or says all that is wrong with it.</summary>
    internal async Task<Result<TakenPicture>> TakeGivenAsync(Stream body, CancellationToken cancel)
    {
        if (
            !(await TakeAsync(body, LessonPicture.MostBytes, LessonPicture.Field, LessonPicture.Wrong, MadeNames.GivenPicture, cancel)).Is(
                out var taken,
                out var problem
            )
        )
            return problem;
        // What one reader takes another may not: it is made once, as pages will have it.
        try
        {
            var size = LessonPicture.SizeOfOwn(null);
            var made = store.Derived(LessonPicture.OwnKey(taken.Key, size), MadeNames.Poster);
            await GivenPicture.MakeAsync(store.Derived(taken.Key, MadeNames.GivenPicture), size, LessonPicture.Seen, made);
            return taken;
        }
        catch (InvalidDataException)
        {
            store.Remove(taken.Key, MadeNames.GivenPicture);
            return NoPicture(LessonPicture.Field);
        }
    }

    /// <summary>Takes a picture in that is to stand with a question or a note, or says all that is wrong with it.</summary>
    internal async Task<Result<TakenPicture>> TakeShownAsync(Stream body, CancellationToken cancel)
    {
        if (
            !(await TakeAsync(body, LessonPicture.MostBytes, ShownPicture.Field, ShownPicture.Wrong, MadeNames.GivenPicture, cancel)).Is(
                out var taken,
                out var problem
            )
        )
            return problem;
        try
        {
            await new ShownPictures(store).MakeAsync(taken.Key);
            return taken;
        }
        catch (InvalidDataException)
        {
            store.Remove(taken.Key, MadeNames.GivenPicture);
            return NoPicture(ShownPicture.Field);
        }
    }

    private static Problem NoPicture(string field) => new($"{field}-no-picture", "The file is no picture that can be read. Choose a JPEG or PNG.", field);

    internal static Problem TooHeavy(long mostBytes, string field) =>
        new($"{field}-too-heavy", $"The file has more than {mostBytes / 1024 / 1024} MB. Save it as JPEG.", field);

    /// <summary>Writes a body to disk; stops and says so where it is too large.</summary>
    internal static async Task<bool> ReceiveAsync(Stream body, string path, long mostBytes, CancellationToken cancel)
    {
        await using var file = File.Create(path);
        var buffer = new byte[81920];
        int read;
        while ((read = await body.ReadAsync(buffer, cancel)) > 0)
        {
            if (file.Length + read > mostBytes)
                return false;
            await file.WriteAsync(buffer.AsMemory(0, read), cancel);
        }

        return true;
    }
}
