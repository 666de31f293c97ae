namespace Wexel.Server.Tests.Architecture;

/// <summary>What the formatter cannot break, such as a long text, is broken by whoever writes it.</summary>
public class LineTests
{
    private const int Longest = 160;

    [Fact]
    public void No_line_is_longer_than_a_screen()
    {
        var home = ServerFixture.Home;
        var files = Directory
            .EnumerateFiles(Path.Combine(home, "src"), "*.cs", SearchOption.AllDirectories)
            .Concat(Directory.EnumerateFiles(Path.Combine(home, "tests"), "*.cs", SearchOption.AllDirectories))
            .Concat(Directory.EnumerateFiles(Path.Combine(home, "web"), "*.ts*", SearchOption.AllDirectories))
            .Where(f => !new[] { "/obj/", "/bin/", "/Migrations/", "api.gen.ts" }.Any(f.Contains))
            .ToList();
        files.Count.ShouldBeGreaterThan(600);
        files
            .SelectMany(f => File.ReadLines(f).Index().Where(l => l.Item.Length > Longest).Select(l => $"{Path.GetRelativePath(home, f)}:{l.Index + 1}"))
            .ShouldBeEmpty();
    }
}
