using System.Globalization;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Analysing;

/// <summary>Measures black borders to the pixel, on a few pictures in full size.</summary>
internal static class BorderMeasurer
{
    private const int Pictures = 8;

    internal static async Task<PictureBorders?> MeasureAsync(RecordingFacts facts, string path, IReadOnlyList<TimeSpan> moments, CancellationToken cancel)
    {
        var size = facts.Picture!.ShownSize;
        var finder = new BorderFinder(size);
        var grey = new byte[size.Width * size.Height];
        for (var i = 0; i < Math.Min(Pictures, moments.Count); i++)
        {
            var at = moments[(int)((long)i * moments.Count / Math.Min(Pictures, moments.Count))];
            await MediaTool.StreamAsync(
                [
                    "-ss",
                    at.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture),
                    .. MediaTool.SafeInput(path),
                    "-an",
                    "-map",
                    "0:V:0",
                    "-frames:v",
                    "1",
                    "-vf",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{PreparingFilters.Print(facts.Picture.Preparation)}scale={size.Width}:{size.Height},format=gray"
                    ),
                    "-f",
                    "rawvideo",
                    "pipe:1",
                ],
                async (stream, token) =>
                {
                    if (await stream.ReadAtLeastAsync(grey, grey.Length, throwOnEndOfStream: false, token) == grey.Length)
                        finder.Show(grey);
                },
                cancel
            );
        }

        return finder.Found();
    }
}
