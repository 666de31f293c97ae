using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Makes a copy for the trainer's own page where the browser cannot play the recording.</summary>
public static class ViewingCopy
{
    /// <summary>At most 720 lines, made quickly, with a key frame each second so that seeking is quick. Never delivered.</summary>
    /// <exception cref="ToolFailedException">The recording could not be read to its end.</exception>
    public static Task MakeAsync(
        RecordingFacts facts,
        string inputPath,
        string outputPath,
        IProgress<TimeSpan>? progress,
        Action<int>? started,
        CancellationToken cancel
    )
    {
        List<string> sound =
            facts.Sounds.Count == 0
                ? []
                : [.. SoundInput.Print(facts.Used, "aresample=48000:async=1:first_pts=0").Where(a => a != "-vn"), "-c:a", "aac", "-b:a", "96k", "-ac", "2"];
        return WholeFile.MakeAsync(outputPath, temporary =>
            MediaTool.RunAsync(
                [
                    .. MediaTool.SafeInput(inputPath),
                    "-map",
                    "0:V:0",
                    "-vf",
                    PreparingFilters.Print(facts.Picture?.Preparation)
                        + "fps=30:start_time=0,scale=w='trunc(iw*sar*min(1,720/ih)/2)*2':h='trunc(ih*min(1,720/ih)/2)*2',setsar=1,format=yuv420p",
                    "-c:v",
                    "libx264",
                    "-preset",
                    "ultrafast",
                    "-crf",
                    "23",
                    "-g",
                    "30",
                    .. sound,
                    "-sn",
                    "-dn",
                    "-map_metadata",
                    "-1",
                    "-movflags",
                    "+faststart",
                    "-f",
                    "mp4",
                    "file:" + temporary,
                ],
                progress,
                started,
                cancel
            )
        );
    }
}
