using System.Globalization;
using Wexel.Core.Legibility;
using Wexel.Core.Recordings;
using Wexel.Core.Timing;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Looks at the pictures of a recording in full size: what there is to read on them, and how much of it is left when they are delivered
/// smaller.</summary>
public static class DetailFinder
{
    private const int SamplesPerSecond = 2;

    /// <summary>Goes over the recording once. Pictures on which nothing changed are one.</summary>
    /// <param name="facts">What the probe found; the recording has a picture.</param>
    /// <param name="path">The recording.</param>
    /// <param name="analysis">What looking through it found.</param>
    /// <param name="delivered">The sizes that the whole picture is brought to.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">The recording could not be read.</exception>
    public static async Task<IReadOnlyList<SeenPicture>> FindAsync(
        RecordingFacts facts,
        string path,
        RecordingAnalysis analysis,
        IReadOnlyList<PictureSize> delivered,
        CancellationToken cancel
    )
    {
        var size = facts.Picture!.ShownSize;
        var bytes = size.Width * size.Height;
        var found = new List<SeenPicture>();
        var moments = SeenMoments.Find(analysis, SamplesPerSecond);
        if (moments.Count == 0)
            return found;
        await MediaTool.StreamAsync(
            [
                .. MediaTool.SafeInput(path),
                "-an",
                "-filter_complex",
                Filters(facts.Picture, moments, delivered),
                "-map",
                "[seen]",
                "-fps_mode",
                "passthrough",
                "-f",
                "rawvideo",
                "pipe:1",
            ],
            async (stream, token) =>
            {
                var (before, now) = (new byte[bytes * (1 + delivered.Count)], new byte[bytes * (1 + delivered.Count)]);
                for (var i = 0; i < moments.Count && await stream.ReadAtLeastAsync(now, now.Length, throwOnEndOfStream: false, token) == now.Length; i++)
                {
                    Take(i, before, now);
                    (before, now) = (now, before);
                }
            },
            cancel
        );
        return found;

        void Take(int index, byte[] before, byte[] now)
        {
            var span = new TimeRange(moments[index], index + 1 < moments.Count ? moments[index + 1] : facts.Length);
            var picture = now.AsSpan(0, bytes);
            var changed = index == 0 ? null : ChangedPart.Between(before.AsSpan(0, bytes), picture, size);
            if (index > 0 && changed is null)
            {
                found[^1] = found[^1] with { Span = new TimeRange(found[^1].Span.Start, span.End) };
                return;
            }

            var kept = new List<DetailKept>();
            for (var i = 0; i < delivered.Count; i++)
                kept.Add(DetailKept.Of(picture, now.AsSpan(bytes * (i + 1), bytes), size, delivered[i]));
            found.Add(new SeenPicture(span, TextFinder.Find(picture, size), changed, kept));
        }
    }

    /// <summary>The picture, and under it what comes back from each delivered size, scaled down as the renderer does.</summary>
    private static string Filters(PictureFacts picture, IReadOnlyList<TimeSpan> moments, IReadOnlyList<PictureSize> delivered)
    {
        var size = picture.ShownSize;
        static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);
        var chosen = FilterText.Sum([.. moments.Select(m => $"eq(n,{Text((long)Math.Round(m.TotalSeconds * SamplesPerSecond))})")]);
        var full =
            $"[0:V:0]{PreparingFilters.Print(picture.Preparation)}fps={Text(SamplesPerSecond)}:start_time=0,select='{chosen}',"
            + $"scale={Text(size.Width)}:{Text(size.Height)}:flags=accurate_rnd,format=gray";
        if (delivered.Count == 0)
            return full + "[seen]";
        var names = Enumerable.Range(0, delivered.Count).ToList();
        return string.Join(
            ';',
            [
                $"{full},split={Text(delivered.Count + 1)}[whole]{string.Concat(names.Select(i => $"[from{i}]"))}",
                .. names.Select(i =>
                    $"[from{i}]scale={Text(delivered[i].Width)}:{Text(delivered[i].Height)}:flags=lanczos+accurate_rnd,"
                    + $"scale={Text(size.Width)}:{Text(size.Height)}:flags=bicubic[to{i}]"
                ),
                $"[whole]{string.Concat(names.Select(i => $"[to{i}]"))}vstack=inputs={Text(delivered.Count + 1)}[seen]",
            ]
        );
    }
}
