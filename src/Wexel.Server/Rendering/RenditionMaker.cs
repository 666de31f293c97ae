using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>Makes the files of several renditions of one lesson: what is not encoded yet in one pass, then each finished and checked.</summary>
internal sealed class RenditionMaker(RenderPlans plans, Finisher finisher, FileStore store, IOptions<WexelOptions> options)
{
    /// <param name="db">Where they are kept; what is found is written into the rows, and not saved.</param>
    /// <param name="renditions">Renditions of the same revision of a lesson.</param>
    /// <param name="watch">Told how far it is.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task MakeAsync(WexelDb db, IReadOnlyList<Rendition> renditions, RenderWatch watch, CancellationToken cancel)
    {
        var first = renditions[0];
        var saved = await db.LessonRevisions.FirstAsync(r => r.LessonId == first.LessonId && r.Number == first.Revision, cancel);
        var document = Json.Read<LessonDocument>(saved.Document);
        var lesson = await plans.OfAsync(document, cancel);
        var planned = renditions.Select(r => lesson.With(Json.Read<Profile>(r.Profile))!).ToList();
        watch.Length = planned[0].Plan.Length;
        await EncodeAsync(planned, first.Id, watch, cancel);
        foreach (var (rendition, plan) in renditions.Zip(planned))
        {
            // The house may have changed its mark since this was asked for.
            (rendition.EncodeKey, rendition.PosterKey) = (plan.EncodeKey, plan.PosterKey);
            var finished = await finisher.FinishAsync(plan, document.Title, cancel);
            (rendition.FileKey, rendition.Bytes, rendition.Length, rendition.Check, rendition.Codecs) = (finished.FileKey, finished.Bytes, plan.Plan.Length, Json.Write(finished.Check), finished.Codecs);
        }
    }

    private async Task EncodeAsync(List<PlannedRender> planned, Guid work, RenderWatch watch, CancellationToken cancel)
    {
        var recordings = planned[0].Hashes.Select(store.Recording).ToList();
        var (pictures, sounds) = (new Dictionary<string, PictureOutput>(), new Dictionary<string, SoundOutput>());
        foreach (var plan in planned)
        {
            if (plan.SoundKey is { } soundKey && !Wholeness.Of(store.Derived(soundKey, plan.SoundName)) && !sounds.ContainsKey(soundKey))
                sounds[soundKey] = new SoundOutput(plan.Plan.Sound!, plan.Plan.Sound!.Copy is null ? stop => LessonSound.MakeAsync(plan.Plan.Sound, plan.Reel, plan.Map, recordings, plan.Composed(store), stop) : null, plan.Sound(store)!);
            for (var i = 0; i < plan.PictureKeys.Count; i++)
            {
                if (!Wholeness.Of(plan.Picture(store, i)))
                    pictures[plan.PictureKeys[i]] = new PictureOutput(plan.Plan.Pictures[i], plan.Picture(store, i), plan.Plan.File.Bytes is { } bytes ? new FileLimit(bytes, plan.Sound(store)) : null);
            }
        }

        if (pictures.Count == 0 && sounds.Count == 0)
            return;
        // All are of one lesson; where one has the house's mark, it is the same in each that has it.
        var inputs = (planned.Find(p => p.Plan.Picture?.Mark is not null) ?? planned[0]).Inputs(store, options.Value.PlayerFolder);
        using var orphan = new OrphanMark(store, work.ToString("N"));
        watch.Encoding(true);
        await Encoder.EncodeAsync(new EncodeWork(inputs, [.. pictures.Values], [.. sounds.Values], Machine.Share.Threads), watch, orphan.Note, cancel);
        watch.Encoding(false);
    }
}
