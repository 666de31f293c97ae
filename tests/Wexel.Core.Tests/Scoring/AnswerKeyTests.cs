using System.Text.Json;
using CsCheck;
using Wexel.Core.Documents;
using Wexel.Core.Scoring;

namespace Wexel.Core.Tests.Scoring;

public class AnswerKeyTests
{
    public sealed record Vector(string Name, AnswerKey Key, IReadOnlyList<string> Answer, double Share, IReadOnlyList<string> Replies)
    {
        public override string ToString() => Name;
    }

    /// <summary>The same file is read by the player's tests. The names before the colon are those of the examples of 1EdTech QTI 2.1 and 2.2 (Implementation
    /// Guide, section 3, items): what is right and what it counts is from there, from memory.</summary>
    public static IEnumerable<TheoryDataRow<Vector>> Vectors() =>
        WexelJson.Read<Vector[]>(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", "scoring.json"))).Select(v => new TheoryDataRow<Vector>(v));

    [Theory]
    [MemberData(nameof(Vectors))]
    public void Judges_an_answer(Vector vector)
    {
        var grade = vector.Key.Judge(vector.Answer);
        grade.Share.ShouldBe(vector.Share);
        grade.Right.ShouldBe(vector.Share == 1);
        grade.Replies.ShouldBe(vector.Replies);
    }

    /// <summary>What the examples score by the standard templates, before it is a share (QTI's SCORE).</summary>
    [Theory]
    [InlineData(2, "H", "O")]
    [InlineData(1, "H")]
    [InlineData(0, "H", "O", "Cl")]
    [InlineData(0, "Cl")]
    public void Scores_the_composition_of_water(double score, params string[] response) =>
        ResponseProcessing
            .Score(
                new ResponseDeclaration(
                    Cardinality.Multiple,
                    BaseType.Identifier,
                    ["H", "O"],
                    new Mapping([new("H", 1), new("O", 1), new("Cl", -2)], -2, 0, 2)
                ),
                response
            )
            .ShouldBe(score);

    [Fact]
    public void Counts_each_area_once()
    {
        var areas = new AreaMapping([new(Shape.Circle(78, 102, 8), 1), new(Shape.Circle(117, 171, 8), 1)], -0.5, 0);
        var map = new ResponseDeclaration(Cardinality.Multiple, BaseType.Point, ["78 102", "117 171"], Areas: areas);
        ResponseProcessing.Score(map, ["78 102", "79 103"]).ShouldBe(1);
        ResponseProcessing.Score(map, ["78 102", "117 171"]).ShouldBe(2);
        ResponseProcessing.Score(map, ["78 102", "0 0"]).ShouldBe(0.5);
        ResponseProcessing.Score(map, ["0 0"]).ShouldBe(0);
    }

    /// <summary>QTI 2.2, mapEntry: whether a text's capitals count is said at each entry.</summary>
    [Fact]
    public void Maps_a_text_without_its_capitals_where_an_entry_says_so()
    {
        var map = new ResponseDeclaration(Cardinality.Single, BaseType.String, ["York"], new Mapping([new("York", 1, CaseSensitive: false)]));
        ResponseProcessing.Score(map, ["YORK"]).ShouldBe(1);
        ResponseProcessing.Score(map with { Mapping = new Mapping([new("York", 1)]) }, ["YORK"]).ShouldBe(0);
    }

    [Fact]
    public void Never_leaves_the_range_whatever_comes()
    {
        var keys = Vectors().Select(v => v.Data.Key).ToArray();
        var values = Gen.OneOf(Gen.String, Pick.From("H", "O", "A P", "102 113", "7.4", "1e308 -1e308", "NaN NaN", " ", "York"));
        Gen.Select(Pick.From(keys), values.List[0, 5]).Sample((key, answer) => key.Judge(answer).Share is >= 0 and <= 1);
    }

    [Fact]
    public void Is_the_same_after_it_was_written()
    {
        foreach (var vector in Vectors().Select(v => v.Data))
            WexelJson.Read<AnswerKey>(WexelJson.Write(vector.Key)).Judge(vector.Answer).Share.ShouldBe(vector.Share, vector.Name);
    }
}
