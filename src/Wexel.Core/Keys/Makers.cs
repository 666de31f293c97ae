namespace Wexel.Core.Keys;

/// <summary>
/// Who makes what, each with its version. It is raised when what comes out changes though what goes in is the same; then all of its kind
/// are made again when they are needed next.
/// </summary>
public static class Makers
{
    /// <summary>Small pictures of a recording, and what was found of it.</summary>
    public const string LookThrough = "analysis/2";

    /// <summary>Those pictures, many to a file.</summary>
    public const string Strips = "strips/1";

    /// <summary>A copy that browsers play of a recording that they do not.</summary>
    public const string ViewingCopy = "viewing-copy/1";

    /// <summary>Single frames of a recording.</summary>
    public const string Frames = "frames/1";

    /// <summary>What there is to read on a recording's pictures.</summary>
    public const string Detail = "detail/2";

    /// <summary>What stands on the screen in a recording.</summary>
    public const string Screen = "screen/1";

    /// <summary>An encoded picture.</summary>
    public const string Picture = "picture/3";

    /// <summary>A lesson's sound, put together and not encoded.</summary>
    public const string Composed = "sound/3";

    /// <summary>An encoded sound.</summary>
    public const string Sound = "encoded-sound/2";

    /// <summary>All that a file is put together from.</summary>
    public const string Encodes = "encodes/1";

    /// <summary>A finished file.</summary>
    public const string Finish = "finish/3";

    /// <summary>A few seconds of a lesson, encoded to see what all of it will come to.</summary>
    public const string Samples = "samples/4";

    /// <summary>A few seconds of a lesson, encoded to be looked at.</summary>
    public const string Trial = "trial/2";

    /// <summary>A frame of such seconds.</summary>
    public const string TrialFrame = "trial-frame/1";

    /// <summary>A frame of a finished file or of its source.</summary>
    public const string Compared = "compared/2";

    /// <summary>What a video service is told of a video.</summary>
    public const string VideoTexts = "video-texts/1";

    /// <summary>A video at a service.</summary>
    public const string ServiceVideo = "service-video/1";

    /// <summary>An episode of a podcast feed.</summary>
    public const string Episode = "episode/2";

    /// <summary>What apps know an episode by.</summary>
    public const string EpisodeId = "episode-id/1";

    /// <summary>A feed's artwork.</summary>
    public const string Artwork = "artwork/2";

    /// <summary>A package, or a feed as a folder.</summary>
    public const string Package = "package/4";

    /// <summary>A picture that somebody gave.</summary>
    public const string Image = "picture/1";

    /// <summary>The picture by which a lesson is known.</summary>
    public const string LessonPicture = "lesson-picture/1";

    /// <summary>What a lesson says.</summary>
    public const string Lesson = "lesson/2";

    /// <summary>What a profile says.</summary>
    public const string Profile = "profile/1";

    /// <summary>What is said about a lesson at an outlet.</summary>
    public const string Details = "details/1";

    /// <summary>What stands at an outlet.</summary>
    public const string Release = "release/2";

    /// <summary>The name of a lesson that was made without a server.</summary>
    public const string LessonId = "lesson-id/1";
}
