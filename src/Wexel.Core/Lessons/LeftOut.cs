using Wexel.Core.Captions;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Lessons;

/// <summary>Says what of the things that were placed on a recording no learner will see.</summary>
public static class LeftOut
{
    /// <summary>A sentence for each thing, or for all of what is only counted, that lies past the recording's end or wholly inside cuts; before them a
    /// question where most of a kind lie past the end.</summary>
    /// <param name="given">The lesson as it was given, in recording time.</param>
    /// <param name="length">The recording's length.</param>
    /// <param name="map">The lesson's times.</param>
    public static IReadOnlyList<string> InWords(LessonWithCues given, TimeSpan length, TimeMap map)
    {
        var sentences = new Sentences(given.Document, length, map);
        PlacedLists.Read(given.Document, sentences);
        foreach (var track in given.Document.Captions)
            sentences.Add(Cue.Kind, given.CuesOf(track));
        return [.. sentences.Questions, .. sentences.Rest];
    }

    private sealed class Sentences(LessonDocument document, TimeSpan length, TimeMap map) : IPlacedWork
    {
        internal List<string> Questions { get; } = [];

        internal List<string> Rest { get; } = [];

        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            Add(kind, list(document));
            return list(document);
        }

        internal void Add<T>(PlacedKind<T> kind, IReadOnlyList<T> things)
            where T : class, IPlaced<T>
        {
            var late = things.Where(t => t.Span.Start >= length).ToList();
            var gone = kind.Gone([.. things.Where(t => t.Span.Start < length).OrderBy(t => t.Span.Start)], map);
            var end = TimeCode.Brief(length);
            if (late.Count * 2 > things.Count)
                Questions.Add($"{late.Count:N0} of {things.Count:N0} {kind.Plural} lie past the end at {end}: is that file of another recording?");
            if (kind.AreCounted)
            {
                if (late.Count > 0)
                    Rest.Add($"{Lie(kind, late.Count)} past the end at {end}, the first at {TimeCode.Brief(late[0].Span.Start)}; left out.");
                if (gone.Count > 0)
                    Rest.Add($"{Lie(kind, gone.Count)} wholly inside cuts; left out.");
                return;
            }

            Rest.AddRange(late.Select(t => $"{Capital(kind.Named(t))} starts at {TimeCode.Brief(t.Span.Start)}, past the end at {end}; it was left out."));
            Rest.AddRange(gone.Select(t => $"{Capital(kind.Placed(t))} lies wholly inside a cut; it was left out."));
        }

        private static string Lie<T>(PlacedKind<T> kind, int count)
            where T : class, IPlaced<T> => kind.InWords(count) + (count == 1 ? " lies" : " lie");

        private static string Capital(string sentence) => char.ToUpperInvariant(sentence[0]) + sentence[1..];
    }
}
