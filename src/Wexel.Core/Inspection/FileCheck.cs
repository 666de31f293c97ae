using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Inspection;

/// <summary>A verdict over one measured fact.</summary>
public enum Verdict
{
    /// <summary>As it should be.</summary>
    Right,

    /// <summary>Wrong: the file is not what was planned.</summary>
    Wrong,
}

/// <summary>One measured fact with what was expected.</summary>
/// <param name="Code">A stable name for programs.</param>
/// <param name="Fact">What was looked at, for people.</param>
/// <param name="Measured">What was found, with its unit.</param>
/// <param name="Expected">What it should be, with its unit.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="At">Where it is worst or begins, in lesson time; null where it is about the whole.</param>
public sealed record CheckedFact(string Code, string Fact, string Measured, string Expected, Verdict Verdict, TimeSpan? At = null);

/// <summary>Compares a finished file with the plan that it was made by, and with its source.</summary>
public static class FileCheck
{
    /// <summary>A file that is less like its source than this, at any moment, is wrong (common practice, no source).</summary>
    public const double LeastSsim = 0.95;

    /// <summary>Of the fine detail of text, this much must be left, in per cent (common practice, no source).</summary>
    public const double LeastSharpness = 70;

    /// <summary>Sound and picture start and end together within this: ITU-R BT.1359-1 finds 45 ms of early sound noticed.</summary>
    public static readonly TimeSpan Together = TimeSpan.FromMilliseconds(40);

    /// <summary>Fine lines that move look like two fields now and then (common practice, no source).</summary>
    private const double MostCombed = 0.05;

    private const double LoudnessTolerance = 1;
    private const double BorderTolerance = 0.015;
    private static readonly TimeSpan LongestUnexplained = TimeSpan.FromSeconds(2);

    /// <summary>A frame of sound codecs is about as long, and a length may end in the middle of one.</summary>
    private static readonly TimeSpan SoundFrame = TimeSpan.FromMilliseconds(25);

    /// <summary>All facts with their verdicts, in the order in which they are shown.</summary>
    /// <param name="facts">What was measured.</param>
    /// <param name="plan">What was planned.</param>
    /// <param name="sections">How many chapters there should be.</param>
    /// <param name="source">What the source is like.</param>
    public static IReadOnlyList<CheckedFact> Findings(RenditionFacts facts, RenderPlan plan, int sections, ExpectedOfSource source)
    {
        var chapters = plan.File.Chapters ? sections : 0;
        var frame = plan.Picture?.Timing.Made.TimeOf(1) ?? SoundFrame;
        var off = (facts.Length - plan.Length).Duration();
        return
        [
            Fact("decodes", "Decodes to its end", facts.Errors.Count == 0 ? "without an error" : facts.Errors[0], "without an error", facts.Errors.Count == 0),
            Fact(
                "length",
                "Length",
                Seconds(facts.Length) + PictureLength(facts),
                $"{Seconds(plan.Length)}, within a frame",
                off <= Longer(frame, SoundFrame) && (facts.Picture is null || (facts.Picture.Length - plan.Length).Duration() <= frame * 1.5)
            ),
            .. plan.Picture is { } picture
                ? OfPicture(facts.Picture, picture)
                : [Fact("picture", "Picture", facts.Picture is null ? "none" : "there is one", "none", facts.Picture is null)],
            .. HasIndex(plan.File)
                ?
                [
                    Fact(
                        "index",
                        "Index at the front",
                        facts.IndexAtFront ? "yes" : "no",
                        plan.File.IndexAtFront ? "yes" : "no",
                        facts.IndexAtFront == plan.File.IndexAtFront
                    ),
                ]
                : Array.Empty<CheckedFact>(),
            Fact(
                "sound",
                "Sound",
                SoundName(facts.Sound?.Codec, facts.Sound?.Channels, facts.Sound?.SampleRate),
                SoundName(plan.Sound is null ? null : SoundCodecName(plan.Sound.Codec), plan.Sound?.Channels, plan.Sound?.SampleRate),
                plan.Sound is null
                    ? facts.Sound is null
                    : facts.Sound?.Codec == SoundCodecName(plan.Sound.Codec)
                        && facts.Sound.Channels == plan.Sound.Channels
                        && facts.Sound.SampleRate == plan.Sound.SampleRate
            ),
            .. facts.Sound is { } sound && plan.Sound is not null ? OfSound(sound, facts.Picture, plan, source) : [],
            .. facts.Picture is { } made && plan.Picture is { } planned ? Seen(made, planned, source) : [],
            Fact("chapters", "Chapters inside", Number(facts.ChapterStarts.Count), Number(chapters), facts.ChapterStarts.Count == chapters),
            .. plan.File.CaptionTracks > 0 || facts.CaptionTracks > 0
                ?
                [
                    Fact(
                        "captions",
                        "Captions inside",
                        Number(facts.CaptionTracks),
                        Number(plan.File.CaptionTracks),
                        facts.CaptionTracks == plan.File.CaptionTracks
                    ),
                ]
                : Array.Empty<CheckedFact>(),
            .. facts.CaptionsEnd is { } end
                ? [Fact("captions-end", "Last caption ends", Seconds(end), $"by {Seconds(plan.Length)}", end <= plan.Length + Together, end)]
                : Array.Empty<CheckedFact>(),
            .. plan.File.Bytes is { } most
                ? [Fact("file-size", "Size of the file", Megabytes(facts.Bytes), "at most " + Megabytes(most), facts.Bytes <= most)]
                : Array.Empty<CheckedFact>(),
        ];
    }

    /// <summary>All facts of a folder of pieces: its largest picture with the sound as a file's, the further pictures, and what holds for all.</summary>
    /// <param name="facts">What was measured.</param>
    /// <param name="plan">What was planned.</param>
    /// <param name="source">What the source is like.</param>
    public static IReadOnlyList<CheckedFact> Findings(StreamFacts facts, RenderPlan plan, ExpectedOfSource source)
    {
        // Captions lie beside the pieces, and are counted by themselves.
        var inside = plan with { File = plan.File with { CaptionTracks = 0 } };
        var further = facts
            .Pictures.Skip(1)
            .Zip(plan.Pictures.Skip(1))
            .SelectMany(pair =>
            {
                var name = $"{pair.Second.Size.Height}";
                return Findings(pair.First, inside with { Pictures = [pair.Second] }, 0, source)
                    .Where(fact => PictureCodes.Contains(fact.Code))
                    .Select(fact => fact with { Code = $"{fact.Code}-{name}", Fact = $"{name} lines: {char.ToLowerInvariant(fact.Fact[0])}{fact.Fact[1..]}" });
            });
        var keys = facts.Pictures.Select(p => p.Picture?.KeyFrames ?? []).ToList();
        var half = (plan.Picture?.Timing.Made.TimeOf(1) ?? SoundFrame) / 2;
        var aligned = keys.All(k => k.Count == keys[0].Count && k.Zip(keys[0]).All(pair => (pair.First - pair.Second).Duration() < half));
        return
        [
            .. Findings(facts.Pictures[0], inside with { Pictures = plan.Pictures.Take(1).ToList() }, 0, source),
            .. further,
            Fact("aligned", "Key frames of all sizes", aligned ? "at the same moments" : "apart", "at the same moments", aligned),
            Fact("playlists", "Playlists keep to RFC 8216", facts.Breaches.Count == 0 ? "yes" : facts.Breaches[0], "yes", facts.Breaches.Count == 0),
            Fact(
                "captions",
                "Captions to switch on",
                Number(facts.CaptionGroups),
                Number(plan.File.CaptionTracks),
                facts.CaptionGroups == plan.File.CaptionTracks
            ),
        ];
    }

    private static readonly HashSet<string> PictureCodes =
    [
        "decodes",
        "length",
        "size",
        "codec",
        "colour",
        "section-key-frames",
        "key-frame-distance",
        "borders",
        "black",
        "frozen",
        "combed",
        "ssim",
        "sharpness",
    ];

    private static IEnumerable<CheckedFact> OfPicture(PictureMeasured? facts, PicturePlan plan)
    {
        if (facts is null)
            return [Fact("picture", "Picture", "none", "there is one", false)];
        var missing = MissingKeyFrames(facts, plan.Timing);
        var starts = plan.Timing.SectionFrames.Count;
        var gap = LongestKeyFrameGap(facts);
        var (codec, profile) = Named(plan.Coding);
        return
        [
            Fact(
                "size",
                "Picture size",
                $"{facts.Size}, {PixelShape(facts.PixelAspect)}",
                $"{plan.Size}, {PixelShape(1)}",
                facts.Size == plan.Size && IsSquare(facts.PixelAspect)
            ),
            Fact(
                "codec",
                "Codec and level",
                CodecText(facts.Codec, facts.CodecProfile, facts.Codec == "h264" ? facts.Level : null, facts.PixelFormat),
                CodecText(codec, profile, plan.Coding.H264?.Level, "yuv420p"),
                facts.Codec == codec
                    && facts.PixelFormat == "yuv420p"
                    && (plan.Coding.H264 is not { } h264 || (facts.CodecProfile == profile && facts.Level == h264.Level))
            ),
            Fact(
                "colour",
                "Colour",
                ColourName(facts),
                "BT.709, limited range",
                facts.Colour is { Matrix: "bt709", Primaries: "bt709", Transfer: "bt709", FullRange: false }
            ),
            Fact("section-key-frames", "Key frame at each section", $"{starts - missing} of {starts}", $"{starts} of {starts}", missing == 0),
            Fact(
                "key-frame-distance",
                "Between key frames",
                $"{Seconds(gap)} and {Number(facts.MostBetweenKeyFrames)} frames at most",
                $"up to {Seconds(plan.Timing.KeyFrameDistance)} and {Number(plan.Timing.MostBetweenKeyFrames)} frames",
                gap <= plan.Timing.KeyFrameDistance + (plan.Timing.Made.TimeOf(1) * 1.5) && facts.MostBetweenKeyFrames <= plan.Timing.MostBetweenKeyFrames
            ),
        ];
    }

    /// <summary>What is seen on the picture, against the source.</summary>
    private static IEnumerable<CheckedFact> Seen(PictureMeasured facts, PicturePlan plan, ExpectedOfSource source)
    {
        if (facts.Moments.Where(m => !m.SourceIsBlack).Select(m => m.SourceBorders ?? new BorderShares(0, 0, 0, 0)).ToList() is { Count: > 0 } edges)
        {
            // What is black at the edges of every picture of the source is so in the file: a canvas of another shape, or a dark program.
            var expected = new BorderShares(edges.Min(e => e.Left), edges.Min(e => e.Top), edges.Min(e => e.Right), edges.Min(e => e.Bottom));
            var measured = facts.Borders ?? new BorderShares(0, 0, 0, 0);
            var more = new BorderShares(
                measured.Left - expected.Left,
                measured.Top - expected.Top,
                measured.Right - expected.Right,
                measured.Bottom - expected.Bottom
            );
            yield return Fact("borders", "Black borders", Borders(measured), Borders(expected), more.Widest <= BorderTolerance);
        }

        var black = facts.Black.Where(b => !facts.Moments.Any(m => m.SourceIsBlack && m.At >= b.Start && m.At <= b.End)).ToList();
        yield return Fact("black", "Black where the source is not", Stretches(black), "nowhere", black.Count == 0, black.Count > 0 ? black[0].Start : null);

        if (source.Still is { } still)
        {
            // What stands still in the source stands still in the file; the samples lie half a second apart.
            var frozen = facts.Still.Select(s => Unexplained(s, still)).Where(s => s.Length > LongestUnexplained).ToList();
            yield return Fact(
                "frozen",
                "Frozen where the source moves",
                Stretches(frozen),
                "nowhere",
                frozen.Count == 0,
                frozen.Count > 0 ? frozen[0].Start : null
            );
        }

        if (facts.Combed is { } combed)
            yield return Fact(
                "combed",
                "Frames that show two fields",
                $"{Number(combed.Count)} of {Number(combed.Told)}",
                $"at most {Number((int)(combed.Told * MostCombed))}",
                combed.Count <= combed.Told * MostCombed
            );
        if (facts.Moments.Count == 0)
            yield break;
        var worst = facts.Moments.MinBy(m => m.Ssim)!;
        yield return Fact(
            "ssim",
            "Like the source, SSIM",
            $"{worst.Ssim.ToString("0.0000", CultureInfo.InvariantCulture)} at worst, of {facts.Moments.Count} moments",
            $"at least {LeastSsim.ToString("0.00", CultureInfo.InvariantCulture)}",
            worst.Ssim >= LeastSsim,
            worst.At
        );
        var softest = facts.Moments.MinBy(m => m.Sharpness)!;
        yield return Fact(
            "sharpness",
            "Detail of text",
            $"{softest.Sharpness.ToString("0", CultureInfo.InvariantCulture)} % at worst",
            $"at least {LeastSharpness.ToString("0", CultureInfo.InvariantCulture)} %",
            softest.Sharpness >= LeastSharpness,
            softest.At
        );
    }

    private static IEnumerable<CheckedFact> OfSound(SoundMeasured sound, PictureMeasured? picture, RenderPlan plan, ExpectedOfSource source)
    {
        // A sound that was recorded shorter or longer than the picture ends where it did.
        var end = source.SoundLength is { } recorded && recorded < plan.Length ? recorded : plan.Length;
        if (picture is not null)
        {
            var (starts, ends) = ((sound.Start - picture.Start).Duration(), (sound.Length - end).Duration());
            yield return Fact(
                "together",
                "Sound and picture together",
                $"start {Milliseconds(starts)}, end {Milliseconds(ends)} apart",
                $"within {Milliseconds(Together)}",
                starts <= Together && ends <= Together + SoundFrame
            );
        }

        var silent = sound.Silent.Select(s => Unexplained(s, source.Silent)).Where(s => s.Length > LongestUnexplained).ToList();
        yield return Fact(
            "silence",
            "Silent where the source is not",
            Stretches(silent),
            "nowhere",
            silent.Count == 0,
            silent.Count > 0 ? silent[0].Start : null
        );
        var peak = sound.Loudness.TruePeak;
        var most = plan.Sound!.TargetLufs is null ? 0.5 : Levelling.Ceiling + 0.5;
        yield return Fact(
            "clipping",
            "True peak",
            peak is { } high ? Decibels(high) + " dBTP" : "silence",
            $"at most {Decibels(most)} dBTP",
            peak is null || peak <= most
        );
        if (plan.Sound.TargetLufs is { } target)
        {
            var loud = sound.Loudness.Integrated;
            var left = loud is null or < Loudness.HardlyAnything;
            yield return Fact(
                "loudness",
                "Loudness",
                loud is { } lufs ? Decibels(lufs) + " LUFS" : "silence",
                left ? "hardly anything to hear" : $"{Decibels(target)} LUFS, within {LoudnessTolerance}",
                left || Math.Abs(loud!.Value - target) <= LoudnessTolerance
            );
        }
    }

    /// <summary>The longest part of a stretch that no other covers.</summary>
    private static TimeRange Unexplained(TimeRange stretch, IReadOnlyList<TimeRange> covered)
    {
        var longest = new TimeRange(stretch.Start, stretch.Start);
        var from = stretch.Start;
        foreach (var cover in covered.Where(c => c.End > stretch.Start && c.Start < stretch.End).Append(new TimeRange(stretch.End, stretch.End)))
        {
            if (cover.Start - from > longest.Length)
                longest = new TimeRange(from, cover.Start);
            from = Longer(from, cover.End);
        }

        return longest;
    }

    /// <summary>Files that a page reads piece by piece have an index; a stream of sound is read as it comes.</summary>
    private static bool HasIndex(FilePlan file) => file.Container is not (Container.Mp3 or Container.Opus or Container.Hls);

    private static CheckedFact Fact(string code, string fact, string measured, string expected, bool right, TimeSpan? at = null) =>
        new(code, fact, measured, expected, right ? Verdict.Right : Verdict.Wrong, at);

    private static TimeSpan Longer(TimeSpan a, TimeSpan b) => a > b ? a : b;

    private static int MissingKeyFrames(PictureMeasured facts, FrameTiming timing)
    {
        // With another rate than the grid's, the frame that starts a section is the next one of that rate.
        var half = timing.Constant is null ? timing.Grid.TimeOf(1) / 2 : timing.Made.TimeOf(1);
        return timing.SectionFrames.Count(frame => !facts.KeyFrames.Any(k => (k - timing.Grid.TimeOf(frame)).Duration() < half));
    }

    private static TimeSpan LongestKeyFrameGap(PictureMeasured facts)
    {
        var points = facts.KeyFrames.Append(facts.Length).ToList();
        return points.Zip(points.Skip(1), (a, b) => b - a).DefaultIfEmpty(facts.Length).Max();
    }

    private static string Seconds(TimeSpan time) =>
        time >= TimeSpan.FromMinutes(1)
            ? string.Create(CultureInfo.InvariantCulture, $"{TimeCode.Brief(time)}.{time.Milliseconds / 10:00}")
            : string.Create(CultureInfo.InvariantCulture, $"{time.TotalSeconds:0.00} s");

    /// <summary>How long the picture is, where it is not as long as the file.</summary>
    private static string PictureLength(RenditionFacts facts) =>
        facts.Picture is { } picture && Seconds(picture.Length) != Seconds(facts.Length) ? $", picture {Seconds(picture.Length)}" : "";

    private static bool IsSquare(double pixelAspect) => Math.Abs(pixelAspect - 1) < 0.001;

    private static string PixelShape(double pixelAspect) =>
        IsSquare(pixelAspect) ? "square pixels" : string.Create(CultureInfo.InvariantCulture, $"pixels {pixelAspect:0.000} as wide as high");

    private static string Milliseconds(TimeSpan time) => string.Create(CultureInfo.InvariantCulture, $"{time.TotalMilliseconds:0} ms");

    private static string Decibels(double value) => value.ToString("0.0", CultureInfo.InvariantCulture).Replace('-', '−');

    private static string Stretches(List<TimeRange> stretches) =>
        stretches switch
        {
            [] => "nowhere",
            [var one] => $"from {TimeCode.Brief(one.Start)}, for {Seconds(one.Length)}",
            _ => $"{stretches.Count} times, first from {TimeCode.Brief(stretches[0].Start)}",
        };

    private static string Borders(BorderShares shares)
    {
        var sides = new[] { ("left", shares.Left), ("top", shares.Top), ("right", shares.Right), ("bottom", shares.Bottom) }
            .Where(s => s.Item2 >= 0.005)
            .Select(s => $"{s.Item1} {(s.Item2 * 100).ToString("0.#", CultureInfo.InvariantCulture)} %")
            .ToList();
        return sides.Count == 0 ? "none" : string.Join(", ", sides);
    }

    private static (string Codec, string Profile) Named(CodingPlan coding) =>
        coding switch
        {
            { Codec: PictureCodec.H264, H264.Profile: H264Profile.ConstrainedBaseline } => ("h264", "Constrained Baseline"),
            { Codec: PictureCodec.H264, H264.Profile: H264Profile.Main } => ("h264", "Main"),
            { Codec: PictureCodec.H264 } => ("h264", "High"),
            { Codec: PictureCodec.Vp9 } => ("vp9", "Profile 0"),
            _ => ("av1", "Main"),
        };

    private static string CodecText(string codec, string profile, int? level, string format)
    {
        var name = codec switch
        {
            "h264" => "H.264",
            "vp9" => "VP9",
            "av1" => "AV1",
            _ => codec,
        };
        return string.Join(
            ", ",
            new[] { $"{name} {profile}".Trim(), level is { } number ? $"level {LevelName(number)}" : "", format }.Where(t => t.Length > 0)
        );
    }

    private static string SoundCodecName(SoundCodec codec) =>
        codec switch
        {
            SoundCodec.Aac => "aac",
            SoundCodec.Opus => "opus",
            _ => "mp3",
        };

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Megabytes(long bytes) => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e6:0.00} MB");

    private static string LevelName(int level) => H264Level.Find(level)?.Name ?? level.ToString(CultureInfo.InvariantCulture);

    private static string ColourName(PictureMeasured facts)
    {
        var tags = new[] { facts.Colour.Matrix, facts.Colour.Primaries, facts.Colour.Transfer }
            .Select(t =>
                t switch
                {
                    null => "not tagged",
                    "bt709" => "BT.709",
                    _ => t,
                }
            )
            .ToList();
        var range = facts.Colour.FullRange switch
        {
            null => "no range",
            true => "full range",
            false => "limited range",
        };
        return tags.Distinct().Count() == 1 ? $"{tags[0]}, {range}" : $"matrix {tags[0]}, primaries {tags[1]}, transfer {tags[2]}, {range}";
    }

    private static string SoundName(string? codec, int? channels, int? rate) =>
        codec is null
            ? "none"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{codec.ToUpperInvariant()}, {(channels == 1 ? "mono" : channels == 2 ? "stereo" : $"{channels} channels")}, {rate / 1000.0:0.###} kHz"
            );
}
