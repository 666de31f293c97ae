using Wexel.Core.Inspection;
using Wexel.Core.Outlets;

namespace Wexel.Core.Tests.Outlets;

public class OutletLimitsTests
{
    /// <summary>An outside video service: at most 2 GB and 10 minutes (common practice, no source).</summary>
    private static readonly OutletLimits Service = new("The service", 2_000_000_000, TimeSpan.FromMinutes(10), null);

    [Fact]
    public void The_share_of_each_limit_is_said()
    {
        Service
            .Shares(500_000_000, TimeSpan.FromMinutes(4))
            .Select(s => s.Sentence)
            .ShouldBe(["25 % of the 2000 MB that The service takes", "40 % of the 10:00 that The service takes"]);
        Service.Shares(1_000_000, TimeSpan.FromSeconds(1))[0].Sentence.ShouldStartWith("under 1 %");
        (Service with { MostBytes = null, MostLength = null }).Shares(5, TimeSpan.FromSeconds(1)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(2_000_000_000, 600, 0, Verdict.Right, Verdict.Right)]
    [InlineData(2_000_000_001, 600, 0, Verdict.Wrong, Verdict.Right)]
    [InlineData(1_000, 600, 1, Verdict.Right, Verdict.Wrong)]
    public void A_file_over_a_limit_is_wrong(long bytes, int seconds, int milliseconds, Verdict size, Verdict length) =>
        Service.Check(bytes, TimeSpan.FromSeconds(seconds) + TimeSpan.FromMilliseconds(milliseconds)).Select(f => f.Verdict).ShouldBe([size, length]);

    [Fact]
    public void A_rate_is_the_files_on_average()
    {
        var slow = new OutletLimits("The intranet", null, null, 500_000);
        // 75,000,000 bytes in 20 minutes are 500 kbit/s.
        slow.Check(75_000_000, TimeSpan.FromMinutes(20))
            .Single()
            .ShouldBe(new CheckedFact("limit-rate-The intranet", "Bit rate for The intranet", "500 kbit/s", "at most 500 kbit/s", Verdict.Right));
        slow.Check(76_000_000, TimeSpan.FromMinutes(20)).Single().Verdict.ShouldBe(Verdict.Wrong);
    }

    [Fact]
    public void What_cannot_be_a_limit_is_refused()
    {
        Service.Unusable().ShouldBeNull();
        (Service with { MostBytes = 0 }).Unusable()!.Field.ShouldBe("mostBytes");
        (Service with { MostLength = TimeSpan.Zero }).Unusable()!.Field.ShouldBe("mostLength");
        (Service with { MostBitsPerSecond = -1 }).Unusable()!.Field.ShouldBe("mostBitsPerSecond");
    }

    /// <summary>A small hosting plan has 2 GB a month; 10 minutes of a screen at 640 × 480 are 10 MB (common practice, no source).</summary>
    [Fact]
    public void A_hosting_plan_carries_so_many_plays_and_a_line_takes_so_long()
    {
        HostingPlan.Usual.PlaysAMonth(10_000_000).ShouldBe(200);
        HostingPlan.Usual.Upload(10_000_000).ShouldBe(TimeSpan.FromSeconds(8));
        HostingPlan.Usual.Unusable().ShouldBeNull();
        (HostingPlan.Usual with { LineBitsPerSecond = 0 }).Unusable()!.Field.ShouldBe("lineBitsPerSecond");
        (HostingPlan.Usual with { TrafficBytesAMonth = 0 }).Unusable()!.Field.ShouldBe("trafficBytesAMonth");
    }
}
