using Wexel.Core.Timing;

namespace Wexel.Core.Captions;

/// <summary>What captions should keep to, so that they can be read beside the picture. They are advice: nothing is refused that breaks one.</summary>
/// <param name="MostPerSecond">Characters that may be read in a second.</param>
public sealed record CaptionGuidelines(double MostPerSecond)
{
    /// <summary>Lines of one caption (BBC Subtitle Guidelines, “Lines”; Netflix Timed Text Style Guide, English, “Line Treatment”; both from memory).</summary>
    public const int MostLines = 2;

    /// <summary>Characters of a line, with spaces (Netflix Timed Text Style Guide, English, “Character Limitation”; from memory).</summary>
    public const int LineLength = 42;

    /// <summary>Frames between one caption and the next (Netflix Timed Text Style Guide, General Requirements, “Frame Gap”; from memory).</summary>
    public const int GapFrames = 2;

    /// <summary>The shortest time a caption is shown: under a second nobody finds it before it is gone (DCMP Captioning Key, “Presentation Rate”: 40
    /// frames; Netflix, General Requirements, “Duration”: 5/6 s; both from memory).</summary>
    public static readonly TimeSpan Shortest = TimeSpan.FromSeconds(1);

    /// <summary>The longest time (Netflix Timed Text Style Guide, General Requirements, “Duration”: 7 s; from memory).</summary>
    public static readonly TimeSpan Longest = TimeSpan.FromSeconds(7);

    /// <summary>For adults (Netflix Timed Text Style Guide, English, “Reading Speed”: 20 characters a second; from memory).</summary>
    public static CaptionGuidelines Adults { get; } = new(20);

    /// <summary>For children: a quarter slower (the same: 17, and 15 for the youngest; from memory).</summary>
    public static CaptionGuidelines Children { get; } = new(15);

    /// <summary>How many characters of a caption are read in a second of it, line ends not counted.</summary>
    public static double PerSecond(string text, TimeSpan shown) => shown <= TimeSpan.Zero ? double.PositiveInfinity : Characters(text) / shown.TotalSeconds;

    /// <summary>How long a caption must be shown to be read.</summary>
    public TimeSpan ToRead(string text) => TimeSpan.FromSeconds(Characters(text) / MostPerSecond);

    /// <summary>How long the gap between two captions is.</summary>
    /// <param name="grid">The lesson's frames.</param>
    public static TimeSpan Gap(FrameRate grid) => grid.TimeOf(GapFrames);

    private static int Characters(string text) => text.Count(c => c != '\n');
}
