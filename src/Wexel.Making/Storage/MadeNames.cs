using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;
using Wexel.Media.Analysing;
using Wexel.Media.Measuring;
using Wexel.Media.Rendering;

namespace Wexel.Making.Storage;

/// <summary>What a made file is needed for, which says when it may go.</summary>
public enum StoredKind
{
    /// <summary>A picture or a sound of which finished files are put together.</summary>
    Encoded,

    /// <summary>What learners get, or what stands in a package.</summary>
    Finished,

    /// <summary>What is handed in at an outlet.</summary>
    Package,

    /// <summary>Made to be looked at, and made again when somebody looks.</summary>
    Look,

    /// <summary>Everything else.</summary>
    Other,
}

/// <summary>The names of made files under their keys, and what each is needed for: the one table of them.</summary>
public static class MadeNames
{
    /// <summary>An encoded picture.</summary>
    public const string Picture = "picture.mp4";

    /// <summary>The picture by which a lesson is known.</summary>
    public const string Poster = "poster.jpg";

    /// <summary>The same for lists.</summary>
    public const string SmallPoster = "small.jpg";

    /// <summary>A picture that somebody gave for a lesson, whatever its kind.</summary>
    public const string GivenPicture = "given";

    /// <summary>The same as it stands with a question or a note.</summary>
    public const string Shown = "shown.jpg";

    /// <summary>A lesson's sound before it is encoded.</summary>
    public const string Composed = "sound.flac";

    /// <summary>A sound of the shelf as it was given, whatever its kind.</summary>
    public const string GivenSound = "given-sound";

    /// <summary>What it was measured to be.</summary>
    public const string GivenSoundFacts = "given-sound.json";

    /// <summary>The same as it is listened to and mixed in.</summary>
    public const string ShelfSound = "shelf-sound.flac";

    /// <summary>A package.</summary>
    public const string Package = "package.zip";

    /// <summary>Samples by which a rendition is estimated.</summary>
    public const string Samples = "samples.json";

    /// <summary>A few seconds that were tried.</summary>
    public const string Trial = "trial.mp4";

    /// <summary>What those seconds were found to be.</summary>
    public const string TrialMeasured = "trial.json";

    /// <summary>What stands on the screen in a recording.</summary>
    public const string Screen = "screen.json";

    /// <summary>A single frame.</summary>
    public const string Frame = "frame.png";

    /// <summary>The house's mark, whatever its kind.</summary>
    public const string Mark = "mark";

    /// <summary>A feed's artwork, whatever its kind.</summary>
    public const string Artwork = "artwork";

    /// <summary>A viewing copy.</summary>
    public const string View = "view.mp4";

    /// <summary>What there is to read on a recording.</summary>
    public const string Detail = "detail.json";

    private const string EpisodeStem = "episode";
    private const string FinishedStem = "lesson.";

    /// <summary>An episode.</summary>
    public static string Episode(FeedMedia media) => EpisodeStem + FeedFiles.Ending(media);

    /// <summary>An encoded sound.</summary>
    public static string Sound(SoundPlan plan) => SoundOutput.FileName(plan);

    /// <summary>A finished file; of a folder of pieces, the playlist.</summary>
    public static string Finished(Container container) => Muxing.FileName(container);

    /// <summary>What was seen and heard in a file that was put together from some encodes.</summary>
    public static string Seen(string encodes) => $"{FileChecker.Checker.Replace('/', '-')}-{encodes[..16]}.json";

    /// <summary>What a made file is needed for.</summary>
    /// <param name="name">Its path under its key, with slashes.</param>
    public static StoredKind KindOf(string name) =>
        name switch
        {
            Package => StoredKind.Package,
            Picture => StoredKind.Encoded,
            Frame or Trial or TrialMeasured or Samples => StoredKind.Look,
            _ when FrameTaker.IsName(name) => StoredKind.Look,
            _ when name.StartsWith("sound.", StringComparison.Ordinal) => StoredKind.Encoded,
            _ when name.StartsWith(FinishedStem, StringComparison.Ordinal)
                    || name.StartsWith(EpisodeStem + ".", StringComparison.Ordinal)
                    || name.StartsWith(LessonFiles.PiecesFolder, StringComparison.Ordinal) => StoredKind.Finished,
            _ => StoredKind.Other,
        };
}
