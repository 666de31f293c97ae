using CsCheck;
using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Scoring;

public class ItemStatisticsTests
{
    /// <summary>
    /// How many of 1,000 people had each pattern of right answers in section 6 of the Law School Admission Test: R. D. Bock and M. Lieberman, Fitting
    /// a response model for n dichotomously scored items, Psychometrika 35 (1970), table 1; from memory. The sums below hold the table together.
    /// </summary>
    private static readonly (string Pattern, int People)[] LawSchool =
    [
        ("00000", 3),
        ("00001", 6),
        ("00010", 2),
        ("00011", 11),
        ("00100", 1),
        ("00101", 1),
        ("00110", 3),
        ("00111", 4),
        ("01000", 1),
        ("01001", 8),
        ("01010", 0),
        ("01011", 16),
        ("01100", 0),
        ("01101", 3),
        ("01110", 2),
        ("01111", 15),
        ("10000", 10),
        ("10001", 29),
        ("10010", 14),
        ("10011", 81),
        ("10100", 3),
        ("10101", 28),
        ("10110", 15),
        ("10111", 80),
        ("11000", 16),
        ("11001", 56),
        ("11010", 21),
        ("11011", 173),
        ("11100", 11),
        ("11101", 61),
        ("11110", 28),
        ("11111", 298),
    ];

    private static readonly double[] OnePointEach = [1, 1, 1, 1, 1];

    private static List<IReadOnlyList<double?>> People() =>
        [.. LawSchool.SelectMany(p => Enumerable.Repeat((IReadOnlyList<double?>)[.. p.Pattern.Select(c => c == '1' ? 1.0 : 0.0)], p.People))];

    /// <summary>What D. Rizopoulos, ltm: An R package for latent variable modeling, Journal of Statistical Software 17 (2006), issue 5, section 4.1, finds of
    /// the same table: proportions, Cronbach's alpha, and point-biserial correlations with the total without the item; from
    /// memory.</summary>
    [Fact]
    public void Finds_what_was_published_of_a_known_table()
    {
        People().Count.ShouldBe(1000);
        var found = TestStatistics.Of(People(), OnePointEach);
        found.Learners.ShouldBe(1000);
        found.Items.Select(i => i.Difficulty!.Value).ShouldBe([0.924, 0.709, 0.553, 0.763, 0.870], 0.0005);
        found.Alpha!.Value.ShouldBe(0.2950, 0.00005);
        found.Items.Select(i => i.PointBiserial!.Value).ShouldBe([0.1128, 0.1532, 0.1728, 0.1444, 0.1216], 0.00005);
    }

    /// <summary>KR-20 as Kuder and Richardson (1937) wrote it: k/(k−1) · (1 − Σpq/σ²).</summary>
    [Fact]
    public void Alpha_of_right_and_wrong_is_KR_20()
    {
        var people = People();
        var p = Enumerable.Range(0, 5).Select(i => people.Average(r => r[i]!.Value)).ToList();
        var totals = people.ConvertAll(r => r.Sum(v => v!.Value));
        var variance = totals.Average(t => t * t) - Math.Pow(totals.Average(), 2);
        var kr20 = 5.0 / 4 * (1 - (p.Sum(v => v * (1 - v)) / variance));
        TestStatistics.Of(people, OnePointEach).Alpha!.Value.ShouldBe(kr20, 1e-9);
    }

    /// <summary>R. L. Ebel's index D: of a hundred people 27 are in each group; where all of the upper and none of the lower are right, it is 1.</summary>
    [Fact]
    public void Compares_the_upper_and_the_lower_27_per_cent()
    {
        // The second question is known to the better half, the first to everybody; the third sets people in order.
        var people = Enumerable.Range(0, 100).Select(i => (IReadOnlyList<double?>)[1, i >= 50 ? 1 : 0, i / 100.0]).ToList();
        var items = TestStatistics.Of(people, [1, 1, 10]).Items;
        items[0].UpperLower.ShouldBe(0);
        items[1].UpperLower.ShouldBe(1);
        items[2].UpperLower!.Value.ShouldBe(0.73, 1e-9);
        items[0].PointBiserial.ShouldBeNull();
    }

    [Fact]
    public void Says_nothing_of_too_few()
    {
        TestStatistics.Of([], [1, 1]).ShouldSatisfyAllConditions(t => t.Alpha.ShouldBeNull(), t => t.Items[0].Difficulty.ShouldBeNull());
        TestStatistics
            .Of(
                [
                    [1, 0],
                ],
                [1, 1]
            )
            .Alpha.ShouldBeNull();
        TestStatistics
            .Of(
                [
                    [1],
                    [0],
                ],
                [1]
            )
            .Alpha.ShouldBeNull();
        TestStatistics
            .Of(
                [
                    [1, 1],
                    [1, 1],
                ],
                [1, 1]
            )
            .Alpha.ShouldBeNull();
        // Who left one out counts for the others by themselves, and not for the whole.
        var left = TestStatistics.Of(
            [
                [1, null],
                [0, 1],
                [1, 0],
            ],
            [1, 1]
        );
        (left.Learners, left.Items[0].Answers, left.Items[1].Answers).ShouldBe((2, 3, 2));
        left.Items[0].Difficulty!.Value.ShouldBe(2 / 3.0, 1e-9);
    }

    [Fact]
    public void Stays_within_what_the_figures_can_be() =>
        Gen.Select(Gen.Int[2, 8], Gen.Int[2, 40], Gen.Int)
            .Sample(
                (items, people, seed) =>
                {
                    var random = new Random(seed);
                    var shares = Enumerable
                        .Range(0, people)
                        .Select(_ => (IReadOnlyList<double?>)[.. Enumerable.Range(0, items).Select(_ => (double?)random.Next(0, 3) / 2)])
                        .ToList();
                    var found = TestStatistics.Of(shares, [.. Enumerable.Repeat(1.0, items)]);
                    return found.Items.All(i =>
                            i.Difficulty is >= 0 and <= 1
                            && i.PointBiserial is null or (>= -1.0000001 and <= 1.0000001)
                            && i.UpperLower is null or (>= -1 and <= 1)
                        ) && found.Alpha is null or <= 1;
                }
            );
}
