using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Learning;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Server.Learning;
using Wexel.Server.People;
using Wexel.Server.Serving;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.SignIn;

namespace Wexel.Server.Channel;

/// <param name="Learner">The key that the learner's browser made.</param>
/// <param name="Kind">What it says of the moment.</param>
/// <param name="At">The moment, in milliseconds of the lesson.</param>
/// <param name="Text">In the learner's words; may be empty.</param>
internal sealed record NoteRequest(string Learner, NoteKind Kind, long At, string Text);

/// <summary>A learner's own note.</summary>
/// <param name="At">The moment, in milliseconds of the lesson.</param>
/// <param name="Kind">What it says of the moment.</param>
/// <param name="Text">In the learner's words.</param>
/// <param name="Answer">What the author said; null where nothing.</param>
/// <param name="Answered">Whether it was seen to.</param>
internal sealed record OwnNote(long At, NoteKind Kind, string Text, string? Answer, bool Answered);

/// <summary>What a lesson's page asks for beside the lesson's video: captions as files, and the learner's notes.</summary>
internal static class LearnerFiles
{
    internal static void Map(IEndpointRouteBuilder group)
    {
        group.MapGet("/watch/{token}/captions-{name}.vtt", CaptionsAsync);
        group.MapGet("/watch/{token}/notes", ReadNotesAsync);
        group.MapPost("/watch/{token}/notes", LeaveNoteAsync).RequireRateLimiting(Limits.Notes);
    }

    /// <summary>A track of captions as a WebVTT file, for a page on which no script runs.</summary>
    private static async Task<Results<ContentHttpResult, NotFound, UnauthorizedHttpResult>> CaptionsAsync(
        string token,
        string name,
        ChannelReader reader,
        Viewers viewers,
        HttpContext http,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown(), await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        var tracks = PlayerLesson.Format.Read(release.Player).Captions;
        var names = CaptionFileName.ForLanguages([.. tracks.Select(t => t.Language)]);
        var i = names.ToList().IndexOf(name);
        return i < 0 ? TypedResults.NotFound() : TypedResults.Content(WebVttText.WriteKept(tracks[i].Cues), "text/vtt; charset=utf-8");
    }

    private static async Task<Results<Ok<IReadOnlyList<OwnNote>>, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> ReadNotesAsync(
        string token,
        string learner,
        HttpContext http,
        KnownReleases releases,
        Viewers viewers,
        Notes notes,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await releases.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown, await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        return LearnerKeys.From(learner, http.User) is { } key ? TypedResults.Ok(await OwnAsync(release.Taken, key, notes, cancel)) : LearnerKeys.Unusable();
    }

    private static async Task<Results<Ok<IReadOnlyList<OwnNote>>, NotFound, UnauthorizedHttpResult, ProblemHttpResult>> LeaveNoteAsync(
        string token,
        NoteRequest request,
        HttpContext http,
        ChannelReader reader,
        Viewers viewers,
        Notes notes,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (await reader.FindAsync(token, cancel) is not { } release)
            return TypedResults.NotFound();
        if (!Seeing.May(release.Shown(), await viewers.FindAsync(http.User, cancel), SeenIn.Address, clock.GetUtcNow()))
            return TypedResults.Unauthorized();
        if (LearnerKeys.From(request.Learner, http.User) is not { } key)
            return LearnerKeys.Unusable();
        if (!TakesNotes(PlayerLesson.Format.Read(release.Player).Details))
            return Problems.Answer(
                new Problem("notes-off", "This lesson takes no notes. Ask the person who gave you the link."),
                StatusCodes.Status403Forbidden
            );
        var taken = new Taken(release.LessonId, release.OutletId, release.Id, release.Revision);
        var learner = new Learner(key, http.User.FindFirstValue(ClaimTypes.GivenName), http.Connection.RemoteIpAddress?.ToString() ?? "");
        var person = http.User.Identity?.IsAuthenticated == true ? http.User.Id() : (Guid?)null;
        var left = new NoteLeft(request.Kind, TimeSpan.FromMilliseconds(Math.Clamp(request.At, -1, int.MaxValue)), request.Text);
        return await notes.LeaveAsync(taken, learner, person, left, cancel) is { } refusal
            ? Problems.Answer(refusal)
            : TypedResults.Ok(await OwnAsync(taken, key, notes, cancel));
    }

    /// <summary>Whether a lesson takes notes: not one that is made for children, who write to nobody.</summary>
    internal static bool TakesNotes(PlayerDetails details) => details.MayNote && details.ForChildren != true;

    private static async Task<IReadOnlyList<OwnNote>> OwnAsync(Taken taken, string key, Notes notes, CancellationToken cancel) =>
        [
            .. (await notes.OfLearnerAsync(taken, key, cancel))
                .Where(p => p.At is not null)
                .Select(p => new OwnNote((long)p.At!.Value.TotalMilliseconds, p.Note.Kind, p.Note.Text, p.Note.Answer, p.Note.AnsweredAt is not null)),
        ];
}

/// <summary>By what a learner's record is found.</summary>
internal static class LearnerKeys
{
    private const int Longest = 100;

    /// <summary>The person who is signed in, or else the key that their browser made; null where that is none.</summary>
    internal static string? From(string learner, ClaimsPrincipal user) =>
        user.Identity?.IsAuthenticated == true ? user.Id().ToString("N")
        : learner.Length <= Longest ? "link-" + learner
        : null;

    internal static ProblemHttpResult Unusable() =>
        Problems.Answer(new Problem("learner-unusable", $"A learner's key has at most {Longest} characters."), StatusCodes.Status400BadRequest);
}
