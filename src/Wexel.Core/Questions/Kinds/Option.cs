using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Scoring;

namespace Wexel.Core.Questions.Kinds;

/// <summary>Something that can be chosen.</summary>
/// <param name="Id">A name inside the question that stays.</param>
/// <param name="Text">What it says.</param>
/// <param name="Right">Whether it is right.</param>
/// <param name="PerCent">How much of the points it counts, −100 to 100; null for what is usual: all of them, or its part, where it is right.</param>
/// <param name="Reply">What is said to whoever took it; null for nothing.</param>
public sealed record Option(
    string Id,
    string Text,
    bool Right = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? PerCent = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Reply = null
);

/// <summary>What several kinds do with options.</summary>
internal static class Options
{
    internal static IReadOnlyList<Option> Tidy(IEnumerable<Option> options, Func<string?, string> line, Func<string?, string?> reply)
    {
        var given = options.OfType<Option>().Take(Interaction.MostOptions).ToList();
        var ids = Ids([.. given.Select(o => o.Id)]);
        return
        [
            .. given.Select(
                (o, i) => o with { Id = ids[i], Text = line(o.Text), PerCent = o.PerCent is { } p ? Math.Clamp(p, -100, 100) : null, Reply = reply(o.Reply) }
            ),
        ];
    }

    /// <summary>Names that tell apart and that QTI takes: a letter, then letters, digits, hyphens (QTI's identifier; common to XML's NCName).</summary>
    internal static IReadOnlyList<string> Ids(IReadOnlyList<string?> given)
    {
        var taken = new HashSet<string>();
        var own = given.Select(id => IsId(id) && taken.Add(id!)).ToList();
        var next = 1;
        return [.. given.Select((id, i) => own[i] ? id! : Free())];

        string Free()
        {
            while (!taken.Add($"x{next}"))
                next++;
            return $"x{next}";
        }
    }

    internal static bool IsId(string? id) =>
        id is { Length: > 0 and <= 32 } && char.IsAsciiLetter(id[0]) && id.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_');

    internal static IEnumerable<string> Faults(IReadOnlyList<Option> options, IEnumerable<string> twice)
    {
        if (options.Count(o => o.Text.Length > 0) < 2)
            yield return "It needs two answers or more to choose from. Add one.";
        else if (options.Any(o => o.Text.Length == 0))
            yield return "An answer says nothing. Write it, or take it out.";
        if (!options.Any(o => o.Right))
            yield return "No answer is right. Mark the right one.";
        foreach (var sentence in twice)
            yield return sentence;
    }

    internal static IReadOnlyList<Reply> Replies(IReadOnlyList<Option> options) =>
        [.. options.Where(o => o.Reply is not null).Select(o => new Reply(o.Id, o.Reply!))];

    internal static IReadOnlyList<AskedOption> Asked(IEnumerable<Option> options) => [.. options.Select(o => new AskedOption(o.Id, o.Text))];

    internal static string Said(IReadOnlyList<Option> options, IReadOnlyList<string> answer) =>
        string.Join("; ", answer.Select(id => options.FirstOrDefault(o => o.Id == id)?.Text ?? id));

    internal static void Declare(KeyFields key, Option option) =>
        key.Add("id", option.Id).Add("text", option.Text).Add("right", option.Right).Add("per-cent", (long?)option.PerCent).Add("reply", option.Reply);
}
