using System.Globalization;
using Wexel.Core.Recordings;

namespace Wexel.Media.Tools;

/// <summary>Prints as ffmpeg's filters what is done to a recording's picture before anything else looks at it.</summary>
internal static class PreparingFilters
{
    /// <summary>Up to here, in shares of white, light stays as it is; what is brighter, up to the brightest, is held back above it.</summary>
    private const double Knee = 0.95;

    /// <summary>The filters, each with a comma behind it; empty where nothing is done.</summary>
    /// <param name="preparation">What is done.</param>
    internal static string Print(PicturePreparation? preparation) => string.Concat(Each(preparation).Select(filter => filter + ","));

    private static IEnumerable<string> Each(PicturePreparation? preparation)
    {
        // Each field becomes a picture, be its frame marked as interlaced or not: whole recordings are, and not every recorder marks them.
        if (preparation?.Fields is { } order)
            yield return $"bwdif=mode=send_field:parity={(order == FieldOrder.TopFirst ? "tff" : "bff")}:deint=all";
        if (preparation?.Colour is not { } colour)
            yield break;
        var from =
            $"{(colour.Matrix is { } matrix ? $"min={matrix}:" : "")}pin={colour.Primaries}:tin={colour.Transfer}"
            + $":rin={(colour.FullRange ? "full" : "limited")}";
        const string to = "m=bt709:p=bt709:t=bt709:r=limited";
        if (!colour.IsHighRange)
        {
            yield return $"zscale={from}:{to}";
        }
        else
        {
            // Light, in shares of white; then BT.709's colours, in which it is held back.
            yield return $"zscale={from}:m=gbr:t=linear:npl={Text(WideColour.White)}:r=full";
            yield return "format=gbrpf32le";
            yield return "zscale=p=bt709";
            yield return $"tonemap=mobius:param={Text(Knee)}:desat=0:peak={Text((double)WideColour.Brightest / WideColour.White)}";
            yield return $"zscale={to}";
        }

        yield return "format=yuv420p";
    }

    private static string Text(double number) => number.ToString("0.####", CultureInfo.InvariantCulture);
}
