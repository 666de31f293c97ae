using System.Text.Json;
using CsCheck;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;

namespace Wexel.Core.Tests.Questions;

/// <summary>Of some questions each learner is asked only so many: always the same ones, and each as often as the others.</summary>
public class QuestionDrawTests
{
    private static Question One(string id, params string[] tags) => new(id, default, "?", new TrueOrFalse(true), tags: tags);

    [Fact]
    public void What_has_the_tag_is_drawn_from_and_what_has_two_belongs_to_the_first()
    {
        List<Question> questions = [One("a", "fares"), One("b", "fares", "deck"), One("c", "deck"), One("d", "deck"), One("e")];
        DrawnFrom.In(questions, [new("fares", 1), new("deck", 1)]).ShouldBe([new(["a", "b"], 1), new(["c", "d"], 1)]);
        // Where all are asked, nothing is drawn.
        DrawnFrom.In(questions, [new("fares", 2)]).ShouldBeEmpty();
        DrawnFrom.In(questions, [new("nothing", 1)]).ShouldBeEmpty();
    }

    [Fact]
    public void As_many_are_asked_as_are_taken_and_always_the_same() =>
        Gen.String[1, 40]
            .Sample(learner =>
            {
                List<DrawnFrom> draws = [new(["a", "b", "c", "d", "e"], 2)];
                var not = DrawnFrom.NotAsked(draws, learner);
                not.Count.ShouldBe(3);
                DrawnFrom.NotAsked(draws, learner).ShouldBe(not, ignoreOrder: true);
            });

    [Fact]
    public void Each_is_asked_about_as_often_as_the_others()
    {
        List<DrawnFrom> draws = [new(["q1", "q2", "q3", "q4", "q5"], 2)];
        var asked = new Dictionary<string, int>();
        for (var i = 0; i < 5000; i++)
            foreach (var id in draws[0].Of.Except(DrawnFrom.NotAsked(draws, $"link-{i}")))
                asked[id] = asked.GetValueOrDefault(id) + 1;
        // 2,000 each are expected; five standard deviations (√(5000 · 0.4 · 0.6) ≈ 34.6) are 173.
        asked.Values.ShouldAllBe(count => Math.Abs(count - 2000) < 173);
    }

    [Fact]
    public void The_player_draws_the_same()
    {
        using var vectors = JsonDocument.Parse(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", "draw.json")));
        foreach (var vector in vectors.RootElement.EnumerateArray())
        {
            var draws = vector.GetProperty("draws").Deserialize<List<DrawnFrom>>(JsonSerializerOptions.Web)!;
            DrawnFrom
                .NotAsked(draws, vector.GetProperty("learner").GetString()!)
                .Order(StringComparer.Ordinal)
                .ShouldBe(vector.GetProperty("notAsked").EnumerateArray().Select(id => id.GetString()!));
        }
    }
}
