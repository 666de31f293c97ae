using System.Collections.Concurrent;
using Wexel.Core.Outlets;
using Wexel.Server.Shelves;

namespace Wexel.Server.Releases;

/// <summary>
/// Remembers the keys that were reckoned: lists of many lessons ask for all of them each time they are shown, and few are others than before.
/// A key depends on nothing but what it is remembered under, so that none can be out of date.
/// </summary>
internal sealed class ReckonedKeys
{
    private const int Most = 50_000;

    private readonly ConcurrentDictionary<(string Frame, LessonHere Lesson, string? Release), string> _known = new();

    /// <summary>The key that is wanted of a lesson.</summary>
    /// <param name="wanted">What is wanted there of whichever lesson.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="release">What is said about it there alone, as it is kept.</param>
    internal string Key(WantedAt wanted, LessonHere lesson, string? release)
    {
        if (_known.TryGetValue((wanted.Frame, lesson, release), out var known))
            return known;
        if (_known.Count >= Most)
            _known.Clear();
        return _known[(wanted.Frame, lesson, release)] = wanted.Key(
            new LessonAtHand(lesson.Key, lesson.WantsMark, DetailShelf.Read(lesson.Said)),
            DetailShelf.Read(release)
        );
    }
}
