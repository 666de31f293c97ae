using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Mixing;
using Wexel.Core.Recordings;
using Wexel.Media.Tools;

namespace Wexel.Media.Mixing;

/// <summary>The sounds of a plan, decoded into a temporary folder, so that any part of them can be read again and again without much memory.</summary>
public sealed class OpenedBeds : IDisposable
{
    private readonly string _folder;
    private readonly int _channels;
    private readonly Dictionary<string, FileStream> _sounds = [];
    private readonly UnderPlan _plan;

    private OpenedBeds(UnderPlan plan, int channels) => (_plan, _channels, _folder) = (plan, channels, HalfMade.Folder());

    /// <summary>Decodes the sounds.</summary>
    /// <param name="plan">What is mixed in.</param>
    /// <param name="channels">How many channels are mixed.</param>
    /// <param name="paths">Where the sounds lie, by what names them.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="ToolFailedException">One is not there, or cannot be decoded.</exception>
    public static async Task<OpenedBeds> OpenAsync(UnderPlan plan, int channels, IReadOnlyDictionary<string, string> paths, CancellationToken cancel)
    {
        var opened = new OpenedBeds(plan, channels);
        try
        {
            foreach (var bed in plan.Beds.DistinctBy(b => b.Sound))
            {
                if (!paths.TryGetValue(bed.Sound, out var path) || !File.Exists(path))
                    throw new ToolFailedException("ffmpeg", "A sound that lies under the voice is not on the shelf any more. Choose another in Tidy.");
                var raw = Path.Combine(opened._folder, bed.Sound);
                await MediaTool.RunAsync(
                    [
                        .. MediaTool.OwnInput(path),
                        "-map",
                        "0:a:0",
                        .. channels == 2 && bed.Channels == 1 ? ["-af", "pan=stereo|c0=c0|c1=c0"] : Array.Empty<string>(),
                        "-ac",
                        channels.ToString(CultureInfo.InvariantCulture),
                        "-ar",
                        LoudnessMeter.Rate.ToString(CultureInfo.InvariantCulture),
                        "-f",
                        "f32le",
                        "file:" + raw,
                    ],
                    null,
                    null,
                    cancel
                );
                opened._sounds[bed.Sound] = File.OpenRead(raw);
            }

            return opened;
        }
        catch
        {
            opened.Dispose();
            throw;
        }
    }

    /// <inheritdoc cref="ReadSamples"/>
    public void Read(int bed, long from, Span<float> into)
    {
        var sound = _sounds[_plan.Beds[bed].Sound];
        var bytes = MemoryMarshal.AsBytes(into);
        sound.Position = from * _channels * sizeof(float);
        var read = sound.ReadAtLeast(bytes, bytes.Length, throwOnEndOfStream: false);
        bytes[read..].Clear();
    }

    /// <summary>Closes and removes what was decoded.</summary>
    public void Dispose()
    {
        foreach (var sound in _sounds.Values)
            sound.Dispose();
        Directory.Delete(_folder, recursive: true);
    }
}
