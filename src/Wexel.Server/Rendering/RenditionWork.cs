using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Rendering;

/// <summary>Has renditions of one lesson made, and writes down what came of it.</summary>
internal sealed class RenditionWork(RenderPlans plans, RenditionMaker maker, FileStore store)
{
    /// <param name="db">Where they are kept; what is found is written into the rows, and not saved.</param>
    /// <param name="renditions">Renditions of the same revision of a lesson.</param>
    /// <param name="watch">Told how far it is.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task DoAsync(WexelDb db, IReadOnlyList<Rendition> renditions, RenderWatch watch, CancellationToken cancel)
    {
        var first = renditions[0];
        var saved = await db.LessonRevisions.FirstAsync(r => r.LessonId == first.LessonId && r.Number == first.Revision, cancel);
        var lesson = await plans.LessonAsync(LessonDocument.Format.Read(saved.Document), cancel);
        var planned = renditions.Select(r => lesson.With(Profile.Format.Read(r.Profile))!).ToList();
        watch.Length = planned[0].Plan.Length;
        using (var orphan = new OrphanMark(store, first.Id.ToString("N")))
        {
            watch.Encoding(true);
            await maker.EncodeAsync(planned, watch, orphan.Note, cancel);
            watch.Encoding(false);
        }

        foreach (var (rendition, plan) in renditions.Zip(planned))
        {
            await maker.FinishAsync(plan, cancel);
            var found = await maker.CheckAsync(plan, cancel);
            // The house may have changed its mark since this was asked for.
            (rendition.EncodeKey, rendition.MadeBy) = (plan.Keys.Encodes, MadeBy.Format.Write(new MadeBy(plan.Plan, plan.Hashes, plan.Keys)));
            (rendition.FileKey, rendition.Bytes, rendition.Length, rendition.Check, rendition.Codecs) = (
                found.FileKey,
                found.Bytes,
                plan.Plan.Length,
                WexelJson.Write(found.Check),
                found.Codecs
            );
        }
    }
}
