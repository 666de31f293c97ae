using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Shelves;

namespace Wexel.Server.Profiles;

/// <summary>Keeps the house's own profiles. Those that ship with Wexel stay as they are.</summary>
internal sealed class ProfileKeeper(WexelDb db, ProfileShelf shelf, FileStore store, TimeProvider clock)
{
    /// <summary>The most profiles that a house may have of its own.</summary>
    private const int Most = 200;

    /// <summary>Takes a new profile; where its name is taken already, it gets a number.</summary>
    internal async Task<Result<Profile>> AddAsync(Profile profile, string person, CancellationToken cancel)
    {
        if (Refusal(profile) is { } fault)
            return fault;
        var all = await shelf.AllAsync(cancel);
        if (all.Count >= Most)
            return new Problem("profiles-too-many", $"There are {all.Count} profiles; remove one that nobody uses first.");
        var free = Named(profile, all);
        db.Profiles.Add(
            new OwnProfile
            {
                Id = free.Id,
                Document = Profile.Format.Write(free),
                ChangedBy = person,
                ChangedAt = clock.GetUtcNow(),
            }
        );
        await db.SaveChangesAsync(cancel);
        return free;
    }

    /// <summary>Saves a profile of the house's own.</summary>
    internal async Task<Problem?> SaveAsync(string id, Profile profile, string person, CancellationToken cancel)
    {
        if (Core.Encoding.Profiles.Find(id) is { } shipped)
            return Shipped(shipped);
        if (await db.Profiles.FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } own)
            return NotThere;
        if (Refusal(profile) is { } fault)
            return fault;
        if (
            (await shelf.AllAsync(cancel)).FirstOrDefault(p => p.Id != id && string.Equals(p.Title, profile.Title, StringComparison.OrdinalIgnoreCase)) is
            { } other
        )
            return new Problem("profile-name-taken", $"There is a profile “{other.Title}” already; give this one another name.", "title");
        (own.Document, own.ChangedBy, own.ChangedAt) = (Profile.Format.Write(profile with { Id = id }), person, clock.GetUtcNow());
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Removes a profile of the house's own; outlets that took it take what is usual for them again.</summary>
    internal async Task<Problem?> RemoveAsync(string id, CancellationToken cancel)
    {
        if (Core.Encoding.Profiles.Find(id) is { } shipped)
            return Shipped(shipped);
        if (await db.Profiles.FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } own)
            return NotThere;
        db.Profiles.Remove(own);
        await db.Outlets.Where(o => o.ProfileId == id).ExecuteUpdateAsync(set => set.SetProperty(o => o.ProfileId, (string?)null), cancel);
        await db.SaveChangesAsync(cancel);
        return null;
    }

    /// <summary>Why it cannot stand: its own rules, or a mark of its own whose picture is not here.</summary>
    private Problem? Refusal(Profile profile) =>
        ProfileRules.Refusal(profile)
        ?? (profile.Picture?.OwnMark is { } mark && !(ImageFacts.IsKey(mark.Key) && store.Has(mark.Key, MadeNames.Mark)) ? ProfileText.NoMark(profile) : null);

    private static Problem NotThere => new("not-there", "There is no such profile; it may have been removed.");

    private static Problem Shipped(Profile profile) =>
        new("profile-shipped", $"“{profile.Title}” comes with Wexel and stays as it is. Make a copy, and change that.");

    private static Profile Named(Profile profile, IReadOnlyList<Profile> all)
    {
        var title = profile.Title.Trim();
        for (var n = 2; all.Any(p => string.Equals(p.Title, title, StringComparison.OrdinalIgnoreCase)); n++)
        {
            var number = $" {n}";
            title = profile.Title.Trim()[..Math.Min(profile.Title.Trim().Length, ProfileRules.LongestTitle - number.Length)] + number;
        }

        var slug = string.Join(
            '-',
            new string([.. title.ToLowerInvariant().Select(c => char.IsAsciiLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries)
        );
        var id = slug.Length == 0 ? "profile" : slug;
        for (var n = 2; all.Any(p => p.Id == id); n++)
            id = $"{(slug.Length == 0 ? "profile" : slug)}-{n}";
        return profile with { Id = id, Title = title };
    }
}
