using Wexel.Core.Keys;

namespace Wexel.Core.Details;

/// <summary>How a detail is entered.</summary>
public enum DetailInput
{
    /// <summary>One line.</summary>
    Line,

    /// <summary>Several lines.</summary>
    Text,

    /// <summary>Words, each by itself.</summary>
    Words,

    /// <summary>A language.</summary>
    Language,

    /// <summary>Yes or no, of which neither is taken where nobody said.</summary>
    YesNo,

    /// <summary>An age in years.</summary>
    Age,

    /// <summary>A licence.</summary>
    Licence,

    /// <summary>Whether there is material of others, and by whose permission.</summary>
    ThirdParty,

    /// <summary>A name and how that person is reached.</summary>
    Author,

    /// <summary>A profile, by its identifier.</summary>
    Profile,
}

/// <summary>One of the details: how it is entered, what holds for it, and how it is taken from one set into another.</summary>
/// <param name="code">Its name in a set, for programs.</param>
/// <param name="label">What stands before it.</param>
/// <param name="input">How it is entered.</param>
/// <param name="help">What it does, in a sentence; empty where the label says it.</param>
/// <param name="ofOneLesson">Whether it can be said of one lesson only, and of no house or outlet.</param>
/// <param name="isSeen">Whether it makes a difference to what stands at a place.</param>
/// <param name="onlyWith">The code of the yes-or-no without which it is not asked; null where it is always.</param>
public abstract class DetailField(string code, string label, DetailInput input, string help, bool ofOneLesson, bool isSeen, string? onlyWith)
{
    /// <summary>Its name in a set, for programs.</summary>
    public string Code => code;

    /// <summary>What stands before it.</summary>
    public string Label => label;

    /// <summary>How it is entered.</summary>
    public DetailInput Input => input;

    /// <summary>What it does, in a sentence; empty where the label says it.</summary>
    public string Help => help;

    /// <summary>Whether it can be said of one lesson only, and of no house or outlet.</summary>
    public bool OfOneLesson => ofOneLesson;

    /// <summary>Whether it makes a difference to what stands at a place.</summary>
    public bool IsSeen => isSeen;

    /// <summary>The code of the yes-or-no without which it is not asked; null where it is always.</summary>
    public string? OnlyWith => onlyWith;

    /// <summary>Whether a set says it.</summary>
    public abstract bool IsIn(DetailSet set);

    /// <summary>A set with this detail as another has it.</summary>
    /// <param name="set">The set.</param>
    /// <param name="from">The other.</param>
    public abstract DetailSet Take(DetailSet set, DetailSet from);

    /// <summary>A set with this detail as it is kept: without what is blank.</summary>
    public abstract DetailSet Tidy(DetailSet set);

    /// <summary>What cannot be used of it, or null.</summary>
    public abstract Problem? Unusable(DetailSet set);

    /// <summary>How long it is, in characters, where a place may take only so many; null for what has no length.</summary>
    public abstract int? Length(DetailSet set);

    /// <summary>Writes it into a key.</summary>
    public abstract void Declare(KeyFields key, DetailSet set);
}

/// <inheritdoc/>
/// <typeparam name="T">What it is; null where nobody said.</typeparam>
internal sealed class DetailField<T>(
    string code,
    string label,
    DetailInput input,
    Func<DetailSet, T?> read,
    Func<DetailSet, T?, DetailSet> write,
    Func<T, T?> tidy,
    Func<T, Problem?> unusable,
    Action<KeyFields, T> declare,
    Func<T, int>? length = null,
    string help = "",
    bool ofOneLesson = false,
    bool isSeen = true,
    string? onlyWith = null
) : DetailField(code, label, input, help, ofOneLesson, isSeen, onlyWith)
{
    public override bool IsIn(DetailSet set) => read(set) is not null;

    public override DetailSet Take(DetailSet set, DetailSet from) => write(set, read(from));

    public override DetailSet Tidy(DetailSet set) => read(set) is { } value ? write(set, tidy(value)) : set;

    public override Problem? Unusable(DetailSet set) => read(set) is { } value ? unusable(value) : null;

    public override int? Length(DetailSet set) => length is not null && read(set) is { } value ? length(value) : null;

    public override void Declare(KeyFields key, DetailSet set)
    {
        if (read(set) is { } value)
            declare(key, value);
    }
}
