using Wexel.Core.Encoding;

namespace Wexel.Core.Tests.Encoding;

public class MachineShareTests
{
    [Theory]
    [InlineData(1, 1, 0)]
    [InlineData(2, 1, 0)]
    [InlineData(7, 1, 0)]
    [InlineData(8, 2, 4)]
    [InlineData(12, 3, 4)]
    [InlineData(64, 4, 16)]
    public void Passes_and_threads_follow_the_machine(int processors, int passes, int threads) => MachineShare.Of(processors).ShouldBe(new MachineShare(passes, threads));
}
