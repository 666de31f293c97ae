using System.Globalization;
using System.Text;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Details;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Packages;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>What a finished file is made of.</summary>
/// <param name="Pictures">The encoded pictures, in the plan's order; none for sound alone.</param>
/// <param name="Sound">The encoded sound, or null.</param>
/// <param name="Captions">Captions of which each becomes a track inside.</param>
public sealed record MuxInputs(IReadOnlyList<string> Pictures, string? Sound, IReadOnlyList<CaptionsInside> Captions)
{
    /// <summary>The encoded picture, or the largest of several; null for sound alone.</summary>
    public string? Picture => Pictures.Count > 0 ? Pictures[0] : null;
}

/// <summary>Captions that become a track inside a file.</summary>
/// <param name="Name">What tells them from the other tracks: a part of a file's name.</param>
/// <param name="WebVtt">The captions in lesson time, as WebVTT.</param>
/// <param name="Language">As a BCP 47 tag.</param>
public sealed record CaptionsInside(string Name, string WebVtt, string Language);

/// <summary>Finishes renditions: what was encoded is copied into the file that learners get, with title and chapters. Nothing is encoded.</summary>
public static class Muxing
{
    /// <summary>How a finished file is called; of a folder of pieces, the playlist that is linked, in a folder of its own.</summary>
    public static string FileName(Container container) =>
        ContainerFacts.Of(container) is { IsFolder: true } ? LessonFiles.PiecesFolder + HlsFolder.Master : "lesson" + ContainerFacts.Of(container).Ending;

    /// <summary>All files of a finished folder of pieces, as paths relative to it with slashes, in order of their names; null where the file is a
    /// single one.</summary>
    /// <param name="container">What it is.</param>
    /// <param name="path">Where it lies.</param>
    public static IReadOnlyList<string>? Pieces(Container container, string path) =>
        ContainerFacts.Of(container).IsFolder ? HlsFolder.Files(Path.GetDirectoryName(path)!) : null;

    /// <summary>Puts encodes into one file: title, chapters, captions, the index where the plan wants it; or into a folder of pieces.</summary>
    /// <param name="plan">The plan by which they were encoded.</param>
    /// <param name="inputs">What was encoded.</param>
    /// <param name="outputPath">Where it goes; see <see cref="FileName"/>.</param>
    /// <param name="title">The lesson's title.</param>
    /// <param name="chapters">The lesson's chapters.</param>
    /// <param name="tags">What else it says about itself; null for nothing.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public static Task FinishAsync(
        RenderPlan plan,
        MuxInputs inputs,
        string outputPath,
        string title,
        IReadOnlyList<Chapter> chapters,
        FileTags? tags,
        CancellationToken cancel
    )
    {
        var inside = plan.File.Chapters ? chapters : [];
        return plan.File.Container switch
        {
            Container.Mp3 => Mp3File.FinishAsync(inputs.Sound!, outputPath, metadata => TagAsync(metadata, Metadata(title, inside, tags), cancel), cancel),
            Container.Hls => HlsFolder.MakeAsync(plan, inputs, Path.GetDirectoryName(outputPath)!, cancel),
            _ => MuxAsync(inputs, outputPath, Metadata(title, inside, tags), [], Format(plan.File), cancel),
        };
    }

    /// <summary>Copies encodes into an episode: M4V with picture and sound, or M4A with sound alone and the artwork.</summary>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public static Task EpisodeAsync(
        MuxInputs inputs,
        string outputPath,
        string title,
        IReadOnlyList<Chapter> chapters,
        FileTags? tags,
        FeedMedia media,
        string artworkPath,
        CancellationToken cancel
    ) =>
        media == FeedMedia.Video
            ? MuxAsync(inputs, outputPath, Metadata(title, chapters, tags), [], Ipod, cancel)
            : MuxAsync(inputs with { Pictures = [] }, outputPath, Metadata(title, chapters, tags), [artworkPath], Ipod, cancel);

    private static string[] Ipod => ["-movflags", "+faststart", "-f", "ipod"];

    private static string[] Format(FilePlan file) =>
        file.Container switch
        {
            Container.Webm => ["-cues_to_front", file.IndexAtFront ? "1" : "0", "-f", "webm"],
            Container.Opus => ["-f", "opus"],
            var container =>
            [
                .. file.IndexAtFront ? new[] { "-movflags", "+faststart" } : [],
                "-f",
                container switch
                {
                    Container.Mp4 => "mp4",
                    Container.Mov => "mov",
                    _ => "ipod",
                },
            ],
        };

    private static Task MuxAsync(
        MuxInputs inputs,
        string outputPath,
        string said,
        IReadOnlyList<string> artwork,
        IReadOnlyList<string> format,
        CancellationToken cancel
    ) => WholeFile.MakeAsync(outputPath, async temporary =>
        {
            var metadata = temporary + ".txt";
            var texts = inputs.Captions.Select((_, i) => $"{temporary}.{i}.vtt").ToList();
            try
            {
                await File.WriteAllTextAsync(metadata, said, cancel);
                List<string> arguments = ["-f", "ffmetadata", .. MediaTool.OwnInput(metadata)];
                var maps = new List<string>();
                var next = 1;
                void Take(string path, params ReadOnlySpan<string> stream)
                {
                    arguments.AddRange(MediaTool.OwnInput(path));
                    maps.AddRange(["-map", $"{next++}:{stream[0]}:0", .. stream[1..]]);
                }

                if (inputs.Picture is { } picture)
                    Take(picture, "v");
                if (inputs.Sound is { } sound)
                    Take(sound, "a");
                foreach (var (i, captions) in inputs.Captions.Index())
                {
                    await File.WriteAllTextAsync(texts[i], captions.WebVtt, cancel);
                    Take(
                        texts[i],
                        "s",
                        $"-c:s:{i}",
                        format.Contains("webm") ? "webvtt" : "mov_text",
                        $"-metadata:s:s:{i}",
                        $"language={LanguageCodes.ThreeLetters(captions.Language)}",
                        $"-disposition:s:{i}",
                        "0"
                    );
                }

                foreach (var cover in artwork)
                    Take(cover, "v", "-disposition:v:0", "attached_pic");
                await MediaTool.RunAsync(
                    ["-xerror", .. arguments, "-c", "copy", .. maps, "-map_metadata", "0", "-map_chapters", "0", .. format, "file:" + temporary],
                    null,
                    null,
                    cancel
                );
            }
            finally
            {
                File.Delete(metadata);
                texts.ForEach(File.Delete);
            }
        });

    /// <summary>An MP3 file that is nothing but its tag: title, and chapters as frames of it.</summary>
    private static async Task<byte[]> TagAsync(string temporary, string said, CancellationToken cancel)
    {
        var metadata = temporary + ".txt";
        try
        {
            await File.WriteAllTextAsync(metadata, said, cancel);
            await MediaTool.RunAsync(
                [
                    "-f",
                    "ffmetadata",
                    .. MediaTool.OwnInput(metadata),
                    "-f",
                    "lavfi",
                    "-t",
                    "0.1",
                    "-i",
                    "anullsrc=r=48000:cl=mono",
                    "-map",
                    "1:a",
                    "-c:a",
                    "libmp3lame",
                    "-map_metadata",
                    "0",
                    "-map_chapters",
                    "0",
                    "-id3v2_version",
                    "3",
                    "-write_xing",
                    "0",
                    "-f",
                    "mp3",
                    "file:" + temporary,
                ],
                null,
                null,
                cancel
            );
            return await File.ReadAllBytesAsync(temporary, cancel);
        }
        finally
        {
            File.Delete(metadata);
            File.Delete(temporary);
        }
    }

    /// <summary>What a file says about itself, as the muxer reads it; the names are those that it has for all containers.</summary>
    private static string Metadata(string title, IReadOnlyList<Chapter> chapters, FileTags? tags)
    {
        var text = new StringBuilder(";FFMETADATA1\n");
        void Say(string name, string? value)
        {
            if (value is { Length: > 0 })
                text.Append(name).Append('=').Append(Escape(value)).Append('\n');
        }

        Say("title", title);
        Say("artist", tags?.Author);
        Say("copyright", tags?.Rights);
        Say("genre", tags?.Category);
        Say("description", tags?.Description);
        Say("keywords", tags is null ? null : string.Join(", ", tags.Keywords));
        foreach (var chapter in chapters)
        {
            text.Append(
                CultureInfo.InvariantCulture,
                $"[CHAPTER]\nTIMEBASE=1/1000\nSTART={(long)chapter.Span.Start.TotalMilliseconds}\nEND={(long)chapter.Span.End.TotalMilliseconds}\n"
            );
            text.Append("title=").Append(Escape(chapter.Title)).Append('\n');
        }

        return text.ToString();
    }

    /// <summary>The format gives these a meaning; a backslash takes it away.</summary>
    private static string Escape(string text)
    {
        var escaped = new StringBuilder();
        foreach (var c in text)
        {
            if (c is '=' or ';' or '#' or '\\' or '\n')
                escaped.Append('\\');
            escaped.Append(c);
        }

        // The reader takes any backslash before the line's end for a continuation, even an escaped one.
        return text.EndsWith('\\') ? escaped.Append(' ').ToString() : escaped.ToString();
    }
}
