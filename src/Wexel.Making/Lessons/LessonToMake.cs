using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Making.Lessons;

/// <summary>A lesson with everything that it is made from.</summary>
/// <param name="Lesson">The lesson, with what its captions say.</param>
/// <param name="Found">Its recordings.</param>
/// <param name="Mark">The house's mark where it stands on this lesson.</param>
/// <param name="House">What the house says about everything that it makes.</param>
/// <param name="Proposed">Which frame is proposed for its picture, in recording time, where nobody looked it through here.</param>
public sealed record LessonToMake(LessonWithCues Lesson, LessonReel Found, MarkOnPicture? Mark, DetailSet House, TimeSpan? Proposed = null)
{
    /// <summary>The lesson.</summary>
    public LessonDocument Document => Lesson.Document;

    /// <summary>What is said about it, wherever it goes.</summary>
    public DetailSet Said => DetailLayers.Merged(House, Document.Said);

    /// <summary>Moments whose pictures could stand for it, in recording time, the best first.</summary>
    public IReadOnlyList<TimeSpan> Proposals
    {
        get
        {
            var map = Map;
            return [.. PictureProposals.Choose([.. (Found.Analysis?.Looks ?? []).Where(l => map.Keeps(l.At))]).Select(l => l.At)];
        }
    }

    /// <summary>The picture by which it is known: the one that was chosen, or the first that is proposed; a tenth of the way in where nobody looked.</summary>
    public LessonPicture Picture => Document.Picture ?? new LessonPicture(FirstProposed ?? Map.ToRecording(Map.Length / 10));

    /// <summary>The first frame that is proposed; null where nobody looked it through.</summary>
    public TimeSpan? FirstProposed => Proposals is [var first, ..] ? first : Proposed;

    private TimeMap Map => Found.Reel.Map(Document.Cuts);

    /// <summary>The plan with a profile, or null while a recording is still being looked through.</summary>
    public PlannedRendition? With(Profile profile)
    {
        if (!Found.IsReady)
            return null;
        var map = Map;
        var (sections, tracks) = (Section.Kind.Following(Document.Sections, map), Tracks(profile, map));
        return new PlannedRendition(RenderPlanner.Plan(Found.Reel, map, profile, Look(map, sections, tracks, profile)), this, map, sections, tracks);
    }

    /// <summary>The plan with a profile, or why nothing can be made with it.</summary>
    public Result<PlannedRendition> Wanted(Profile profile)
    {
        if (Check(profile).FirstOrDefault(f => f.IsFault) is { } fault)
            return new Problem(fault.Code, fault.Sentence, "profileId");
        return With(profile) is { } planned
            ? planned
            : new Problem("recording-not-looked-through", "The recording is still being looked through. Try again in a moment.");
    }

    /// <summary>What does not hold for a profile with this lesson; nothing while a recording is still being looked through.</summary>
    public IReadOnlyList<ProfileFinding> Check(Profile profile)
    {
        if (!Found.IsReady || Map is { Frames: 0 })
            return [];
        var map = Map;
        return new ProfileForLesson(Found.Reel, map, Look(map, Section.Kind.Following(Document.Sections, map), Tracks(profile, map), profile), plan =>
            RenderEstimator.PictureBytes(plan.Picture!, plan.Length, Found.Reel, Found.ChangedShare)
        ).Findings(profile);
    }

    private LessonLook Look(TimeMap map, IReadOnlyList<Section> sections, IReadOnlyList<LessonTrack> tracks, Profile profile) =>
        new(
            sections,
            Mark,
            Document.Canvas,
            Document.MoveIns,
            Found.Frames(Document.Frames),
            // Captions in another language than the one that is wanted are not burnt in.
            BurntIn(profile) is { } language
            && (tracks.Count == 0 || !LanguageTag.Alike(tracks[0].Track.Language, language))
                ? []
                : [.. tracks.Select(t => t.Cues)],
            Under(map),
            Found.CamerasOn(Document, map),
            Document.HouseMark
        );

    /// <summary>What is mixed with the voice, as far as the recordings were looked through; null for nothing.</summary>
    /// <param name="map">The lesson's times.</param>
    public UnderPlan? Under(TimeMap map) =>
        Document.Sounds.Count == 0 ? null : MixPlanner.Plan(SoundBed.Kind.Following(Document.Sounds, map), Voice(map), map.Length);

    /// <summary>What is known of its voice.</summary>
    /// <param name="map">The lesson's times.</param>
    public Voice Voice(TimeMap map) => Core.Mixing.Voice.Of(Found.Reel, Found.Listened ?? Found.Analyses, map);

    /// <summary>The tracks that learners get, those of the language that is burnt in at the front.</summary>
    private IReadOnlyList<LessonTrack> Tracks(Profile profile, TimeMap map)
    {
        var tracks = Lesson.ForLearners(map);
        return BurntIn(profile) is { } language
            ? [.. tracks.OrderByDescending(t => t.Track.Language == language).ThenByDescending(t => LanguageTag.Alike(t.Track.Language, language))]
            : tracks;
    }

    private static string? BurntIn(Profile profile) => profile.Captions == CaptionPlace.BurntIn ? profile.CaptionLanguage : null;
}
