using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Remembering;

namespace Wexel.Server.People;

/// <summary>
/// What is known of somebody, all of it in one file, and taking it away when they ask for that. What they watched stays in the counts: as somebody's of whom
/// nothing is known any more.
/// </summary>
internal sealed class PersonalData(WexelDb db, UserManager<Person> people, PeopleKeeper keeper, Changes changes)
{
    private const string Nobody = "somebody who was removed";

    private static readonly JsonSerializerOptions Readable = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <summary>All that is kept of somebody, as JSON; null where there is no such person. Secrets are not in it.</summary>
    internal async Task<byte[]?> ExportAsync(Guid id, CancellationToken cancel)
    {
        if (await db.Users.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } person)
            return null;
        var (known, key) = ((await keeper.AsKnownAsync([person], cancel))[0], id.ToString("N"));
        var lessons = await db.Lessons.IgnoreQueryFilters().Select(l => new { l.Id, l.Title }).ToDictionaryAsync(l => l.Id, l => l.Title, cancel);
        string? Title(Guid lesson) => lessons.GetValueOrDefault(lesson);
        var log = await db.LearningLog.AsNoTracking().Where(e => e.LearnerKey == key).OrderBy(e => e.Number).ToListAsync(cancel);
        var records = await db.LearnerRecords.AsNoTracking().Where(r => r.LearnerKey == key).ToListAsync(cancel);
        var notes = await db.LearnerNotes.AsNoTracking().Where(n => n.LearnerKey == key).OrderBy(n => n.At).ToListAsync(cancel);
        var replies = await db.SurveyReplies.AsNoTracking().Where(r => r.LearnerKey == key).OrderBy(r => r.At).ToListAsync(cancel);
        return JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                Account = new
                {
                    person.Id,
                    known.Name,
                    known.Mail,
                    Role = known.Role.ToString(),
                    known.Groups,
                    known.IsGuest,
                    person.DisabledAt,
                    SecondFactor = person.TwoFactorEnabled,
                    person.MailsDaily,
                },
                Passkeys = (await people.GetPasskeysAsync(person)).Select(k => new { k.Name, k.CreatedAt }),
                Providers = (await people.GetLoginsAsync(person)).Select(l => new { l.ProviderDisplayName, l.ProviderKey }),
                Sessions = await db
                    .SignedIn.Where(s => s.PersonId == id)
                    .Select(s => new
                    {
                        s.Since,
                        s.SeenAt,
                        s.Address,
                        s.Browser,
                    })
                    .ToListAsync(cancel),
                Follows = await db
                    .Follows.Where(f => f.PersonId == id)
                    .Select(f => new
                    {
                        f.OutletId,
                        f.CourseId,
                        f.Since,
                    })
                    .ToListAsync(cancel),
                MailsOfWhatIsNew = (await db.FollowerMails.AsNoTracking().Where(m => m.PersonId == id).ToListAsync(cancel)).Select(m => new
                {
                    Lesson = Title(m.LessonId),
                    m.DueAt,
                    m.SentAt,
                }),
                Lessons = records.Select(r => new
                {
                    Lesson = Title(r.LessonId),
                    r.SeenShare,
                    r.CompletedAt,
                    r.SeenLastAt,
                }),
                WhatTheyDid = log.Select(e => new
                {
                    Lesson = Title(e.LessonId),
                    e.Kind,
                    e.At,
                    e.Revision,
                    e.Attempt,
                    Data = JsonSerializer.Deserialize<JsonElement>(e.Data),
                }),
                Notes = notes.Select(n => new
                {
                    Lesson = Title(n.LessonId),
                    Kind = n.Kind.ToString(),
                    n.Text,
                    n.At,
                    n.Answer,
                    n.AnsweredAt,
                }),
                WhatTheySaidOfLessons = replies.Select(r => new
                {
                    Lesson = Title(r.LessonId),
                    r.At,
                    Values = JsonSerializer.Deserialize<JsonElement>(r.Values),
                }),
                Changes = await db
                    .AuditEntries.Where(a => a.PersonId == id)
                    .OrderBy(a => a.Number)
                    .Select(a => new
                    {
                        a.At,
                        a.Action,
                        a.Subject,
                        a.From,
                        a.With,
                    })
                    .ToListAsync(cancel),
            },
            Readable
        );
    }

    /// <summary>Takes away what is known of somebody who can sign in no more.</summary>
    /// <param name="id">Who.</param>
    /// <param name="heir">Whose their lessons are then.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why not; null where it is done.</returns>
    internal async Task<Problem?> RemoveAsync(Guid id, Guid heir, CancellationToken cancel)
    {
        if (await db.Users.FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } person)
            return new Problem("person-gone", "This person is not there any more. Load the page again.");
        if (person.DisabledAt is null)
            return new Problem("person-not-disabled", "Let them sign in no more first: what is removed cannot be brought back.");
        var (key, mail) = (id.ToString("N"), person.Email!);
        // A key that leads to nobody: who they were stands nowhere any more, and two who were removed stay two.
        var left = $"gone-{Guid.NewGuid():N}";
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"""UPDATE "LearningLog" SET "LearnerKey" = {left}, "Name" = NULL WHERE "LearnerKey" = {key}""", cancel);
        await db.Database.ExecuteSqlAsync($"""UPDATE "LearnerRecords" SET "LearnerKey" = {left}, "Name" = NULL WHERE "LearnerKey" = {key}""", cancel);
        await db.Database.ExecuteSqlAsync(
            $"""UPDATE "LearnerNotes" SET "LearnerKey" = {left}, "PersonId" = NULL, "Name" = NULL WHERE "LearnerKey" = {key}""",
            cancel
        );
        await db
            .SurveyReplies.Where(r => r.LearnerKey == key)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.LearnerKey, left).SetProperty(r => r.Name, (string?)null), cancel);
        await db.PooledQuestions.Where(p => p.KeptBy == person.DisplayName).ExecuteUpdateAsync(set => set.SetProperty(p => p.KeptBy, Nobody), cancel);
        await db.SurveyMarks.Where(m => m.LearnerKey == key).ExecuteDeleteAsync(cancel);
        await db.Database.ExecuteSqlAsync(
            $"""UPDATE "AuditEntries" SET "PersonId" = NULL, "Who" = {Nobody}, "From" = '', "With" = '' WHERE "PersonId" = {id}""",
            cancel
        );
        await db.Lessons.IgnoreQueryFilters().Where(l => l.OwnerId == id).ExecuteUpdateAsync(set => set.SetProperty(l => l.OwnerId, heir), cancel);
        await db.GroupMembers.Where(m => m.PersonId == id).ExecuteDeleteAsync(cancel);
        await ForgetMailAsync(mail, cancel);
        db.Users.Remove(person);
        await db.SaveChangesAsync(cancel);
        await all.CommitAsync(cancel);
        foreach (var table in (string[])["SignedIn", "GroupMembers", "AspNetUsers", "Releases", "Lessons"])
            changes.Changed(table);
        return null;
    }

    /// <summary>Takes an address out of what names people one by one.</summary>
    private async Task ForgetMailAsync(string mail, CancellationToken cancel)
    {
        var code = mail.ToUpperInvariant();
        await db.MailedCodes.Where(c => c.Mail == code).ExecuteDeleteAsync(cancel);
        var naming = await db
            .Releases.IgnoreQueryFilters()
            .Where(r => r.Named != null || r.Invited != null)
            .Select(r => new
            {
                r.Id,
                r.Named,
                r.Invited,
            })
            .ToListAsync(cancel);
        bool IsOther(string other) => !other.Equals(mail, StringComparison.OrdinalIgnoreCase);
        foreach (var release in naming)
        {
            var named = NamedPeople.Read(release.Named);
            var invited = release.Invited is { } kept ? WexelJson.Read<IReadOnlyList<string>>(kept) : [];
            if (named.Mails.All(IsOther) && invited.All(IsOther))
                continue;
            var namedLeft = release.Named is null ? null : NamedPeople.Format.Write(named with { Mails = [.. named.Mails.Where(IsOther)] });
            var invitedLeft = release.Invited is null ? null : WexelJson.Write<IReadOnlyList<string>>([.. invited.Where(IsOther)]);
            await db
                .Releases.IgnoreQueryFilters()
                .Where(r => r.Id == release.Id)
                .ExecuteUpdateAsync(set => set.SetProperty(r => r.Named, namedLeft).SetProperty(r => r.Invited, invitedLeft), cancel);
        }

        foreach (var list in await db.LessonLists.Where(l => l.Named != null).ToListAsync(cancel))
            if (NamedPeople.Read(list.Named) is var named && !named.Mails.All(IsOther))
                list.Named = NamedPeople.Format.Write(named with { Mails = [.. named.Mails.Where(IsOther)] });
    }
}
