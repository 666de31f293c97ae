using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Goes over the picture once: small pictures twice a second, how much each differs from the one before, and black borders.</summary>
internal sealed class PictureAnalyser(PicturePreparation? preparation, string path, string folder)
{
    private const int SamplesPerSecond = 2;
    private const int CompareWidth = 320;
    private const int CompareHeight = 180;

    private static readonly string Sampled = string.Create(CultureInfo.InvariantCulture, $"fps={SamplesPerSecond}:start_time=0");
    private static readonly string Small = string.Create(CultureInfo.InvariantCulture, $"scale={CompareWidth}:{CompareHeight}:flags=area,format=gray");
    private static readonly PictureSize Compared = new(CompareWidth, CompareHeight);

    /// <summary>The encoder hands pictures on a little later than the comparison gets them; one that is there is whole.</summary>
    private const int LateBy = 1;

    private readonly PictureMoments _choice = new();
    private readonly Queue<(int Sample, PictureLook? Chosen)> _arriving = new();
    private readonly BorderFinder _borders = new(Compared);

    internal List<PictureChange> Changes { get; } = [];

    /// <summary>Where on the screen something changed.</summary>
    internal List<ChangedFields> Changed { get; } = [];

    /// <summary>The moments whose pictures lie in the folder.</summary>
    internal List<TimeSpan> Moments { get; } = [];

    /// <summary>What they look like.</summary>
    internal List<PictureLook> Looks { get; } = [];

    /// <summary>Whether something of the picture could not be decoded and was made up.</summary>
    internal bool Damaged { get; private set; }

    internal bool SeesBorders => _borders.Found() is not null;

    /// <summary>Looks through; after each sample it calls back, where what was found so far may be read.</summary>
    internal async Task AnalyseAsync(Func<Task> sampled, CancellationToken cancel)
    {
        Directory.CreateDirectory(folder);
        var errors = await MediaTool.StreamAsync(
            [
                .. MediaTool.SafeInput(path),
                "-an",
                "-filter_complex",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"[0:V:0]{PreparingFilters.Print(preparation)}{Sampled},split[a][b];"
                        + $"[a]scale={RecordingAnalyser.PictureWidth}:-2,setsar=1,format=yuvj420p[jpeg];"
                        + $"[b]{Small}[grey]"
                ),
                "-map",
                "[jpeg]",
                "-q:v",
                "4",
                "-threads",
                "1",
                "-start_number",
                "0",
                "-f",
                "image2",
                "-atomic_writing",
                "1",
                "file:" + Path.Combine(folder.Replace("%", "%%", StringComparison.Ordinal), "sample-%08d.jpg"),
                "-map",
                "[grey]",
                "-f",
                "rawvideo",
                "pipe:1",
            ],
            async (stream, token) =>
            {
                var before = new byte[CompareWidth * CompareHeight];
                var now = new byte[CompareWidth * CompareHeight];
                while (await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length)
                {
                    Take(before, now);
                    (before, now) = (now, before);
                    await sampled();
                }
            },
            cancel
        );
        Damaged = errors.Count > 0;
        Settle(0);
    }

    /// <summary>Looks only where on the screen something changes.</summary>
    internal static async Task<IReadOnlyList<ChangedFields>> ChangedAsync(PicturePreparation? preparation, string path, CancellationToken cancel)
    {
        var changed = new List<ChangedFields>();
        await MediaTool.StreamAsync(
            [
                .. MediaTool.SafeInput(path),
                "-an",
                "-filter_complex",
                $"[0:V:0]{PreparingFilters.Print(preparation)}{Sampled},{Small}[grey]",
                "-map",
                "[grey]",
                "-f",
                "rawvideo",
                "pipe:1",
            ],
            async (stream, token) =>
            {
                var (before, now) = (new byte[CompareWidth * CompareHeight], new byte[CompareWidth * CompareHeight]);
                for (var sample = 0; await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length; sample++)
                {
                    var at = TimeSpan.FromSeconds((double)sample / SamplesPerSecond);
                    if (sample > 0 && ChangedFields.Between(at, before, now, Compared) is { } where)
                        changed.Add(where);
                    (before, now) = (now, before);
                }
            },
            cancel
        );
        return changed;
    }

    private void Take(ReadOnlySpan<byte> before, ReadOnlySpan<byte> now)
    {
        var change = new PictureChange(TimeSpan.FromSeconds((double)Changes.Count / SamplesPerSecond), Changes.Count == 0 ? 1 : Difference(before, now));
        if (change.Change > StillStretches.Unchanged)
            _borders.Show(now);
        if (Changes.Count > 0 && ChangedFields.Between(change.At, before, now, Compared) is { } where)
            Changed.Add(where);
        _arriving.Enqueue((Changes.Count, _choice.Take(change) ? PictureLooks.Measure(change.At, now, Compared) : null));
        Changes.Add(change);
        Settle(LateBy);
    }

    /// <summary>Keeps the chosen ones of the pictures that have come, and deletes the others.</summary>
    private void Settle(int late)
    {
        while (_arriving.Count > late)
        {
            var (number, chosen) = _arriving.Peek();
            var sample = Path.Combine(folder, string.Create(CultureInfo.InvariantCulture, $"sample-{number:00000000}.jpg"));
            if (late > 0 && !File.Exists(sample))
                return;
            _arriving.Dequeue();
            if (chosen is null)
            {
                File.Delete(sample);
                continue;
            }

            File.Move(sample, Path.Combine(folder, RecordingAnalyser.PictureName(Changes[number].At)), overwrite: true);
            Moments.Add(Changes[number].At);
            Looks.Add(chosen);
        }
    }

    internal static double Difference(ReadOnlySpan<byte> a, ReadOnlySpan<byte> b)
    {
        long sum = 0;
        for (var i = 0; i < a.Length; i++)
            sum += Math.Abs(a[i] - b[i]);
        return sum / (255.0 * a.Length);
    }
}
