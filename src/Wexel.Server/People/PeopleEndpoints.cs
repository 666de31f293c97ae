using System.Text.RegularExpressions;
using Hangfire;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.SignIn;

namespace Wexel.Server.People;

/// <param name="Id">Who.</param>
/// <param name="Name">Their name.</param>
/// <param name="Mail">Their mail address, by which they sign in.</param>
/// <param name="Role">What they do.</param>
/// <param name="Groups">In which groups they are.</param>
/// <param name="IsDisabled">Whether they can sign in no more.</param>
/// <param name="IsGuest">Whether they came by a code, and do not belong to the house.</param>
/// <param name="IsMe">Whether it is whoever asks.</param>
/// <param name="MailRefused">What the mail server said that would not have the last mail of what they follow; null where it had it.</param>
internal sealed record PersonEntry(
    Guid Id,
    string Name,
    string Mail,
    PersonRole Role,
    IReadOnlyList<string> Groups,
    bool IsDisabled,
    bool IsGuest,
    bool IsMe,
    string? MailRefused
);

/// <param name="People">The first of those who were asked for, by name.</param>
/// <param name="Total">How many were asked for.</param>
/// <param name="MayChange">Whether whoever asks may add and change people.</param>
/// <param name="Administrators">The names of those who may.</param>
internal sealed record PeopleView(IReadOnlyList<PersonEntry> People, int Total, bool MayChange, IReadOnlyList<string> Administrators);

/// <summary>Whom a mail address is of.</summary>
internal sealed record KnownMail(string Mail, string Name);

/// <param name="Name">Their name.</param>
/// <param name="Mail">Their mail address.</param>
/// <param name="Role">What they do.</param>
/// <param name="Groups">The names of the groups that they join.</param>
/// <param name="Invite">Whether a mail lets them choose a password.</param>
internal sealed record NewPerson(string Name, string Mail, PersonRole Role, IReadOnlyList<string> Groups, bool Invite);

/// <param name="Name">Their name.</param>
/// <param name="Role">What they do.</param>
internal sealed record PersonChange(string Name, PersonRole Role);

/// <summary>What a list will do.</summary>
/// <param name="Adds">How many are added.</param>
/// <param name="Changes">How many are changed.</param>
/// <param name="Nothing">How many lines say nothing new.</param>
/// <param name="NewGroups">The groups that will be made.</param>
/// <param name="Lines">The lines: all that cannot be used, and the first of the others.</param>
/// <param name="Total">How many lines there are.</param>
internal sealed record ListPreview(int Adds, int Changes, int Nothing, IReadOnlyList<string> NewGroups, IReadOnlyList<PreviewedLine> Lines, int Total);

/// <param name="Number">Its number in the file.</param>
/// <param name="Mail">The address that it names.</param>
/// <param name="Effect">What it will do.</param>
/// <param name="Words">The same in words.</param>
internal sealed record PreviewedLine(int Number, string Mail, LineEffect Effect, string Words);

/// <param name="Done">How far the list is done, in lines.</param>
/// <param name="Total">How many lines it has.</param>
internal sealed record ListProgress(int Done, int Total);

/// <summary>Who can sign in, and what they do.</summary>
internal static partial class PeopleEndpoints
{
    private const int MostShown = 200;
    private const int LinesAtOnce = 1000;
    private const long LargestList = 8_000_000;

    internal static void MapPeople(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/people", ListAsync).WithName("People");
        routes.MapGet("/api/people/known", KnownAsync).WithName("KnownPeople");
        routes.MapGet("/api/visibilities", () => TypedResults.Ok(VisibilityWords.All)).WithName("Visibilities");
        var changing = routes.MapGroup("/api/people").RequireAuthorization(policy => policy.RequireRole(Roles.Administrator));
        changing.MapPost("", AddAsync).WithName("AddPerson");
        changing.MapPut("{id:guid}", ChangeAsync).WithName("ChangePerson");
        changing.MapPut("{id:guid}/disabled", DisableAsync).WithName("DisablePerson");
        changing.MapDelete("{id:guid}/disabled", EnableAsync).WithName("EnablePerson");
        changing.MapPost("{id:guid}/invitation", InviteAsync).WithName("InvitePerson");
        changing.MapPost("list/preview", PreviewAsync).WithName("PreviewPeople").Accepts<Stream>("text/csv");
        changing.MapPost("list", TakeListAsync).WithName("TakePeople").Accepts<Stream>("text/csv");
    }

    /// <param name="find">Part of a name or an address; null for everybody.</param>
    /// <param name="trainers">Whether only those are wanted who make lessons and can sign in.</param>
    /// <param name="group">The group that they are in; null for any.</param>
    private static async Task<Ok<PeopleView>> ListAsync(
        string? find,
        bool? trainers,
        Guid? group,
        WexelDb db,
        HttpContext http,
        PeopleKeeper keeper,
        CancellationToken cancel
    )
    {
        var wanted = db.Users.AsNoTracking();
        if (find?.Trim() is { Length: > 0 } part)
        {
            var like = $"%{Special().Replace(part, "\\$0")}%";
            wanted = wanted.Where(p => EF.Functions.ILike(p.DisplayName, like) || EF.Functions.ILike(p.Email!, like));
        }

        if (trainers == true)
            wanted = wanted.Where(p => p.DisabledAt == null && keeper.InRole(Roles.Trainer).Contains(p.Id));
        if (group is { } of)
            wanted = wanted.Where(p => db.GroupMembers.Any(m => m.GroupId == of && m.PersonId == p.Id));
        var people = await wanted.OrderBy(p => p.DisplayName).ThenBy(p => p.Email).Take(MostShown).ToListAsync(cancel);
        var known = await keeper.AsKnownAsync(people, cancel);
        var me = http.User.Id();
        var ids = people.ConvertAll(p => p.Id);
        var refused = (
            await db
                .FollowerMails.Where(m => ids.Contains(m.PersonId) && m.SentAt != null)
                .GroupBy(m => m.PersonId)
                .Select(g => g.OrderByDescending(m => m.SentAt).Select(m => new { m.PersonId, m.Refusal }).First())
                .ToListAsync(cancel)
        ).ToDictionary(m => m.PersonId, m => m.Refusal);
        return TypedResults.Ok(
            new PeopleView(
                [
                    .. people.Select(
                        (p, i) =>
                            new PersonEntry(
                                p.Id,
                                p.DisplayName,
                                p.Email!,
                                known[i].Role,
                                known[i].Groups,
                                known[i].IsDisabled,
                                p.IsGuest,
                                p.Id == me,
                                refused.GetValueOrDefault(p.Id)
                            )
                    ),
                ],
                people.Count < MostShown ? people.Count : await wanted.CountAsync(cancel),
                http.User.IsInRole(Roles.Administrator),
                await db
                    .Users.Where(p => p.DisabledAt == null && keeper.InRole(Roles.Administrator).Contains(p.Id))
                    .OrderBy(p => p.DisplayName)
                    .Select(p => p.DisplayName)
                    .ToListAsync(cancel)
            )
        );
    }

    /// <summary>What means something in a pattern of SQL.</summary>
    [GeneratedRegex(@"[\\%_]")]
    private static partial Regex Special();

    private static async Task<Ok<List<KnownMail>>> KnownAsync(string[] mail, WexelDb db, CancellationToken cancel)
    {
        var keys = mail.Take(MostShown).Select(m => m.ToUpperInvariant()).ToList();
        return TypedResults.Ok(
            await db.Users.Where(p => !p.IsGuest && keys.Contains(p.NormalizedEmail!)).Select(p => new KnownMail(p.Email!, p.DisplayName)).ToListAsync(cancel)
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AddAsync(NewPerson request, WexelDb db, PeopleKeeper keeper, CancellationToken cancel)
    {
        var (mail, name) = (request.Mail.Trim(), PeopleList.OneLine(request.Name));
        if (PeopleList.Unusable(mail, name) is { } unusable)
            return Problems.Answer(unusable);
        if (name.Length == 0)
            return Problems.Answer(new Problem("person-no-name", "Write the name too; it stands wherever this person is named.", "name"));
        var line = new PersonLine(1, mail, name, request.Role, [.. request.Groups.Select(PeopleList.OneLine).Where(g => g.Length > 0)]);
        // Somebody who came by a code belongs to the house from then on.
        var key = mail.ToUpperInvariant();
        if (await db.Users.AnyAsync(p => !p.IsGuest && p.NormalizedEmail == key, cancel))
            return Problems.Answer(new Problem("person-known", $"{mail} has an account already.", "mail"));
        var planned = await keeper.PlanAsync([line], cancel);
        return await keeper.TakeAsync(planned, request.Invite, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        Guid id,
        PersonChange request,
        PeopleKeeper keeper,
        CancellationToken cancel
    ) =>
        await keeper.ChangeAsync(id, PeopleList.OneLine(request.Name), request.Role, cancel) is { } problem
            ? Problems.Answer(problem)
            : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> DisableAsync(Guid id, PeopleKeeper keeper, CancellationToken cancel) =>
        await keeper.DisableAsync(id, disabled: true, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> EnableAsync(Guid id, PeopleKeeper keeper, CancellationToken cancel) =>
        await keeper.DisableAsync(id, disabled: false, cancel) is { } problem ? Problems.Answer(problem) : TypedResults.NoContent();

    private static async Task<Results<NoContent, ProblemHttpResult>> InviteAsync(Guid id, WexelDb db, IBackgroundJobClient jobs, CancellationToken cancel)
    {
        if (!await db.Users.AnyAsync(p => p.Id == id && p.DisabledAt == null && !p.IsGuest, cancel))
            return Problems.NotThere("person");
        jobs.Enqueue<NewPasswords>(mails => mails.InviteAsync(id, CancellationToken.None));
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<ListPreview>, ProblemHttpResult>> PreviewAsync(HttpRequest request, PeopleKeeper keeper, CancellationToken cancel)
    {
        if (!(await LinesAsync(request, cancel)).Is(out var lines, out var problem))
            return Problems.Answer(problem);
        var planned = await keeper.PlanAsync(lines, cancel);
        int Count(LineEffect effect) => planned.Count(p => p.Effect == effect);
        var shown = planned.Where(p => p.Effect is LineEffect.Refused or LineEffect.Repeats).Take(MostShown).ToHashSet();
        shown.UnionWith(planned.Where(p => p.Effect is LineEffect.Adds or LineEffect.Changes or LineEffect.Nothing).Take(MostShown));
        return TypedResults.Ok(
            new ListPreview(
                Count(LineEffect.Adds),
                Count(LineEffect.Changes),
                Count(LineEffect.Nothing),
                await keeper.NewGroupsAsync(planned, cancel),
                [.. planned.Where(shown.Contains).Select(p => new PreviewedLine(p.Line.Number, p.Line.Mail, p.Effect, p.Words))],
                planned.Count
            )
        );
    }

    /// <summary>Does a part of a list, so that whoever waits sees how far it is and may stop; what is done already does nothing.</summary>
    /// <param name="from">The first line, from 0.</param>
    /// <param name="invite">Whether those who are added may choose a password by a mail.</param>
    private static async Task<Results<Ok<ListProgress>, ProblemHttpResult>> TakeListAsync(
        int from,
        bool invite,
        HttpRequest request,
        PeopleKeeper keeper,
        CancellationToken cancel
    )
    {
        if (!(await LinesAsync(request, cancel)).Is(out var lines, out var problem))
            return Problems.Answer(problem);
        var part = lines.Skip(from).Take(LinesAtOnce).ToList();
        return await keeper.TakeAsync(await keeper.PlanAsync(part, cancel), invite, cancel) is { } refused
            ? Problems.Answer(refused)
            : TypedResults.Ok(new ListProgress(Math.Min(from + part.Count, lines.Count), lines.Count));
    }

    private static async Task<Result<IReadOnlyList<PersonLine>>> LinesAsync(HttpRequest request, CancellationToken cancel)
    {
        request.TakeAtMost(LargestList);
        using var file = new MemoryStream();
        await request.Body.CopyToAsync(file, cancel);
        return PeopleList.Read(file.ToArray());
    }
}
