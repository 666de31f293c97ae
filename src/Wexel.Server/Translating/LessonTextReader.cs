using Microsoft.EntityFrameworkCore;
using Wexel.Core.Lessons;
using Wexel.Data;
using Wexel.Media.Translating;
using Wexel.Server.Shelves;

namespace Wexel.Server.Translating;

/// <summary>Reads what a lesson says, and knows who can translate it.</summary>
internal sealed class LessonTextReader(WexelDb db, LessonSaver saver, CaptionStore captions, IEnumerable<ITranslator> translators)
{
    /// <summary>A lesson as it is now, with what its captions say; null where there is none.</summary>
    internal async Task<LessonWithCues?> ReadAsync(Guid id, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is { } lesson
            ? await captions.ReadAsync((await saver.CurrentAsync(lesson, cancel))!, cancel)
            : null;

    /// <summary>The first that can translate from a language, and into which; null where none can.</summary>
    internal (ITranslator? Translator, IReadOnlyList<string> Into) Translator(string from) =>
        translators.Select(t => ((ITranslator?)t, t.Into(from))).FirstOrDefault(t => t.Item2.Count > 0, (null, []));
}
