using System.Xml;

namespace Wexel.Core.Kit;

/// <summary>
/// Counts what has to be done to draw an SVG: its elements, each as often as <c>use</c> has it drawn (SVG 2, section 5.6), and the steps of
/// its filters. A few lines can ask for more than a machine does in a year.
/// </summary>
internal sealed class DrawingSize
{
    private const string Root = "";

    /// <summary>For each element with a name what lies in it: how many elements, and which names are used. What is drawn anyway has no name.</summary>
    private readonly Dictionary<string, Part> _parts = new() { [Root] = new Part() };
    private readonly Stack<Part?> _open = new();
    private int _filterSteps;
    private int _uses;

    /// <summary>How many elements are drawn; more than the most where parts use each other in a circle, or too much to count.</summary>
    internal long Drawn => CountOf(Root, []);

    /// <summary>Takes the element at which the reader stands.</summary>
    /// <returns>Why the drawing is not taken; null where it still may be.</returns>
    internal Problem? Add(XmlReader reader)
    {
        if (reader.Depth > SvgCheck.Deepest)
            return TooMuch($"elements stand more than {SvgCheck.Deepest} deep in each other");
        if (reader.LocalName.StartsWith("fe", StringComparison.Ordinal) && ++_filterSteps > SvgCheck.MostFilterSteps)
            return TooMuch($"its filters have more than {SvgCheck.MostFilterSteps} steps");
        if (reader.LocalName == "use" && ++_uses > SvgCheck.MostUses)
            return TooMuch($"it draws parts again more than {SvgCheck.MostUses} times");
        Part? named = null;
        if (reader.GetAttribute("id") is { Length: > 0 } id)
            _parts[id] = named = new Part();
        if (!reader.IsEmptyElement)
            _open.Push(named);
        else
            named?.Count(reader);
        // It lies in all that it stands in.
        foreach (var around in _open.OfType<Part>().Append(_parts[Root]))
            around.Count(reader);
        return _parts[Root].Elements > SvgCheck.MostElements ? TooMuch($"it has more than {SvgCheck.MostElements} elements") : null;
    }

    /// <summary>The innermost element ends.</summary>
    internal void End() => _open.TryPop(out _);

    internal static Problem TooMuch(string why) => new("mark-svg-too-much", $"The SVG takes too much to draw: {why}. Save it simpler, or as a PNG.", "mark");

    private readonly Dictionary<string, long> _counted = [];

    private long CountOf(string name, HashSet<string> within)
    {
        if (_counted.TryGetValue(name, out var known))
            return known;
        if (!_parts.TryGetValue(name, out var part))
            return 0;
        if (!within.Add(name))
            return SvgCheck.MostElements + 1;
        long count = part.Elements;
        foreach (var used in part.Uses)
            count = Math.Min(count + CountOf(used, within), SvgCheck.MostElements + 1);
        within.Remove(name);
        return _counted[name] = count;
    }

    private sealed class Part
    {
        internal int Elements { get; private set; }

        internal List<string> Uses { get; } = [];

        internal void Count(XmlReader reader)
        {
            Elements++;
            if (reader.LocalName == "use" && (reader.GetAttribute("href") ?? reader.GetAttribute("href", "http://www.w3.org/1999/xlink")) is ['#', .. var used])
                Uses.Add(used);
        }
    }
}
