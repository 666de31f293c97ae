using System.Security.Claims;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Wexel.Core.Encoding;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Audit;

/// <summary>Appends what somebody did to the audit list, once it was done.</summary>
internal sealed class AuditTrail(RequestDelegate next)
{
    private const int LongestWith = 300;

    public async Task InvokeAsync(HttpContext http, IDbContextFactory<WexelDb> databases, TimeProvider clock)
    {
        var name = http.GetEndpoint()?.Metadata.GetMetadata<IEndpointNameMetadata>()?.EndpointName;
        if (AuditWords.Find(name) is not { } action)
        {
            await next(http);
            return;
        }

        // What is removed has its name before.
        await using var db = await databases.CreateDbContextAsync(http.RequestAborted);
        var (subject, lesson) = await SubjectAsync(db, action.Subject, http.GetRouteValue("id")?.ToString(), http.RequestAborted);
        var before = http.User;
        await next(http);
        if (http.Response.StatusCode >= StatusCodes.Status400BadRequest)
            return;
        // Who signs in is known behind it, who signs out before.
        var person = http.User.Identity?.IsAuthenticated == true ? http.User : before;
        var with = http.Request.Headers.UserAgent.ToString();
        db.AuditEntries.Add(
            new AuditEntry
            {
                At = clock.GetUtcNow(),
                PersonId = Guid.TryParse(person.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : null,
                Who = person.FindFirstValue(ClaimTypes.GivenName) ?? person.Identity?.Name ?? "",
                Action = name!,
                Subject = subject,
                LessonId = lesson,
                From = http.Connection.RemoteIpAddress?.ToString() ?? "",
                With = with.Length <= LongestWith ? with : with[..LongestWith],
            }
        );
        await db.SaveChangesAsync(CancellationToken.None);
    }

    private static async Task<(string? Name, Guid? Lesson)> SubjectAsync(WexelDb db, AuditSubject subject, string? route, CancellationToken cancel)
    {
        if (subject == AuditSubject.Profile)
        {
            var kept = await db.Profiles.Where(p => p.Id == route).Select(p => p.Document).FirstOrDefaultAsync(cancel);
            return (kept is null ? route : Profile.Format.Read(kept).Title, null);
        }

        if (!Guid.TryParse(route, out var id))
            return (null, null);
        switch (subject)
        {
            case AuditSubject.Lesson:
                return (await db.Lessons.IgnoreQueryFilters().Where(l => l.Id == id).Select(l => l.Title).FirstOrDefaultAsync(cancel), id);
            case AuditSubject.Course:
                return (await db.Courses.Where(c => c.Id == id).Select(c => c.Title).FirstOrDefaultAsync(cancel), null);
            case AuditSubject.Outlet:
                return (await db.Outlets.Where(o => o.Id == id).Select(o => o.Name).FirstOrDefaultAsync(cancel), null);
            case AuditSubject.Rendition:
                var rendition = await db.Renditions.Where(r => r.Id == id).Select(r => new { r.Lesson!.Title, r.LessonId }).FirstOrDefaultAsync(cancel);
                return (rendition?.Title, rendition?.LessonId);
            case AuditSubject.CourseRelease:
                return (await db.CourseReleases.Where(r => r.Id == id).Select(r => r.Course!.Title + ", " + r.Outlet!.Name).FirstOrDefaultAsync(cancel), null);
            case AuditSubject.Release:
                var release = await db
                    .Releases.IgnoreQueryFilters()
                    .Where(r => r.Id == id)
                    .Select(r => new { Name = r.Lesson!.Title + ", " + r.Outlet!.Name, r.LessonId })
                    .FirstOrDefaultAsync(cancel);
                return (release?.Name, release?.LessonId);
            default:
                return (null, null);
        }
    }
}
