using System.Diagnostics;
using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Probing;

namespace Wexel.Marking;

/// <summary>How near its moment a camera is laid over a screen, by ten clips that were cut out of one recording at known places.</summary>
internal static class CameraFigures
{
    private const int Clips = 10;
    private const string Room = "volume=0.3,highpass=f=250,aecho=0.8:0.6:23|47:0.3|0.2";

    /// <summary>Tells the largest and the mean error at the first and the last moment that both recorded.</summary>
    /// <param name="recording">A recording in which somebody speaks, of eight minutes or so.</param>
    /// <param name="folder">Where the clips go.</param>
    internal static async Task TellAsync(string recording, string folder)
    {
        var dice = new Random(1);
        var errors = new List<double>();
        var (taken, recorded) = (TimeSpan.Zero, TimeSpan.Zero);
        for (var i = 0; i < Clips; i++)
        {
            var (lasts, begins) = (40 + (dice.NextDouble() * 120), dice.NextDouble() * 200);
            var (later, drift) = ((dice.NextDouble() * 30) - 15, i % 2 == 0 ? 0 : (dice.NextDouble() * 2000) - 1000);
            var (from, filmed) = (Math.Max(0, begins), Math.Max(0, begins + later));
            var screen = await CutAsync(recording, Path.Combine(folder, $"screen-{i}.mp4"), from, lasts, "anull");
            var rate = string.Create(CultureInfo.InvariantCulture, $"aresample=48000,asetrate=48000/{1 + (drift / 1e6)},aresample=48000,{Room}");
            var camera = await CutAsync(recording, Path.Combine(folder, $"camera-{i}.mp4"), filmed, lasts, rate);
            var clock = Stopwatch.StartNew();
            var found = await CameraAligner.FindAsync(screen, camera, CancellationToken.None);
            (taken, recorded) = (taken + clock.Elapsed, recorded + TimeSpan.FromSeconds(2 * lasts));
            if (!found.Is(out var said, out var problem))
                throw new InvalidOperationException($"Clip {i}: {problem.Sentence}");
            foreach (var moment in new[] { Math.Max(from, filmed), Math.Min(from + lasts, filmed + (lasts / (1 + (drift / 1e6)))) })
            {
                var meant = (moment - filmed) * (1 + (drift / 1e6));
                errors.Add(Math.Abs(said.Clock.ToCamera(TimeSpan.FromSeconds(moment - from)).TotalSeconds - meant) * 1000);
            }
        }

        Console.WriteLine(
            string.Create(CultureInfo.InvariantCulture, $"A camera found by its sound: largest error over ten clips, ms|{errors.Max():0.0}|33.3")
        );
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"A camera found by its sound: mean error over ten clips, ms|{errors.Average():0.0}|"));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"Listening to both and finding it / how long both are|{taken / recorded:0.000}|0.1"));
    }

    private static async Task<Listened> CutAsync(string recording, string to, double from, double lasts, string heard)
    {
        using var made = Process.Start(
            new ProcessStartInfo("ffmpeg")
            {
                ArgumentList =
                {
                    "-nostdin",
                    "-v",
                    "error",
                    "-y",
                    "-ss",
                    from.ToString(CultureInfo.InvariantCulture),
                    "-i",
                    recording,
                    "-f",
                    "lavfi",
                    "-i",
                    "color=gray:s=64x64:r=5",
                    "-filter_complex",
                    $"[0:a:0]{heard}[said];anoisesrc=a=0.002:seed={lasts.ToString("0", CultureInfo.InvariantCulture)}[noise];[said][noise]amix=duration=first:normalize=0[out]",
                    "-map",
                    "1:v",
                    "-map",
                    "[out]",
                    "-t",
                    lasts.ToString(CultureInfo.InvariantCulture),
                    "-c:v",
                    "libx264",
                    "-c:a",
                    "aac",
                    to,
                },
            }
        )!;
        await made.WaitForExitAsync();
        var probed = await Prober.ProbeAsync(to, Path.GetFileName(to), CancellationToken.None);
        return new Listened(to, probed.Is(out RecordingFacts? facts, out var problem) ? facts : throw new InvalidOperationException(problem.Sentence));
    }
}
