using System.Diagnostics.CodeAnalysis;

namespace Wexel.Core;

/// <summary>What was asked for, or why there is none, which a person can mend.</summary>
/// <typeparam name="T">What was asked for.</typeparam>
public readonly struct Result<T>
{
    /// <param name="value">What was asked for, where it is an interface, of which the language makes no result by itself.</param>
    public Result(T value)
        : this(value, null) { }

    private Result(T? value, Problem? problem) => (Value, Problem) = (value, problem);

    /// <summary>What was asked for; nothing where there is a problem.</summary>
    public T? Value { get; }

    /// <summary>Why there is none; null where there is.</summary>
    public Problem? Problem { get; }

    /// <summary>Whether there is what was asked for.</summary>
    /// <param name="value">It.</param>
    /// <param name="problem">Otherwise why not.</param>
    public bool Is([MaybeNullWhen(false)] out T value, [MaybeNullWhen(true)] out Problem problem)
    {
        (value, problem) = (Value, Problem);
        return Problem is null;
    }

    /// <summary>Both, of which one is null.</summary>
    public void Deconstruct(out T? value, out Problem? problem) => (value, problem) = (Value, Problem);

    /// <summary>What was asked for.</summary>
    [SuppressMessage("Usage", "CA2225", Justification = "It is written by returning a value or a problem.")]
    public static implicit operator Result<T>(T value) => new(value, null);

    /// <summary>Why there is none.</summary>
    [SuppressMessage("Usage", "CA2225", Justification = "It is written by returning a value or a problem.")]
    public static implicit operator Result<T>(Problem problem) => new(default, problem);
}
