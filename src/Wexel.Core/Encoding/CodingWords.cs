namespace Wexel.Core.Encoding;

/// <summary>How a plan codes, in a few words of the trade.</summary>
public static class CodingWords
{
    /// <summary>Such as "H.264 High 3.1 · AAC" or "Opus".</summary>
    public static string Say(RenderPlan plan) =>
        string.Join(
            " · ",
            new[]
            {
                plan.Picture is { } picture ? Picture(picture.Coding) + Copied(picture.Copy is not null) : null,
                plan.Sound is { } sound ? ProfileRules.Name(sound.Codec) + Copied(sound.Copy is not null) : null,
            }.OfType<string>()
        );

    private static string Copied(bool copied) => copied ? ", copied" : "";

    private static string Picture(CodingPlan coding) =>
        coding.H264 is { } h264
            ? $"H.264 {h264.Profile switch { H264Profile.High => "High", H264Profile.Main => "Main", _ => "Constrained Baseline" }} "
                + $"{H264Level.Find(h264.Level)!.Name}"
            : ProfileRules.Name(coding.Codec);
}
