using Wexel.Core.Recordings;

namespace Wexel.Core.Legibility;

/// <summary>A line of text on a picture.</summary>
/// <param name="Box">What its small letters cover, in whole pixels.</param>
/// <param name="XHeight">The height of its small letters, an x, in pixels; of a line without small letters, that of its capitals or figures.</param>
public sealed record TextLine(PictureRect Box, double XHeight);
