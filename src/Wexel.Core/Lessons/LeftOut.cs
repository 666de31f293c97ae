using System.Globalization;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>Says what of the things that were placed on a recording no learner will see.</summary>
public static class LeftOut
{
    /// <summary>A sentence for each section, and one for all captions, that lie past the recording's end or wholly inside cuts; before them a question where most of them lie past the end.</summary>
    /// <param name="sections">The sections as they were given, in recording time.</param>
    /// <param name="cues">The captions as they were given, in recording time, in order.</param>
    /// <param name="length">The recording's length.</param>
    /// <param name="map">The lesson's times.</param>
    public static IReadOnlyList<string> Of(IReadOnlyList<Section> sections, IReadOnlyList<Cue> cues, TimeSpan length, TimeMap map)
    {
        var (lateSections, lateCues) = (sections.Where(s => s.At >= length).ToList(), cues.Where(c => c.Span.Start >= length).ToList());
        var kept = sections.Where(s => s.At < length).OrderBy(s => s.At).ToList();
        var lost = WhatFollows.Lost(kept, [.. cues.Where(c => c.Span.Start < length)], [], map);
        return
        [
            .. OfAnother("sections", lateSections.Count, sections.Count, length),
            .. OfAnother("captions", lateCues.Count, cues.Count, length),
            .. lateSections.Select(s => $"The section “{s.Title}” starts at {TimeCode.Brief(s.At)}, past the end at {TimeCode.Brief(length)}; it was left out."),
            .. lost.Sections.Select(s => $"The section “{s.Title}” at {TimeCode.Brief(s.At)} lies wholly inside a cut; it was left out."),
            .. lateCues.Count == 0 ? [] : new[] { $"{Captions(lateCues.Count)} past the end at {TimeCode.Brief(length)}, the first at {TimeCode.Brief(lateCues[0].Span.Start)}; left out." },
            .. lost.Cues == 0 ? [] : new[] { $"{Captions(lost.Cues)} wholly inside cuts; left out." },
        ];
    }

    private static IEnumerable<string> OfAnother(string what, int late, int all, TimeSpan length) => late * 2 > all
        ? [string.Create(CultureInfo.InvariantCulture, $"{late} of {all} {what} lie past the end at {TimeCode.Brief(length)}: is that file of another recording?")]
        : [];

    private static string Captions(int count) => count == 1 ? "1 caption lies" : string.Create(CultureInfo.InvariantCulture, $"{count} captions lie");
}
