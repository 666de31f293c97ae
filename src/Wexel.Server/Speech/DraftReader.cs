using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.Speech;
using Wexel.Core.Timing;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;
using Wexel.Server.Shelves;

namespace Wexel.Server.Speech;

/// <summary>Makes the draft of a lesson's captions of what was heard of its recordings. It is made anew whenever somebody looks: what the house's word list or
/// another take changes is in it.</summary>
internal sealed class DraftReader(WexelDb db, LessonSaver saver, LessonReels reels, SpeechEngines engines, IOptions<WexelOptions> options)
{
    /// <summary>The draft; null where there is no such lesson.</summary>
    internal async Task<DraftView?> ReadAsync(Guid lessonId, CancellationToken cancel)
    {
        if (await HeardAsync(lessonId, cancel) is not { } heard)
            return null;
        var house = HouseShelf.Words(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel));
        var written = Sentences.Write(heard.Words, heard.Writes, house, heard.Edges);
        return new DraftView(
            StateOf(heard),
            heard.Share,
            heard.Engine,
            heard.Rows.Values.Select(r => r.Language).FirstOrDefault() ?? heard.Language,
            heard.Words.Count == 0 ? null : heard.Words.Select(w => w.Confidence).Order().ElementAt(heard.Words.Count / 2),
            Failure(heard.Rows.Values, heard.Language),
            heard.Outlook,
            CueMaker.Make(written, heard.Guidelines, heard.Grid, heard.Edges, heard.Length),
            [.. heard.Words.Where(w => w.IsUnsure).Select(w => new UnsureWord(w.Span, w.Text, w.Confidence))]
        );
    }

    /// <summary>What was heard along a lesson's recordings; null where there is no such lesson.</summary>
    internal async Task<HeardLesson?> HeardAsync(Guid lessonId, CancellationToken cancel)
    {
        if (await LessonAsync(lessonId, cancel) is not { } document)
            return null;
        var found = await reels.ReadAsync(document, cancel);
        var rows = await db
            .HeardRecordings.AsNoTracking()
            .Where(h => document.Recordings.Contains(h.RecordingHash))
            .ToDictionaryAsync(h => h.RecordingHash, cancel);
        var (words, writes, engine) = (new List<HeardWord>(), false, "");
        var (listened, whole) = (TimeSpan.Zero, TimeSpan.Zero);
        foreach (var (index, hash) in found.Hashes.Index())
        {
            var span = found.Reel.SpanOf(index);
            whole += span.Length;
            if (rows.GetValueOrDefault(hash) is not { } row)
                continue;
            listened += row.State == HearingState.Done || row.Until > span.Length ? span.Length : row.Until;
            var heard = WexelJson.Read<HeardSpeech>(row.Heard);
            (writes, engine) = (writes || heard.Writes, engine.Length > 0 ? engine : heard.Engine);
            words.AddRange(CoarseWords.Without(heard.Words).Where(w => w.Span.Start < span.Length).Select(w => w with { Span = Along(w.Span, span) }));
        }

        var joints = found.Hashes.Index().Skip(1).Select(p => found.Reel.SpanOf(p.Index).Start);
        return new HeardLesson(document, rows, words)
        {
            Writes = writes,
            Engine = engine,
            Share = whole > TimeSpan.Zero ? listened / whole : 1,
            Outlook = [.. found.Analyses.Where(a => a is { LookedUntil: null }).SelectMany(a => SpeechOutlook.Find(a!)).DistinctBy(p => p.Code)],
            Edges = [.. joints.Concat(document.Cuts.SelectMany(c => new[] { c.Start, c.End })).Order()],
            Guidelines = document.Details.ForChildren == true ? CaptionGuidelines.Children : CaptionGuidelines.Adults,
            Grid = found.Reel.Grid,
            Length = found.Reel.Length,
        };
    }

    /// <summary>A lesson as it was saved last; null where there is none.</summary>
    internal async Task<LessonDocument?> LessonAsync(Guid id, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is { } lesson ? await saver.CurrentAsync(lesson, cancel) : null;

    /// <summary>How far listening to a lesson's recordings is.</summary>
    internal HearingState StateOf(HeardLesson heard) => State(heard.Document.Recordings, heard.Rows, heard.Language);

    /// <summary>As far as the one of them that is least far.</summary>
    private HearingState State(IReadOnlyList<string> hashes, Dictionary<string, HeardRecording> rows, string language)
    {
        var states = hashes.Select(h => rows.GetValueOrDefault(h)?.State ?? Unheard(language));
        HearingState[] first = [HearingState.Listening, HearingState.Failed, HearingState.Stopped, HearingState.NoEngine];
        return first.Where(states.Contains).Select(s => (HearingState?)s).FirstOrDefault() ?? HearingState.Done;
    }

    /// <summary>What becomes of a recording that nobody has begun to listen to.</summary>
    private HearingState Unheard(string language) =>
        engines.For(language) is null ? HearingState.NoEngine
        : options.Value.SpeechDrafts ? HearingState.Listening
        : HearingState.Stopped;

    private string? Failure(IEnumerable<HeardRecording> rows, string language) =>
        rows.Select(r => r.Failure).FirstOrDefault(f => f is not null) ?? (engines.For(language) is null ? engines.WhyNone(language) : null);

    private static TimeRange Along(TimeRange word, TimeRange recording)
    {
        var end = recording.Start + word.End;
        return new TimeRange(recording.Start + word.Start, end < recording.End ? end : recording.End);
    }
}

/// <summary>What was heard along a lesson's recordings.</summary>
/// <param name="Document">The lesson.</param>
/// <param name="Rows">How far each of its recordings was listened to, by their hashes.</param>
/// <param name="Words">In recording time.</param>
internal sealed record HeardLesson(LessonDocument Document, Dictionary<string, HeardRecording> Rows, IReadOnlyList<HeardWord> Words)
{
    /// <summary>The lesson's language, as a BCP 47 tag.</summary>
    internal string Language => Document.Language;

    /// <summary>Whether the engine writes sentences itself.</summary>
    internal bool Writes { get; init; }

    /// <summary>Who listened; empty while nobody has.</summary>
    internal string Engine { get; init; } = "";

    /// <summary>How much of the sound was listened to, 0 to 1.</summary>
    internal double Share { get; init; }

    internal IReadOnlyList<Problem> Outlook { get; init; } = [];

    /// <summary>Moments over which no caption goes.</summary>
    internal IReadOnlyList<TimeSpan> Edges { get; init; } = [];

    internal required CaptionGuidelines Guidelines { get; init; }

    internal required FrameRate Grid { get; init; }

    internal TimeSpan Length { get; init; }
}
