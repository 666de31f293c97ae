using Wexel.Core.Encoding;

namespace Wexel.Media.Rendering;

/// <summary>What encodes are made from.</summary>
/// <param name="Recordings">The paths of the reel's recordings.</param>
/// <param name="Marks">Where the marks lie that stand on pictures, by their keys; null where no plan has one.</param>
/// <param name="FontsFolder">The folder with the typeface of captions that are part of the picture; null where no plan has any.</param>
/// <param name="From">Where reading begins in a recording, by its place in the reel; null or not there for its start. The plan's frames count from
/// there.</param>
/// <param name="Needed">How much is read of a recording, counted from its first picture that comes from there; null or not there for all of it.</param>
/// <param name="Cameras">Where the cameras' recordings lie, by their hashes; null for none.</param>
/// <param name="Sounds">Where the sounds lie that are mixed with the voice, by their keys; null for none.</param>
public sealed record EncodeInputs(
    IReadOnlyList<string> Recordings,
    IReadOnlyDictionary<string, string>? Marks = null,
    string? FontsFolder = null,
    IReadOnlyDictionary<int, TimeSpan>? From = null,
    IReadOnlyDictionary<int, TimeSpan>? Needed = null,
    IReadOnlyDictionary<string, string>? Sounds = null,
    IReadOnlyDictionary<string, string>? Cameras = null
);

/// <summary>A picture that is encoded into a file of its own.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Path">Where the MP4 goes.</param>
/// <param name="Limit">The size that it must not pass together with its sound; null for none.</param>
public sealed record PictureOutput(PicturePlan Plan, string Path, FileLimit? Limit = null);

/// <summary>A size that a picture and its sound must not pass together.</summary>
/// <param name="Bytes">The size of the whole file.</param>
/// <param name="SoundPath">The sound that goes with the picture, or null.</param>
public sealed record FileLimit(long Bytes, string? SoundPath);

/// <summary>A sound that is encoded or copied into a file of its own.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Ready">Makes the sound ready to be encoded, while the pictures are encoded; null where it is copied from the recording.</param>
/// <param name="Path">Where the file goes: MP4, or MP3 with that codec.</param>
public sealed record SoundOutput(SoundPlan Plan, Func<CancellationToken, Task<LessonSound>>? Ready, string Path)
{
    /// <summary>The name of the file that a sound is encoded into: its ending says what it is.</summary>
    public static string FileName(SoundPlan plan) => plan.Codec == SoundCodec.Mp3 ? "sound.mp3" : "sound.m4a";
}

/// <summary>What is encoded in one pass over the recordings.</summary>
/// <param name="Inputs">What it is made from.</param>
/// <param name="Pictures">The pictures; all are of the same recordings with the same cuts.</param>
/// <param name="Sounds">The sounds.</param>
/// <param name="Threads">How many threads each encoder may take; 0 for as many as it likes.</param>
/// <param name="ParameterSets">The number of H.264's parameter sets: another than those of a stream that its frames stand between.</param>
public sealed record EncodeWork(
    EncodeInputs Inputs,
    IReadOnlyList<PictureOutput> Pictures,
    IReadOnlyList<SoundOutput> Sounds,
    int Threads = 0,
    int ParameterSets = 0
);
