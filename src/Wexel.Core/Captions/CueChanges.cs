namespace Wexel.Core.Captions;

/// <summary>What somebody changed of a track: the cues that are new or otherwise, and the names of those that are gone. What is not named stays.</summary>
/// <param name="Set">Cues as they are to be, each with its name.</param>
/// <param name="Removed">The names of those that go.</param>
public sealed record CueChanges(IReadOnlyList<Cue> Set, IReadOnlyList<string> Removed)
{
    /// <summary>The track with the changes, in order of time; a cue without a word goes.</summary>
    /// <param name="cues">The track.</param>
    public IReadOnlyList<Cue> Apply(IReadOnlyList<Cue> cues)
    {
        var set = Set.GroupBy(c => c.Id).ToDictionary(g => g.Key, g => g.Last());
        var gone = Removed.ToHashSet();
        return
        [
            .. cues.Where(c => !set.ContainsKey(c.Id) && !gone.Contains(c.Id))
                .Concat(set.Values.Select(Tidy).Where(c => c.Text.Length > 0))
                .OrderBy(c => c.Span.Start)
                .ThenBy(c => c.Span.End),
        ];
    }

    /// <summary>Why they cannot be made, or null.</summary>
    /// <param name="cues">The track.</param>
    public Problem? Refusal(IReadOnlyList<Cue> cues) =>
        Set.FirstOrDefault(c => c.Id is not { Length: > 0 and <= 64 } || c.Id.Any(char.IsWhiteSpace)) is not null
            ? new Problem("captions-without-name", "A caption has no name inside; load the page again.", "id")
        : Set.FirstOrDefault(c => c.Span.Start < TimeSpan.Zero || c.Span.End <= c.Span.Start) is { } backward
            ? new Problem("captions-backward", $"The caption “{Problem.Shown(backward.Text)}” ends before it starts.", "span")
        : Set.FirstOrDefault(c => c.Text.Length > CaptionFile.LongestCue) is not null
            ? new Problem("captions-too-long", "A caption has more than 10,000 characters; part it.", "text")
        : cues.Count + Set.Count > CaptionFile.MostCues + cues.Select(c => c.Id).Intersect(Set.Select(c => c.Id)).Count()
            ? new Problem("captions-too-many", "A lesson has at most 50,000 captions.", "set")
        : null;

    /// <summary>Lines trimmed, empty ones left out: WebVTT ends a cue there.</summary>
    private static Cue Tidy(Cue cue) => cue with { Text = Lines(cue.Text), Markup = cue.Markup is { } markup ? Lines(markup) : null };

    private static string Lines(string text) =>
        string.Join('\n', text.ReplaceLineEndings("\n").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries));
}
