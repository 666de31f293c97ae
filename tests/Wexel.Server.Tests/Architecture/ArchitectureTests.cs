using NetArchTest.Rules;

namespace Wexel.Server.Tests.Architecture;

public class ArchitectureTests
{
    private static void ShouldNotDepend(System.Reflection.Assembly assembly, params string[] on)
    {
        var result = Types.InAssembly(assembly).ShouldNot().HaveDependencyOnAny(on).GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
        assembly.GetReferencedAssemblies().Select(a => a.Name).ShouldNotContain(name => on.Contains(name));
    }

    [Fact]
    public void Core_knows_nothing_of_the_rest_and_does_no_input_or_output() =>
        ShouldNotDepend(
            typeof(Core.Documents.WexelJson).Assembly,
            "Wexel.Media",
            "Wexel.Making",
            "Wexel.Data",
            "Wexel.Server",
            "Wexel.Cli",
            "Wexel.StandIns",
            "Microsoft.AspNetCore",
            "Microsoft.EntityFrameworkCore",
            "CliWrap",
            "System.Net.Http",
            "System.IO.FileStream",
            "System.IO.File"
        );

    [Fact]
    public void Media_knows_only_core() =>
        ShouldNotDepend(
            typeof(Media.Tools.MediaTool).Assembly,
            "Wexel.Making",
            "Wexel.Data",
            "Wexel.Server",
            "Wexel.Cli",
            "Wexel.StandIns",
            "Microsoft.EntityFrameworkCore",
            "Microsoft.AspNetCore"
        );

    [Fact]
    public void Making_knows_no_server_and_no_database() =>
        ShouldNotDepend(
            typeof(Making.MakingFolders).Assembly,
            "Wexel.Data",
            "Wexel.Server",
            "Wexel.Cli",
            "Wexel.StandIns",
            "Microsoft.EntityFrameworkCore",
            "Microsoft.AspNetCore",
            "System.Net.Http"
        );

    [Fact]
    public void Delivering_knows_only_core() =>
        ShouldNotDepend(
            typeof(Delivering.IDelivery).Assembly,
            "Wexel.Media",
            "Wexel.Making",
            "Wexel.Data",
            "Wexel.Server",
            "Wexel.Cli",
            "Wexel.StandIns",
            "Microsoft.EntityFrameworkCore",
            "Microsoft.AspNetCore"
        );

    [Fact]
    public void Data_knows_only_core() =>
        ShouldNotDepend(typeof(Data.WexelDb).Assembly, "Wexel.Making", "Wexel.Media", "Wexel.Server", "Wexel.Cli", "Wexel.StandIns", "CliWrap");

    [Fact]
    public void The_command_line_needs_no_server_and_no_database() =>
        ShouldNotDepend(
            System.Reflection.Assembly.Load("Wexel.Cli"),
            "Wexel.Server",
            "Wexel.Data",
            "Wexel.StandIns",
            "Microsoft.EntityFrameworkCore",
            "Microsoft.AspNetCore"
        );

    [Theory]
    [InlineData("Wexel.StandIns")]
    [InlineData("Wexel.StandIns.Video")]
    public void The_stand_ins_could_be_another_companys(string project) =>
        ShouldNotDepend(System.Reflection.Assembly.Load(project), "Wexel.Core", "Wexel.Media", "Wexel.Making", "Wexel.Data", "Wexel.Server", "Wexel.Cli");

    [Fact]
    public void Core_has_no_clock_and_no_random_source_of_its_own() =>
        Arrows
            .Calls("Wexel.Core")
            .Where(call =>
                call
                    is "System.DateTime.get_Now"
                        or "System.DateTime.get_UtcNow"
                        or "System.DateTime.get_Today"
                        or "System.DateTimeOffset.get_Now"
                        or "System.DateTimeOffset.get_UtcNow"
                        or "System.Guid.NewGuid"
                        or "System.Guid.CreateVersion7"
                || call.StartsWith("System.Random.", StringComparison.Ordinal)
                || call.StartsWith("System.TimeProvider.", StringComparison.Ordinal)
                || call.StartsWith("System.Diagnostics.Stopwatch.", StringComparison.Ordinal)
                || call.StartsWith("System.Environment.get_Tick", StringComparison.Ordinal)
                || call.StartsWith("System.Security.Cryptography.RandomNumberGenerator.", StringComparison.Ordinal)
            )
            .ShouldBeEmpty();

    /// <summary>"Reel.Of(…)" is a reel; whatever gives something else says in its name what.</summary>
    [Theory]
    [InlineData("Wexel.Core")]
    [InlineData("Wexel.Media")]
    [InlineData("Wexel.Making")]
    [InlineData("Wexel.Delivering")]
    [InlineData("Wexel.Server")]
    [InlineData("Wexel.Cli")]
    public void What_is_called_Of_makes_its_own_type(string project) => Arrows.MakersOfOthers(project).ShouldBeEmpty();
}
