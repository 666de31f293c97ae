using System.Globalization;

namespace Wexel.Media.Tools;

/// <summary>Prints which sound of a recording is taken and what is done with it, as ffmpeg's arguments.</summary>
internal static class SoundInput
{
    /// <param name="tracks">The sound tracks, from 0; several are heard together, each as loud as it was.</param>
    /// <param name="filters">What is done with it, in ffmpeg's words; may be empty.</param>
    internal static IReadOnlyList<string> Print(IReadOnlyList<int> tracks, string filters)
    {
        string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
        if (tracks is [var one])
            return ["-map", $"0:a:{Text(one)}", "-vn", .. filters.Length > 0 ? ["-af", filters] : Array.Empty<string>()];
        var each = tracks.Select((track, i) => $"[0:a:{Text(track)}]aresample=48000:async=1:first_pts=0,aformat=channel_layouts=stereo[track{Text(i)}]");
        var all = string.Concat(tracks.Select((_, i) => $"[track{Text(i)}]"));
        var after = filters.Length > 0 ? "," + filters : "";
        var together = $"{all}amix=inputs={Text(tracks.Count)}:normalize=0{after}[heard]";
        return ["-vn", "-filter_complex", $"{string.Join(';', each)};{together}", "-map", "[heard]"];
    }
}
