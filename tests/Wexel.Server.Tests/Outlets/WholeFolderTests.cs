using System.Text;
using Wexel.Core.Outlets;
using Wexel.Delivering;
using Wexel.Delivering.Folders;

namespace Wexel.Server.Tests.Outlets;

/// <summary>A folder is written whole or not at all, and the earlier one stands until then.</summary>
public sealed class WholeFolderTests : IDisposable
{
    private readonly string _root = Directory.CreateTempSubdirectory("wexel-whole-").FullName;
    private readonly List<DeliveryStep> _told = [];

    public void Dispose()
    {
        if (Directory.Exists(_root))
            Directory.Delete(_root, recursive: true);
    }

    private sealed class Told(List<DeliveryStep> steps) : IProgress<DeliveryStep>
    {
        public void Report(DeliveryStep value) => steps.Add(value);
    }

    private static ParcelFile File_(string path, string text) => new(new DeliveredFile(path, text), () => new MemoryStream(Encoding.UTF8.GetBytes(text)));

    private async Task<Core.Problem?> PutAsync(IReadOnlyList<ParcelFile> put, IReadOnlyList<string>? remove = null, string? under = null)
    {
        _told.Clear();
        var delivery = new WholeFolderDelivery([under ?? _root]);
        return (await delivery.DeliverAsync(new Parcel("Share", put, remove ?? []), _root, new Told(_told), CancellationToken.None)).Problem;
    }

    private string Read(string path) => File.ReadAllText(Path.Combine(_root, path));

    private string[] Everything() =>
        [.. Directory.EnumerateFiles(_root, "*", SearchOption.AllDirectories).Select(f => Path.GetRelativePath(_root, f)).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task What_changed_is_put_what_is_gone_is_removed_and_the_rest_stays()
    {
        (await PutAsync([File_("Lines/index.html", "one"), File_("Lines/player/a.js", "js"), File_("Lines/old.vtt", "old")])).ShouldBeNull();
        (await PutAsync([File_("Lines/index.html", "two")], ["Lines/old.vtt"])).ShouldBeNull();
        Everything().ShouldBe(["Lines/index.html", "Lines/player/a.js"]);
        Read("Lines/index.html").ShouldBe("two");
        _told.Select(t => (t.Path, t.Key)).ShouldBe([("Lines/index.html", "two"), ("Lines/old.vtt", null)]);
        (await PutAsync([], ["Lines/index.html", "Lines/player/a.js"])).ShouldBeNull();
        Directory.EnumerateFileSystemEntries(_root).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_breaks_in_the_middle_leaves_the_earlier_one_as_it_was()
    {
        (await PutAsync([File_("Lines/index.html", "one"), File_("Lines/lesson.mp4", "video")])).ShouldBeNull();
        var broken = new ParcelFile(new DeliveredFile("Lines/lesson.mp4", "x"), () => throw new IOException("No space left on device"));
        var problem = await PutAsync([File_("Lines/index.html", "two"), broken]);
        problem!.Code.ShouldBe("delivery-failed");
        problem.Sentence.ShouldContain("No space left on device");
        problem.Sentence.ShouldContain("its disk is full");
        _told.ShouldBeEmpty("nothing of it is there");
        Everything().ShouldBe(["Lines/index.html", "Lines/lesson.mp4"]);
        Read("Lines/index.html").ShouldBe("one");
    }

    [Fact]
    public async Task A_folder_that_is_gone_says_so()
    {
        Directory.Delete(_root);
        (await PutAsync([File_("Lines/index.html", "one")], under: Path.GetTempPath()))!.Code.ShouldBe("delivery-folder-missing");
    }

    /// <summary>A folder that vanishes while it is written to, as a share does whose machine goes off.</summary>
    [Fact]
    public async Task A_folder_that_goes_in_the_middle_says_so()
    {
        var gone = new ParcelFile(new DeliveredFile("Lines/lesson.mp4", "x"), () =>
        {
            Directory.Delete(_root, recursive: true);
            return new MemoryStream([1]);
        });
        (await PutAsync([File_("Lines/index.html", "one"), gone, File_("Lines/z/z.txt", "z")]))!.Code.ShouldBe("delivery-failed");
        _told.ShouldBeEmpty();
    }

    /// <summary>Of this file system one can only read: neither may this test write there, whoever runs it.</summary>
    [Fact]
    public async Task A_folder_that_can_only_be_read_says_so()
    {
        var delivery = new WholeFolderDelivery(["/proc"]);
        (
            await delivery.DeliverAsync(new Parcel("Share", [File_("Lines/index.html", "one")], []), "/proc", new Told(_told), CancellationToken.None)
        ).Problem!.Code.ShouldBe("delivery-failed");
    }

    [Fact]
    public async Task Whoever_died_between_the_two_moves_left_the_earlier_one_and_it_is_put_back()
    {
        (await PutAsync([File_("Lines/index.html", "one"), File_("Lines/lesson.mp4", "video")])).ShouldBeNull();
        Directory.Move(Path.Combine(_root, "Lines"), Path.Combine(_root, ".wexel-last Lines"));
        Directory.CreateDirectory(Path.Combine(_root, ".wexel-next Lines", "half"));
        (await PutAsync([File_("Lines/index.html", "two")])).ShouldBeNull();
        Everything().ShouldBe(["Lines/index.html", "Lines/lesson.mp4"]);
        Read("Lines/index.html").ShouldBe("two");
    }

    [Fact]
    public async Task Nothing_is_put_outside()
    {
        (await PutAsync([File_("../outside.txt", "x")]))!.Code.ShouldBe("delivery-failed");
        (await PutAsync([File_("Lines/../../outside.txt", "x")]))!.Code.ShouldBe("delivery-failed");
        File.Exists(Path.Combine(_root, "../outside.txt")).ShouldBeFalse();
        Everything().ShouldBeEmpty();
    }
}
