using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Editing;

/// <summary>
/// Puts together what a lesson keeps of a recording's sound, while it streams through: exact to the sample, and across each cut a
/// cross-fade of 10 ms, so that it does not click. The fade takes 5 ms from beyond each edge, so the length is that of what is kept.
/// Both sides are weighted to 1 in sum, so nothing gets louder than it was.
/// </summary>
public sealed class SoundSplicer
{
    /// <summary>How long a cross-fade is.</summary>
    public static readonly TimeSpan CrossFade = TimeSpan.FromMilliseconds(10);

    private readonly int _channels;
    private readonly List<Span> _spans = [];
    private float[] _tail = [];
    private int _span;
    private long _at;

    private enum Use
    {
        Copied,
        FadedOut,
        FadedIn,
    }

    /// <param name="channels">How many samples stand for one moment.</param>
    /// <param name="sampleRate">Moments a second.</param>
    /// <param name="map">The lesson's times.</param>
    public SoundSplicer(int channels, int sampleRate, TimeMap map)
    {
        _channels = channels;
        long Sample(long frame) => SampleAt(frame, map.Grid, sampleRate);
        var kept = map.Kept;
        Samples = (long)Math.Round((decimal)map.Length.Ticks * sampleRate / TimeSpan.TicksPerSecond);
        var ends = kept.Select((s, i) => i + 1 < kept.Count ? Sample(kept[i + 1].At) : Samples).ToList();
        long before = 0;
        for (var i = 0; i < kept.Count; i++)
        {
            var start = Sample(kept[i].First);
            var end = start + ends[i] - Sample(kept[i].At);
            var after = 0L;
            if (i + 1 < kept.Count)
            {
                var next = Sample(kept[i + 1].First);
                after = new[]
                {
                    (long)(CrossFade.TotalSeconds * sampleRate / 2),
                    (end - start) / 2,
                    (ends[i + 1] - Sample(kept[i + 1].At)) / 2,
                    (next - end) / 2,
                }.Min();
            }

            Add(start - before, start + before, Use.FadedIn);
            Add(start + before, end - after, Use.Copied);
            Add(end - after, end + after, Use.FadedOut);
            before = after;
        }

        void Add(long from, long to, Use use)
        {
            if (to > from)
                _spans.Add(new Span(from, to, use));
        }
    }

    /// <summary>The number of the sample at which a frame begins.</summary>
    /// <param name="frame">The frame's number.</param>
    /// <param name="grid">The rate of the frames.</param>
    /// <param name="sampleRate">Samples a second.</param>
    public static long SampleAt(long frame, FrameRate grid, int sampleRate) =>
        (long)Math.Round((decimal)frame * grid.Denominator * sampleRate / grid.Numerator);

    /// <summary>How many moments the lesson's sound has.</summary>
    public long Samples { get; }

    /// <summary>Takes the next samples of the recording, channels interleaved and whole, and hands on what the lesson keeps of them.</summary>
    /// <param name="samples">The samples.</param>
    /// <param name="give">Called with what comes next in the lesson; what it is given is valid only during the call.</param>
    public void Take(ReadOnlySpan<float> samples, SamplesGiven give)
    {
        var count = samples.Length / _channels;
        var from = 0;
        while (from < count && _span < _spans.Count)
        {
            var span = _spans[_span];
            var skipped = (int)Math.Clamp(span.From - _at, 0, count - from);
            from += skipped;
            _at += skipped;
            var taken = (int)Math.Min(span.To - _at, count - from);
            if (taken > 0)
                Handle(span, samples.Slice(from * _channels, taken * _channels), (int)(_at - span.From), give);
            from += taken;
            _at += taken;
            if (_at >= span.To)
                _span++;
        }

        _at += count - from;
    }

    /// <summary>Hands on silence for what the recording's sound lacks at its end.</summary>
    /// <param name="give">Called with what comes next in the lesson.</param>
    public void End(SamplesGiven give)
    {
        var silence = new float[4096 * _channels];
        while (_span < _spans.Count)
            Take(silence, give);
    }

    private void Handle(Span span, ReadOnlySpan<float> samples, int offset, SamplesGiven give)
    {
        var length = (int)(span.To - span.From);
        switch (span.Use)
        {
            case Use.Copied:
                give(samples);
                break;
            case Use.FadedOut:
                if (offset == 0)
                    _tail = new float[length * _channels];
                samples.CopyTo(_tail.AsSpan(offset * _channels));
                break;
            default:
                var mixed = new float[samples.Length];
                for (var i = 0; i < samples.Length; i++)
                {
                    var weight = (offset + (i / _channels) + 0.5f) / length;
                    mixed[i] = (_tail[(offset * _channels) + i] * (1 - weight)) + (samples[i] * weight);
                }

                give(mixed);
                break;
        }
    }

    private readonly record struct Span(long From, long To, Use Use);
}

/// <summary>Takes samples that are valid only during the call.</summary>
/// <param name="samples">Channels interleaved, each −1 to 1.</param>
public delegate void SamplesGiven(ReadOnlySpan<float> samples);
