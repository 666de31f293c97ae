using Microsoft.EntityFrameworkCore;
using Npgsql;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Mixing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Media.Mixing;
using Wexel.Media.Tools;

namespace Wexel.Server.Shelves;

/// <summary>The shelf of sounds: those that come with Wexel, and those that people put there. What a lesson has of it stays with the lesson.</summary>
internal sealed class SoundShelf(WexelDb db, FileStore store, ShelfSounds files, ShippedSounds shipped, TimeProvider clock)
{
    /// <summary>The most that people may put there.</summary>
    private const int Most = 2000;

    /// <summary>All that stands there.</summary>
    internal async Task<IReadOnlyList<ShelvedSound>> ReadAsync(CancellationToken cancel) =>
        [.. shipped.All, .. (await db.KeptSounds.AsNoTracking().Select(s => s.Sound).ToListAsync(cancel)).Select(WexelJson.Read<ShelvedSound>)];

    /// <summary>Whether it came with Wexel.</summary>
    internal bool IsShipped(string key) => shipped.Path(key) is not null;

    /// <summary>Takes a file in; it stands on the shelf when somebody said what it is.</summary>
    internal async Task<Result<(string Key, SoundFileFacts Facts)>> TakeAsync(string path, CancellationToken cancel)
    {
        if (!(await files.TakeAsync(path, cancel)).Is(out var taken, out var problem))
            return problem;
        await files.CopyAsync(taken.Key, taken.Facts.Channels, cancel);
        return taken;
    }

    /// <summary>Puts a sound on the shelf whose file was taken in, or says something else of one that stands there.</summary>
    /// <param name="sound">What it is; what was measured of its file stays as it was measured.</param>
    /// <param name="by">Who puts it there.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why it is not put there; null where it is.</returns>
    internal async Task<Problem?> PutAsync(ShelvedSound sound, string by, CancellationToken cancel)
    {
        if (IsShipped(sound.Sound.Key))
            return new Problem("sound-shipped", "This sound comes with Wexel and stays as it is.", "sound");
        if (!(await MeasuredAsync(sound.Sound, cancel)).Is(out var measured, out var lacking))
            return lacking;
        var tidy = (sound with { Sound = measured }).Tidied();
        if (tidy.Refusal() is { } refused)
            return refused;
        try
        {
            return await KeepAsync(tidy, by, cancel);
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            // Somebody else put the same file there in this moment.
            db.ChangeTracker.Clear();
            return await KeepAsync(tidy, by, cancel);
        }
    }

    private async Task<Problem?> KeepAsync(ShelvedSound tidy, string by, CancellationToken cancel)
    {
        var kept = await db.KeptSounds.FirstOrDefaultAsync(s => s.Key == tidy.Sound.Key, cancel);
        if (kept is null)
        {
            if (await db.KeptSounds.CountAsync(cancel) >= Most)
                return new Problem("shelf-full", $"The shelf holds at most {Most:N0} sounds of your own. Take some off first.", "sound");
            kept = new KeptSound
            {
                Key = tidy.Sound.Key,
                Sound = "",
                By = by,
            };
            db.KeptSounds.Add(kept);
        }

        (kept.Sound, kept.By, kept.At) = (WexelJson.Write(tidy), by, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Takes one off the shelf. Lessons under which it lies keep it, and its file stays.</summary>
    /// <returns>Whether it stood there.</returns>
    internal async Task<bool> RemoveAsync(string key, CancellationToken cancel) => await db.KeptSounds.Where(s => s.Key == key).ExecuteDeleteAsync(cancel) > 0;

    /// <summary>Where a sound lies as it is listened to; null where there is none of that name.</summary>
    internal async Task<string?> CopyAsync(string key, CancellationToken cancel) =>
        await FactsAsync(key, cancel) is { } facts ? await files.CopyAsync(key, facts.Channels, cancel) : null;

    /// <summary>Sees that what is new under a lesson is here, and is what was measured.</summary>
    /// <returns>The lesson with what was measured, or why it cannot stand.</returns>
    internal async Task<Result<LessonDocument>> CheckedAsync(LessonDocument before, LessonDocument after, CancellationToken cancel)
    {
        var known = before.Sounds.Select(s => s.Sound).ToHashSet();
        if (after.Sounds.All(s => known.Contains(s.Sound)))
            return after;
        var sounds = new List<SoundBed>();
        foreach (var bed in after.Sounds)
        {
            if (known.Contains(bed.Sound))
            {
                sounds.Add(bed);
                continue;
            }

            if (!(await MeasuredAsync(bed.Sound, cancel)).Is(out var measured, out var lacking))
                return lacking;
            await files.CopyAsync(measured.Key, measured.Channels, cancel);
            sounds.Add(bed with { Sound = measured });
        }

        return after with
        {
            Sounds = sounds,
        };
    }

    private async Task<Result<ShelfSound>> MeasuredAsync(ShelfSound sound, CancellationToken cancel) =>
        await FactsAsync(sound.Key, cancel) is { } facts
            ? sound with
            {
                Length = facts.Length,
                Channels = facts.Channels,
                Lufs = facts.Lufs,
                TruePeak = facts.TruePeak,
            }
            : new Problem("sound-gone", $"The sound “{Problem.Shown(sound.Title)}” is not here. Put it on the shelf again.", "sounds");

    private async Task<SoundFileFacts?> FactsAsync(string key, CancellationToken cancel)
    {
        if (await files.FindAsync(key, cancel) is { } found)
            return found;
        if (shipped.Path(key) is not { } path)
            return null;
        var copy = store.Arriving();
        File.Copy(path, copy, overwrite: true);
        return (await files.TakeAsync(copy, cancel)).Is(out var taken, out var problem)
            ? taken.Facts
            : throw new ToolFailedException("ffmpeg", problem.Sentence);
    }
}
