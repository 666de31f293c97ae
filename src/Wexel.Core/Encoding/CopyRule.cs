using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>
/// Decides whether a picture is copied: where the plan leaves it as it was recorded, and the recording is ready for the web. At the
/// lesson's start it is cut to the frame by an edit list (ISO/IEC 14496-12, section 8.6.6); behind a cut inside, and at a section, it is
/// encoded up to the next key frame.
/// </summary>
internal static class CopyRule
{
    /// <summary>At quality 20, a recording may take this many bits a pixel and frame and still be copied; at better qualities more.</summary>
    /// <remarks>Twice what the trade says of screen lessons, 1 MB a minute at 640 × 480 (common practice, no source).</remarks>
    internal const double BitsPerPixel = 0.03;

    /// <summary>The quantiser doubles its step every six numbers (ITU-T H.264, section 8.5.8), and the rate about halves.</summary>
    private const double HalvesEvery = 6;

    private const int QualityOfThat = 20;
    private const int MostPieces = 60;
    private const double MostEncoded = 1.0 / 3;

    /// <summary>Decides.</summary>
    /// <param name="plan">The picture's plan.</param>
    /// <param name="reel">The recordings.</param>
    /// <param name="settings">The profile's settings of the picture.</param>
    /// <param name="container">What the file is.</param>
    /// <returns>What is copied, or why it is encoded, to stand behind "since".</returns>
    internal static (CopyPlan? Copy, string? Since) Judge(PicturePlan plan, Reel reel, PictureSettings settings, Container container)
    {
        if (!settings.Copy)
            return (null, "the profile says so");
        if (plan.Coding.Codec != PictureCodec.H264 || container is not (Container.Mp4 or Container.M4v or Container.Mov))
            return (null, "the profile makes something else than H.264 in MP4");
        if (plan.Mark is not null)
            return (null, "the house’s mark stands on it");
        if (plan.Cameras is not null)
            return (null, "a camera lies over it");
        if (plan.Captions is not null)
            return (null, "captions are burnt in");
        if (reel.Parts.Count > 1)
            return (null, "several recordings come together");
        var (part, picture) = (plan.Parts[0], reel.Parts[0].Picture);
        if (part.Moves.Count > 0)
            return (null, "it has move-ins");
        if (!IsAsRecorded(part, picture))
            return (null, "the canvas or the size is another than the recording’s");
        if (plan.Rate.Rule != RateRule.Quality || plan.Timing.Constant is not null)
            return (null, "the profile sets its rate");
        if (picture.Fields is not null)
            return (null, "the recording is interlaced");
        if (part.Colour is not null || picture.Colour is not { Primaries: null or "bt709", Transfer: null or "bt709" })
            return (null, "its colours are not BT.709");
        if (picture.Damaged)
            return (null, "the recording is damaged in places");
        if (picture.Even is not { } even || even.Rate != plan.Timing.Grid || ProfileOf(even) is not { } profile)
            return (null, "the recording is no H.264 in MP4 that can be taken apart frame by frame");
        if (even.Gaps && plan.Timing.MostRepeatsLeftOut == 0)
            return (null, "the recording’s frames come at uneven times, and the profile makes every frame");
        if (settings.Level is { } level && even.Level > level)
            return (null, "the recording’s level is above the profile’s");
        var (apart, between) = (even.Rate.TimeOf(even.LongestDistance), even.MostBetweenKeyFrames > 0 ? even.MostBetweenKeyFrames : even.LongestDistance);
        if (apart > plan.Timing.KeyFrameDistance || between > plan.Timing.MostBetweenKeyFrames)
            return (
                null,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"the recording’s key frames lie up to {apart.TotalSeconds:0.#} s and {between} frames apart, and seeking would be slow"
                )
            );
        var most = MostBitsPerSecond(plan, even);
        if (even.BitsPerSecond > most)
            return (
                null,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"the recording takes {even.BitsPerSecond / 1000:0} kbit/s, and more than {most / 1000:0} is too much for this quality"
                )
            );
        return Runs(plan.Timing, part.Kept, even) is { } copy ? (copy, null) : (null, "cuts and sections lie so close that little of it would be copied");
    }

    /// <summary>The stream's profile as it is named in plans; null for one that not every player decodes.</summary>
    internal static H264Profile? ProfileOf(EvenFrames even) =>
        even.Profile switch
        {
            "High" => H264Profile.High,
            "Main" => H264Profile.Main,
            "Constrained Baseline" => H264Profile.ConstrainedBaseline,
            _ => null,
        };

    private static bool IsAsRecorded(PartPlan part, PictureFacts picture)
    {
        var (size, placement) = (picture.ShownSize, part.Placement);
        var all = new PictureRect(0, 0, size.Width, size.Height);
        return part.SquarePixels && picture.RotationDegrees == 0 && placement.Canvas == size && placement.From == all && placement.To == all;
    }

    private static double MostBitsPerSecond(PicturePlan plan, EvenFrames even)
    {
        var most = BitsPerPixel * plan.Size.Width * plan.Size.Height * even.Rate.PerSecond * Math.Pow(2, (QualityOfThat - plan.Rate.Quality) / HalvesEvery);
        return plan.Rate.BitsPerSecond > 0 ? Math.Min(most, plan.Rate.BitsPerSecond) : most;
    }

    /// <summary>Takes what is kept apart at cuts and sections; null where too much would have to be encoded.</summary>
    private static CopyPlan? Runs(FrameTiming timing, IReadOnlyList<KeptStretch> kept, EvenFrames even)
    {
        var runs = new List<CopyRun>();
        foreach (var stretch in kept)
        {
            // Where the sound goes on after the picture, its last frame is repeated, which is encoded; so is the lesson's last frame where there may be none.
            var repeats = stretch.End > even.Frames || (even.Gaps && stretch == kept[^1]);
            var end = repeats ? Math.Min(even.Frames, stretch.End) - 1 : stretch.End;
            List<long> starts =
            [
                stretch.First,
                .. timing.SectionFrames.Select(f => f - stretch.At + stretch.First).Where(f => f > stretch.First && f < stretch.End),
            ];
            // All of the stretch may lie behind the recording's last frame.
            if (end <= stretch.First && repeats && starts.Count == 1)
            {
                runs.Add(new CopyRun(stretch.First, stretch.Count, stretch.At, Encoded: true, 0));
                continue;
            }

            if (starts[^1] >= end)
                return null;
            foreach (var (start, next) in starts.Zip(starts.Skip(1).Append(end)))
                Add(runs, start, next, stretch.At + start - stretch.First, even);
            if (repeats)
                runs.Add(new CopyRun(end, stretch.End - end, stretch.At + end - stretch.First, Encoded: true, 0));
        }

        var copy = new CopyPlan(runs);
        return copy.EncodedFrames > MostEncoded * (timing.LastFrame + 1) || runs.Count(r => r.Encoded) > MostPieces ? null : copy;
    }

    /// <summary>Adds the frames from a start up to the next; the start must be a key frame.</summary>
    private static void Add(List<CopyRun> runs, long first, long end, long at, EvenFrames even)
    {
        if (at == 0)
        {
            runs.AddRange(CopyPlan.Beginning(first, end, even));
            return;
        }

        var key = even.KeyFrames.Where(k => k >= first && k < end).Append(end).First();
        if (key > first)
            runs.Add(new CopyRun(first, key - first, at, Encoded: true, 0));
        if (key == end)
            return;
        // Where a section begins at a key frame, copying goes on over it.
        if (runs[^1] is { Encoded: false } before && before.First + before.Count == key && before.At + before.Count == at)
            runs[^1] = before with { Count = before.Count + end - key };
        else
            runs.Add(new CopyRun(key, end - key, at + key - first, Encoded: false, 0));
    }
}
