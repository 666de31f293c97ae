using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Goes over a sound once and listens to it.</summary>
public static class SoundAnalyser
{
    private const int Block = 16_384;

    /// <summary>Listens to the first sound track of a file.</summary>
    /// <inheritdoc cref="AnalyseAsync(IEnumerable{string}, IReadOnlyList{int}, int, string?, CancellationToken)"/>
    public static Task<(SoundHeard Heard, IReadOnlyList<string> Said)> AnalyseAsync(
        IEnumerable<string> input,
        int channels,
        string? filters,
        CancellationToken cancel
    ) => AnalyseAsync(input, [0], channels, filters, cancel);

    /// <summary>Listens to sound tracks of a file, together.</summary>
    /// <param name="input">The file, as an input of ffmpeg.</param>
    /// <param name="tracks">The tracks, from 0.</param>
    /// <param name="channels">To how many channels it is brought first: 1 or 2.</param>
    /// <param name="filters">What is done with the sound before, in ffmpeg's words; may be null.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What was heard, and all that the decoder and the filters reported.</returns>
    /// <exception cref="ToolFailedException">The sound could not be read.</exception>
    public static async Task<(SoundHeard Heard, IReadOnlyList<string> Said)> AnalyseAsync(
        IEnumerable<string> input,
        IReadOnlyList<int> tracks,
        int channels,
        string? filters,
        CancellationToken cancel
    )
    {
        var listener = new SoundListener(channels);
        var said = await MediaTool.StreamReportAsync(
            [
                .. input,
                .. SoundInput.Print(
                    tracks,
                    string.Create(CultureInfo.InvariantCulture, $"{(filters is null ? "" : filters + ",")}aresample={LoudnessMeter.Rate}:async=1:first_pts=0")
                ),
                "-ac",
                channels.ToString(CultureInfo.InvariantCulture),
                "-f",
                "f32le",
                "pipe:1",
            ],
            async (stream, token) =>
            {
                var block = new byte[Block * channels * sizeof(float)];
                int read;
                while ((read = await stream.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, token)) > 0)
                    listener.Take(MemoryMarshal.Cast<byte, float>(block.AsSpan(0, read / (channels * sizeof(float)) * channels * sizeof(float))));
            },
            cancel,
            // Mostly the picture is gone through at the same time, and takes longer.
            aside: true
        );
        return (listener.Heard(), said);
    }
}
