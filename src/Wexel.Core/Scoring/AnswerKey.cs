using System.Text.Json.Serialization;

namespace Wexel.Core.Scoring;

/// <summary>What is said to somebody who gave an answer.</summary>
/// <param name="To">The value of the answer; of a place, the number of its area, from 0.</param>
/// <param name="Says">What is said.</param>
public sealed record Reply(string To, string Says);

/// <summary>All by which an answer is judged, whatever the kind of its question. The player has the same rule for packages, where no server judges; both are
/// held to <c>tests/vectors/scoring.json</c>.</summary>
/// <param name="Responses">What is right. Where there are several, an answer has one value for each, and each counts as much.</param>
/// <param name="Text">How closely typed texts must be right; null where none are typed.</param>
/// <param name="Number">How near a number must be; null where none is typed.</param>
/// <param name="Replies">What is said to single answers.</param>
/// <param name="AllOrNothing">Whether an answer in which something is not wholly right counts nothing.</param>
public sealed record AnswerKey(
    IReadOnlyList<ResponseDeclaration> Responses,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] TextRule? Text = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] NumberRule? Number = null,
    IReadOnlyList<Reply>? Replies = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool AllOrNothing = false
)
{
    /// <summary>The most values that an answer may have.</summary>
    public const int MostValues = 100;

    /// <summary>The longest value, in characters.</summary>
    public const int LongestValue = 500;

    /// <summary>What is said to single answers.</summary>
    public IReadOnlyList<Reply> Replies { get; init; } = Replies ?? [];

    /// <summary>Judges an answer.</summary>
    /// <param name="answer">Its values.</param>
    public Grade Judge(IReadOnlyList<string> answer)
    {
        double sum = 0;
        var replies = new List<string>();
        for (var i = 0; i < Responses.Count; i++)
        {
            var (response, given) = (Responses[i], Responses.Count == 1 ? answer : [.. answer.Skip(i).Take(1).Where(v => v.Length > 0)]);
            IReadOnlyList<string> taken = [.. given.Select(value => TakenFor(response, value))];
            var most = response.Most;
            sum += most > 0 ? ResponseProcessing.Score(response, taken) / most : 0;
            foreach (var value in taken.Select(value => Named(response, value)).Distinct())
                replies.AddRange(Replies.Where(r => r.To == value).Select(r => r.Says));
        }

        var share = Math.Round(Math.Clamp(sum / Math.Max(1, Responses.Count), 0, 1), 4);
        share = AllOrNothing && share < 1 ? 0 : share;
        return new Grade(share, share >= 1, replies);
    }

    /// <summary>What a value counts as: of a text the accepted one, of a number the right one, otherwise itself.</summary>
    public string TakenFor(ResponseDeclaration response, string value) =>
        (Text, Number) switch
        {
            ({ } text, _) => text.TakenFor(value, [.. response.Mapping?.Entries.Select(e => e.Key) ?? response.Correct]),
            (_, { } number) when response.Correct is [var right] => number.TakenFor(value, right),
            _ => value,
        };

    /// <summary>By what a value is known where answers are counted: of a place, the number of its area.</summary>
    private static string Named(ResponseDeclaration response, string value) =>
        response.Areas is { } areas && ResponseProcessing.AreaOf(areas, value) is { } area
            ? areas.Entries.Select((e, i) => (e, i)).First(x => ReferenceEquals(x.e, area)).i.ToString(System.Globalization.CultureInfo.InvariantCulture)
            : value;
}

/// <summary>What tries after the first come to.</summary>
public static class Penalty
{
    /// <summary>The share of the points that an answer is given.</summary>
    /// <param name="share">What the answer comes to by itself, 0 to 1.</param>
    /// <param name="perCent">How much of the points every try after the first takes away, in per cent.</param>
    /// <param name="attempt">Which try it is, from 1.</param>
    public static double Taken(double share, int perCent, int attempt) => Math.Round(share * Math.Max(0, 1 - (perCent / 100.0 * (attempt - 1))), 4);
}

/// <summary>What an answer comes to.</summary>
/// <param name="Share">The share of the question's points, 0 to 1, in ten-thousandths.</param>
/// <param name="Right">Whether that is all of them.</param>
/// <param name="Replies">What is said to it.</param>
public sealed record Grade(double Share, bool Right, IReadOnlyList<string> Replies);
