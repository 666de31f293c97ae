using System.Globalization;
using Wexel.Core.Encoding;
using Wexel.Core.Streaming;
using Wexel.Media.Containers;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Cuts encodes into pieces with playlists (RFC 8216). Nothing is encoded.</summary>
public static class HlsFolder
{
    /// <summary>The name of the master playlist in the folder.</summary>
    internal const string Master = "lesson.m3u8";

    /// <summary>The name of the sound's playlist, without its ending.</summary>
    internal const string Sound = "sound";

    private const string Captions = "captions";

    /// <summary>Makes the folder.</summary>
    /// <param name="plan">The plan by which the pictures were encoded.</param>
    /// <param name="inputs">What is cut into pieces.</param>
    /// <param name="folder">Where it goes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">An encode cannot be read.</exception>
    internal static Task MakeAsync(RenderPlan plan, MuxInputs inputs, string folder, CancellationToken cancel) => WholeFolder.MakeAsync(folder, async making =>
        {
            var pictures = new List<HlsPicture>();
            foreach (var (picture, path) in plan.Pictures.Zip(inputs.Pictures))
                pictures.Add(new HlsPicture(await PiecesAsync(path, making, Name(picture), cancel), picture.Size, picture.Timing.Made));
            var sound = inputs.Sound is { } encoded ? new HlsSound(await PiecesAsync(encoded, making, Sound, cancel), plan.Sound!.Channels) : null;
            var captions = new List<HlsCaptions>();
            foreach (var inside in inputs.Captions)
            {
                var (name, text) = ($"{Captions}-{inside.Name}", HlsPlaylists.CaptionSegment(inside.WebVtt));
                await File.WriteAllTextAsync(Path.Combine(making, name + ".vtt"), text, cancel);
                var track = new HlsCaptions(
                    inputs.Captions.Count == 1 ? "Captions" : $"Captions ({inside.Name})",
                    name + ".m3u8",
                    name + ".vtt",
                    inside.Language,
                    System.Text.Encoding.UTF8.GetByteCount(text)
                );
                await File.WriteAllTextAsync(Path.Combine(making, track.Playlist), HlsPlaylists.Captions(track, plan.Length), cancel);
                captions.Add(track);
            }

            var stream = new HlsLesson(plan.Length, pictures, sound, captions);
            foreach (var track in pictures.Select(p => p.Track).Append(sound?.Track).OfType<HlsTrack>())
                await File.WriteAllTextAsync(Path.Combine(making, track.Playlist), HlsPlaylists.Media(track, stream.TargetSeconds), cancel);
            await File.WriteAllTextAsync(Path.Combine(making, Master), HlsPlaylists.Master(stream), cancel);
        });

    /// <summary>All files of a folder, as paths relative to it with slashes, in order of their names.</summary>
    internal static IReadOnlyList<string> Files(string folder) =>
        [
            .. Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                .Select(file => Path.GetRelativePath(folder, file).Replace(Path.DirectorySeparatorChar, '/'))
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>The media type of one of its files.</summary>
    public static string MediaType(string file) =>
        Path.GetExtension(file) switch
        {
            ".m3u8" => HlsPlaylists.MediaType,
            ".vtt" => "text/vtt",
            _ => "video/mp4",
        };

    /// <summary>The name of a picture's playlist, without its ending.</summary>
    internal static string Name(PicturePlan picture) => picture.Size.Height.ToString(CultureInfo.InvariantCulture);

    /// <summary>Where the header of a track's pieces lies.</summary>
    internal static string Map(string name) => name + "/init.mp4";

    /// <summary>One encode as pieces: an MP4 with a fragment from each key frame to the next, taken apart at its fragments.</summary>
    private static async Task<HlsTrack> PiecesAsync(string encode, string folder, string name, CancellationToken cancel)
    {
        var whole = Path.Combine(folder, name + ".mp4");
        var pieces = Directory.CreateDirectory(Path.Combine(folder, name)).FullName;
        var microseconds = ((long)RenderPlanner.UsualPiece.TotalMicroseconds).ToString(CultureInfo.InvariantCulture);
        // The header comes after the first fragment is known, so that it can say in an edit list where picture and sound begin.
        string[] sound = name == Sound ? ["-frag_duration", microseconds] : [];
        await MediaTool.RunAsync(
            [
                "-xerror",
                .. MediaTool.OwnInput(encode),
                "-map",
                "0",
                "-c",
                "copy",
                "-movflags",
                "+frag_keyframe+delay_moov+default_base_moof+global_sidx",
                .. sound,
                "-f",
                "mp4",
                "file:" + whole,
            ],
            null,
            null,
            cancel
        );
        var segments = new List<HlsSegment>();
        string codecs;
        await using (var file = File.OpenRead(whole))
        {
            var (header, fragments) = Mp4Fragments.Read(file);
            codecs = Mp4Codecs.Read(file);
            await CopyAsync(file, 0, header, Path.Combine(folder, Map(name)), cancel);
            foreach (var fragment in fragments)
            {
                var piece = string.Create(CultureInfo.InvariantCulture, $"{segments.Count + 1:0000}.m4s");
                await CopyAsync(file, fragment.Start, fragment.Bytes, Path.Combine(pieces, piece), cancel);
                segments.Add(new HlsSegment($"{name}/{piece}", fragment.Duration, fragment.Bytes));
            }
        }

        File.Delete(whole);
        return new HlsTrack(name + ".m3u8", Map(name), codecs, segments);
    }

    private static async Task CopyAsync(FileStream from, long start, long bytes, string to, CancellationToken cancel)
    {
        from.Position = start;
        var piece = new byte[bytes];
        await from.ReadExactlyAsync(piece, cancel);
        await File.WriteAllBytesAsync(to, piece, cancel);
    }
}
