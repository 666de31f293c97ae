using Wexel.Core;
using Wexel.Core.Screens;
using Wexel.Media.Tools;

namespace Wexel.Media.Screens;

/// <summary>Reads what stands on a picture of a screen. It is a process that may die.</summary>
public interface IScreenReader
{
    /// <summary>As it is shown.</summary>
    string Name { get; }

    /// <summary>Why it cannot read a language here, in a sentence that says what to do; null where it can.</summary>
    /// <param name="language">As a BCP 47 tag.</param>
    Problem? Missing(string language);

    /// <summary>Reads a picture.</summary>
    /// <param name="picture">A PGM file.</param>
    /// <param name="larger">How many times larger it is than the picture of which lines are told.</param>
    /// <param name="language">As a BCP 47 tag.</param>
    /// <param name="limits">What it may use.</param>
    /// <param name="cancel">Ends it.</param>
    /// <exception cref="ToolFailedException">It ended with an error, or printed what is no line.</exception>
    Task<IReadOnlyList<ScreenLine>> ReadAsync(string picture, int larger, string language, ChildLimits limits, CancellationToken cancel);
}
