using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Prints how a picture or a sound is coded as ffmpeg's arguments.</summary>
internal static class EncoderArguments
{
    /// <summary>
    /// How much finer H.264's quality factor is where repeats are left out. At a constant rate the encoder makes a picture that stands better with
    /// every repeat; here it is coded once, and must be that good at once.
    /// </summary>
    private const int FinerAsDrawn = 2;

    /// <summary>A picture's encoder.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="bitsPerSecond">The rate that is aimed at: the plan's, or what an encode that missed it was corrected to.</param>
    /// <param name="parameterSets">The number of H.264's parameter sets.</param>
    internal static IEnumerable<string> Print(PicturePlan plan, long bitsPerSecond, int parameterSets = 0) =>
        [
            .. plan.Coding.Codec switch
            {
                PictureCodec.H264 => H264(plan, plan.Coding.H264!, bitsPerSecond, parameterSets),
                PictureCodec.Vp9 => Vp9(plan, bitsPerSecond),
                _ => Av1(plan, bitsPerSecond),
            },
            "-g",
            Text(plan.Timing.BetweenKeyFrames),
            "-force_key_frames",
            plan.Timing.KeyFrameEvery is null ? KeyFrameRule(plan.Timing, plan.Parts[0].Kept[0].At) : KeyFrameTimes(plan.Timing, plan.Parts[0].Kept[0].At),
            .. plan.Timing.InPieces ? new[] { "-sc_threshold", "0", "-bf", "0" } : [],
            "-colorspace",
            "bt709",
            "-color_primaries",
            "bt709",
            "-color_trc",
            "bt709",
            "-color_range",
            "tv",
        ];

    /// <summary>A sound's encoder and the format of its file.</summary>
    internal static IEnumerable<string> Print(SoundPlan plan) =>
        [
            "-c:a",
            plan.Codec switch
            {
                SoundCodec.Aac => "aac",
                SoundCodec.Opus => "libopus",
                _ => "libmp3lame",
            },
            "-b:a",
            Text(plan.BitsPerSecond),
            "-ar",
            Text(plan.SampleRate),
            "-ac",
            Text(plan.Channels),
            // What an MP3 says of itself is put in front when it is finished.
            .. plan.Codec == SoundCodec.Mp3 ? new[] { "-f", "mp3", "-id3v2_version", "0", "-write_xing", "1" } : ["-f", "mp4"],
        ];

    private static IEnumerable<string> H264(PicturePlan plan, H264Plan h264, long bitsPerSecond, int parameterSets)
    {
        var profile = h264.Profile switch
        {
            H264Profile.High => "high",
            H264Profile.Main => "main",
            _ => "baseline",
        };
        IEnumerable<string> rate = plan.Rate.Rule switch
        {
            // Otherwise the encoder spends far more on a frame that stands long than the quality factor asks for.
            RateRule.Quality =>
            [
                "-crf",
                Text(QualityFactor(plan)),
                "-maxrate",
                Text(h264.MaxBitsPerSecond),
                "-bufsize",
                Text(Buffer(plan, h264)),
                "-x264-params",
                parameterSets == 0 ? "force-cfr=1" : $"force-cfr=1:sps-id={Text(parameterSets)}",
            ],
            RateRule.Constant =>
            [
                "-b:v",
                Text(bitsPerSecond),
                "-minrate",
                Text(bitsPerSecond),
                "-maxrate",
                Text(bitsPerSecond),
                "-bufsize",
                Text(bitsPerSecond),
                "-x264-params",
                "nal-hrd=cbr:force-cfr=1",
            ],
            _ => ["-b:v", Text(bitsPerSecond), "-maxrate", Text(h264.MaxBitsPerSecond), "-bufsize", Text(h264.BufferBits)],
        };
        return
        [
            "-c:v",
            "libx264",
            "-profile:v",
            profile,
            "-level:v",
            H264Level.Find(h264.Level)!.Name,
            "-preset",
            Preset(plan.Effort),
            "-refs",
            Text(h264.ReferenceFrames),
            .. rate,
        ];
    }

    /// <summary>A quality factor of 0 would be lossless, which the profiles that browsers play do not have.</summary>
    private static int QualityFactor(PicturePlan plan) => Math.Max(1, plan.Rate.Quality - (plan.Timing.MostRepeatsLeftOut > 0 ? FinerAsDrawn : 0));

    /// <summary>A ceiling that is below the level's holds over two seconds.</summary>
    private static long Buffer(PicturePlan plan, H264Plan h264) =>
        plan.Rate.BitsPerSecond > 0 ? Math.Min(h264.BufferBits, 2 * h264.MaxBitsPerSecond) : h264.BufferBits;

    private static IEnumerable<string> Vp9(PicturePlan plan, long bitsPerSecond) =>
        [
            "-c:v",
            "libvpx-vp9",
            "-deadline",
            "good",
            "-row-mt",
            "1",
            "-cpu-used",
            Text(
                plan.Effort switch
                {
                    Effort.Fastest => 6,
                    Effort.Faster => 5,
                    Effort.Balanced => 4,
                    Effort.Smaller => 2,
                    _ => 1,
                }
            ),
            .. Rate(plan, bitsPerSecond),
        ];

    /// <summary>With these settings the encoder knows screens, and places key frames where they are asked for.</summary>
    private static IEnumerable<string> Av1(PicturePlan plan, long bitsPerSecond) =>
        [
            "-c:v",
            "libaom-av1",
            "-row-mt",
            "1",
            "-aom-params",
            "tune-content=screen",
            .. plan.Effort switch
            {
                Effort.Smallest => new[] { "-usage", "good", "-cpu-used", "6", "-lag-in-frames", "0" },
                var effort =>
                [
                    "-usage",
                    "realtime",
                    "-cpu-used",
                    Text(
                        effort switch
                        {
                            Effort.Fastest => 8,
                            Effort.Faster => 7,
                            Effort.Balanced => 6,
                            _ => 5,
                        }
                    ),
                ],
            },
            .. Rate(plan, bitsPerSecond),
        ];

    private static IEnumerable<string> Rate(PicturePlan plan, long bitsPerSecond) =>
        plan.Rate.Rule == RateRule.Quality ? ["-crf", Text(plan.Rate.Quality), "-b:v", Text(plan.Rate.BitsPerSecond)] : ["-b:v", Text(bitsPerSecond)];

    private static string Preset(Effort effort) =>
        effort switch
        {
            Effort.Fastest => "veryfast",
            Effort.Faster => "fast",
            Effort.Balanced => "medium",
            Effort.Smaller => "slow",
            _ => "veryslow",
        };

    /// <summary>
    /// The first frame, those at which sections start, and one when the last that was asked for is so long ago that the next frame might come too
    /// late. The encoder itself counts coded frames, and sets one where the picture becomes another.
    /// </summary>
    private static string KeyFrameRule(FrameTiming timing, long first)
    {
        var late = FrameTiming.FurthestKeyFrame - timing.Grid.TimeOf(timing.MostRepeatsLeftOut + 1);
        // Here times count from the first frame on. A time a little before the frame cannot be rounded past it; with another rate than the grid's it
        // is the next of that rate.
        IEnumerable<string> sections = timing
            .SectionFrames.Where(frame => frame > first)
            .Select(frame => timing.Grid.TimeOf(frame - first).TotalSeconds - 0.002)
            .Select(at => string.Create(CultureInfo.InvariantCulture, $"gte(t,{at:0.####})*lt(t,{at + timing.Made.TimeOf(1).TotalSeconds:0.####})"));
        var inTime = string.Create(CultureInfo.InvariantCulture, $"gte(t,prev_forced_t+{late.TotalSeconds:0.###})");
        return $"expr:{FilterText.Sum(["eq(n,0)", inTime, .. sections])}";
    }

    private static string KeyFrameTimes(FrameTiming timing, long first)
    {
        // The encoder takes the first frame at or after a time; a time a little before the frame cannot be rounded past it. One that
        // is over already would make the next frame a key frame.
        var times = timing
            .KeyFrames()
            .Where(frame => frame > first)
            .Prepend(first)
            .Select(frame => Math.Max(0, timing.Grid.TimeOf(frame).TotalSeconds - 0.002));
        return string.Join(',', times.Select(t => t.ToString("0.###", CultureInfo.InvariantCulture)));
    }

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
}
