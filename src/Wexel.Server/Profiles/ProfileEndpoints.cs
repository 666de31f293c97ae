using System.Security.Claims;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Making.Storage;
using Wexel.Server.Estimates;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Profiles;

/// <param name="Shipped">Whether it comes with Wexel and cannot be changed.</param>
/// <param name="Outlets">The outlets that take it where nobody chooses another.</param>
/// <param name="Releases">How many releases were made with it.</param>
internal sealed record ProfileView(Profile Profile, bool Shipped, IReadOnlyList<string> Outlets, int Releases, IReadOnlyList<DevicePlays> PlaysOn);

/// <param name="Profile">The profile as it stands in the form.</param>
/// <param name="LessonId">The lesson that it is checked against; null for none.</param>
internal sealed record ProfileCheckRequest(Profile Profile, Guid? LessonId);

/// <param name="Findings">What does not hold, faults first.</param>
/// <param name="Outlets">Which outlets would refuse what it makes, and why.</param>
/// <param name="PlaysOn">On which devices what it makes plays.</param>
/// <param name="Outcome">What it would make of the lesson; null without one, and while a fault stands.</param>
internal sealed record ProfileCheckView(
    IReadOnlyList<ProfileFinding> Findings,
    IReadOnlyList<OutletRefusal> Outlets,
    ProfileOutcome? Outcome,
    IReadOnlyList<DevicePlays> PlaysOn
);

internal sealed record OutletRefusal(string Outlet, string Sentence);

internal sealed record ProfileOutcome(string LessonTitle, PictureSize? Size, string Coding, EstimateView Estimate);

/// <summary>A picture that can be a profile's own mark.</summary>
/// <param name="Key">What names it.</param>
/// <param name="Size">Its own size.</param>
internal sealed record TakenMark(string Key, PictureSize Size);

internal static class ProfileEndpoints
{
    /// <summary>A document may hold the picture of a mark.</summary>
    private const int LargestDocument = 16_000_000;

    internal static void MapProfiles(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/profiles");
        group.MapGet("", ListAsync).WithName("Profiles");
        group.MapGet("schema", () => TypedResults.Content(ProfileText.Schema().ToJsonString(), "application/schema+json")).WithName("ProfileSchema");
        group.MapGet("{id}/document", DocumentAsync).WithName("ProfileDocument").ExcludeFromDescription();
        group.MapPost("document", BringInAsync).WithName("BringInProfile").Accepts<Stream>("application/octet-stream");
        group.MapPost("", AddAsync).WithName("AddProfile");
        group.MapPut("{id}", SaveAsync).WithName("SaveProfile");
        group.MapDelete("{id}", RemoveAsync).WithName("RemoveProfile");
        group.MapPost("check", CheckAsync).WithName("CheckProfile");
        group.MapPut("marks", TakeMarkAsync).WithName("TakeProfileMark").Accepts<Stream>("application/octet-stream");
        group.MapGet("marks/{key}", Mark).WithName("ProfileMark").ExcludeFromDescription();
    }

    private static async Task<Ok<List<ProfileView>>> ListAsync(ProfileShelf shelf, OutletShelf places, WexelDb db, CancellationToken cancel)
    {
        var outlets = await places.AllAsync(cancel);
        var releases = await db
            .Releases.GroupBy(r => r.ProfileId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        return TypedResults.Ok(
            (await shelf.AllAsync(cancel))
                .Select(p => new ProfileView(
                    p,
                    Core.Encoding.Profiles.Find(p.Id) is not null,
                    [.. outlets.Where(o => o.UsualProfile == p.Id).Select(o => o.Row.Name)],
                    releases.GetValueOrDefault(p.Id),
                    PlaysOn.For(p)
                ))
                .ToList()
        );
    }

    /// <summary>The profile as a file, with the picture of its own mark in it.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> DocumentAsync(
        string id,
        ProfileShelf shelf,
        FileStore store,
        CancellationToken cancel
    )
    {
        if (await shelf.FindAsync(id, cancel) is not { } profile)
            return Problems.NotThere("profile");
        var mark = profile.Picture?.OwnMark is { } own ? await File.ReadAllBytesAsync(store.Derived(own.Key, MadeNames.Mark), cancel) : null;
        return TypedResults.File(Encoding.UTF8.GetBytes(ProfileText.Write(profile, mark)), ProfileText.MediaType, $"{profile.Id}.profile.json");
    }

    /// <summary>Takes a picture that is to be a profile's own mark.</summary>
    private static async Task<Results<Ok<TakenMark>, ProblemHttpResult>> TakeMarkAsync(HttpRequest request, MarkTaker marks, CancellationToken cancel)
    {
        request.TakeAnySize();
        return (await marks.TakeAsync(request.Body, cancel)).Is(out var taken, out var problem)
            ? TypedResults.Ok(new TakenMark(taken.Key, new PictureSize(taken.Facts.Width, taken.Facts.Height)))
            : Problems.Answer(problem);
    }

    private static Results<PhysicalFileHttpResult, ProblemHttpResult> Mark(string key, FileStore store) =>
        ImageFacts.IsKey(key) && store.Has(key, MadeNames.Mark)
            ? TypedResults.PhysicalFile(store.Derived(key, MadeNames.Mark), IsPng(store.Derived(key, MadeNames.Mark)) ? "image/png" : "image/jpeg")
            : Problems.NotThere("mark");

    /// <summary>Of what is taken as a mark, only a PNG begins so (PNG, third edition, section 5.2).</summary>
    private static bool IsPng(string path)
    {
        using var file = File.OpenRead(path);
        return file.ReadByte() == 0x89;
    }

    private static async Task<Results<Ok<Profile>, ProblemHttpResult>> BringInAsync(
        HttpRequest request,
        ProfileKeeper keeper,
        MarkTaker marks,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (request.ContentLength > LargestDocument)
            return Problems.Answer(new Problem("profile-unreadable", "The file is far too large for a profile; choose the JSON file that was exported."));
        using var reader = new StreamReader(request.Body);
        var text = await reader.ReadToEndAsync(cancel);
        var (profile, problem) = ProfileText.Read(text);
        if (profile is null)
            return Problems.Answer(problem!);
        if (profile.Picture is { OwnMark: { } own } picture && ProfileText.Mark(text) is { } given)
        {
            if (!(await marks.TakeAsync(new MemoryStream(given), cancel)).Is(out var taken, out var unusable))
                return Problems.Answer(unusable);
            own = own with { Key = taken.Key, Size = new PictureSize(taken.Facts.Width, taken.Facts.Height) };
            profile = profile with { Picture = picture with { OwnMark = own } };
        }

        return await AddAsync(profile, keeper, user, cancel);
    }

    private static async Task<Results<Ok<Profile>, ProblemHttpResult>> AddAsync(
        Profile profile,
        ProfileKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var (added, problem) = await keeper.AddAsync(profile, user.Identity!.Name!, cancel);
        return added is null ? Problems.Answer(problem!) : TypedResults.Ok(added);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveAsync(
        string id,
        Profile profile,
        ProfileKeeper keeper,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) => await keeper.SaveAsync(id, profile, user.Identity!.Name!, cancel) is { } problem ? Refuse(problem) : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(string id, ProfileKeeper keeper, CancellationToken cancel) =>
        await keeper.RemoveAsync(id, cancel) is { } problem ? Refuse(problem) : TypedResults.NoContent();

    private static ProblemHttpResult Refuse(Problem problem) =>
        Problems.Answer(
            problem,
            problem.Code switch
            {
                "not-there" => StatusCodes.Status404NotFound,
                "profile-shipped" => StatusCodes.Status409Conflict,
                _ => StatusCodes.Status422UnprocessableEntity,
            }
        );

    private static async Task<Results<Ok<ProfileCheckView>, ProblemHttpResult>> CheckAsync(
        ProfileCheckRequest request,
        OutletShelf places,
        RenderPlans plans,
        EstimateReader estimates,
        CancellationToken cancel
    )
    {
        var profile = request.Profile;
        var findings = ProfileRules.Findings(profile);
        var outlets = await places.AllAsync(cancel);
        List<OutletRefusal> refusals =
        [
            .. outlets
                .Select(o => (o.Row.Name, Refusal: o.Refusal(profile)))
                .Where(o => o.Refusal is not null)
                .Select(o => new OutletRefusal(o.Name, o.Refusal!.Sentence)),
        ];
        if (request.LessonId is not { } id || findings.Any(f => f.IsFault))
            return TypedResults.Ok(new ProfileCheckView(findings, refusals, null, PlaysOn.For(profile)));
        if (await plans.LessonAsync(id, cancel) is not { } renderable)
            return Problems.NotThere("lesson");
        var planned = renderable.With(profile);
        return TypedResults.Ok(
            new ProfileCheckView(
                [.. findings.Concat(renderable.Check(profile)).OrderByDescending(f => f.IsFault)],
                refusals,
                planned is null
                    ? null
                    : new ProfileOutcome(
                        renderable.Document.Title,
                        planned.Plan.Picture?.Size,
                        CodingWords.Say(planned.Plan),
                        await estimates.EstimateAsync(planned, cancel)
                    ),
                PlaysOn.For(profile)
            )
        );
    }
}
