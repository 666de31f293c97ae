using CsCheck;
using Wexel.Core.Encoding;

namespace Wexel.Core.Tests.Encoding;

public class MakeItFitTests
{
    /// <summary>A lesson of 20 MB in 1080 lines at quality 20 with every frame; as drawn takes 4 MB of it away, six points of quality half of the
    /// rest.</summary>
    private static double Bytes(Profile profile)
    {
        var picture = profile.Picture!;
        if (picture.Rate.Rule == RateRule.FileSize)
            return picture.Rate.Bytes!.Value;
        var height = picture.Size.Height ?? 1080;
        return 1e6
            + (15e6 * Math.Pow(height / 1080.0, 1.4) * Math.Pow(2, (20 - picture.Rate.Quality!.Value) / 6.0))
            + (picture.Timing.Rule == TimingRule.AsDrawn ? 0 : 4e6);
    }

    private static RenderEstimate Estimate(Profile profile, double range) =>
        new(new Estimated(Bytes(profile), Bytes(profile) * (1 - range), Bytes(profile) * (1 + range)), new Estimated(1, 1, 1), true);

    private static async Task<Result<Fitted>> FitAsync(Profile profile, double megabytes, double range = 0) =>
        await MakeItFit.FindAsync(profile, (long)(megabytes * 1e6), 1080, p => Task.FromResult(Estimate(p, range)));

    private static readonly Profile EveryFrame = Profiles.Web with { Picture = Profiles.Web.Picture! with { Timing = TimingSettings.AsRecorded } };

    [Fact]
    public async Task What_fits_stays_as_it_is()
    {
        var (fitted, _) = await FitAsync(Profiles.Web, 17);
        fitted!.GivenUp.ShouldBeEmpty();
        fitted.Profile.ShouldBe(Profiles.Web);
    }

    [Fact]
    public async Task First_repeats_are_given_up_then_quality_then_height()
    {
        (await FitAsync(EveryFrame, 17)).Value!.ShouldSatisfyAllConditions(
            f => f.Profile.Picture!.Timing.Rule.ShouldBe(TimingRule.AsDrawn),
            f => f.Profile.Picture!.Rate.Quality.ShouldBe(20),
            f => f.GivenUp.Count.ShouldBe(1)
        );
        (await FitAsync(Profiles.Web, 9)).Value!.ShouldSatisfyAllConditions(
            f => f.Profile.Picture!.Rate.Quality!.Value.ShouldBeInRange(26, 28),
            f => f.Profile.Picture!.Size.Rule.ShouldBe(SizeRule.AsCanvas),
            f => f.GivenUp.Single().ShouldStartWith("The quality goes from 20 to")
        );
        (await FitAsync(Profiles.Web, 3)).Value!.ShouldSatisfyAllConditions(
            f => f.Profile.Picture!.Size.Height.ShouldBe(480),
            f => f.GivenUp[0].ShouldBe("The picture is made 480 lines high instead of 1080: small text gets softer.")
        );
    }

    [Fact]
    public async Task Where_the_estimate_leaves_a_doubt_the_size_is_the_rule()
    {
        var (fitted, _) = await FitAsync(Profiles.Web, 17, 0.3);
        fitted!.Profile.Picture!.Rate.ShouldBe(new RateSettings(RateRule.FileSize, Bytes: 17_000_000, Passes: 2));
        fitted.GivenUp.Single().ShouldBe("It is encoded twice, so that the size is met.");
        fitted.Estimate.Size.Most.ShouldBe(17_000_000);
    }

    [Fact]
    public async Task What_cannot_fit_says_what_it_comes_to_at_least()
    {
        (await FitAsync(Profiles.Web, 1)).Problem!.Sentence.ShouldStartWith(
            "1 MB is too little for this lesson: with everything given up it comes to about 1."
        );
        (await FitAsync(Profiles.Adaptive, 5)).Problem!.Code.ShouldBe("fit-many-files");
        (await FitAsync(Profiles.PodcastSound, 5)).Problem!.Code.ShouldBe("fit-without-picture");
    }

    [Fact]
    public void Whatever_the_limit_it_is_met() =>
        Gen.Select(Gen.Double[1.2, 40], Gen.Double[0, 0.4], Gen.Bool)
            .Sample(
                (megabytes, range, every) =>
                {
                    var (fitted, problem) = FitAsync(every ? EveryFrame : Profiles.Web, megabytes, range).GetAwaiter().GetResult();
                    return problem is not null
                        ? megabytes < 2
                        : Bytes(fitted!.Profile) <= megabytes * 1e6
                            && fitted.Estimate.Size.Most <= megabytes * 1e6 + 1
                            && ProfileRules.Refusal(fitted.Profile) is null;
                }
            );

    [Fact]
    public void The_quality_between_two_goes_by_powers()
    {
        // From 8 MB at 20 to 2 MB at 32: a point is a sixth of a halving.
        MakeItFit.QualityFor(4e6, (20, 8e6), (32, 2e6)).ShouldBe(26);
        MakeItFit.QualityFor(3.9e6, (20, 8e6), (32, 2e6)).ShouldBe(27);
        MakeItFit.QualityFor(1e6, (20, 8e6), (32, 2e6)).ShouldBe(32);
        MakeItFit.QualityFor(9e6, (20, 8e6), (32, 2e6)).ShouldBe(20);
    }

    [Fact]
    public void A_profile_is_written_so_that_people_can_read_it() => ProfileText.Write(Profiles.Web).ShouldContain("\n  \"container\"");

    [Fact]
    public void Where_the_poorest_saves_nothing_it_is_taken()
    {
        MakeItFit.QualityFor(500, (20, 1000), (40, 1000)).ShouldBe(40);
        MakeItFit.QualityFor(500, (20, 1000), (40, 1001)).ShouldBe(40);
        MakeItFit.QualityFor(500, (40, 1000), (40, 400)).ShouldBe(40);
        // Half way between in powers: √(1000 · 250) = 500.
        MakeItFit.QualityFor(500, (20, 1000), (40, 250)).ShouldBe(30);
    }
}
