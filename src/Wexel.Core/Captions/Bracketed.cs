namespace Wexel.Core.Captions;

/// <summary>What stands in a text between two signs, such as tags; found in one go over the text.</summary>
internal static class Bracketed
{
    /// <summary>Stretches from an opening sign to the next closing one, one behind the other; of signs that are opened within one, the first that is
    /// wanted counts.</summary>
    /// <param name="text">The text.</param>
    /// <param name="open">The opening sign.</param>
    /// <param name="close">The closing sign.</param>
    /// <param name="wanted">Whether a stretch that begins at a place is one; may be null for all.</param>
    internal static IEnumerable<Range> In(string text, char open, char close, Func<int, bool>? wanted = null)
    {
        var end = -1;
        for (var at = text.IndexOf(open); at >= 0; at = text.IndexOf(open, at))
        {
            // Where nothing closes any more there is no stretch, however many are opened.
            if (end < at && (end = text.IndexOf(close, at)) < 0)
                yield break;
            if (wanted?.Invoke(at) == false)
            {
                at++;
                continue;
            }

            yield return at..(end + 1);
            at = end + 1;
        }
    }

    /// <summary>The text without such stretches.</summary>
    internal static string Without(string text, char open, char close, Func<int, bool>? wanted = null)
    {
        var (left, from) = (new System.Text.StringBuilder(), 0);
        foreach (var stretch in In(text, open, close, wanted))
        {
            left.Append(text, from, stretch.Start.Value - from);
            from = stretch.End.Value;
        }

        return left.Append(text, from, text.Length - from).ToString();
    }
}
