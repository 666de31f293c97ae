namespace Wexel.Core.Encoding;

/// <summary>A saved set of encoding settings.</summary>
/// <param name="Id">A name for programs and for <c>--profile</c>.</param>
/// <param name="Title">Its name for people.</param>
/// <param name="Description">For what it is meant, in one sentence.</param>
/// <param name="AtMostHeight">The greatest height of the picture in pixels, or null to keep the recorded size.</param>
/// <param name="Quality">The constant rate factor of the H.264 encoder: lower is better and larger; 18 to 28 is usual.</param>
/// <param name="Effort">The encoder's preset, from faster to smaller.</param>
/// <param name="ConstantRate">Whether every frame of the grid is made, also one that repeats the frame before.</param>
/// <param name="TargetLufs">The loudness that the sound is brought to, in LUFS; null to leave it as it is.</param>
/// <param name="WithMark">Whether the house's mark is put on the picture where the lesson wants it.</param>
public sealed record Profile(string Id, string Title, string Description, int? AtMostHeight, int Quality, string Effort, bool ConstantRate = false, double? TargetLufs = Levelling.UsualTarget, bool WithMark = true);

/// <summary>The profiles that ship with Wexel.</summary>
public static class Profiles
{
    /// <summary>The recorded size, for the web.</summary>
    public static Profile Web { get; } = new("web", "Web, as recorded", "The recorded size, sharpest text. Right for most screens.", null, 20, "fast");

    /// <summary>At most 720 lines, for the web.</summary>
    public static Profile Web720 { get; } = new("web-720p", "Web 720p", "At most 1280 × 720: smaller, quicker to load, and still clear.", 720, 20, "fast");

    /// <summary>At most 480 lines, small.</summary>
    public static Profile Small480 { get; } = new("small-480p", "Small 480p", "At most 480 lines: for slow lines and plain talks.", 480, 23, "fast");

    /// <summary>At most 720 lines at a constant frame rate, as podcast apps take it.</summary>
    public static Profile Podcast720 { get; } = new("podcast-720p", "Podcast 720p", "At most 1280 × 720 at a constant frame rate, which podcast apps want.", 720, 20, "fast", ConstantRate: true);

    /// <summary>All of them, in the order in which they are offered.</summary>
    public static IReadOnlyList<Profile> All { get; } = [Web, Web720, Small480, Podcast720];

    /// <summary>The profile of a name, or null.</summary>
    public static Profile? Find(string id) => All.FirstOrDefault(p => p.Id == id);
}
