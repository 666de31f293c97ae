using System.Globalization;
using System.Runtime.InteropServices;
using Wexel.Core.Editing;
using Wexel.Core.Encoding;
using Wexel.Core.Mixing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;
using Wexel.Media.Analysing;
using Wexel.Media.Mixing;
using Wexel.Media.Tools;

namespace Wexel.Media.Rendering;

/// <summary>Puts the sound of a lesson together as one lossless file, from which every rendition's sound is encoded.</summary>
public static class SoundComposer
{
    /// <summary>Samples a second of the lossless file, whatever is made of it.</summary>
    public const int Rate = LoudnessMeter.Rate;

    /// <summary>
    /// Reads the sound of each recording once, brings its channels together, cuts it, mixes in what lies under it, and writes it as FLAC of 24 bits,
    /// unless that was done before. What was heard meanwhile is kept beside it.
    /// </summary>
    /// <exception cref="ToolFailedException">The sound could not be read or written.</exception>
    public static Task ComposeAsync(SoundPlan sound, Reel reel, TimeMap map, EncodeInputs inputs, string outputPath, CancellationToken cancel) =>
        Wholeness.IsWhole(outputPath) ? Task.CompletedTask : WholeFile.MakeAsync(outputPath, async temporary =>
            {
                var listener = new SoundListener(sound.Channels);
                using var beds = sound.Under is { } under
                    ? await OpenedBeds.OpenAsync(under, sound.Channels, inputs.Sounds ?? new Dictionary<string, string>(), cancel)
                    : null;
                var mixer = beds is null ? null : new SoundMixer(sound.Under!, sound.Channels, Rate, beds.Read);
                await MediaTool.FeedAsync(
                    [
                        "-f",
                        "f32le",
                        "-ar",
                        Text(Rate),
                        "-ac",
                        Text(sound.Channels),
                        "-i",
                        "pipe:0",
                        "-c:a",
                        "flac",
                        "-compression_level",
                        "3",
                        "-sample_fmt",
                        "s32",
                        "-f",
                        "flac",
                        "file:" + temporary,
                    ],
                    async (output, token) =>
                    {
                        var splicing = new Splicing(new SoundSplicer(sound.Channels, Rate, map), sound.Channels, Rate, output, listener, mixer);
                        for (var i = 0; i < reel.Parts.Count; i++)
                        {
                            // Between two recordings each is as long as its frames; behind the last one there is nothing to keep apart.
                            var length =
                                i + 1 < reel.Parts.Count
                                    ? SoundSplicer.SampleAt(reel.Parts[i + 1].First, reel.Grid, Rate)
                                        - SoundSplicer.SampleAt(reel.Parts[i].First, reel.Grid, Rate)
                                    : long.MaxValue;
                            await AddAsync(sound, i, inputs.Recordings[i], splicing, i == 0, length, token);
                        }

                        await splicing.EndAsync(token);
                    },
                    cancel
                );
                await listener.Heard().KeepAsync(outputPath, cancel);
            });

    private static async Task AddAsync(SoundPlan sound, int recording, string inputPath, Splicing splicing, bool first, long length, CancellationToken cancel)
    {
        var left = length;
        if (sound.Mixes[recording] is { } mixed)
        {
            var both = sound.Channels == 2 && mixed is not (SoundMix.Stereo or SoundMix.StereoFromSurround) ? "pan=stereo|c0=c0|c1=c0," : "";
            await MediaTool.StreamAsync(
                [
                    .. MediaTool.SafeInput(inputPath),
                    .. SoundInput.Print(sound.TracksOf(recording), $"{Mix(mixed)}{both}aresample={Text(Rate)}:async=1:first_pts=0"),
                    "-ac",
                    Text(sound.Channels),
                    "-f",
                    "f32le",
                    "pipe:1",
                ],
                async (input, stop) => left -= await splicing.TakeAsync(input, length, first, stop),
                cancel
            );
        }

        if (length != long.MaxValue)
            await splicing.SilenceAsync(left, cancel);
    }

    private static string Text(long number) => number.ToString(CultureInfo.InvariantCulture);

    /// <summary>Hands samples to the splicer, and what it keeps by way of the mixer to the encoder.</summary>
    private sealed class Splicing(SoundSplicer splicer, int channels, int sampleRate, Stream output, SoundListener listener, SoundMixer? mixer)
    {
        private const int Moments = 16_384;
        private readonly byte[] _block = new byte[Moments * channels * sizeof(float)];
        private readonly List<byte> _kept = [];

        /// <summary>Takes what comes in, but no more moments than asked for; the rest is read and dropped.</summary>
        internal async Task<long> TakeAsync(Stream input, long most, bool first, CancellationToken cancel)
        {
            long taken = 0;
            int read;
            while ((read = await input.ReadAtLeastAsync(_block, _block.Length, throwOnEndOfStream: false, cancel)) > 0)
            {
                var moments = (int)Math.Min(read / (channels * sizeof(float)), most - taken);
                Ease(MemoryMarshal.Cast<byte, float>(_block.AsSpan(0, moments * channels * sizeof(float))), taken, most, first);
                taken += moments;
                await GiveAsync(_block.AsMemory(0, moments * channels * sizeof(float)), cancel);
            }

            return taken;
        }

        /// <summary>Where one recording ends and the next begins there is nothing to fade into: each goes to nothing, so that the joint does not
        /// click.</summary>
        private void Ease(Span<float> samples, long from, long most, bool first)
        {
            var fade = SoundSplicer.CrossFade.TotalSeconds * sampleRate / 2;
            for (var i = 0; i < samples.Length; i++)
            {
                var at = from + (i / channels);
                if (!first && at < fade)
                    samples[i] *= (float)((at + 0.5) / fade);
                if (most - at < fade)
                    samples[i] *= (float)((most - at - 0.5) / fade);
            }
        }

        internal async Task SilenceAsync(long moments, CancellationToken cancel)
        {
            Array.Clear(_block);
            for (; moments > 0; moments -= Moments)
                await GiveAsync(_block.AsMemory(0, (int)Math.Min(moments, Moments) * channels * sizeof(float)), cancel);
        }

        internal async Task EndAsync(CancellationToken cancel)
        {
            splicer.End(Keep);
            await HandOnAsync(cancel);
        }

        private async Task GiveAsync(Memory<byte> samples, CancellationToken cancel)
        {
            splicer.Take(MemoryMarshal.Cast<byte, float>(samples.Span), Keep);
            await HandOnAsync(cancel);
        }

        private void Keep(ReadOnlySpan<float> samples)
        {
            var from = _kept.Count;
            _kept.AddRange(MemoryMarshal.AsBytes(samples));
            var mixed = MemoryMarshal.Cast<byte, float>(CollectionsMarshal.AsSpan(_kept)[from..]);
            mixer?.Mix(mixed);
            listener.Take(mixed);
        }

        private async Task HandOnAsync(CancellationToken cancel)
        {
            await output.WriteAsync(_kept.ToArray(), cancel);
            _kept.Clear();
        }
    }

    private static string Mix(SoundMix mix) =>
        mix switch
        {
            SoundMix.MonoFromBoth => "pan=mono|c0=0.5*c0+0.5*c1,",
            SoundMix.MonoFromLeft => "pan=mono|c0=c0,",
            SoundMix.MonoFromRight => "pan=mono|c0=c1,",
            SoundMix.MonoFromSurround => Mix(SoundMix.StereoFromSurround) + Mix(SoundMix.MonoFromBoth),
            // Rows for L and R of ITU-R BS.775-3, Annex 4, Table 2 (3/2 to 2/0), then brought down so that nothing clips.
            SoundMix.StereoFromSurround => "aformat=channel_layouts=5.1,pan=stereo|FL<FL+0.7071*FC+0.7071*BL|FR<FR+0.7071*FC+0.7071*BR,",
            _ => "",
        };
}
