using System.Globalization;
using System.Net.Sockets;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Packages;
using Wexel.Core.People;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.Mailing;
using Wexel.Server.People;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;
using Wexel.Server.Upkeep;

namespace Wexel.Server.Following;

/// <summary>
/// Sends what is due to those who follow. While the mail server is away everything waits; what it refuses for one is noted there, and the others get theirs.
/// What somebody may see no more by then is not told to them.
/// </summary>
internal sealed class FollowerMails(
    WexelDb db,
    Viewers viewers,
    Follows follows,
    FileStore store,
    Mailer mailer,
    RazorMails razor,
    IOptions<WexelOptions> options,
    TimeProvider clock,
    ILogger<FollowerMails> log
) : IUpkeep
{
    private const int AtOnce = 200;
    private const int MostInOne = 30;

    public TimeSpan Every => options.Value.FollowersEvery;

    public async Task DoAsync(CancellationToken cancel)
    {
        if (!await db.FollowerMails.AnyAsync(m => m.SentAt == null && m.DueAt <= clock.GetUtcNow(), cancel))
            return;
        await using var hold = await WorkHold.TryAsync(db, "follower mails", cancel);
        if (hold is null)
            return;
        var now = clock.GetUtcNow();
        var people = await db
            .FollowerMails.Where(m => m.SentAt == null && m.DueAt <= now)
            .GroupBy(m => m.PersonId)
            .OrderBy(g => g.Min(m => m.DueAt))
            .Select(g => g.Key)
            .Take(AtOnce)
            .ToListAsync(cancel);
        foreach (var id in people)
        {
            if (!await SendAsync(id, now, cancel))
                return;
        }
    }

    /// <returns>Whether the mail server is there.</returns>
    private async Task<bool> SendAsync(Guid id, DateTimeOffset now, CancellationToken cancel)
    {
        var waiting = await db
            .FollowerMails.AsNoTracking()
            .Include(m => m.Follow)
            .Include(m => m.Release)
                .ThenInclude(r => r!.Lesson)
            .Include(m => m.Release)
                .ThenInclude(r => r!.Outlet)
            .Where(m => m.PersonId == id && m.SentAt == null && m.DueAt <= now)
            .OrderBy(m => m.DueAt)
            .ThenBy(m => m.ReleaseId)
            .ToListAsync(cancel);
        var person = await db.Users.AsNoTracking().FirstAsync(p => p.Id == id, cancel);
        var viewer = await viewers.AwayAsync(id, cancel);
        var shown = waiting.FindAll(m => m.Release is { Lesson: not null } r && viewer is not null && Seeing.May(r.Shown(), viewer, SeenIn.List, now));
        await DoneAsync(id, waiting.Except(shown), cancel);
        var followed = (await follows.ListAsync(id, cancel)).ToDictionary(f => f.Id);
        foreach (var part in person.MailsDaily ? shown.Chunk(MostInOne) : shown.Select(m => new[] { m }))
        {
            string? refusal = null;
            try
            {
                await mailer.SendAsync(await LetterAsync(person, part, followed), cancel);
            }
            // What it has against the sender it has against all.
            catch (SmtpCommandException refused) when ((int)refused.StatusCode >= 500 && refused.ErrorCode != SmtpErrorCode.SenderNotAccepted)
            {
                refusal = refused.Message;
                log.LogWarning("The mail server would not have a mail to somebody who follows: {Why}", refused.Message);
            }
            catch (Exception away) when (IsAway(away))
            {
                log.LogWarning("Mails to those who follow wait, as the mail server is away: {Why}", away.Message);
                return false;
            }

            var lessons = part.Select(m => m.LessonId).ToList();
            await db
                .FollowerMails.Where(m => m.PersonId == id && lessons.Contains(m.LessonId))
                .ExecuteUpdateAsync(set => set.SetProperty(m => m.SentAt, now).SetProperty(m => m.Refusal, refusal), cancel);
        }

        return true;
    }

    private static bool IsAway(Exception failure) =>
        failure
            is SocketException
                or IOException
                or ServiceNotConnectedException
                or ProtocolException
                or SslHandshakeException
                or SmtpCommandException
                or AuthenticationException
                or TimeoutException;

    private async Task DoneAsync(Guid person, IEnumerable<FollowerMail> mails, CancellationToken cancel)
    {
        var lessons = mails.Select(m => m.LessonId).ToList();
        if (lessons.Count > 0)
            await db.FollowerMails.Where(m => m.PersonId == person && lessons.Contains(m.LessonId)).ExecuteDeleteAsync(cancel);
    }

    private async Task<Letter> LetterAsync(Person person, FollowerMail[] mails, Dictionary<Guid, Followed> followed)
    {
        var lessons = mails.Select((m, i) => Told(m.Release!, $"lesson-{i + 1}")).ToList();
        var because = followed[mails[0].FollowId];
        var stop = follows.StopAddress(because.Id);
        var account = new Uri(options.Value.PublicAddress, "account");
        var subject = lessons.Count == 1 ? $"New: {lessons[0].Title}" : $"{lessons.Count} new lessons at {options.Value.House}";
        var reason = $"You get this mail because you follow {(because.IsCourse ? "the course" : "the channel")} “{because.Name}”.";
        var text =
            string.Concat(lessons.Select(l => $"{l.Title}\n{l.Where} · {l.Length}\n{(l.About.Length > 0 ? l.About + "\n" : "")}{l.Page}\n\n"))
            + $"{reason}\nEnd it: {stop}\nWhat you follow, and how often you are told: {account}\n";
        var html = await razor.RenderAsync<NewLessonsMail>(
            new()
            {
                [nameof(NewLessonsMail.House)] = options.Value.House,
                [nameof(NewLessonsMail.Lessons)] = lessons,
                [nameof(NewLessonsMail.Reason)] = reason,
                [nameof(NewLessonsMail.Stop)] = stop,
                [nameof(NewLessonsMail.Account)] = account,
            }
        );
        var pictures = lessons.Where(l => l.Picture is not null).Select(l => new LetterPicture(l.Name, l.Picture!)).ToList();
        return new Letter(person.Email!, subject, text, html, pictures, $"follow.{person.Id:N}.{mails[0].LessonId:N}", stop);
    }

    private ToldLesson Told(Release release, string name)
    {
        var player = PlayerLesson.Format.Read(release.Player);
        var picture = release.PosterKey is { } key && store.Derived(key, MadeNames.Poster) is var file && File.Exists(file) ? file : null;
        return new ToldLesson(
            name,
            player.Title,
            player.Language,
            player.Description.Split('\n', 2)[0].Trim(),
            release.Outlet!.Name,
            TimeCode.Brief(player.Length),
            new Uri(options.Value.PublicAddress, $"watch/{release.Token}"),
            picture
        );
    }
}

/// <summary>A lesson as a mail tells of it.</summary>
/// <param name="Name">What the mail calls its picture.</param>
/// <param name="Title">Its title.</param>
/// <param name="Language">Its language.</param>
/// <param name="About">What it is about, in a line; may be empty.</param>
/// <param name="Where">The channel.</param>
/// <param name="Length">How long it is.</param>
/// <param name="Page">Its page.</param>
/// <param name="Picture">The file of its picture; null for none.</param>
public sealed record ToldLesson(string Name, string Title, string Language, string About, string Where, string Length, Uri Page, string? Picture);
