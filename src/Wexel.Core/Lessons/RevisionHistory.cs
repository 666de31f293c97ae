namespace Wexel.Core.Lessons;

/// <summary>A saved revision, as far as going back and forth is concerned.</summary>
/// <param name="Number">Its number, from 1.</param>
/// <param name="RestoredFrom">The number of the earlier revision that it brings back; null for one that changed something new.</param>
public readonly record struct RevisionStep(int Number, int? RestoredFrom);

/// <summary>Where undo and redo lead from a lesson's last revision.</summary>
/// <param name="Now">The revision whose content is the last one's: itself, or the one that it brings back.</param>
/// <param name="Back">The revisions that undo brings back, the next one last.</param>
/// <param name="On">The revisions that redo brings back, the next one last.</param>
public sealed record RevisionHistory(int Now, IReadOnlyList<int> Back, IReadOnlyList<int> On)
{
    /// <summary>Goes through all revisions as they were saved. A revision that brings back what undo or redo leads to is a step on that way; any other
    /// begins a new one.</summary>
    /// <param name="steps">The lesson's revisions, in order.</param>
    public static RevisionHistory Of(IEnumerable<RevisionStep> steps)
    {
        var (back, on) = (new Stack<int>(), new Stack<int>());
        int? now = null;
        foreach (var step in steps)
        {
            if (now is not { } before)
            {
                now = step.RestoredFrom ?? step.Number;
                continue;
            }

            if (step.RestoredFrom is { } to && back.TryPeek(out var last) && last == to)
            {
                on.Push(before);
                now = back.Pop();
            }
            else if (step.RestoredFrom is { } again && on.TryPeek(out var next) && next == again)
            {
                back.Push(before);
                now = on.Pop();
            }
            else
            {
                back.Push(before);
                on.Clear();
                now = step.RestoredFrom ?? step.Number;
            }
        }

        return new RevisionHistory(now ?? 0, [.. back.Reverse()], [.. on.Reverse()]);
    }
}
