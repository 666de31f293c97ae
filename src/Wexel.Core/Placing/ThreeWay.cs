namespace Wexel.Core.Placing;

/// <summary>What two people made of one revision, brought together: what only one of them changed is as that one has it.</summary>
/// <param name="clashes">Takes what both changed, in a few words each; there mine stands.</param>
public sealed class ThreeWay(ICollection<string> clashes)
{
    /// <summary>One value.</summary>
    /// <param name="before">As both found it.</param>
    /// <param name="theirs">As the other has it.</param>
    /// <param name="mine">As I have it.</param>
    /// <param name="name">What it is, in a few words.</param>
    public T Value<T>(T before, T theirs, T mine, string name)
    {
        var (changedHere, changedThere) = (!Equals(before, mine), !Equals(before, theirs));
        if (changedHere && changedThere && !Equals(mine, theirs))
            clashes.Add(name);
        return changedHere ? mine : theirs;
    }

    /// <summary>Things of a kind.</summary>
    public IReadOnlyList<T> List<T>(PlacedKind<T> kind, IReadOnlyList<T> before, IReadOnlyList<T> theirs, IReadOnlyList<T> mine)
        where T : class, IPlaced<T> => [.. List(before, theirs, mine, t => t.Id, kind.Named, kind.Merged).OrderBy(t => t.Span.Start)];

    /// <summary>Things that have a name; what both changed is a clash.</summary>
    /// <param name="before">As both found them.</param>
    /// <param name="theirs">As the other has them.</param>
    /// <param name="mine">As I have them.</param>
    /// <param name="id">What tells them apart.</param>
    /// <param name="named">One, in a few words.</param>
    /// <param name="both">One that both changed: before, theirs, mine.</param>
    public IReadOnlyList<T> List<T>(
        IReadOnlyList<T> before,
        IReadOnlyList<T> theirs,
        IReadOnlyList<T> mine,
        Func<T, string> id,
        Func<T, string> named,
        Func<T, T, T, T> both
    )
        where T : class => Names(before, theirs, mine, id, named, (old, other, own) =>
        {
            clashes.Add(named(own));
            return both(old, other, own);
        });

    /// <summary>Things that have a name and much inside: where both changed one, it is taken apart, and only what is in it may clash.</summary>
    /// <inheritdoc cref="List{T}(IReadOnlyList{T}, IReadOnlyList{T}, IReadOnlyList{T}, Func{T, string}, Func{T, string}, Func{T, T, T, T})"/>
    public IReadOnlyList<T> Names<T>(
        IReadOnlyList<T> before,
        IReadOnlyList<T> theirs,
        IReadOnlyList<T> mine,
        Func<T, string> id,
        Func<T, string> named,
        Func<T, T, T, T> both
    )
        where T : class
    {
        var (was, there, here) = (before.ToDictionary(id), theirs.ToDictionary(id), mine.ToDictionary(id));
        var merged = new List<T>();
        foreach (var key in theirs.Concat(mine).Select(id).Distinct())
        {
            var (old, other, own) = (was.GetValueOrDefault(key), there.GetValueOrDefault(key), here.GetValueOrDefault(key));
            if (Equals(own, old))
            {
                if (other is not null)
                    merged.Add(other);
            }
            else if (Equals(other, old) || Equals(other, own))
            {
                if (own is not null)
                    merged.Add(own);
            }
            else if (old is not null && other is not null && own is not null)
            {
                merged.Add(both(old, other, own));
            }
            else
            {
                // One of us took it away, the other went on with it: it stays, so that nothing is lost.
                clashes.Add(named((own ?? other)!));
                merged.Add((own ?? other)!);
            }
        }

        return merged;
    }
}
