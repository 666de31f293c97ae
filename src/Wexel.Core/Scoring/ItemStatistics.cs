namespace Wexel.Core.Scoring;

/// <summary>What one question did among learners.</summary>
/// <param name="Answers">How many answered it.</param>
/// <param name="Difficulty">The mean share of its points, 0 to 1: the higher, the easier; null where nobody answered.</param>
/// <param name="PointBiserial">How it goes with the rest of the points: Pearson's correlation with the total without it (the point-biserial one where it is
/// right or wrong); null where one of both is the same for everybody.</param>
/// <param name="UpperLower">The difference of its difficulty between the upper and the lower 27 % of learners (T. L. Kelley, The selection of upper and lower
/// groups for the validation of test items, 1939); null with fewer than 4 learners.</param>
public sealed record ItemStatistics(int Answers, double? Difficulty, double? PointBiserial, double? UpperLower);

/// <summary>What the questions of a lesson did among learners who answered all of them.</summary>
/// <param name="Items">Each question, in order.</param>
/// <param name="Learners">How many learners that is.</param>
/// <param name="Alpha">Cronbach's alpha; where every question is right or wrong, it is KR-20; null with fewer than two of either, or where all reached the
/// same.</param>
public sealed record TestStatistics(IReadOnlyList<ItemStatistics> Items, int Learners, double? Alpha)
{
    private const double Group = 0.27;

    /// <summary>Reckons them.</summary>
    /// <param name="shares">For each learner the share reached in each question, 0 to 1; null where it was not answered.</param>
    /// <param name="points">What each question counts.</param>
    public static TestStatistics Of(IReadOnlyList<IReadOnlyList<double?>> shares, IReadOnlyList<double> points)
    {
        var count = points.Count;
        // One after the other in memory: thousands of learners by tens of questions.
        var whole = shares.Where(s => s.All(v => v is not null)).Select(s => s.Select((v, i) => v!.Value * points[i]).ToArray()).ToList();
        var totals = whole.ConvertAll(row => row.Sum());
        var ordered = whole.Select((row, i) => (Row: row, Total: totals[i])).OrderBy(r => r.Total).ToList();
        var group = (int)Math.Round(whole.Count * Group, MidpointRounding.AwayFromZero);
        var items = new ItemStatistics[count];
        for (var item = 0; item < count; item++)
        {
            var answered = shares.Select(s => s[item]).OfType<double>().ToList();
            var own = whole.ConvertAll(row => row[item]);
            var rest = totals.Select((total, i) => total - own[i]).ToList();
            double? upperLower =
                group > 0 && whole.Count >= 4 && points[item] > 0
                    ? (ordered.TakeLast(group).Average(r => r.Row[item]) - ordered.Take(group).Average(r => r.Row[item])) / points[item]
                    : null;
            items[item] = new ItemStatistics(answered.Count, answered.Count > 0 ? answered.Average() : null, Correlation(own, rest), upperLower);
        }

        return new TestStatistics(items, whole.Count, Reliability(whole, totals));
    }

    /// <summary>Cronbach's alpha (L. J. Cronbach, Coefficient alpha and the internal structure of tests, 1951), of which KR-20 is the case of right and
    /// wrong (Kuder and Richardson, 1937).</summary>
    private static double? Reliability(List<double[]> rows, List<double> totals)
    {
        if (rows.Count < 2 || rows[0].Length < 2)
            return null;
        var (k, all) = ((double)rows[0].Length, Variance(totals));
        return all <= 0 ? null : k / (k - 1) * (1 - (Enumerable.Range(0, rows[0].Length).Sum(i => Variance(rows.ConvertAll(r => r[i]))) / all));
    }

    /// <summary>Pearson's correlation; null where one of both does not vary.</summary>
    internal static double? Correlation(List<double> a, List<double> b)
    {
        if (a.Count < 2)
            return null;
        var (meanA, meanB) = (a.Average(), b.Average());
        double over = 0,
            varianceA = 0,
            varianceB = 0;
        for (var i = 0; i < a.Count; i++)
        {
            var (x, y) = (a[i] - meanA, b[i] - meanB);
            over += x * y;
            varianceA += x * x;
            varianceB += y * y;
        }

        return varianceA <= 1e-12 || varianceB <= 1e-12 ? null : over / Math.Sqrt(varianceA * varianceB);
    }

    private static double Variance(List<double> values)
    {
        var mean = values.Average();
        return values.Sum(v => (v - mean) * (v - mean)) / values.Count;
    }
}
