using System.Text.Json.Serialization;
using Wexel.Core.Cameras;
using Wexel.Core.Editing;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Encoding;

/// <summary>All that must be known to make one rendition: a value, equal for equal work.</summary>
/// <param name="Length">How long the rendition is.</param>
/// <param name="Pictures">The pictures that are made, the largest first; none for sound alone.</param>
/// <param name="Sound">What is done with the sound, or null where there is none.</param>
/// <param name="File">How picture and sound are put into a file.</param>
public sealed record RenderPlan(TimeSpan Length, IReadOnlyList<PicturePlan> Pictures, SoundPlan? Sound, FilePlan File)
{
    /// <summary>The picture, or the largest of several; null for sound alone.</summary>
    [JsonIgnore]
    public PicturePlan? Picture => Pictures.Count > 0 ? Pictures[0] : null;
}

/// <summary>How picture and sound are put into a file. Nothing of it is encoded.</summary>
/// <param name="Container">What the file is.</param>
/// <param name="CaptionTracks">How many tracks of captions stand in it, or beside the pieces in their folder.</param>
/// <param name="Chapters">Whether the sections stand in it as chapters.</param>
/// <param name="IndexAtFront">Whether its index stands at the front.</param>
/// <param name="Bytes">The size that it must not pass, in bytes; null for none.</param>
public sealed record FilePlan(Container Container, int CaptionTracks, bool Chapters, bool IndexAtFront, long? Bytes);

/// <summary>How one recording's picture is brought onto the canvas.</summary>
/// <param name="Recording">Which recording of the reel it is, from 0.</param>
/// <param name="Kept">What is kept of it, in its own frames on the lesson's grid; each with the lesson's frame that it becomes.</param>
/// <param name="SquarePixels">Whether its pixels are square; where not, they are made so.</param>
/// <param name="Placement">Where it stands on the canvas.</param>
/// <param name="Moves">How what is seen of it goes from part to part; empty where all of it is seen all the time.</param>
/// <param name="Colour">The conversion to BT.709 limited range, or null where it is that already.</param>
/// <param name="Prepared">What is done to its picture first; null for nothing.</param>
public sealed record PartPlan(
    int Recording,
    IReadOnlyList<KeptStretch> Kept,
    bool SquarePixels,
    CanvasPlacement Placement,
    IReadOnlyList<ViewMove> Moves,
    ColourConversion? Colour,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] PicturePreparation? Prepared = null
)
{
    /// <summary>Which frame of the lesson a frame of the recording becomes; null where it is not kept.</summary>
    public long? Lesson(long recorded) =>
        Kept.Where(k => recorded >= k.First && recorded < k.End).Select(k => (long?)(k.At + recorded - k.First)).FirstOrDefault();
}

/// <summary>One picture that is made: what is encoded into one track.</summary>
/// <param name="Parts">What is made of each recording of which anything is kept, in order; one or more.</param>
/// <param name="Size">The size that is made; both sides even, pixels square.</param>
/// <param name="Mark">The house's mark on it, or null.</param>
/// <param name="Captions">The captions that are part of it, as <see cref="Captions.BurntCaptions"/> writes them; null for none.</param>
/// <param name="Timing">When frames are made.</param>
/// <param name="Coding">How it is coded.</param>
/// <param name="Rate">What the encoder holds to.</param>
/// <param name="Effort">How much time the encoder takes.</param>
/// <param name="Copy">How it is copied where it is; null where all of it is encoded.</param>
/// <param name="Cameras">The cameras over it; null for none.</param>
public sealed record PicturePlan(
    IReadOnlyList<PartPlan> Parts,
    PictureSize Size,
    MarkPlan? Mark,
    string? Captions,
    FrameTiming Timing,
    CodingPlan Coding,
    RatePlan Rate,
    Effort Effort,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] CopyPlan? Copy = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<CameraPlan>? Cameras = null
)
{
    /// <summary>The frames in which a camera is seen, in order and apart.</summary>
    [JsonIgnore]
    public IReadOnlyList<FrameRun> CameraSeen => FrameRun.Union((Cameras ?? []).SelectMany(c => c.Views).SelectMany(v => v.Places).Select(p => p.Run));

    /// <summary>Why it is not copied, to stand behind "since"; null where it is. Nothing that is made depends on it.</summary>
    [JsonIgnore]
    public string? EncodedSince { get; init; }

    /// <summary>Which recording's frame a frame of the lesson is.</summary>
    /// <param name="frame">The lesson's frame, on the grid.</param>
    /// <exception cref="ArgumentOutOfRangeException">The lesson has no such frame.</exception>
    public (PartPlan Part, long Frame) Recorded(long frame)
    {
        foreach (var part in Parts)
        {
            foreach (var kept in part.Kept.Where(k => frame >= k.At && frame < k.At + k.Count))
                return (part, kept.First + frame - kept.At);
        }

        throw new ArgumentOutOfRangeException(nameof(frame), "The lesson has no such frame.");
    }
}

/// <summary>How a picture is coded.</summary>
/// <param name="Codec">The codec.</param>
/// <param name="H264">What H.264 needs besides, or null with another codec.</param>
public sealed record CodingPlan(PictureCodec Codec, H264Plan? H264);

/// <summary>What an H.264 stream declares and must then keep (ITU-T H.264, Annex A).</summary>
/// <param name="Profile">The profile.</param>
/// <param name="Level">The level's number, 31 for 3.1.</param>
/// <param name="ReferenceFrames">Frames that the encoder may refer to.</param>
/// <param name="MaxBitsPerSecond">The rate that must not be passed, in bits a second.</param>
/// <param name="BufferBits">The decoder's buffer, in bits.</param>
public sealed record H264Plan(H264Profile Profile, int Level, int ReferenceFrames, long MaxBitsPerSecond, long BufferBits);

/// <summary>What the encoder holds to.</summary>
/// <param name="Rule">The rule.</param>
/// <param name="Quality">The quality, with <see cref="RateRule.Quality"/>.</param>
/// <param name="BitsPerSecond">The rate that is aimed at, in bits a second; with <see cref="RateRule.Quality"/> the one that is not passed, or 0.</param>
/// <param name="Passes">How often the picture is encoded, 1 or 2.</param>
public sealed record RatePlan(RateRule Rule, int Quality, long BitsPerSecond, int Passes);

/// <summary>A camera over the picture.</summary>
/// <param name="Recording">The hash of its recording.</param>
/// <param name="Clock">How its time goes along that of the screen's recording.</param>
/// <param name="Kept">The frames in which it is seen: those of the screen's recording, on the lesson's grid, each with the lesson's that it becomes.</param>
/// <param name="Recorded">The size of its picture as it is shown.</param>
/// <param name="Rate">How many frames it has a second, for the estimate; nothing that is made depends on it.</param>
/// <param name="SquarePixels">Whether its pixels are square; where not, they are made so.</param>
/// <param name="Colour">The conversion to BT.709 limited range, or null where it is that already.</param>
/// <param name="Views">How it is seen: a view for each size.</param>
/// <param name="Prepared">What is done to its picture first; null for nothing.</param>
public sealed record CameraPlan(
    string Recording,
    CameraClock Clock,
    IReadOnlyList<KeptStretch> Kept,
    PictureSize Recorded,
    FrameRate Rate,
    bool SquarePixels,
    ColourConversion? Colour,
    IReadOnlyList<CameraView> Views,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] PicturePreparation? Prepared = null
)
{
    /// <summary>The same camera in some of the lesson's frames alone; null where it is not seen in them.</summary>
    /// <param name="run">The frames.</param>
    public CameraPlan? Within(FrameRun run)
    {
        List<KeptStretch> kept = [.. run.Within(Kept)];
        return kept.Count == 0
            ? null
            : this with
            {
                Kept = kept,
                Views =
                [
                    .. Views
                        .Select(v => v with { Places = [.. v.Places.Select(p => p with { Run = p.Run.And(run) }).Where(p => p.Run.Count > 0)] })
                        .Where(v => v.Places.Count > 0),
                ],
            };
    }
}

/// <summary>One size in which a camera is seen.</summary>
/// <param name="From">The part of it that is seen, in its pixels; sides and corner even.</param>
/// <param name="Size">How large it is on the picture that is made; both sides even.</param>
/// <param name="Radius">How round its corners are, in pixels of the picture that is made; 0 for square ones.</param>
/// <param name="Places">Where it stands, and when; in order and apart.</param>
public sealed record CameraView(PictureRect From, PictureSize Size, int Radius, IReadOnlyList<CameraPlace> Places);

/// <summary>Where a camera stands for a while.</summary>
/// <param name="Run">The lesson's frames.</param>
/// <param name="X">Pixels from the left.</param>
/// <param name="Y">Pixels from the top.</param>
public sealed record CameraPlace(FrameRun Run, int X, int Y);

/// <summary>The house's mark as it stands on a picture.</summary>
/// <param name="Key">The key of its file.</param>
/// <param name="Box">Where it stands on the picture that is made.</param>
/// <param name="Opacity">How much of it covers the picture, over 0 to 1.</param>
public sealed record MarkPlan(string Key, PictureRect Box, double Opacity);

/// <summary>
/// When frames are made. Frames lie on a grid of constant rate; as drawn, one that repeats the frame before is not made, but for the key
/// frames of which it is known before, the last frame, and one at least every second.
/// </summary>
/// <param name="Grid">The grid's rate.</param>
/// <param name="MostRepeatsLeftOut">How many grid frames in a row may be left out; none where the rate is to be constant.</param>
/// <param name="KeyFrameEvery">A key frame stands at every grid frame whose number is a multiple of this; null where they come by what happens: at
/// <see cref="MostCodedFrames"/> coded frames, and at <see cref="FurthestKeyFrame"/>.</param>
/// <param name="SectionFrames">Grid frames at which sections start, in order: key frames too.</param>
/// <param name="LastFrame">The number of the last grid frame, which is always made.</param>
/// <param name="Moving">Stretches of grid frames in which what is seen moves, in order and apart; each of their frames is made.</param>
/// <param name="Changing">Grid frames at which captions in the picture come or go, or a camera is gone, in order; they are made.</param>
/// <param name="Constant">The rate that is made of the grid's, where it is another one; null for the grid's own.</param>
/// <param name="InPieces">Whether it is cut into pieces: then there are no key frames but those, so that they stand at the same frames in every size,
/// and frames are coded in the order in which they are shown, so that a piece begins at the time that it says.</param>
public sealed record FrameTiming(
    FrameRate Grid,
    int MostRepeatsLeftOut,
    int? KeyFrameEvery,
    IReadOnlyList<long> SectionFrames,
    long LastFrame,
    IReadOnlyList<FrameRun> Moving,
    IReadOnlyList<long> Changing,
    FrameRate? Constant,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool InPieces = false
)
{
    /// <summary>The rate of the frames that are made, or of the grid on which they lie.</summary>
    [JsonIgnore]
    public FrameRate Made => Constant ?? Grid;

    /// <summary>What a jump costs is the coded frames from the key frame on, not the seconds: at most so many of them are decoded before the picture
    /// is there.</summary>
    public const int MostCodedFrames = 300;

    /// <summary>After so many an encoder sets one: jumping is then about as quick as in a file that its encoder coded at a constant rate.</summary>
    public const int CodedFramesApart = 165;

    /// <summary>However little happens, a key frame stands after so long.</summary>
    public static readonly TimeSpan FurthestKeyFrame = TimeSpan.FromSeconds(60);

    /// <summary>How far key frames are apart at most.</summary>
    [JsonIgnore]
    public TimeSpan KeyFrameDistance => KeyFrameEvery is { } every ? Grid.TimeOf(every) : FurthestKeyFrame;

    /// <summary>How many coded frames there are at most from one key frame up to the next.</summary>
    [JsonIgnore]
    public int MostBetweenKeyFrames => Between(MostCodedFrames);

    /// <summary>After how many coded frames from a key frame on the encoder sets the next.</summary>
    [JsonIgnore]
    public int BetweenKeyFrames => Between(CodedFramesApart);

    /// <summary>The grid frames of which it is known before that they are key frames, in order. Where those come by what happens, the encoder sets
    /// more.</summary>
    public IEnumerable<long> KeyFrames()
    {
        var regular = KeyFrameEvery is { } every ? Enumerable.Range(0, (int)(LastFrame / every) + 1).Select(n => (long)n * every) : [0];
        return regular.Concat(SectionFrames).Distinct().Order();
    }

    /// <summary>How many key frames there will be.</summary>
    /// <param name="coded">How many frames are coded besides those of which it is known before.</param>
    public double ExpectedKeyFrames(double coded)
    {
        var known = KeyFrames().ToList();
        var perFrame = coded / (LastFrame + 1);
        return known.Count
            + known
                .Zip(known.Skip(1).Append(LastFrame + 1), (from, to) =>
                    Math.Floor(Math.Max(Grid.TimeOf(to - from) / KeyFrameDistance, (to - from) * perFrame / BetweenKeyFrames) - 1e-6)
                )
                .Sum();
    }

    private int Between(int coded)
    {
        var every = KeyFrameEvery is null ? coded : (int)Math.Ceiling((KeyFrameDistance.TotalSeconds * Made.PerSecond) - 0.001);
        return InPieces ? every : Math.Min(every, coded);
    }
}

/// <summary>Frames in a row.</summary>
/// <param name="First">The number of the first.</param>
/// <param name="Count">How many; 1 or more.</param>
public readonly record struct FrameRun(long First, long Count)
{
    /// <summary>Whether a frame is one of them.</summary>
    public bool Holds(long frame) => frame >= First && frame < First + Count;

    /// <summary>The frame after its last.</summary>
    [JsonIgnore]
    public long End => First + Count;

    /// <summary>The frames of both; none where they have none in common.</summary>
    public FrameRun And(FrameRun other) => new(Math.Max(First, other.First), Math.Max(0, Math.Min(End, other.End) - Math.Max(First, other.First)));

    /// <summary>What of frames that are kept becomes these frames of the lesson.</summary>
    /// <param name="kept">What is kept, in order.</param>
    public IEnumerable<KeptStretch> Within(IReadOnlyList<KeptStretch> kept)
    {
        var run = this;
        return kept.Select(k => (Kept: k, Both: new FrameRun(k.At, k.Count).And(run)))
            .Where(k => k.Both.Count > 0)
            .Select(k => new KeptStretch(k.Kept.First + k.Both.First - k.Kept.At, k.Both.Count, k.Both.First));
    }

    /// <summary>The same frames with runs that overlap or touch joined, in order.</summary>
    public static IReadOnlyList<FrameRun> Union(IEnumerable<FrameRun> runs)
    {
        var joined = new List<FrameRun>();
        foreach (var run in runs.Where(r => r.Count > 0).OrderBy(r => r.First))
        {
            if (joined.Count > 0 && run.First <= joined[^1].End)
                joined[^1] = joined[^1] with { Count = Math.Max(joined[^1].End, run.End) - joined[^1].First };
            else
                joined.Add(run);
        }

        return joined;
    }
}

/// <summary>A conversion of colours to BT.709 in limited range.</summary>
/// <param name="FromMatrix">The source's matrix in ffmpeg's naming, or null for red, green and blue.</param>
/// <param name="FromFullRange">Whether the source uses 0–255.</param>
public sealed record ColourConversion(string? FromMatrix, bool FromFullRange);

/// <summary>How the source's channels become the rendition's.</summary>
public enum SoundMix
{
    /// <summary>One channel stays one channel.</summary>
    Mono,

    /// <summary>Two sides that are the same become one channel.</summary>
    MonoFromBoth,

    /// <summary>The left side alone carries sound and becomes one channel.</summary>
    MonoFromLeft,

    /// <summary>The right side alone carries sound and becomes one channel.</summary>
    MonoFromRight,

    /// <summary>Two channels stay two channels.</summary>
    Stereo,

    /// <summary>More channels become one, by way of two.</summary>
    MonoFromSurround,

    /// <summary>More channels become two, by the coefficients of ITU-R BS.775-3, Annex 4, Table 2.</summary>
    StereoFromSurround,
}

/// <summary>What is done with the sound.</summary>
/// <param name="Mixes">For each recording of the reel how its channels are brought together; null where it has no sound, which is silence.</param>
/// <param name="Channels">How many channels are made, 1 or 2; what has one is heard from both sides of two.</param>
/// <param name="Codec">How it is coded.</param>
/// <param name="SampleRate">Samples a second.</param>
/// <param name="BitsPerSecond">The rate, in bits a second, for all channels.</param>
/// <param name="TargetLufs">The loudness that it is brought to, in LUFS, see <see cref="Levelling"/>; null where it stays as it is.</param>
/// <param name="Copy">What is copied of the recording's sound where it is; null where it is encoded.</param>
/// <param name="Tracks">For each recording of the reel which of its sound tracks are used, from 0; null where that is the first of each.</param>
/// <param name="Under">What is mixed with it; null for nothing.</param>
public sealed record SoundPlan(
    IReadOnlyList<SoundMix?> Mixes,
    int Channels,
    SoundCodec Codec,
    int SampleRate,
    int BitsPerSecond,
    double? TargetLufs,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] TimeRange? Copy = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<IReadOnlyList<int>>? Tracks = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] UnderPlan? Under = null
)
{
    /// <summary>Why it is not copied, to stand behind "since"; null where it is. Nothing that is made depends on it.</summary>
    [JsonIgnore]
    public string? EncodedSince { get; init; }

    /// <summary>Which sound tracks of a recording are used, from 0.</summary>
    /// <param name="recording">Its place in the reel; it has sound.</param>
    public IReadOnlyList<int> TracksOf(int recording) => Tracks is null ? [0] : Tracks[recording];
}
