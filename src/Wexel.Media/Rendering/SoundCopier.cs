using System.Globalization;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>
/// Makes a sound by copying the recording's coded one. What is coded just before its first sample is copied too, since decoding must begin
/// there, and passed over by an edit list; of the last coded piece, only what is kept counts.
/// </summary>
internal static class SoundCopier
{
    /// <summary>Copies.</summary>
    /// <param name="sound">The sound; its plan says what is copied.</param>
    /// <param name="recording">The recording.</param>
    /// <param name="path">Where the MP4 goes.</param>
    /// <param name="started">Told the number of the process.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The sound could not be read or written.</exception>
    internal static Task CopyAsync(SoundOutput sound, string recording, string path, Action<int>? started, CancellationToken cancel)
    {
        var copy = sound.Plan.Copy!.Value;
        var length = Seconds(copy.Length);
        return MediaTool.RunAsync(
            [
                "-vn",
                "-ss",
                Seconds(copy.Start),
                "-t",
                length,
                .. MediaTool.SafeInput(recording),
                "-map",
                string.Create(CultureInfo.InvariantCulture, $"0:a:{sound.Plan.TracksOf(0)[0]}"),
                "-c:a",
                "copy",
                "-bsf:a",
                $"setts=duration='if(gt((PTS+DURATION)*TB,{length}),{length}/TB-PTS,DURATION)'",
                "-map_metadata",
                "-1",
                "-map_chapters",
                "-1",
                "-f",
                "mp4",
                "file:" + path,
            ],
            null,
            started,
            cancel
        );
    }

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture);
}
