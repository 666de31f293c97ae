namespace Wexel.Core.Keys;

/// <summary>A file with what names its content.</summary>
/// <param name="Path">Where it lies.</param>
/// <param name="Key">The hash of its bytes, or the key of what it was made from.</param>
public sealed record KeyedFile(string Path, string Key);
