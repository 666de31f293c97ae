using Wexel.Core.Keys;
using Wexel.Core.Timing;

namespace Wexel.Core.Placing;

/// <summary>
/// What holds for one kind of placed things: its rules and words, what two people's changes come to, what becomes of it under cuts, where
/// a lesson is split, and under other takes. A kind is a folder with such a class; it is registered by a list of it in a document (see
/// <see cref="PlacedLists"/>), and nothing else has to know it.
/// </summary>
/// <typeparam name="T">The things.</typeparam>
public abstract class PlacedKind<T>
    where T : class, IPlaced<T>
{
    /// <summary>What one is called, in small letters: "section".</summary>
    public abstract string Name { get; }

    /// <summary>What several are called.</summary>
    public virtual string Plural => Name + "s";

    /// <summary>The most that a lesson may have.</summary>
    public abstract int Most { get; }

    /// <summary>Whether they are so many that sentences count them and do not name them.</summary>
    public virtual bool AreCounted => false;

    /// <summary>The shortest that is kept; 0 for what lies at a moment.</summary>
    public virtual TimeSpan Shortest => TimeSpan.Zero;

    /// <summary>The ways in which one may differ from what it was, each with its word: "moved".</summary>
    public virtual IReadOnlyList<(string Word, Func<T, T, bool> Differs)> Changes { get; } = [("changed", (before, after) => !before.Equals(after))];

    /// <summary>One as a sentence names it, such as: the section “Fares”.</summary>
    public abstract string Named(T thing);

    /// <summary>The same with where it lies, such as: the section “Fares” at 1:20.</summary>
    public virtual string Placed(T thing) => $"{Named(thing)} at {TimeCode.Brief(thing.Span.Start)}";

    /// <summary>The same thing elsewhere.</summary>
    /// <param name="thing">It stays as it is.</param>
    /// <param name="span">Where it is to lie; of what lies at a moment only the start counts.</param>
    public abstract T At(T thing, TimeRange span);

    /// <summary>The same thing under another name.</summary>
    public abstract T Called(T thing, string id);

    /// <summary>What two people made of one thing, field by field: what I changed as I have it, the rest as they have it.</summary>
    public abstract T Merged(T before, T theirs, T mine);

    /// <summary>Writes what of one makes a difference to learners.</summary>
    public abstract void Declare(KeyFields key, T thing);

    /// <summary>As they are saved: in order, within the recording, and as the kind's own rules want them.</summary>
    /// <param name="things">In any order.</param>
    /// <param name="length">The recording's length.</param>
    public abstract IReadOnlyList<T> Tidy(IEnumerable<T> things, TimeSpan length);

    /// <summary>Why they cannot stand, or null.</summary>
    public Problem? Refusal(IReadOnlyList<T> things)
    {
        var (code, field) = (Plural.Replace(' ', '-'), Field);
        return things.Count > Most
                ? new Problem($"{code}-too-many", $"There are {things.Count:N0} {Plural}; {Most:N0} is the most that one lesson may have.", field)
            : things.Any(t => string.IsNullOrEmpty(t.Id)) ? new Problem($"{code}-without-name", $"A {Name} has no name inside; load the page again.", field)
            : things.DistinctBy(t => t.Id).Count() != things.Count
                ? new Problem($"{code}-same-twice", $"Two {Plural} have the same name inside; load the page again.", field)
            : null;
    }

    /// <summary>Gives a name to each that has none of its own; names that are there stay, as far as they tell things apart.</summary>
    public IReadOnlyList<T> WithNames(IEnumerable<T> things)
    {
        var given = things.ToList();
        var taken = new HashSet<string>();
        var own = given.ConvertAll(t => t.Id is { Length: > 0 and <= LongestId } && taken.Add(t.Id));
        var next = 1;
        return [.. given.Select((thing, i) => own[i] ? thing : Called(thing, Free()))];

        string Free()
        {
            while (!taken.Add($"{Name[0]}{next}"))
                next++;
            return $"{Name[0]}{next}";
        }
    }

    /// <summary>What is left of them, in lesson time; of one that is cut in part, its part.</summary>
    /// <param name="things">In order, in recording time.</param>
    /// <param name="map">The lesson's times.</param>
    public virtual IReadOnlyList<T> Following(IReadOnlyList<T> things, TimeMap map) =>
        [.. things.Select(t => (Thing: t, Span: map.ToLesson(t.Span))).Where(t => t.Span is not null).Select(t => At(t.Thing, t.Span!.Value))];

    /// <summary>Those of which cuts leave nothing.</summary>
    /// <inheritdoc cref="Following"/>
    public IReadOnlyList<T> Gone(IReadOnlyList<T> things, TimeMap map)
    {
        var left = Following(things, map).Select(t => t.Id).ToHashSet();
        return [.. things.Where(t => !left.Contains(t.Id))];
    }

    /// <summary>Those that the first lesson keeps where one is split.</summary>
    /// <param name="things">In order, in recording time.</param>
    /// <param name="at">Where it is split.</param>
    public virtual IReadOnlyList<T> Before(IReadOnlyList<T> things, TimeSpan at) => [.. things.Where(t => t.Span.Start < at)];

    /// <summary>Those that the second lesson keeps where one is split.</summary>
    /// <inheritdoc cref="Before"/>
    public virtual IReadOnlyList<T> From(IReadOnlyList<T> things, TimeSpan at) => [.. things.Where(t => t.Span.End > at || t.Span.Start >= at)];

    /// <summary>They along another reel: each goes with its recording.</summary>
    /// <param name="things">Along the old reel.</param>
    /// <param name="places">Where the recordings lie and lay.</param>
    /// <param name="lost">Takes those that fall outside, in a few words each.</param>
    public IReadOnlyList<T> Carried(IReadOnlyList<T> things, ReelPlaces places, ICollection<string> lost)
    {
        var carried = new List<T>();
        var gone = new List<T>();
        foreach (var thing in things)
        {
            if (Carried(thing, places) is { } there)
                carried.Add(there);
            else
                gone.Add(thing);
        }

        if (AreCounted && gone.Count > 0)
            lost.Add(InWords(gone.Count));
        foreach (var thing in AreCounted ? [] : gone)
            lost.Add(Placed(thing));
        return [.. carried.OrderBy(t => t.Span.Start)];
    }

    /// <summary>One along another reel; null where it falls outside. A kind whose things name other moments takes those along too.</summary>
    /// <param name="thing">Along the old reel.</param>
    /// <param name="places">Where the recordings lie and lay.</param>
    public virtual T? Carried(T thing, ReelPlaces places) => places.Carried(thing.Span) is { } span && span.Length >= Shortest ? At(thing, span) : null;

    /// <summary>Why learners cannot get one as it is, each in a sentence that says what to do; none where they can.</summary>
    public virtual IEnumerable<string> Faults(T thing) => [];

    /// <summary>The names of other placed things that one leads to; where one of them is gone, learners cannot get it.</summary>
    public virtual IEnumerable<string> LeadsTo(T thing) => [];

    /// <summary>So many of them, in words: "2 captions".</summary>
    public string InWords(int count) => count == 1 ? $"1 {Name}" : $"{count:N0} {Plural}";

    private const int LongestId = 64;

    private string Field => string.Concat(Plural.Split('-', ' ').Select((word, i) => i == 0 ? word : char.ToUpperInvariant(word[0]) + word[1..]));
}
