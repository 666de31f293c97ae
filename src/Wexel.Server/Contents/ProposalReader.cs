using Microsoft.EntityFrameworkCore;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Proposing;
using Wexel.Core.Speech;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Screens;
using Wexel.Server.Shelves;
using Wexel.Server.Speech;

namespace Wexel.Server.Contents;

/// <summary>Proposes contents for a lesson, anew whenever somebody looks: what another take, a caption or a script changes is in them.</summary>
internal sealed class ProposalReader(WexelDb db, DraftReader drafts, LessonReels reels, CaptionStore captions, ReadScreens screens)
{
    /// <summary>The proposals; null where there is no such lesson.</summary>
    internal async Task<ProposalsView?> ReadAsync(Guid lessonId, CancellationToken cancel)
    {
        var lesson = await db.Lessons.AsNoTracking().Where(l => l.Id == lessonId).Select(l => new { l.Proposing, l.Script }).FirstOrDefaultAsync(cancel);
        if (lesson is null || await drafts.HeardAsync(lessonId, cancel) is not { } heard)
            return null;
        var proposing = lesson.Proposing is null ? Proposing.Usual : WexelJson.Read<Proposing>(lesson.Proposing);
        var found = await reels.ReadAsync(heard.Document, cancel);
        if (!found.ToMake.IsReady)
            return new ProposalsView(proposing, [], "the recording to be looked through", [], false);
        var screen = await screens.ReadAsync(found, heard.Language, cancel);
        var written = await WrittenAsync(heard.Document, cancel);
        var signs = new LessonSigns(
            found.Reel.Length,
            written ?? SaidSentences.FromWords(Sentences.Write(heard.Words, heard.Writes, WordList.None, heard.Edges)),
            screen.Text,
            lesson.Script is null ? [] : WexelJson.Read<KeptScript>(lesson.Script).Headings,
            [.. found.Hashes.Index().Skip(1).Select(p => found.Reel.SpanOf(p.Index).Start)]
        );
        var map = found.Reel.Map(heard.Document.Cuts);
        var proposals = ContentsProposals
            .Find(signs, proposing.Amount)
            .Where(p =>
                map.Keeps(p.At)
                && !heard.Document.Sections.Any(s => (s.At - p.At).Duration() < ContentsProposals.Same)
                && !proposing.Left.Any(l => (l - p.At).Duration() < ContentsProposals.Same)
            );
        var isHearing = written is null && drafts.StateOf(heard) == HearingState.Listening;
        return new ProposalsView(
            proposing,
            [.. proposals],
            string.Join(" and ", new[] { isHearing ? "the draft of the captions" : "", screen.Waiting ? "the screen to be read" : "" }.Where(w => w.Length > 0))
                + (screen.Share is { } share ? $", {share * 100:0} %" : ""),
            [.. new[] { screen.Failure }.OfType<string>()],
            screen.HasFailed
        );
    }

    /// <summary>Has what could not be read of a lesson's screen tried again.</summary>
    /// <returns>Whether there is such a lesson.</returns>
    internal async Task<bool> TryAgainAsync(Guid lessonId, CancellationToken cancel)
    {
        if (await drafts.LessonAsync(lessonId, cancel) is not { } document)
            return false;
        await screens.TryAgainAsync(document.Recordings, cancel);
        return true;
    }

    /// <summary>What is said by captions in the lesson's language that are more than a draft; null where there are none.</summary>
    private async Task<IReadOnlyList<SaidSentence>?> WrittenAsync(LessonDocument document, CancellationToken cancel)
    {
        var track = document.Captions.FirstOrDefault(t =>
            t.Kind == Core.Captions.TrackKind.Captions && Core.Captions.LanguageTag.Alike(t.Language, document.Language)
        );
        return track is not null && await captions.ReadAsync(track.Hash, cancel) is { } cues ? SaidSentences.FromCues(cues) : null;
    }
}
