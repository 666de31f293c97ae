using System.Globalization;
using System.Text;
using Hangfire;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.Encoding;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.Rendering;

/// <summary>Tells the person who asked for a batch, once, when all of it is done: with links, lengths and sizes, and what failed and why.</summary>
internal sealed class BatchMail(WexelDb db, IBackgroundJobClient jobs, IOptions<WexelOptions> options, TimeProvider clock)
{
    internal async Task TellAsync(Guid batchId, CancellationToken cancel)
    {
        var renditions = await db.Renditions.AsNoTracking().Include(r => r.Lesson).Where(r => r.BatchId == batchId).OrderBy(r => r.Place).ToListAsync(cancel);
        if (renditions.Any(r => r.State is RenditionState.Waiting or RenditionState.Working or RenditionState.Held))
            return;
        var ended = renditions.FindAll(r => r.State is RenditionState.Done or RenditionState.Failed);
        var now = clock.GetUtcNow();
        // Two workers may end the last two of a batch at once; one of them tells.
        if (
            ended.Count == 0
            || await db.RenderBatches.Where(b => b.Id == batchId && b.ToldAt == null).ExecuteUpdateAsync(set => set.SetProperty(b => b.ToldAt, now), cancel)
                == 0
        )
            return;
        var asker = await db.RenderBatches.Where(b => b.Id == batchId).Join(db.Users, b => b.RequestedBy, u => u.Id, (_, u) => u.Email).FirstAsync(cancel);
        var (subject, text) = (Subject(ended), Text(ended));
        jobs.Enqueue<Mailer>(mailer => mailer.SendAsync(asker!, subject, text, CancellationToken.None));
    }

    private static string Subject(List<Rendition> ended)
    {
        var failed = ended.Count(r => r.State == RenditionState.Failed);
        return ended switch
        {
            [{ State: RenditionState.Done } one] => $"Ready: {one.Lesson!.Title}",
            [var one] => $"Not rendered: {one.Lesson!.Title}",
            _ when failed == 0 => $"Ready: {ended.Count} files",
            _ => $"{ended.Count - failed} of {ended.Count} files are ready, {failed} failed",
        };
    }

    private string Text(List<Rendition> ended)
    {
        var text = new StringBuilder();
        foreach (var r in ended)
        {
            var page = new Uri(options.Value.PublicAddress, $"lessons/{r.LessonId}/deliver");
            var profile = Profile.Format.Read(r.Profile).Title;
            text.Append(
                r.State == RenditionState.Done
                    ? $"“{r.Lesson!.Title}” is rendered ({profile}), {TimeCode.Brief(r.Lesson.Length)} long, "
                        + $"{(r.Bytes / 1e6).ToString("0.0", CultureInfo.InvariantCulture)} MB, in "
                        + $"{TimeCode.Brief(r.EndedAt!.Value - r.StartedAt!.Value)}.\nCheck it and release it: {page}\n\n"
                    : $"“{r.Lesson!.Title}” could not be rendered ({profile}).\n{r.Advice}\nThe encoder said:\n{r.Said}\n{page}\n\n"
            );
        }

        return text.ToString();
    }
}
