using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Editing;
using Wexel.Core.Placing;

namespace Wexel.Core.Lessons;

/// <summary>Brings what was placed on a recording into lesson time.</summary>
public static class WhatFollows
{
    /// <summary>
    /// The sections that are left, in lesson time. One whose start is cut moves to the next moment that is kept; one of which nothing
    /// is kept is gone. A section goes on until the next one, and one that is not nested covers those under it.
    /// </summary>
    /// <param name="sections">In order, in recording time.</param>
    /// <param name="map">The lesson's times.</param>
    public static IReadOnlyList<Section> Sections(IReadOnlyList<Section> sections, TimeMap map)
    {
        var left = new List<Section>();
        for (var i = 0; i < sections.Count; i++)
        {
            var section = sections[i];
            var next = sections.Skip(i + 1).FirstOrDefault(s => section.Nested || !s.Nested);
            var at = WholeMilliseconds(map.ToLesson(section.At));
            if (at < (next is null ? map.Length : map.ToLesson(next.At)))
                left.Add(section with { At = at });
        }

        return left is [{ Nested: true } first, ..] ? [first with { Nested = false }, .. left.Skip(1)] : left;
    }

    /// <summary>Up, not down: a place a little before its frame would show the frame before, which is the other side of a joint.</summary>
    private static TimeSpan WholeMilliseconds(TimeSpan time) => TimeSpan.FromMilliseconds(Math.Ceiling(time.Ticks / (double)TimeSpan.TicksPerMillisecond));

    /// <summary>The captions that are left, in lesson time; one that is cut in part keeps its part.</summary>
    /// <param name="cues">In recording time.</param>
    /// <param name="map">The lesson's times.</param>
    public static IReadOnlyList<Cue> Cues(IReadOnlyList<Cue> cues, TimeMap map) =>
        [.. cues.Select(c => (Cue: c, Span: map.ToLesson(c.Span))).Where(c => c.Span is not null).Select(c => c.Cue with { Span = c.Span!.Value })];

    /// <summary>What cuts take away altogether.</summary>
    /// <param name="Sections">The sections of which nothing is kept.</param>
    /// <param name="Cues">How many captions are gone.</param>
    /// <param name="MoveIns">How many move-ins are gone.</param>
    public sealed record Gone(IReadOnlyList<Section> Sections, int Cues, int MoveIns);

    /// <summary>What is gone of what was placed on the recording.</summary>
    public static Gone Lost(IReadOnlyList<Section> sections, IReadOnlyList<Cue> cues, IReadOnlyList<MoveIn> moveIns, TimeMap map)
    {
        var left = Sections(sections, map).Select(s => s.Id).ToHashSet();
        return new Gone([.. sections.Where(s => !left.Contains(s.Id))], cues.Count - Cues(cues, map).Count, moveIns.Count(m => map.ToLesson(m.Span) is null));
    }
}
