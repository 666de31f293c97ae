namespace Wexel.Core.Surveys;

/// <summary>One reply to a survey.</summary>
/// <param name="At">Where it was given: an outlet, by its name.</param>
/// <param name="Values">What was <see cref="Survey.Taken"/> of it.</param>
public sealed record SurveyReply(string At, IReadOnlyDictionary<string, IReadOnlyList<string>> Values);

/// <summary>What the replies to a survey come to.</summary>
/// <param name="Replies">How many replied.</param>
/// <param name="Withheld">Why nothing more is shown, in a sentence; null where it is.</param>
/// <param name="Items">What each item came to; empty where that is withheld.</param>
public sealed record SurveyResults(int Replies, string? Withheld, IReadOnlyList<SurveyItemResult> Items)
{
    /// <summary>Of anonymous replies, the fewest of which more than their number is shown: of fewer, somebody could tell who said what.</summary>
    public const int Fewest = 5;

    /// <summary>Anonymous replies of a group: nobody knows which they are.</summary>
    public static SurveyResults OfGroup { get; } = new(0, "Replies are anonymous: which group said what is not known.", []);

    /// <summary>What all replies come to.</summary>
    /// <param name="survey">What was asked.</param>
    /// <param name="named">Whether all who replied were told that they are named.</param>
    /// <param name="replies">The replies.</param>
    public static SurveyResults Of(Survey survey, bool named, IReadOnlyList<SurveyReply> replies) =>
        !named && replies.Count is > 0 and < Fewest
            ? new SurveyResults(
                replies.Count,
                $"Replies were promised to be anonymous: what they say is shown from {Fewest} on, so that nobody can tell who said it.",
                []
            )
            : new SurveyResults(replies.Count, null, [.. survey.Items.Select(item => item.Result(To(item, replies)))]);

    /// <summary>What the replies of one place come to. What one small place said could also be found by taking all the others from the whole, so
    /// that anonymous replies are broken down only where every place has enough.</summary>
    /// <param name="survey">What was asked.</param>
    /// <param name="named">Whether all who replied were told that they are named.</param>
    /// <param name="replies">The replies of all places.</param>
    /// <param name="at">The place.</param>
    public static SurveyResults At(Survey survey, bool named, IReadOnlyList<SurveyReply> replies, string at)
    {
        var there = replies.Where(r => r.At == at).ToList();
        return !MayBreakDown(named, replies)
            ? new SurveyResults(there.Count, $"Anonymous replies are broken down once every place has {Fewest} or more.", [])
            : Of(survey, named, there);
    }

    /// <summary>Whether it may be said where replies were given.</summary>
    /// <param name="named">Whether all who replied were told that they are named.</param>
    /// <param name="replies">The replies of all places.</param>
    public static bool MayBreakDown(bool named, IReadOnlyList<SurveyReply> replies) => named || replies.GroupBy(r => r.At).All(g => g.Count() >= Fewest);

    private static IReadOnlyList<IReadOnlyList<string>> To(SurveyItem item, IReadOnlyList<SurveyReply> replies) =>
        [.. replies.Select(r => r.Values.TryGetValue(item.Id, out var values) ? item.Taken(values) : []).Where(values => values.Count > 0)];
}
