using Wexel.Core.Captions;
using Wexel.Core.Placing;

namespace Wexel.Core.Lessons;

/// <summary>A lesson with what its caption tracks say, which lies in files of their own.</summary>
/// <param name="Document">The lesson.</param>
/// <param name="Files">The cues of its tracks, by the tracks' hashes.</param>
public sealed record LessonWithCues(LessonDocument Document, IReadOnlyDictionary<string, IReadOnlyList<Cue>> Files)
{
    /// <summary>A lesson of which nobody needs to know what its captions say.</summary>
    public static LessonWithCues Without(LessonDocument document) => new(document, new Dictionary<string, IReadOnlyList<Cue>>());

    /// <summary>A lesson with tracks of which each is given with its cues.</summary>
    public static LessonWithCues Of(LessonDocument document, IEnumerable<(CaptionTrack Track, IReadOnlyList<Cue> Cues)> tracks)
    {
        var given = tracks.ToList();
        return new LessonWithCues(
            document with
            {
                Captions = [.. given.Select(t => t.Track)],
            },
            given.DistinctBy(t => t.Track.Hash).ToDictionary(t => t.Track.Hash, t => t.Cues)
        );
    }

    /// <summary>The cues of a track, in recording time.</summary>
    public IReadOnlyList<Cue> CuesOf(CaptionTrack track) => Files.GetValueOrDefault(track.Hash) ?? [];

    /// <summary>The tracks that learners get, each with what cuts leave of it, in lesson time; the one that is shown first at the front, drafts behind
    /// what somebody corrected.</summary>
    /// <param name="map">The lesson's times.</param>
    public IReadOnlyList<LessonTrack> ForLearners(TimeMap map) =>
        [
            .. Document
                .Captions.Where(t => t.IsForLearners)
                .OrderBy(t => t.State == TrackState.Draft)
                .Select(t => new LessonTrack(t, Cue.Kind.Following(CuesOf(t), map)))
                .Where(t => t.Cues.Count > 0),
        ];
}

/// <summary>A caption track in lesson time.</summary>
/// <param name="Track">The track.</param>
/// <param name="Cues">Its captions; one or more.</param>
public sealed record LessonTrack(CaptionTrack Track, IReadOnlyList<Cue> Cues);
