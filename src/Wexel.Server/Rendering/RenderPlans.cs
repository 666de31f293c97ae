using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Data.Storage;
using Wexel.Media.Rendering;
using Wexel.Media.Tools;
using Wexel.Server.Kit;
using Wexel.Server.Lessons;

namespace Wexel.Server.Rendering;

/// <summary>Plans renders of lessons as they stand.</summary>
internal sealed class RenderPlans(WexelDb db, LessonSaver saver, LessonReels reels, FileStore store)
{
    /// <summary>Everything that a lesson is rendered from.</summary>
    internal async Task<RenderableLesson> OfAsync(LessonDocument document, CancellationToken cancel)
    {
        var mark = document.HouseMark ? HouseKeeper.OnPictures(await db.Houses.AsNoTracking().FirstOrDefaultAsync(cancel)) : null;
        var cues = document.Captions is { } track ? await CaptionStore.ReadAsync(store, track.Hash, cancel) ?? [] : [];
        return new RenderableLesson(document, await reels.OfAsync(document, cancel), mark, cues);
    }

    /// <summary>Everything that a lesson is rendered from as it stands; null where there is no such lesson.</summary>
    internal async Task<RenderableLesson?> OfAsync(Guid id, CancellationToken cancel) =>
        await db.Lessons.AsNoTracking().FirstOrDefaultAsync(l => l.Id == id, cancel) is { } lesson ? await OfAsync((await saver.CurrentAsync(lesson, cancel))!, cancel) : null;

    /// <summary>How fast this machine was with its last renditions, against what was expected of them; 1 where nothing is known.</summary>
    /// <param name="sampled">Whether what was expected came from samples.</param>
    /// <param name="cancel">Stops it.</param>
    internal async Task<double> SlownessAsync(bool sampled, CancellationToken cancel)
    {
        var last = await db.Renditions.AsNoTracking()
            .Where(r => r.State == RenditionState.Done && r.EstimateSampled == sampled && r.StartedAt != null && r.EndedAt != null && r.Progress > 0)
            .OrderByDescending(r => r.EndedAt).Take(9).Select(r => new { r.StartedAt, r.EndedAt, r.EstimatedTime }).ToListAsync(cancel);
        // What was made in one pass took its time together.
        var ratios = last.Where(r => r.EstimatedTime > TimeSpan.Zero).GroupBy(r => r.StartedAt!.Value)
            .Select(pass => (pass.Max(r => r.EndedAt!.Value) - pass.Key) / TimeSpan.FromTicks(pass.Sum(r => r.EstimatedTime.Ticks))).Order().ToList();
        return ratios.Count == 0 ? 1 : Math.Clamp(ratios[ratios.Count / 2], 0.05, 20);
    }
}

/// <summary>A lesson with everything that it is rendered from.</summary>
/// <param name="Document">The lesson.</param>
/// <param name="Found">Its recordings.</param>
/// <param name="Mark">The house's mark where it stands on this lesson.</param>
/// <param name="Cues">Its captions, in recording time.</param>
internal sealed record RenderableLesson(LessonDocument Document, LessonReel Found, MarkOnPicture? Mark, IReadOnlyList<Cue> Cues)
{
    private TimeMap Map => Found.Reel.Map(Document.Cuts);

    private LessonLook Look(TimeMap map) => new(
        WhatFollows.Sections(Document.Sections, map), Mark, Document.Canvas, Document.MoveIns, Found.Frames(Document.Frames), WhatFollows.Cues(Cues, map));

    /// <summary>The plan with a profile, or null while a recording is still being looked through.</summary>
    internal PlannedRender? With(Profile profile)
    {
        if (!Found.LookedThrough)
            return null;
        var map = Map;
        var look = Look(map);
        return new PlannedRender(RenderPlanner.Plan(Found.Reel, map, profile, look), Found.Reel, map, look, Found.Analysis!, Found.Hashes, Document.Captions?.Language);
    }

    /// <summary>The plan with a profile, or why nothing can be made with it.</summary>
    internal (PlannedRender? Planned, Problem? Problem) Wanted(Profile profile)
    {
        if (Check(profile).FirstOrDefault(f => f.IsFault) is { } fault)
            return (null, new Problem(fault.Code, fault.Sentence, "profileId"));
        return With(profile) is { } planned ? (planned, null) : (null, new Problem("recording-not-looked-through", "The recording is still being looked through. Try again in a moment."));
    }

    /// <summary>What does not hold for a profile with this lesson; nothing while a recording is still being looked through.</summary>
    internal IReadOnlyList<ProfileFinding> Check(Profile profile)
    {
        if (!Found.LookedThrough || Map is { Frames: 0 })
            return [];
        var map = Map;
        return new ProfileForLesson(Found.Reel, map, Look(map), plan => RenderEstimator.PictureBytes(plan.Picture!, plan.Length, Found.Reel, Found.Analysis!.ChangedShare)).Of(profile);
    }
}

/// <summary>A plan with what it is made from and the keys of what is encoded.</summary>
internal sealed class PlannedRender(RenderPlan plan, Reel reel, TimeMap map, LessonLook look, RecordingAnalysis analysis, IReadOnlyList<string> hashes, string? captionLanguage)
{
    internal const string PictureName = "picture.mp4";
    internal const string PosterName = "poster.jpg";
    internal const string ComposedName = "sound.flac";

    internal RenderPlan Plan => plan;

    internal Reel Reel => reel;

    internal TimeMap Map => map;

    internal RecordingAnalysis Analysis => analysis;

    internal IReadOnlyList<string> Hashes => hashes;

    /// <summary>The contents in lesson time.</summary>
    internal IReadOnlyList<Section> Sections => look.Sections ?? [];

    /// <summary>The captions that stand inside the file, or null.</summary>
    internal CaptionsInside? Captions => plan.File.CaptionsInside ? new CaptionsInside(WebVttText.Write(look.Cues!), captionLanguage!) : null;

    internal IReadOnlyList<string> PictureKeys { get; } = [.. plan.Pictures.Select(picture => DerivedKey.Of(Encoder.PictureMaker, hashes, picture))];

    internal string? ComposedKey { get; } = plan.Sound is not { } sound ? null : DerivedKey.Of(SoundComposer.Maker, hashes, map.Grid, map.Length, map.Kept, sound.Mixes, sound.Channels, sound.Tracks);

    internal string? SoundKey => ComposedKey is null ? null : DerivedKey.Of(Encoder.SoundMaker, ComposedKey, plan.Sound);

    /// <summary>The key over everything that is encoded.</summary>
    internal string EncodeKey => DerivedKey.Of("encodes/1", PictureKeys, SoundKey);

    /// <summary>The key of the finished file.</summary>
    /// <param name="title">The lesson's title.</param>
    internal string FileKey(string title) => DerivedKey.Of(Finishing.Maker, EncodeKey, plan.File, title, Sections.Select(s => new { s.At, s.Title }), Captions);

    /// <summary>The keys of everything that it is put together from.</summary>
    internal IEnumerable<string> TrackKeys => [.. PictureKeys, .. new[] { SoundKey, ComposedKey }.OfType<string>()];

    internal string? PosterKey => PictureKeys.Count > 0 ? PictureKeys[0] : null;

    internal string SoundName => SoundOutput.FileName(plan.Sound!);

    internal string Picture(FileStore store, int index) => store.Derived(PictureKeys[index], PictureName);

    internal string? Sound(FileStore store) => SoundKey is { } key ? store.Derived(key, SoundName) : null;

    internal string Composed(FileStore store) => store.Derived(ComposedKey!, ComposedName);

    /// <summary>What its picture is encoded from.</summary>
    internal EncodeInputs Inputs(FileStore store, string playerFolder) => new(
        [.. hashes.Select(store.Recording)], plan.Pictures.Select(p => p.Mark?.Key).OfType<string>().FirstOrDefault() is { } mark ? store.Derived(mark, HouseKeeper.MarkFile) : null, Path.Combine(playerFolder, "fonts"));

    /// <summary>Whether everything is encoded already.</summary>
    internal bool IsEncoded(FileStore store) => PictureKeys.All(key => Wholeness.Of(store.Derived(key, PictureName))) && (SoundKey is not { } sound || Wholeness.Of(store.Derived(sound, SoundName)));

    /// <summary>What is encoded already comes to, in bytes; null where something is missing.</summary>
    internal long? EncodedBytes(FileStore store) => IsEncoded(store) ? PictureKeys.Select((_, i) => Picture(store, i)).Append(Sound(store)).OfType<string>().Sum(path => new FileInfo(path).Length) : null;

    internal FinishInputs Tracks(FileStore store) => new([.. PictureKeys.Select((_, i) => Picture(store, i))], Sound(store), Captions);
}
