using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Outlets.Channels;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Following;

/// <param name="Id">Which.</param>
/// <param name="Name">What is followed.</param>
/// <param name="IsCourse">Whether it is a course, and not a channel.</param>
internal sealed record Followed(Guid Id, string Name, bool IsCourse);

/// <summary>Who follows what.</summary>
internal sealed class Follows(WexelDb db, IDataProtectionProvider protection, IOptions<WexelOptions> options, TimeProvider clock)
{
    private readonly IDataProtector _stops = protection.CreateProtector("wexel", "follow");

    /// <summary>What somebody follows: the numbers of channels and courses.</summary>
    internal async Task<IReadOnlySet<Guid>> WhatAsync(Guid person, CancellationToken cancel) =>
        (await db.Follows.Where(f => f.PersonId == person).Select(f => f.OutletId ?? f.CourseId!.Value).ToListAsync(cancel)).ToHashSet();

    internal async Task<IReadOnlyList<Followed>> ListAsync(Guid person, CancellationToken cancel) =>
        [
            .. (
                await db
                    .Follows.Where(f => f.PersonId == person)
                    .Select(f => new Followed(
                        f.Id,
                        db.Outlets.Where(o => o.Id == f.OutletId).Select(o => o.Name).FirstOrDefault()
                            ?? db.Courses.Where(c => c.Id == f.CourseId).Select(c => c.Title).FirstOrDefault()
                            ?? "",
                        f.CourseId != null
                    ))
                    .ToListAsync(cancel)
            ).OrderBy(f => f.Name, StringComparer.OrdinalIgnoreCase),
        ];

    /// <summary>Follows a channel or a course.</summary>
    /// <param name="person">Who.</param>
    /// <param name="what">The number of a channel or a course.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Whether there is such.</returns>
    internal async Task<bool> BeginAsync(Guid person, Guid what, CancellationToken cancel)
    {
        var isChannel = await db.Outlets.AnyAsync(o => o.Id == what && o.Kind == ChannelKind.Channel, cancel);
        if (!isChannel && !await db.Courses.AnyAsync(c => c.Id == what, cancel))
            return false;
        Guid? channel = isChannel ? what : null,
            course = isChannel ? null : what;
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "Follows" ("Id", "PersonId", "OutletId", "CourseId", "Since")
            VALUES ({Guid.CreateVersion7()}, {person}, {channel}, {course}, {clock.GetUtcNow()}) ON CONFLICT DO NOTHING
            """,
            cancel
        );
        return true;
    }

    /// <summary>Follows something no more; a mail of it that waits goes no more.</summary>
    internal Task EndAsync(Guid person, Guid what, CancellationToken cancel) =>
        db.Follows.Where(f => f.PersonId == person && (f.OutletId == what || f.CourseId == what || f.Id == what)).ExecuteDeleteAsync(cancel);

    /// <summary>The address at which somebody ends it who has nothing but its mail.</summary>
    internal Uri StopAddress(Guid follow) => new(options.Value.PublicAddress, $"follow/stop/{_stops.Protect(follow.ToString("N"))}");

    /// <summary>What such an address stands for; null where it is not whole, or it was ended already.</summary>
    internal async Task<Followed?> FindAsync(string stop, CancellationToken cancel)
    {
        try
        {
            var id = Guid.ParseExact(_stops.Unprotect(stop), "N");
            var person = await db.Follows.Where(f => f.Id == id).Select(f => (Guid?)f.PersonId).FirstOrDefaultAsync(cancel);
            return person is { } who ? (await ListAsync(who, cancel)).First(f => f.Id == id) : null;
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }

    internal Task StopAsync(Guid follow, CancellationToken cancel) => db.Follows.Where(f => f.Id == follow).ExecuteDeleteAsync(cancel);
}
