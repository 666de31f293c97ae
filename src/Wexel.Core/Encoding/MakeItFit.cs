using System.Globalization;

namespace Wexel.Core.Encoding;

/// <summary>Settings with which a lesson fits a limit.</summary>
/// <param name="Profile">The settings.</param>
/// <param name="Estimate">What the lesson comes to with them.</param>
/// <param name="GivenUp">What is given up for it, a sentence each, in the order in which it was; empty where it fits as it is.</param>
public sealed record Fitted(Profile Profile, RenderEstimate Estimate, IReadOnlyList<string> GivenUp);

/// <summary>
/// Finds settings with which a lesson fits a limit. What hurts least is given up first: frames that repeat the one before, then
/// quality, then height. Where an estimate leaves a doubt, the size itself becomes the rule, which the encoder then meets.
/// </summary>
public static class MakeItFit
{
    /// <summary>Aimed a little below, since an estimate may be low.</summary>
    private const double Aim = 0.95;

    private static readonly int[] Heights = [1080, 720, 480, 360, 240];

    /// <summary>Finds the settings.</summary>
    /// <param name="profile">The settings that are wanted, without <see cref="ProfileRules">faults</see>.</param>
    /// <param name="bytes">The limit, in bytes.</param>
    /// <param name="height">How high the picture is made with them, in pixels; 0 without a picture.</param>
    /// <param name="estimate">Says what the lesson comes to with some settings.</param>
    /// <param name="copied">Whether the picture would be copied with these settings.</param>
    /// <returns>The settings, or what speaks against it.</returns>
    public static async Task<Result<Fitted>> FindAsync(
        Profile profile,
        long bytes,
        int height,
        Func<Profile, Task<RenderEstimate>> estimate,
        bool copied = false
    )
    {
        if (ContainerFacts.Of(profile.Container).IsFolder)
            return new Problem("fit-many-files", $"“{profile.Title}” makes many files; a limit is for one. Choose a profile that makes MP4.", "profileId");
        if (profile.Picture is not { } picture)
            return new Problem(
                "fit-without-picture",
                $"“{profile.Title}” makes sound alone, which takes what its bit rate says. Choose a lower one in the Kit.",
                "profileId"
            );
        var scale = QualityScale.Of(picture.Codec);
        var quality = picture.Rate.Quality ?? scale.Usual;
        var wanted = picture with { Rate = picture.Rate.Rule == RateRule.Quality ? picture.Rate : RateSettings.Of(quality) };
        Profile With(PictureSettings settings) => profile with { Picture = settings };
        var least = long.MaxValue;
        foreach (var (settings, givenUp) in Steps(wanted, height, copied))
        {
            var asWanted = With(settings);
            var first = await estimate(asWanted);
            least = Math.Min(least, first.Bytes);
            if (first.Size.Most <= bytes)
                return new Fitted(asWanted, first, givenUp);
            // What is copied is as large as it is.
            if (copied && settings.Copy)
                continue;
            if (first.Bytes <= bytes)
                return Held(asWanted, first, bytes, givenUp);
            // Frames that repeat are given up before quality is.
            if (quality >= scale.Poorest || settings.Timing.Rule != TimingRule.AsDrawn)
                continue;
            var poorest = await estimate(With(settings with { Rate = RateSettings.Of(scale.Poorest) }));
            least = Math.Min(least, poorest.Bytes);
            if (poorest.Bytes > bytes)
                continue;
            var better = QualityFor(bytes * Aim, (quality, first.Bytes), (scale.Poorest, poorest.Bytes));
            var between = With(settings with { Rate = RateSettings.Of(better) });
            var found = better == scale.Poorest ? poorest : await estimate(between);
            IReadOnlyList<string> all =
            [
                .. givenUp,
                $"The quality goes from {quality} to {better}: "
                    + $"{(better <= scale.Usual + ((scale.Poorest - scale.Usual) / 2) ? "text gets a little softer" : "text gets softer")}.",
            ];
            return found.Size.Most <= bytes ? new Fitted(between, found, all) : Held(between, found, bytes, all);
        }

        return new Problem(
            "fit-impossible",
            $"{Megabytes(bytes)} is too little for this lesson: with everything given up it comes to about {Megabytes(least)}. Split it in two, or cut more.",
            "bytes"
        );
    }

    /// <summary>The best quality at which a picture keeps under a size, between two that are known: sizes go by powers of it.</summary>
    /// <param name="bytes">The size, in bytes.</param>
    /// <param name="good">The better quality and what it comes to.</param>
    /// <param name="poor">The poorer quality and what it comes to.</param>
    public static int QualityFor(double bytes, (int Quality, double Bytes) good, (int Quality, double Bytes) poor)
    {
        if (poor.Bytes >= good.Bytes || poor.Quality <= good.Quality)
            return poor.Quality;
        var share = Math.Log(good.Bytes / bytes) / Math.Log(good.Bytes / poor.Bytes);
        return Math.Clamp((int)Math.Ceiling(good.Quality + (share * (poor.Quality - good.Quality)) - 1e-9), good.Quality, poor.Quality);
    }

    /// <summary>The picture's settings with less and less timing and height, and what is given up so far.</summary>
    private static IEnumerable<(PictureSettings Settings, IReadOnlyList<string> GivenUp)> Steps(PictureSettings wanted, int height, bool copied)
    {
        yield return (wanted, []);
        List<string> givenUp = [];
        if (copied)
        {
            wanted = wanted with { Copy = false };
            givenUp.Add("The picture is encoded, and not copied as it was recorded.");
            yield return (wanted, [.. givenUp]);
        }

        if (wanted.Timing.Rule != TimingRule.AsDrawn)
        {
            wanted = wanted with { Timing = TimingSettings.AsDrawn };
            givenUp.Add("Frames that repeat the one before are left out, so the rate varies; podcast apps and editing programs do not like that.");
            yield return (wanted, [.. givenUp]);
        }

        foreach (var lower in Heights.Where(h => h < height))
            yield return (
                wanted with
                {
                    Size = SizeSettings.AtMost(lower),
                },
                [.. givenUp, $"The picture is made {lower} lines high instead of {height}: small text gets softer."]
            );
    }

    /// <summary>The size itself is the rule: it is met, whatever an estimate missed.</summary>
    private static Fitted Held(Profile profile, RenderEstimate estimate, long bytes, IReadOnlyList<string> givenUp) =>
        new(
            profile with
            {
                Picture = profile.Picture! with
                {
                    Rate = new RateSettings(RateRule.FileSize, Bytes: bytes, Passes: profile.Picture.Codec == PictureCodec.Av1 ? 1 : 2),
                },
            },
            estimate with
            {
                Size = new Estimated(Math.Min(bytes, estimate.Size.Value), Math.Min(bytes, estimate.Size.Least), bytes),
            },
            [.. givenUp, "It is encoded twice, so that the size is met."]
        );

    private static string Megabytes(long bytes) => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1e6:0.##} MB");
}
