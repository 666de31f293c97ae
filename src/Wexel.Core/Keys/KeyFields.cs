using System.Globalization;
using System.Text;
using Wexel.Core.Timing;

namespace Wexel.Core.Keys;

/// <summary>
/// What a key is the hash of, as a text: each field with its name and how long its value is, so that no two lists of fields read alike
/// (1 and 23 are not 12 and 3). A field without a value is not written. So a field that is added later, and is null where nobody chose
/// it, leaves all keys as they were.
/// </summary>
public sealed class KeyFields
{
    private readonly StringBuilder _text = new();

    /// <summary>A text.</summary>
    public KeyFields Add(string name, string? value)
    {
        if (value is not null)
            _text.Append(CultureInfo.InvariantCulture, $"{name}:{value.Length}:{value};");
        return this;
    }

    /// <summary>A whole number.</summary>
    public KeyFields Add(string name, long? value) => Add(name, value?.ToString(CultureInfo.InvariantCulture));

    /// <summary>A number, exactly.</summary>
    public KeyFields Add(string name, double? value) => Add(name, value?.ToString("R", CultureInfo.InvariantCulture));

    /// <summary>Whether something holds; written where it does.</summary>
    public KeyFields Add(string name, bool value) => value ? Add(name, "yes") : this;

    /// <summary>A time, in ticks of 100 ns.</summary>
    public KeyFields Add(string name, TimeSpan? value) => Add(name, value?.Ticks);

    /// <summary>A stretch of time.</summary>
    public KeyFields Add(string name, TimeRange? value) => value is { } range ? Add(name, $"{range.Start.Ticks}-{range.End.Ticks}") : this;

    /// <summary>A frame rate.</summary>
    public KeyFields Add(string name, FrameRate? value) => value is { } rate ? Add(name, $"{rate.Numerator}/{rate.Denominator}") : this;

    /// <summary>One of several names.</summary>
    public KeyFields Add<T>(string name, T? value)
        where T : struct, Enum => Add(name, value?.ToString());

    /// <summary>Something with fields of its own; null is not written.</summary>
    public KeyFields Part<T>(string name, T? part, Action<KeyFields, T> declare)
        where T : class
    {
        if (part is null)
            return this;
        _text.Append(name).Append('{');
        declare(this, part);
        _text.Append('}');
        return this;
    }

    /// <summary>A list in its order; none, and a list of none, are not written.</summary>
    public KeyFields Each<T>(string name, IReadOnlyList<T>? items, Action<KeyFields, T> declare)
    {
        if (items is not { Count: > 0 })
            return this;
        _text.Append(name).Append('[');
        foreach (var item in items)
        {
            _text.Append('{');
            declare(this, item);
            _text.Append('}');
        }

        _text.Append(']');
        return this;
    }

    /// <summary>A list of texts in its order.</summary>
    public KeyFields Each(string name, IReadOnlyList<string>? items) => Each(name, items, (fields, item) => fields.Add("is", item));

    /// <summary>A list of numbers in its order.</summary>
    public KeyFields Each(string name, IReadOnlyList<long>? items) => Each(name, items, (fields, item) => fields.Add("is", item));

    /// <summary>What was written so far.</summary>
    public override string ToString() => _text.ToString();
}
