using CliWrap;
using CliWrap.Buffered;
using Wexel.Media.Tools;

namespace Wexel.Media.Tests;

/// <summary>A file that was not written to its end is not taken for one that was.</summary>
public sealed class WholenessTests
{
    public static TheoryData<string, string[]> Formats =>
        new()
        {
            { "a.mp4", ["-f", "lavfi", "-i", "testsrc2=s=160x90:d=1", "-pix_fmt", "yuv420p"] },
            { "front.mp4", ["-f", "lavfi", "-i", "testsrc2=s=160x90:d=1", "-pix_fmt", "yuv420p", "-movflags", "+faststart"] },
            { "a.m4a", ["-f", "lavfi", "-i", "sine=d=1"] },
            { "a.webm", ["-f", "lavfi", "-i", "testsrc2=s=160x90:d=1", "-c:v", "libvpx-vp9", "-cpu-used", "8"] },
            { "a.opus", ["-f", "lavfi", "-i", "sine=d=1", "-c:a", "libopus"] },
            { "a.wav", ["-f", "lavfi", "-i", "sine=d=1"] },
            { "a.jpg", ["-f", "lavfi", "-i", "testsrc2=s=160x90:d=1", "-frames:v", "1"] },
            { "a.png", ["-f", "lavfi", "-i", "testsrc2=s=160x90:d=1", "-frames:v", "1"] },
        };

    [Theory]
    [MemberData(nameof(Formats))]
    public async Task A_file_without_its_end_is_not_whole(string name, string[] arguments)
    {
        var folder = Directory.CreateTempSubdirectory("wexel-whole-").FullName;
        try
        {
            var path = Path.Combine(folder, name);
            await Cli.Wrap("ffmpeg").WithArguments(["-nostdin", "-v", "error", .. arguments, path]).ExecuteAsync();
            Wholeness.IsWhole(path).ShouldBeTrue();
            var whole = await File.ReadAllBytesAsync(path, TestContext.Current.CancellationToken);
            foreach (var bytes in new[] { 0, 1, 10, whole.Length / 2, whole.Length - 1 })
            {
                await File.WriteAllBytesAsync(path, whole[..bytes], TestContext.Current.CancellationToken);
                Wholeness.IsWhole(path).ShouldBeFalse($"{bytes} of {whole.Length} bytes");
            }

            File.Delete(path);
            Wholeness.IsWhole(path).ShouldBeFalse();
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>ffmpeg 5.1 ends with 0 where only the index at the end of a file found no room on the disk.</summary>
    [Theory]
    [InlineData("mp4")]
    [InlineData("webm")]
    public async Task A_disk_that_fills_up_with_the_last_bytes_leaves_no_file(string ending)
    {
        var folder = Directory.CreateTempSubdirectory("wexel-small-").FullName;
        try
        {
            string[] copy =
            [
                "-f",
                "lavfi",
                "-i",
                "testsrc2=s=320x180:r=30:d=4",
                .. ending == "mp4" ? new[] { "-pix_fmt", "yuv420p", "-c:v", "libx264" } : ["-c:v", "libvpx-vp9", "-cpu-used", "8"],
            ];
            var roomy = Path.Combine(folder, "roomy." + ending);
            await MediaTool.RunAsync([.. copy, "file:" + roomy], null, null, TestContext.Current.CancellationToken);
            var needed = new FileInfo(roomy).Length;
            var disk = Directory.CreateDirectory(Path.Combine(folder, "disk")).FullName;
            // The last page of the file finds no room.
            var pages = (needed - 1) / 4096;
            if (
                (
                    await Cli.Wrap("mount")
                        .WithArguments(["-t", "tmpfs", "-o", $"size={pages * 4096}", "tmpfs", disk])
                        .WithValidation(CommandResultValidation.None)
                        .ExecuteBufferedAsync()
                ).ExitCode != 0
            )
                Assert.Skip("Only root can mount a small disk.");
            try
            {
                var made = Path.Combine(disk, "lesson." + ending);
                (
                    await Should.ThrowAsync<ToolFailedException>(() =>
                        WholeFile.MakeAsync(made, temporary =>
                            MediaTool.RunAsync([.. copy, "file:" + temporary], null, null, TestContext.Current.CancellationToken)
                        )
                    )
                ).MayPass.ShouldBeTrue();
                Directory.EnumerateFileSystemEntries(disk).ShouldBeEmpty();
            }
            finally
            {
                await Cli.Wrap("umount").WithArguments(["-l", disk]).ExecuteAsync();
            }
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
