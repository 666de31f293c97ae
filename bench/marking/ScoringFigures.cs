using System.Diagnostics;
using System.Globalization;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Scoring;

namespace Wexel.Marking;

/// <summary>How long it takes to judge many answers, all kinds in turn.</summary>
internal static class ScoringFigures
{
    private const int Answers = 100_000;

    internal static void Tell()
    {
        var (keys, given) = (Kinds().Select(k => k.Asks.Key).ToList(), Kinds().Select(k => k.Answer).ToList());
        Judge(1000);
        var took = Enumerable.Range(0, 5).Select(_ => Judge(Answers)).Order().ElementAt(2);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{Answers:N0} answers of all kinds scored, seconds, the middle of 5|{took:0.00}|2"));

        double Judge(int count)
        {
            var (watch, share) = (Stopwatch.StartNew(), 0.0);
            for (var i = 0; i < count; i++)
                share += Penalty.Taken(keys[i % keys.Count].Judge(given[i % given.Count]).Share, 25, 1 + (i % 3));
            if (share <= 0)
                throw new InvalidOperationException("Nobody was right.");
            return watch.Elapsed.TotalSeconds;
        }
    }

    private static IEnumerable<(Interaction Asks, IReadOnlyList<string> Answer)> Kinds()
    {
        var rule = new TextRule(Slips: true);
        yield return (new ChooseOne([new("a", "A"), new("b", "B", Right: true)]), ["b"]);
        yield return (new ChooseSeveral([new("a", "A", Right: true), new("b", "B"), new("c", "C", Right: true)]), ["a", "b"]);
        yield return (new TrueOrFalse(true), ["true"]);
        yield return (new ShortText([new("gangway", 100)], rule), ["Gangwya"]);
        yield return (new NumberTyped(9.8, new NumberRule(Unit: "m")), ["9,8 m"]);
        yield return (new PutInOrder([new("a", "A"), new("b", "B"), new("c", "C")]), ["a", "c", "b"]);
        yield return (new FillGaps("A trailer up to [[8|eight]] m goes to lane [[B]].", rule), ["eight", "C"]);
        yield return (
            new ClickPlace([new(new Shape(ShapeKind.Polygon, [.. Enumerable.Range(0, 40).Select(Corner)]), "A", Right: true)]),
            [Place.Write(0.5, 0.5)]
        );
    }

    private static Place Corner(int i) => new(0.5 + (0.3 * Math.Cos(i * Math.Tau / 40)), 0.5 + (0.3 * Math.Sin(i * Math.Tau / 40)));
}
