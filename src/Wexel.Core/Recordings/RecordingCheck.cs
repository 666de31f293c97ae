using System.Globalization;
using Wexel.Core.Timing;

namespace Wexel.Core.Recordings;

/// <summary>Decides whether Wexel can take a recording, and what is worth saying about one that it takes.</summary>
public static class RecordingCheck
{
    /// <summary>The smallest side that a lesson's picture may have, in pixels: one macroblock of H.264.</summary>
    public const int SmallestSide = 16;

    /// <summary>The largest side that Wexel reads, in pixels.</summary>
    public const int LargestSide = 16384;

    /// <summary>The pixels of the largest picture that screens show (ITU-R BT.2020: 7680 × 4320); a decoder holds a dozen such pictures in memory.</summary>
    private const long MostPixels = 7680L * 4320;

    /// <summary>A peak that reaches full scale, in per cent.</summary>
    private const int FullScale = 100;

    /// <summary>One peak at full scale may be a recorder's own levelling; as many are clipping (common practice, no source).</summary>
    private const int Clipped = 3;

    private static readonly HashSet<string> Containers = ["mp4", "mov", "matroska", "webm", "avi", "asf", "mpegts"];

    /// <summary>Why a recording cannot be used, in one sentence; null when it can.</summary>
    public static Problem? Refusal(RecordingFacts facts, string fileName)
    {
        if (!Containers.Contains(facts.Container))
            return new Problem("recording-container", $"“{fileName}” is a {facts.Container} file; bring in MP4, M4V, MOV, MKV, WebM, AVI, WMV or MPEG-TS.");
        if (facts.Picture is not { } picture)
            return new Problem(
                "recording-no-picture",
                facts.Sounds.Count > 0
                    ? $"“{fileName}” has sound only; a lesson needs a picture, so bring in the screen recording itself."
                    : $"“{fileName}” has neither picture nor sound; record it again."
            );
        if (picture.FrameCount == 0)
            return new Problem("recording-no-frames", $"“{fileName}” has a picture track without a single frame; record it again.");
        if (Math.Min(picture.Width, picture.Height) < SmallestSide)
            return new Problem(
                "recording-too-small",
                $"“{fileName}” is {picture.ShownSize} pixels; the smallest picture that can be a lesson is {SmallestSide} × {SmallestSide}."
            );
        if (Math.Max(picture.Width, picture.Height) > LargestSide)
            return new Problem("recording-too-large", $"“{fileName}” is {picture.ShownSize} pixels; the largest side that can be read is {LargestSide}.");
        if ((long)picture.Width * picture.Height > MostPixels)
            return new Problem(
                "recording-too-large",
                $"“{fileName}” is {picture.ShownSize} pixels; the most that can be read are as many as 7680 × 4320 have. Record a smaller part of "
                    + $"the screen, or export it smaller."
            );
        if (facts.Length <= TimeSpan.Zero)
            return new Problem("recording-no-length", $"“{fileName}” has no length; record it again.");
        return null;
    }

    /// <summary>The filters of ffmpeg that a recording needs besides those that every build has.</summary>
    public static IReadOnlyList<string> FiltersNeeded(RecordingFacts facts) =>
        facts.Picture?.Preparation?.Colour switch
        {
            null => [],
            { IsHighRange: true } => ["zscale", "tonemap"],
            _ => ["zscale"],
        };

    /// <summary>Why a recording cannot be used here, in one sentence: what must be done to it first is more than this ffmpeg can; null when it can.</summary>
    /// <param name="facts">What a probe found.</param>
    /// <param name="fileName">Its name for people.</param>
    /// <param name="filters">The filters that ffmpeg has.</param>
    public static Problem? Refusal(RecordingFacts facts, string fileName, IReadOnlySet<string> filters) =>
        FiltersNeeded(facts).FirstOrDefault(f => !filters.Contains(f)) is { } lacking
            ? new Problem(
                "recording-colours",
                $"“{fileName}” is in {facts.Picture!.Preparation!.Colour!.Name}, and this server’s ffmpeg has no {lacking} filter to bring it to "
                    + $"BT.709; install an ffmpeg with {lacking}, or record in standard range."
            )
            : null;

    /// <summary>Sentences about what will be done with the less usual in a recording; empty for a usual one.</summary>
    public static IReadOnlyList<string> Notes(RecordingFacts facts)
    {
        var notes = new List<string>();
        if (facts.Sounds.Count == 0)
            notes.Add("There is no sound.");
        if (SoundTracks.InWords(facts) is { } tracks)
            notes.Add(tracks);
        if (facts.Sound is { Channels: > 2 } many)
            notes.Add($"The sound has {many.Channels} channels; it is mixed down to stereo.");
        if (facts.Picture is not { } picture)
            return notes;
        if (picture.RotationDegrees != 0)
            notes.Add($"The picture is turned upright, by {picture.RotationDegrees}°.");
        if (picture.Damaged)
            notes.Add(
                "The picture is damaged in places, where what was there can only be guessed; it is encoded anew. If that shows, export or copy the "
                    + "recording again."
            );
        if (picture.Fields is not null)
            notes.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The picture is interlaced, {picture.NominalRate.PerSecond:0.##} frames of two fields a second; of each field a whole picture "
                        + $"is made, {picture.PictureRate.PerSecond:0.##} a second."
                )
            );
        if (WideColour.Of(picture) is { } wide)
        {
            notes.Add(
                wide.IsHighRange
                    ? $"The picture is in {wide.Name}; it is brought to what every screen shows (BT.709): the white of pages, {WideColour.White} "
                        + $"cd/m², becomes white, and what is brighter is held back."
                    : $"The colours are {wide.Name}; they are brought to what every screen shows (BT.709)."
            );
        }

        if (picture.RateVaries)
            notes.Add("The time between frames varies; what is made keeps the times.");
        if ((picture.Colour.FullRange == true || picture.IsRgb) && WideColour.Of(picture) is null)
            notes.Add("The colours are full range; they are brought to BT.709, limited range.");
        if (picture.ShownSize.Width % 2 != 0 || picture.ShownSize.Height % 2 != 0)
            notes.Add("One side is an odd number of pixels; the last row or column is left out.");
        return notes;
    }

    /// <summary>What somebody should know of what the look-through found, in sentences.</summary>
    public static IReadOnlyList<string> Notes(RecordingAnalysis analysis)
    {
        var notes = new List<string>();
        if (analysis.Levels is { CarriesSound: false })
            notes.Add("There is a sound track, but hardly anything can be heard on it. Look whether the right microphone was chosen.");
        if (analysis.Peaks.Index().Where(p => p.Item >= FullScale).Select(p => p.Index).ToList() is { Count: >= Clipped } clipped)
            notes.Add(
                $"The sound is clipped {clipped.Count} times, first at "
                    + $"{TimeCode.Brief(TimeSpan.FromSeconds(clipped[0] / (double)analysis.PeaksPerSecond))}: it was recorded too loud, which "
                    + $"nothing brings back. Turn the microphone down before the next take."
            );
        if (analysis.Borders is { } b)
        {
            var sides = new[] { (b.Left, "left"), (b.Right, "right"), (b.Top, "top"), (b.Bottom, "bottom") }
                .Where(s => s.Item1 > 0)
                .Select(s => $"{s.Item1} px at the {s.Item2}");
            notes.Add($"The picture has black borders all the way through: {string.Join(", ", sides)}.");
        }

        return notes;
    }
}
