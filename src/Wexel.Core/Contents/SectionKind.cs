using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Contents;

/// <summary>Sections of a lesson: each goes on until the next one, and one that is not nested covers those under it.</summary>
internal sealed class SectionKind : PlacedKind<Section>
{
    public override string Name => "section";

    public override int Most => 500;

    public override IReadOnlyList<(string Word, Func<Section, Section, bool> Differs)> Changes { get; } =
    [("moved", (a, b) => a.At != b.At), ("renamed", (a, b) => a.Title != b.Title), ("set in or out", (a, b) => a.Nested != b.Nested)];

    public override string Named(Section thing) => $"the section “{thing.Title}”";

    public override Section At(Section thing, TimeRange span) => thing with { At = span.Start };

    public override Section Called(Section thing, string id) => thing with { Id = id };

    public override Section Merged(Section before, Section theirs, Section mine) =>
        new(
            mine.Id,
            mine.At != before.At ? mine.At : theirs.At,
            mine.Title != before.Title ? mine.Title : theirs.Title,
            mine.Nested != before.Nested ? mine.Nested : theirs.Nested
        );

    public override void Declare(KeyFields key, Section thing) =>
        key.Add("id", thing.Id).Add("at", thing.At).Add("title", thing.Title).Add("nested", thing.Nested);

    public override IReadOnlyList<Section> Tidy(IEnumerable<Section> things, TimeSpan length) => SectionRules.Tidy(things, length);

    /// <summary>One whose start is cut moves to the next moment that is kept; one of which nothing is kept is gone.</summary>
    public override IReadOnlyList<Section> Following(IReadOnlyList<Section> things, TimeMap map)
    {
        var left = new List<Section>();
        for (var i = 0; i < things.Count; i++)
        {
            var section = things[i];
            var next = things.Skip(i + 1).FirstOrDefault(s => section.Nested || !s.Nested);
            var at = WholeMilliseconds(map.ToLesson(section.At));
            if (at < (next is null ? map.Length : map.ToLesson(next.At)))
                left.Add(section with { At = at });
        }

        return left is [{ Nested: true } first, ..] ? [first with { Nested = false }, .. left.Skip(1)] : left;
    }

    /// <summary>What a section goes on with behind the place is under its name there too.</summary>
    public override IReadOnlyList<Section> From(IReadOnlyList<Section> things, TimeSpan at)
    {
        var running = things.LastOrDefault(s => s.At < at && !things.Any(o => o.At == at));
        return [.. running is null ? [] : new[] { running with { At = at, Nested = false } }, .. things.Where(s => s.At >= at)];
    }

    /// <summary>Up, not down: a place a little before its frame would show the frame before, which is the other side of a joint.</summary>
    private static TimeSpan WholeMilliseconds(TimeSpan time) => TimeSpan.FromMilliseconds(Math.Ceiling(time.Ticks / (double)TimeSpan.TicksPerMillisecond));
}
