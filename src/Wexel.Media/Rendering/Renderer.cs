using System.Globalization;
using System.Text;
using Wexel.Core.Contents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>What an encode is made from.</summary>
/// <param name="Recordings">The paths of the reel's recordings.</param>
/// <param name="Sound">The sound that was made ready before, or null where the plan has none.</param>
/// <param name="Mark">The path of the house's mark, or null where the plan has none.</param>
/// <param name="Moves">The path of the list that <see cref="MoveCommands"/> prints, or null where the plan does not move in; the renderer writes it.</param>
public sealed record EncodeInputs(IReadOnlyList<string> Recordings, LessonSound? Sound, string? Mark = null, string? Moves = null);

/// <summary>Makes renditions: an encode, which costs time, and a finish, which copies it with title and chapters.</summary>
public static class Renderer
{
    /// <summary>The maker's name and version for the encode's key.</summary>
    public const string EncodeMaker = "encode/5";

    /// <summary>The maker's name and version for the finished file's key.</summary>
    public const string FinishMaker = "finish/1";

    /// <summary>Encodes by a plan, with the sound that was made ready before; the file is whole or not there.</summary>
    /// <exception cref="ToolFailedException">The encoder ended with an error.</exception>
    public static Task EncodeAsync(RenderPlan plan, EncodeInputs inputs, string outputPath, IProgress<TimeSpan>? progress, Action<int>? started, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            var moves = temporary + ".moves.txt";
            try
            {
                if (plan.Parts.Any(part => part.Moves.Count > 0))
                    await File.WriteAllTextAsync(moves, MoveCommands.Of(plan), cancel);
                await MediaTool.RunAsync(EncodeArguments.Of(plan, inputs with { Moves = moves }, temporary), progress, started, cancel);
            }
            finally
            {
                File.Delete(moves);
            }
        });

    /// <summary>The maker's name and version for an episode's key.</summary>
    public const string EpisodeMaker = "episode/1";

    /// <summary>Copies an encode into the file that learners get: index at the front, title, the sections as chapters. Nothing is encoded.</summary>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public static Task FinishAsync(string encodePath, string outputPath, string title, IReadOnlyList<Chapter> chapters, CancellationToken cancel) =>
        CopyAsync(encodePath, outputPath, title, chapters, ["-map", "0:v:0", "-map", "0:a?"], "mp4", cancel);

    /// <summary>Copies an encode into an episode: M4V with picture and sound, or M4A with sound alone and the artwork. Nothing is encoded.</summary>
    /// <exception cref="ToolFailedException">The muxer ended with an error.</exception>
    public static Task EpisodeAsync(string encodePath, string outputPath, string title, IReadOnlyList<Chapter> chapters, FeedMedia media, string artworkPath, CancellationToken cancel) =>
        CopyAsync(
            encodePath, outputPath, title, chapters,
            media == FeedMedia.Video
                ? ["-map", "0:v:0", "-map", "0:a?"]
                : [.. MediaTool.OwnInput(artworkPath), "-map", "0:a:0", "-map", "2:v:0", "-disposition:v:0", "attached_pic"],
            "ipod", cancel);

    private static Task CopyAsync(string encodePath, string outputPath, string title, IReadOnlyList<Chapter> chapters, IReadOnlyList<string> maps, string format, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, async temporary =>
        {
            var metadata = temporary + ".txt";
            try
            {
                await File.WriteAllTextAsync(metadata, Metadata(title, chapters), cancel);
                await MediaTool.RunAsync(
                    [
                        .. MediaTool.OwnInput(encodePath), "-f", "ffmetadata", .. MediaTool.OwnInput(metadata), .. maps,
                        "-map_metadata", "1", "-map_chapters", "1", "-c", "copy", "-movflags", "+faststart", "-f", format, "file:" + temporary,
                    ],
                    null, null, cancel);
            }
            finally
            {
                File.Delete(metadata);
            }
        });

    /// <summary>Takes one picture out of a file as JPEG, at a time.</summary>
    /// <exception cref="ToolFailedException">There is no picture at that time, or it cannot be read.</exception>
    public static Task PosterAsync(string encodePath, string outputPath, TimeSpan at, CancellationToken cancel) =>
        WholeFile.MakeAsync(outputPath, temporary => MediaTool.RunAsync(
            [
                "-ss", at.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture), .. MediaTool.OwnInput(encodePath),
                "-frames:v", "1", "-q:v", "3", "-f", "image2", "-update", "1", "file:" + temporary,
            ],
            null, null, cancel));

    private static string Metadata(string title, IReadOnlyList<Chapter> chapters)
    {
        var text = new StringBuilder(";FFMETADATA1\n").Append("title=").Append(Escape(title)).Append('\n');
        foreach (var chapter in chapters)
        {
            text.Append(CultureInfo.InvariantCulture, $"[CHAPTER]\nTIMEBASE=1/1000\nSTART={(long)chapter.Span.Start.TotalMilliseconds}\nEND={(long)chapter.Span.End.TotalMilliseconds}\n");
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
