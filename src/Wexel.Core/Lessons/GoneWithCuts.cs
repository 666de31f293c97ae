using Wexel.Core.Captions;
using Wexel.Core.Placing;

namespace Wexel.Core.Lessons;

/// <summary>Says what other cuts would take away of what was placed.</summary>
public static class GoneWithCuts
{
    /// <summary>What would be gone and is there now, in a few words each; many of a kind are counted.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="before">Its times now.</param>
    /// <param name="after">Its times with the other cuts.</param>
    public static IReadOnlyList<string> InWords(LessonWithCues lesson, TimeMap before, TimeMap after)
    {
        var words = new Words(lesson.Document, before, after);
        PlacedLists.Read(lesson.Document, words);
        foreach (var track in lesson.Document.Captions)
            words.Add(Cue.Kind, lesson.CuesOf(track));
        return words.All;
    }

    private sealed class Words(LessonDocument document, TimeMap before, TimeMap after) : IPlacedWork
    {
        internal List<string> All { get; } = [];

        public IReadOnlyList<T> Do<T>(PlacedKind<T> kind, Func<object, IReadOnlyList<T>> list)
            where T : class, IPlaced<T>
        {
            Add(kind, list(document));
            return list(document);
        }

        internal void Add<T>(PlacedKind<T> kind, IReadOnlyList<T> things)
            where T : class, IPlaced<T>
        {
            var goneBefore = kind.Gone(things, before).Select(t => t.Id).ToHashSet();
            var gone = kind.Gone(things, after).Where(t => !goneBefore.Contains(t.Id)).ToList();
            if (gone.Count > 0)
                All.AddRange(kind.AreCounted ? [kind.InWords(gone.Count)] : gone.Select(kind.Named));
        }
    }
}
