using System.Globalization;
using Wexel.Core.Editing;
using Wexel.Core.Placing;
using Wexel.Core.Recordings;

namespace Wexel.Core.Encoding;

/// <summary>What holds for a profile with one lesson.</summary>
/// <param name="reel">The lesson's recordings.</param>
/// <param name="map">What is kept of them.</param>
/// <param name="look">What the lesson wants besides.</param>
/// <param name="pictureBytes">What the picture of a plan will come to, in bytes.</param>
public sealed class ProfileForLesson(Reel reel, TimeMap map, LessonLook look, Func<RenderPlan, long> pictureBytes)
{
    /// <summary>Everything that does not hold, faults first: a size that would scale up, a level that is passed, a rate that is too low.</summary>
    /// <param name="profile">A profile without faults of its own, see <see cref="ProfileRules"/>.</param>
    public IReadOnlyList<ProfileFinding> Findings(Profile profile)
    {
        var findings = new List<ProfileFinding>();
        if (profile.Picture is { } picture)
        {
            var plan = RenderPlanner.Plan(reel, map, profile, look);
            Size(profile, picture, findings);
            if (picture is { Codec: PictureCodec.H264, Level: { } number })
                ProfileRules.LevelTakes(profile, picture, H264Level.Find(number)!, plan.Picture!.Size, plan.Picture.Timing.Made, findings);
            Rate(profile, picture, plan, findings);
            if (profile.Captions is CaptionPlace.BurntIn or CaptionPlace.Inside && look.Captions is not { Count: > 0 })
                findings.Add(
                    ProfileRules.Advice(
                        "lesson-without-captions",
                        "captions",
                        profile is { Captions: CaptionPlace.BurntIn, CaptionLanguage: { } language }
                            ? $"This lesson has no captions in {language}, so none are put in."
                            : "This lesson has no captions, so none are put in."
                    )
                );
        }

        if (profile.Sound is not null && reel.Parts.All(p => p.Facts.Sounds.Count == 0))
            findings.Add(
                profile.Picture is null
                    ? ProfileRules.Fault("lesson-without-sound", "sound", "This lesson has no sound, so there is nothing to make of it.")
                    : ProfileRules.Advice("lesson-without-sound", "sound", "This lesson has no sound; the file gets none.")
            );
        return [.. findings.OrderByDescending(f => f.IsFault)];
    }

    private PictureSize CanvasSize => SizeSettings.AsCanvas.Place(reel.Largest, Canvas.Under(reel, look.Canvas, null)).Canvas;

    private void Size(Profile profile, PictureSettings picture, List<ProfileFinding> findings)
    {
        var canvas = CanvasSize;
        Profile With(SizeSettings size) => profile with { Picture = picture with { Size = size } };
        if (picture.Size is { Rule: SizeRule.Exact, Width: { } width, Height: { } height })
        {
            if (width > canvas.Width && height > canvas.Height)
                findings.Add(
                    ProfileRules.Fault(
                        "size-scales-up",
                        "picture.size",
                        $"{width} × {height} is larger than this lesson’s canvas of {canvas}: the file would grow, and nothing would be sharper.",
                        "Take the canvas’s size",
                        With(SizeSettings.AsCanvas)
                    )
                );
            else if (Math.Abs((double)width / height / ((double)canvas.Width / canvas.Height) - 1) > 0.01 && look.Canvas?.Fit != FitMode.Fill)
                findings.Add(
                    ProfileRules.Advice(
                        "size-other-shape",
                        "picture.size",
                        $"{width} × {height} has another shape than this lesson’s canvas of {canvas}; there would be black borders.",
                        $"Take at most {height} lines",
                        With(SizeSettings.AtMost(height))
                    )
                );
        }
        else if (
            picture.Size is { Rule: SizeRule.AtMostHeight, Height: { } most }
            && SizeSettings.AtMost(most).Place(reel.Largest, Canvas.Under(reel, look.Canvas, null)) is { WholeFactor: false } placed
        )
        {
            findings.Add(
                ProfileRules.Advice(
                    "size-odd-factor",
                    "picture.size",
                    $"The picture is shown at {placed.ScalePercent.ToString("0.#", CultureInfo.InvariantCulture)} % of its pixels, not a whole "
                        + $"factor, so small text gets softer.",
                    "Take the canvas’s size",
                    With(SizeSettings.AsCanvas)
                )
            );
        }
    }

    /// <summary>A rate is too low when the picture would take more even at the poorest quality at which text can be read.</summary>
    private void Rate(Profile profile, PictureSettings picture, RenderPlan plan, List<ProfileFinding> findings)
    {
        if (picture.Rate.Rule == RateRule.Quality && picture.Rate.CeilingBitsPerSecond is null)
            return;
        var rate = plan.Picture!.Rate.BitsPerSecond;
        var poorest = profile with { Picture = picture with { Rate = RateSettings.Of(QualityScale.Of(picture.Codec).Poorest) } };
        var needed = (long)(pictureBytes(RenderPlanner.Plan(reel, map, poorest, look)) * 8 / plan.Length.TotalSeconds);
        if (rate >= needed)
            return;
        var better = RoundUp(needed);
        var mended = picture.Rate.Rule switch
        {
            RateRule.Quality => picture.Rate with { CeilingBitsPerSecond = better },
            RateRule.FileSize => picture.Rate with
            {
                Bytes = RoundUp((long)((better + (plan.Sound?.BitsPerSecond ?? 0)) * plan.Length.TotalSeconds / 8 / RenderPlanner.AimedAt)),
            },
            _ => picture.Rate with { BitsPerSecond = better },
        };
        findings.Add(
            ProfileRules.Advice(
                "rate-too-low",
                "picture.rate",
                $"{ProfileRules.Rate(rate)} for the picture is too little for this lesson: text would get blurred. It needs about {ProfileRules.Rate(better)}.",
                mended.Bytes is { } bytes && picture.Rate.Rule == RateRule.FileSize
                    ? $"Take {(bytes / 1e6).ToString("0.#", CultureInfo.InvariantCulture)} MB"
                    : $"Take {ProfileRules.Rate(better)}",
                profile with
                {
                    Picture = picture with { Rate = mended },
                }
            )
        );
    }

    /// <summary>Two digits are enough for a proposal.</summary>
    private static long RoundUp(long value)
    {
        var step = (long)Math.Pow(10, Math.Max(0, Math.Floor(Math.Log10(Math.Max(1, value))) - 1));
        return (value + step - 1) / step * step;
    }
}
