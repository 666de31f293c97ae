using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core;
using Wexel.Core.Cameras;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>A recording that is listened to.</summary>
/// <param name="Path">The recording.</param>
/// <param name="Facts">What a probe found of it.</param>
public sealed record Listened(string Path, RecordingFacts Facts);

/// <summary>Listens to a screen's recording and a camera's, and finds how they lie along each other; see <see cref="SoundAlignment"/>.</summary>
public static class CameraAligner
{
    private const int Block = 1 << 16;

    /// <summary>Listens to both.</summary>
    /// <param name="screen">The screen's recording.</param>
    /// <param name="camera">The camera's.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>What was found, or why nothing was.</returns>
    /// <exception cref="ToolFailedException">A recording cannot be read.</exception>
    public static async Task<Result<FoundClock>> FindAsync(Listened screen, Listened camera, CancellationToken cancel)
    {
        if (screen.Facts.Sounds.Count == 0 || camera.Facts.Sounds.Count == 0)
            return new Problem(
                "camera-no-sound",
                $"The {(screen.Facts.Sounds.Count == 0 ? "screen’s" : "camera’s")} recording has no sound by which it could be found when the camera "
                    + "starts. Set it by hand.",
                "camera"
            );
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        Task<SoundOnsets>[] listening = [OnsetsAsync(screen, stop.Token), OnsetsAsync(camera, stop.Token)];
        try
        {
            await foreach (var one in Task.WhenEach(listening))
                await one;
        }
        catch
        {
            await stop.CancelAsync();
            await ((Task)Task.WhenAll(listening)).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
            throw;
        }

        var (along, other) = (await listening[0], await listening[1]);
        if (SoundAlignment.Roughly(along, other) is not { } rough)
            return SoundAlignment.NoMatch;
        var lags = new List<SoundLag>();
        foreach (var at in SoundAlignment.Places(rough, along, other))
        {
            var one = await PieceAsync(screen, at, cancel);
            var there = await PieceAsync(camera, rough.Clock.ToCamera(at), cancel);
            if (SoundAlignment.Late(one, there) is { } late)
                lags.Add(new SoundLag(at, late));
        }

        return SoundAlignment.Exactly(rough, lags);
    }

    private static async Task<SoundOnsets> OnsetsAsync(Listened recording, CancellationToken cancel)
    {
        var onsets = new SoundOnsets();
        await ReadAsync([.. MediaTool.SafeInput(recording.Path)], recording.Facts, onsets.Take, cancel);
        return onsets;
    }

    private static async Task<float[]> PieceAsync(Listened recording, TimeSpan at, CancellationToken cancel)
    {
        var piece = new List<float>();
        await ReadAsync(
            ["-ss", Seconds(at), "-t", Seconds(SoundAlignment.Closely), .. MediaTool.SafeInput(recording.Path)],
            recording.Facts,
            samples => piece.AddRange(samples),
            cancel
        );
        return [.. piece];
    }

    private delegate void Taking(ReadOnlySpan<float> samples);

    private static Task<IReadOnlyCollection<string>> ReadAsync(IReadOnlyList<string> input, RecordingFacts facts, Taking take, CancellationToken cancel) =>
        MediaTool.StreamAsync(
            [
                .. input,
                .. SoundInput.Print(facts.Used, string.Create(CultureInfo.InvariantCulture, $"aresample={SoundOnsets.Rate}:async=1:first_pts=0")),
                "-ac",
                "1",
                "-f",
                "f32le",
                "pipe:1",
            ],
            async (stream, token) =>
            {
                var block = new byte[Block];
                int read;
                while ((read = await stream.ReadAtLeastAsync(block, block.Length, throwOnEndOfStream: false, token)) > 0)
                    take(MemoryMarshal.Cast<byte, float>(block.AsSpan(0, read / sizeof(float) * sizeof(float))));
            },
            cancel
        );

    private static string Seconds(TimeSpan time) => time.TotalSeconds.ToString("0.######", CultureInfo.InvariantCulture);
}
