using Wexel.Core.Recordings;
using Wexel.Core.Timing;

namespace Wexel.Core.Screens;

/// <summary>A line that was read from a picture.</summary>
/// <param name="Box">Where it stands, in pixels of the picture as it is shown.</param>
/// <param name="Text">What it says; on one line.</param>
/// <param name="Height">How high its letters are, from base line to the top of a capital, in pixels.</param>
/// <param name="Confidence">How sure the reader is of it, 0 to 1.</param>
public sealed record ScreenLine(PictureRect Box, string Text, int Height, double Confidence);

/// <summary>A picture of a recording that was read.</summary>
/// <param name="Span">How long it is seen, in recording time.</param>
/// <param name="Lines">From top to bottom.</param>
public sealed record ScreenPicture(TimeRange Span, IReadOnlyList<ScreenLine> Lines);

/// <summary>How much of the screen is another than half a second before.</summary>
/// <param name="At">When, in recording time.</param>
/// <param name="Share">The share of the screen, 0 to 1, by squares in which something changed.</param>
public sealed record ScreenChange(TimeSpan At, double Share);

/// <summary>What was read from the pictures of a recording, and when they were others.</summary>
/// <param name="Reader">Who read; empty where nobody did.</param>
/// <param name="Pictures">In order.</param>
/// <param name="Changes">In order; those of at least <see cref="LeastChange"/>.</param>
/// <param name="Failure">Why nothing was read, in a sentence; null where nothing was in the way.</param>
public sealed record ScreenText(string Reader, IReadOnlyList<ScreenPicture> Pictures, IReadOnlyList<ScreenChange> Changes, string? Failure = null)
{
    /// <summary>Less is a pointer that moves or a letter that is typed.</summary>
    public const double LeastChange = 0.005;
}
