namespace Wexel.Core.Mixing;

/// <summary>Reads a sound's samples.</summary>
/// <param name="bed">Which of the plan's beds it belongs to.</param>
/// <param name="from">From which moment of the sound on.</param>
/// <param name="into">Takes them, channels interleaved; what lies behind its end is silence.</param>
public delegate void ReadSamples(int bed, long from, Span<float> into);

/// <summary>Mixes sounds with a lesson's voice while it streams through, as a <see cref="UnderPlan"/> says.</summary>
/// <param name="plan">The plan.</param>
/// <param name="channels">How many channels are mixed, 1 or 2; each sound is read with as many.</param>
/// <param name="sampleRate">Moments a second.</param>
/// <param name="read">Reads the sounds.</param>
public sealed class SoundMixer(UnderPlan plan, int channels, int sampleRate, ReadSamples read)
{
    private float[] _read = [];
    private long _at;

    /// <summary>Mixes the next samples of the lesson.</summary>
    /// <param name="samples">The voice, channels interleaved and whole moments; afterwards the mix.</param>
    public void Mix(Span<float> samples)
    {
        var count = samples.Length / channels;
        var gain = (float)plan.Gain;
        for (var i = 0; i < samples.Length; i++)
            samples[i] *= gain;
        for (var bed = 0; bed < plan.Beds.Count; bed++)
        {
            foreach (var piece in plan.Beds[bed].Pieces)
                Add(samples, count, bed, piece);
        }

        _at += count;
    }

    private void Add(Span<float> samples, int count, int bed, PlayedPiece piece)
    {
        var (starts, ends) = (Sample(piece.At), Sample(piece.Ends));
        var (from, to) = (Math.Max(starts, _at), Math.Min(ends, _at + count));
        if (to <= from)
            return;
        var length = (int)(to - from) * channels;
        if (_read.Length < length)
            _read = new float[length];
        var sound = _read.AsSpan(0, length);
        read(bed, Sample(piece.From) + from - starts, sound);
        var (comes, goes) = ((double)Sample(piece.Comes), (double)Sample(piece.Goes));
        var envelope = new Envelope(plan.Beds[bed].Gains, sampleRate);
        var into = samples[((int)(from - _at) * channels)..];
        for (var moment = from; moment < to; moment++)
        {
            var turn = Math.Min(comes > 0 ? (moment - starts + 0.5) / comes : 1, goes > 0 ? (ends - moment - 0.5) / goes : 1);
            var factor = (float)(plan.Gain * Math.Min(1, turn) * envelope.At(moment));
            var at = (int)(moment - from) * channels;
            for (var c = 0; c < channels; c++)
                into[at + c] += sound[at + c] * factor;
        }
    }

    private long Sample(TimeSpan time) => (long)Math.Round((decimal)time.Ticks * sampleRate / TimeSpan.TicksPerSecond);

    /// <summary>Straight lines between points, read from left to right.</summary>
    private struct Envelope(IReadOnlyList<GainPoint> points, int sampleRate)
    {
        private int _next = 0;
        private double _from;
        private double _to = double.NegativeInfinity;
        private double _start;
        private double _rise;

        internal double At(long moment)
        {
            while (moment >= _to && _next < points.Count)
            {
                _from = _to;
                _to = points[_next].At.TotalSeconds * sampleRate;
                _start = _next > 0 ? points[_next - 1].Gain : 0;
                _rise = _next > 0 && _to > _from ? (points[_next].Gain - _start) / (_to - _from) : 0;
                _next++;
            }

            return moment < _to && !double.IsNegativeInfinity(_from) ? _start + (_rise * (moment - _from)) : 0;
        }
    }
}
