using System.Collections.Frozen;
using Wexel.Core.Streaming;

namespace Wexel.Core.Encoding;

/// <summary>What a container can hold, and how a file of it is called.</summary>
/// <param name="Name">For people.</param>
/// <param name="Ending">What its name ends in, with the dot.</param>
/// <param name="MediaType">Its media type.</param>
/// <param name="PictureCodecs">What it holds as picture, the usual first; none where it holds sound alone.</param>
/// <param name="SoundCodecs">What it holds as sound, the usual first.</param>
/// <param name="CaptionsInside">Whether it holds a track of captions.</param>
/// <param name="IsFolder">Whether it is a folder of files, of which the one with this ending is linked.</param>
public sealed record ContainerFacts(
    string Name,
    string Ending,
    string MediaType,
    IReadOnlyList<PictureCodec> PictureCodecs,
    IReadOnlyList<SoundCodec> SoundCodecs,
    bool CaptionsInside,
    bool IsFolder = false
)
{
    private static readonly FrozenDictionary<Container, ContainerFacts> All = new Dictionary<Container, ContainerFacts>
    {
        [Container.Mp4] = new("MP4", ".mp4", "video/mp4", [PictureCodec.H264, PictureCodec.Av1, PictureCodec.Vp9], [SoundCodec.Aac, SoundCodec.Opus], true),
        [Container.M4v] = new("M4V", ".m4v", "video/x-m4v", [PictureCodec.H264], [SoundCodec.Aac], true),
        [Container.Mov] = new("MOV", ".mov", "video/quicktime", [PictureCodec.H264], [SoundCodec.Aac], true),
        [Container.Webm] = new("WebM", ".webm", "video/webm", [PictureCodec.Av1, PictureCodec.Vp9], [SoundCodec.Opus], true),
        [Container.Hls] = new("HLS", ".m3u8", HlsPlaylists.MediaType, [PictureCodec.H264], [SoundCodec.Aac], true, IsFolder: true),
        [Container.M4a] = new("M4A", ".m4a", "audio/x-m4a", [], [SoundCodec.Aac], false),
        [Container.Mp3] = new("MP3", ".mp3", "audio/mpeg", [], [SoundCodec.Mp3], false),
        [Container.Opus] = new("Opus", ".opus", "audio/ogg", [], [SoundCodec.Opus], false),
    }.ToFrozenDictionary();

    /// <summary>Whether it holds sound alone.</summary>
    public bool SoundAlone => PictureCodecs.Count == 0;

    /// <summary>The facts of a container.</summary>
    public static ContainerFacts Of(Container container) => All[container];

    /// <summary>The facts of a container by what names of its files end in, with the dot.</summary>
    /// <exception cref="InvalidOperationException">No container has this ending.</exception>
    public static ContainerFacts ByEnding(string ending) => All.Values.First(f => f.Ending == ending);
}
