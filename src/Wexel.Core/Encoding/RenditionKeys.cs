using Wexel.Core.Details;
using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>The keys of what a rendition is put together from.</summary>
/// <param name="Pictures">For each picture of the plan that of its encode; none for sound alone.</param>
/// <param name="Composed">That of the lesson's sound before it is encoded; null without sound.</param>
/// <param name="Sound">That of the encoded sound; null without sound.</param>
public sealed record RenditionKeys(IReadOnlyList<string> Pictures, string? Composed, string? Sound)
{
    /// <summary>The keys of a plan.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="map">The lesson's times.</param>
    /// <param name="recordings">The hashes of its recordings, in their order.</param>
    public static RenditionKeys Of(RenderPlan plan, TimeMap map, IReadOnlyList<string> recordings)
    {
        var composed = plan.Sound is not { } mixed
            ? null
            : MadeKey.Hash(Makers.Composed, k =>
                k.Each("recordings", recordings)
                    .Add("grid", map.Grid)
                    .Add("length", map.Length)
                    .Each("kept", map.Kept, PlanFields.Declare)
                    .Each("mixes", mixed.Mixes, (f, mix) => f.Add("is", mix))
                    .Add("channels", mixed.Channels)
                    .Each("tracks", mixed.Tracks, (f, tracks) => f.Each("of", [.. tracks.Select(t => (long)t)]))
                    .Part("under", mixed.Under, PlanFields.Declare)
            );
        var sound = composed is null ? null : MadeKey.Hash(Makers.Sound, k => k.Add("composed", composed).Part("sound", plan.Sound, PlanFields.Declare));
        return new RenditionKeys([.. plan.Pictures.Select(picture => OfPicture(picture, plan.File.Bytes, sound, recordings))], composed, sound);
    }

    /// <summary>The key over everything that is encoded; files with other titles and chapters are made of the same.</summary>
    public string Encodes => MadeKey.Hash(Makers.Encodes, k => k.Each("pictures", Pictures).Add("sound", Sound));

    /// <summary>The keys of everything that it is put together from.</summary>
    public IEnumerable<string> Tracks => [.. Pictures, .. new[] { Sound, Composed }.OfType<string>()];

    /// <summary>The key of the finished file.</summary>
    /// <param name="file">How picture and sound are put into it.</param>
    /// <param name="title">The lesson's title.</param>
    /// <param name="sections">When its sections start, in lesson time, and what they are called.</param>
    /// <param name="captions">The captions that stand in it, as WebVTT with their language as a BCP 47 tag.</param>
    /// <param name="tags">What else it says about itself; null for nothing.</param>
    public string File(
        FilePlan file,
        string title,
        IReadOnlyList<(TimeSpan At, string Title)> sections,
        IReadOnlyList<(string Language, string WebVtt)> captions,
        FileTags? tags
    ) =>
        MadeKey.Hash(Makers.Finish, k =>
            k.Add("encodes", Encodes)
                .Part("file", file, PlanFields.Declare)
                .Add("title", title)
                .Each("sections", sections, (f, s) => f.Add("at", s.At).Add("title", s.Title))
                .Each("captions", captions, (f, c) => f.Add("language", c.Language).Add("webvtt", c.WebVtt))
                .Part("tags", tags, FileTags.Declare)
        );

    /// <summary>The key of samples by which a rendition is estimated.</summary>
    /// <inheritdoc cref="Of"/>
    public static string Samples(RenderPlan plan, TimeMap map, IReadOnlyList<string> recordings) =>
        MadeKey.Hash(Makers.Samples, k =>
            k.Each("recordings", recordings)
                .Each("kept", map.Kept, PlanFields.Declare)
                .Each("pictures", plan.Pictures, PlanFields.Declare)
                .Part("sound", plan.Sound, PlanFields.Declare)
        );

    /// <summary>The key of a few seconds that are tried.</summary>
    /// <param name="picture">How they are made.</param>
    /// <param name="window">Which they are.</param>
    /// <param name="map">The lesson's times.</param>
    /// <param name="recordings">The hashes of its recordings, in their order.</param>
    public static string Trial(PicturePlan picture, SampleWindow window, TimeMap map, IReadOnlyList<string> recordings) =>
        MadeKey.Hash(Makers.Trial, k =>
            k.Each("recordings", recordings)
                .Each("kept", map.Kept, PlanFields.Declare)
                .Part("picture", picture, PlanFields.Declare)
                .Add("first", window.First)
                .Add("count", window.Count)
        );

    /// <summary>The key of a frame of what was tried.</summary>
    /// <param name="trial">The key of the seconds.</param>
    /// <param name="frame">The frame's number in them, from 0.</param>
    public static string TrialFrame(string trial, long frame) => MadeKey.Hash(Makers.TrialFrame, k => k.Add("trial", trial).Add("frame", frame));

    /// <summary>The key of a frame that is looked at.</summary>
    /// <param name="side">What it is a frame of: a finished file, or the source of an encode.</param>
    /// <param name="of">The key of that file, or of the encode.</param>
    /// <param name="frame">The lesson's frame.</param>
    public static string Compared(string side, string of, long frame) =>
        MadeKey.Hash(Makers.Compared, k => k.Add("side", side).Add("of", of).Add("frame", frame));

    /// <summary>An encode that must not pass a size is corrected until it does, by what its sound takes.</summary>
    private static string OfPicture(PicturePlan picture, long? mostBytes, string? sound, IReadOnlyList<string> recordings) =>
        MadeKey.Hash(Makers.Picture, k =>
            k.Each("recordings", recordings).Part("picture", picture, PlanFields.Declare).Add("most", mostBytes).Add("beside", mostBytes is null ? null : sound)
        );
}
