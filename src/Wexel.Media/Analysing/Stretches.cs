using Wexel.Core.Timing;

namespace Wexel.Media.Analysing;

/// <summary>Stretches in which something holds.</summary>
internal static class Stretches
{
    /// <summary>The stretches in which what is sampled evenly holds.</summary>
    internal static List<TimeRange> Find(IReadOnlyList<bool> samples, int perSecond)
    {
        var runs = new List<TimeRange>();
        for (var i = 0; i < samples.Count; i++)
        {
            if (!samples[i])
                continue;
            var from = i;
            while (i + 1 < samples.Count && samples[i + 1])
                i++;
            runs.Add(new TimeRange(TimeSpan.FromSeconds((double)from / perSecond), TimeSpan.FromSeconds((i + 1.0) / perSecond)));
        }

        return runs;
    }
}
