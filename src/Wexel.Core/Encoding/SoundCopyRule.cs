using System.Globalization;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>
/// Decides whether a sound is copied: where the plan leaves it as it was recorded. At the lesson's start it is cut to the sample by an
/// edit list (ISO/IEC 14496-12, section 8.6.6); a cut inside has a cross-fade, which must be encoded.
/// </summary>
internal static class SoundCopyRule
{
    /// <summary>A recording may take this many times the rate that the profile wants and still be copied, as with pictures.</summary>
    private const int MostOfTheRate = 2;

    /// <summary>Sound that begins later than this after its recording leaves a gap, which must be filled.</summary>
    private static readonly TimeSpan AtOnce = TimeSpan.FromMilliseconds(1);

    /// <summary>Decides.</summary>
    /// <param name="plan">The sound's plan as it is encoded.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="map">What is kept of them.</param>
    /// <param name="profile">The profile, which has sound.</param>
    /// <returns>The plan, with what is copied or with why it is encoded. What is copied has as many channels as were recorded.</returns>
    internal static SoundPlan Decided(SoundPlan plan, Reel reel, TimeMap map, Profile profile)
    {
        // Two sides that are alike would become one to save half of the rate, which a copy does not take in any case.
        var recorded =
            plan.Mixes is [SoundMix.MonoFromBoth] && profile.Sound!.Channels == SoundChannels.AsRecorded
                ? plan with
                {
                    Mixes = [SoundMix.Stereo],
                    Channels = 2,
                }
                : plan;
        var (copy, since) = Judge(recorded, plan.BitsPerSecond, reel, map, profile);
        return copy is null ? plan with { EncodedSince = since } : recorded with { Copy = copy };
    }

    private static (TimeRange? Copy, string? Since) Judge(SoundPlan plan, long encoded, Reel reel, TimeMap map, Profile profile)
    {
        if (profile.Picture is { Copy: false })
            return (null, "the profile says so");
        if (plan.Under is not null)
            return (null, "sounds lie under the voice");
        if (plan.TargetLufs is { } target)
            return (null, string.Create(CultureInfo.InvariantCulture, $"it is brought to {target:0.#} LUFS").Replace('-', '−'));
        if (plan.Codec != SoundCodec.Aac || profile.Container is not (Container.Mp4 or Container.M4v or Container.Mov or Container.M4a))
            return (null, "the profile makes something else than AAC in MP4");
        if (profile.Picture is { Rate.Rule: RateRule.FileSize })
            return (null, "the file must not pass a size");
        if (reel.Parts.Count > 1)
            return (null, "several recordings come together");
        if (map.Kept.Count > 1)
            return (null, "there are cuts inside");
        var facts = reel.Parts[0].Facts;
        if (facts.Container is not ("mp4" or "mov") || facts.Sound is not { Codec: "aac", Start: { } start, BitsPerSecond: { } bits } sound)
            return (null, "the recording’s is no AAC in MP4");
        if (start > AtOnce)
            return (null, "the recording’s begins later than its picture");
        if (plan.Mixes[0] is not (SoundMix.Mono or SoundMix.Stereo) || sound.Channels != plan.Channels)
            return (null, "its channels are brought together, or one is made two");
        if (sound.SampleRate != plan.SampleRate)
            return (null, string.Create(CultureInfo.InvariantCulture, $"the recording’s has {sound.SampleRate} samples a second"));
        if (bits > MostOfTheRate * encoded)
            return (
                null,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"the recording’s takes {bits / 1000} kbit/s, and more than {MostOfTheRate * encoded / 1000} is too much for this profile"
                )
            );
        var from = map.Grid.TimeOf(map.Kept[0].First);
        return (new TimeRange(from, from + map.Length), null);
    }
}
