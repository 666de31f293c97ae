using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Keys;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;
using Wexel.Making.Releasing;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Server.Live;
using Wexel.Server.Releases;
using Wexel.Server.Shelves;

namespace Wexel.Server.VideoServices;

/// <summary>
/// Brings lessons to video services, step by step: what each did is written down before the next begins, so that whoever comes after one that died goes on
/// there, and nothing is uploaded twice.
/// </summary>
internal sealed class VideoDeliverer(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    VideoAccounts accounts,
    FileStore store,
    PictureMaker pictures,
    LiveNews news,
    TimeProvider clock
) : IReleaseDeliverer
{
    /// <inheritdoc/>
    public bool Serves(KnownOutlet outlet) => outlet.Kind.PublishesVideos;

    /// <summary>What is wanted at the service, with the account and what each part of it is.</summary>
    private sealed record Aim(VideoWanted Wanted, ConnectedAccount Account, IReadOnlyDictionary<string, string> WebVtt, KeyedFile? Picture);

    /// <inheritdoc/>
    public async Task<Result<bool>> IsThereAsync(ReleaseWay way, CancellationToken cancel) =>
        (await AimAsync(way, cancel)).Is(out var aim, out var unfit) ? IsAsWanted(way.Release, aim.Wanted) : unfit;

    private bool IsAsWanted(Release release, VideoWanted wanted)
    {
        if (VideoPlan.Steps(wanted, Read(release)).Count > 0)
            return false;
        release.VideoSaidAt = clock.GetUtcNow();
        return true;
    }

    private static VideoThere? Read(Release release) => release.VideoThere is { } there ? VideoThere.Format.Read(there) : null;

    /// <summary>What is wanted there; or what keeps the lesson from there.</summary>
    private async Task<Result<Aim>> AimAsync(ReleaseWay way, CancellationToken cancel)
    {
        var (release, outlet) = (way.Release, way.Outlet);
        if (!outlet.Kind.WhoMaySee.Contains(way.Aim.Visibility))
            return new Problem(
                "visibility-not-there",
                $"“{outlet.Row.Name}” does not know “{VisibilityWords.For(way.Aim.Visibility).Name}”. Choose somebody else who may see it.",
                "visibility"
            );
        if (release.VideoPlace is not { } kept)
            return new Problem("video-place-missing", $"Choose the account and the channel at “{outlet.Row.Name}” first.", "videoPlace");
        var place = VideoPlace.Format.Read(kept);
        if (await accounts.FindAsync(place.Account, cancel) is not { } account)
            return new Problem("video-account-gone", $"The account at “{outlet.Row.Name}” was removed from Wexel. Choose another.", "videoPlace");
        var planned = way.Planned;
        if (VideoUnfit.Find(account.Row, account.Service.Name, account.Facts, way.Said.Category, planned.Plan.Length) is { } unfit)
            return unfit;
        var player = LearnerPage.Compose(release.Token, planned, way.Said);
        var named = way.Aim.Visibility == Visibility.Named ? await MailsAsync(NamedPeople.Read(release.Named), cancel) : [];
        var opening = new Opening(way.Aim.Visibility, release.OpensAt, release.EndsAt);
        var texts = VideoTexts.Of(player, way.Said, account.Facts.LongestDescription, opening, named, clock.GetUtcNow());
        texts = texts with { Category = VideoUnfit.Category(account.Facts.Categories, texts.Category) ?? texts.Category };
        var captions = player.Captions.GroupBy(c => c.Language).ToDictionary(c => c.Key, c => WebVttText.Write(c.First().Cues));
        var picture = await pictures.MakeAsync(planned.Lesson, null, cancel);
        var wanted = new VideoWanted(
            place,
            MadeKey.Hash(Makers.ServiceVideo, k => k.Each("tracks", way.Wanted.Tracks).Add("container", planned.Plan.File.Container.ToString())),
            texts,
            picture?.Key,
            captions.ToDictionary(c => c.Key, c => MadeKey.Hash(Makers.ServiceVideo, k => k.Add("captions", c.Value)))
        );
        return new Aim(wanted, account, captions, picture is null ? null : store.Keyed(picture.Key, MadeNames.Poster));
    }

    private async Task<IReadOnlyList<string>> MailsAsync(NamedPeople named, CancellationToken cancel)
    {
        var groups = named.Groups;
        var members = db.GroupMembers.Where(m => groups.Contains(m.GroupId)).Select(m => m.PersonId);
        var inGroups = await db.Users.Where(p => members.Contains(p.Id) && p.DisabledAt == null).Select(p => p.Email!).ToListAsync(cancel);
        return [.. named.Mails.Concat(inGroups).Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.Ordinal)];
    }

    /// <inheritdoc/>
    public async Task<StepCame> DeliverAsync(ReleaseWay way, CancellationToken cancel)
    {
        if (!(await AimAsync(way, cancel)).Is(out var aim, out var unfit))
            return unfit;
        var (release, there) = (way.Release, Read(way.Release));
        while (VideoPlan.Steps(aim.Wanted, there) is [var step, ..])
        {
            if (!(await StepAsync(way, aim, step, there, cancel)).Is(out var next, out var problem))
            {
                // What was removed over there is known to be gone.
                if (problem.Code == ServiceProblem.Gone && there is not null)
                    await NoteAsync(release, there with { Stage = VideoStage.Gone });
                return problem;
            }

            // The other side is at work: nothing new is known.
            if (step == VideoStep.Await && next is not { Stage: VideoStage.Ready })
                return new StepCame(null, Waits: true);
            there = next;
        }

        return StepCame.Done;
    }

    private async Task<Result<VideoThere?>> StepAsync(ReleaseWay way, Aim aim, VideoStep step, VideoThere? there, CancellationToken cancel)
    {
        var (release, account, wanted) = (way.Release, aim.Account, aim.Wanted);
        var (service, access) = (account.Service, account.Access);
        switch (step)
        {
            case VideoStep.Remove:
                return await RemoveAsync(there!, cancel) is { } kept ? kept : await WriteAsync(release, null);
            case VideoStep.Upload:
                return await UploadAsync(way, aim, there, cancel);
            case VideoStep.Say:
                if (await ChangedThereAsync(access, service, there!, wanted.Texts, cancel) is { } changed)
                    return changed;
                return await service.SayAsync(access, there!.Id!, wanted.Texts, cancel) is { } unsaid
                    ? unsaid
                    : await NoteAsync(release, there with { Said = wanted.Texts, Found = null });
            case VideoStep.Captions:
                var put = new Dictionary<string, string>(there!.Captions ?? new Dictionary<string, string>());
                foreach (var language in put.Keys.Union(wanted.Captions.Keys).ToList())
                {
                    if (put.GetValueOrDefault(language) == wanted.Captions.GetValueOrDefault(language))
                        continue;
                    if (await service.CaptionsAsync(access, there.Id!, language, aim.WebVtt.GetValueOrDefault(language), cancel) is { } failed)
                        return failed;
                    if (wanted.Captions.TryGetValue(language, out var key))
                        put[language] = key;
                    else
                        put.Remove(language);
                    there = await NoteAsync(release, there with { Captions = new Dictionary<string, string>(put) });
                }

                return there;
            case VideoStep.Lists:
                var lists = (there!.Lists ?? []).ToHashSet();
                foreach (var list in lists.Union(wanted.Place.Lists).ToList())
                {
                    var isIn = wanted.Place.Lists.Contains(list);
                    if (isIn == lists.Contains(list))
                        continue;
                    if (await service.ListAsync(access, list, there.Id!, isIn, cancel) is { } failed)
                        return failed;
                    if (isIn)
                        lists.Add(list);
                    else
                        lists.Remove(list);
                    there = await NoteAsync(release, there with { Lists = [.. lists] });
                }

                return there;
            case VideoStep.Await:
                if (!(await service.ReadAsync(access, there!.Id!, cancel)).Is(out var found, out var unread))
                    return unread;
                if (found is null)
                    return new Problem(ServiceProblem.Gone, $"The video was removed at {service.Name} meanwhile. Try again, and it is uploaded anew.");
                there = await NoteAsync(release, there with { Stage = found.Stage, Reason = found.Reason, ReadyAt = found.ReadyAt, Embed = found.Embed });
                return found.Stage == VideoStage.Refused
                    ? new Problem(ServiceProblem.Refused, $"{service.Name} refused the video: {found.Reason} Mend that, then try again.")
                    : there;
            default:
                return await service.ThumbnailAsync(access, there!.Id!, () => File.OpenRead(aim.Picture!.Path), cancel) is { } refused
                    ? refused
                    : await NoteAsync(release, there with { Thumbnail = wanted.Thumbnail });
        }
    }

    /// <summary>What somebody changed there by hand, so that it is not written over before anybody has looked at it.</summary>
    private static async Task<Problem?> ChangedThereAsync(
        ServiceAccess access,
        IVideoService service,
        VideoThere there,
        VideoTexts wanted,
        CancellationToken cancel
    )
    {
        if (there.Said is not { } said)
            return null;
        if (!(await service.ReadAsync(access, there.Id!, cancel)).Is(out var now, out var problem))
            return problem;
        if (now is null)
            return new Problem(ServiceProblem.Gone, $"The video was removed at {service.Name} meanwhile. Try again, and it is uploaded anew.");
        var differences = VideoTexts.Differences(said, now.Texts).Where(d => VideoTexts.Differences(wanted, now.Texts).Any(w => w.Field == d.Field)).ToList();
        return differences.Count == 0
            ? null
            : new Problem(
                "video-changed-there",
                $"It was changed at {service.Name} by hand: {string.Join(", ", differences.Select(d => d.Label.ToLowerInvariant()))}. Take what stands there, "
                    + "or put back what Wexel says, first."
            );
    }

    private async Task<Result<VideoThere?>> UploadAsync(ReleaseWay way, Aim aim, VideoThere? there, CancellationToken cancel)
    {
        var (release, account, wanted) = (way.Release, aim.Account, aim.Wanted);
        var file = store.Derived(way.Wanted.File, MadeNames.Finished(way.Profile.Container));
        var bytes = new FileInfo(file).Length;
        var isAnew = there is null or { Stage: VideoStage.Gone } || !there.IsIn(wanted.Place);
        if (isAnew || there!.Sending != wanted.Video || there.Upload is null)
        {
            // The same whenever it is begun: a server that died after it began it, and before that was written down, begins nothing else. What was removed
            // there is another upload.
            var key = MadeKey.Hash(Makers.ServiceVideo, k =>
                k.Add("release", release.Id.ToString()).Add("video", wanted.Video).Add("after", isAnew ? there?.Id : null)
            );
            var replaces = isAnew ? null : there!.Id;
            var video = new NewVideo(key, wanted.Place.Channel, bytes, wanted.Texts, replaces);
            if (!(await account.Service.BeginAsync(account.Access, video, cancel)).Is(out var upload, out var refused))
                return refused;
            var begun = isAnew ? new VideoThere(wanted.Place.Account, wanted.Place.Channel) { Said = wanted.Texts } : there!;
            there = await NoteAsync(
                release,
                begun with
                {
                    Id = upload.Id,
                    Link = upload.Link,
                    Stage = VideoStage.Uploading,
                    Reason = null,
                    ReadyAt = null,
                    Sending = wanted.Video,
                    Upload = upload.To,
                }
            );
        }

        await using var watch = SendWatch.Begin(databases, () => news.LessonAsync(release.LessonId), clock, release, bytes);
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel, watch.Stopped);
        try
        {
            await using var waiting = await databases.CreateDbContextAsync(stop.Token);
            await using var turn = await OutletTurn.WaitAsync(way.Outlet, waiting, stop.Token);
            if (await account.Service.SendAsync(account.Access, there!.Upload!, bytes, () => File.OpenRead(file), watch, stop.Token) is { } failed)
                return failed;
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested && watch.Stopped.IsCancellationRequested)
        {
            // Something else was said of the release: what is wanted now is found anew.
            throw new DbUpdateConcurrencyException();
        }

        return await NoteAsync(
            release,
            there with
            {
                Stage = VideoStage.Processing,
                Video = wanted.Video,
                Sending = null,
                Upload = null,
                // A picture that was chosen belongs to the file that was there.
                Thumbnail = null,
            }
        );
    }

    /// <inheritdoc/>
    public async Task<Problem?> TakeBackAsync(Release release, KnownOutlet outlet, CancellationToken cancel) =>
        Read(release) is { } there ? await RemoveAsync(there, cancel) : null;

    private async Task<Problem?> RemoveAsync(VideoThere there, CancellationToken cancel) =>
        there is { Id: { } id, Stage: not VideoStage.Gone } && await accounts.FindAsync(there.Account, cancel) is { } account
            ? await account.Service.RemoveAsync(account.Access, id, cancel)
            : null;

    private async Task<VideoThere> NoteAsync(Release release, VideoThere there) => (await WriteAsync(release, there))!;

    /// <summary>Writes down what stands there, whatever was said of the release meanwhile.</summary>
    private async Task<VideoThere?> WriteAsync(Release release, VideoThere? there)
    {
        var text = there is null ? null : VideoThere.Format.Write(there);
        var (link, now) = (there?.Link, clock.GetUtcNow());
        await using var own = await databases.CreateDbContextAsync(CancellationToken.None);
        await own
            .Releases.IgnoreQueryFilters()
            .Where(r => r.Id == release.Id)
            .ExecuteUpdateAsync(
                set => set.SetProperty(r => r.VideoThere, text).SetProperty(r => r.SentTo, link).SetProperty(r => r.VideoSeenAt, now),
                CancellationToken.None
            );
        // What is known of the row is what is there, so that saving something else of it does not take this back.
        foreach (var (name, value) in new (string, object?)[] { (nameof(Release.VideoThere), text), (nameof(Release.SentTo), link) })
        {
            var property = db.Entry(release).Property(name);
            (property.OriginalValue, property.CurrentValue, property.IsModified) = (value, value, false);
        }

        await news.LessonAsync(release.LessonId);
        return there;
    }
}
