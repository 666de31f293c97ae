using Wexel.Core.Encoding;

namespace Wexel.Core.Tests.Encoding;

public class MachineShareTests
{
    private const long Gigabyte = 1_000_000_000;

    [Theory]
    [InlineData(1, 8, 1, 0, 2)]
    [InlineData(2, 8, 1, 0, 4)]
    [InlineData(2, 2, 1, 0, 1)]
    [InlineData(2, 4, 1, 0, 3)]
    [InlineData(7, 64, 1, 0, 14)]
    [InlineData(8, 64, 2, 4, 8)]
    [InlineData(8, 12, 2, 4, 5)]
    [InlineData(12, 64, 3, 4, 8)]
    [InlineData(64, 256, 4, 16, 32)]
    [InlineData(64, 1, 4, 16, 1)]
    public void Passes_threads_and_pictures_follow_the_machine(int processors, int gigabytes, int passes, int threads, int pictures) =>
        MachineShare.Of(processors, gigabytes * Gigabyte).ShouldBe(new MachineShare(passes, threads, pictures));

    [Theory]
    [InlineData(4, new int[0], 0)]
    [InlineData(4, new[] { 1, 1 }, 2)]
    [InlineData(4, new[] { 1, 1, 1, 1, 1 }, 4)]
    [InlineData(4, new[] { 0, 1, 1, 1, 1, 0, 0, 1 }, 7)]
    [InlineData(4, new[] { 2, 4, 1 }, 1)]
    [InlineData(2, new[] { 4, 1 }, 1)]
    public void A_pass_takes_what_there_is_room_for_in_its_order_and_at_least_the_first(int room, int[] pictures, int together) =>
        new MachineShare(1, 0, room).Together(pictures).ShouldBe(together);

    [Fact]
    public void A_profile_of_several_heights_needs_as_many_pictures()
    {
        Profiles.Adaptive.MostPictures().ShouldBe(4);
        Profiles.Web.MostPictures().ShouldBe(1);
        Profiles.PodcastSound.MostPictures().ShouldBe(0);
    }
}
