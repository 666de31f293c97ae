using System.IO.Compression;
using System.Text;
using Wexel.Core.Packages;
using Wexel.Media.Tools;

namespace Wexel.Media.Packaging;

/// <summary>A file of a package that was written.</summary>
/// <param name="Path">Its path in the package.</param>
/// <param name="Bytes">Its size before any packing.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="IsThePageToLink">Whether this is the one to link.</param>
/// <param name="Key">The key of what is in it.</param>
public sealed record WrittenFile(string Path, long Bytes, string Purpose, bool IsThePageToLink, string Key);

/// <summary>Writes planned packages to disk.</summary>
public static class PackageWriter
{
    /// <summary>The earliest time that a ZIP can tell.</summary>
    private static readonly DateTimeOffset Earliest = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);

    private static readonly UTF8Encoding Utf8 = new(encoderShouldEmitUTF8Identifier: false);

    /// <summary>What a package holds, before it is written or after.</summary>
    public static IReadOnlyList<WrittenFile> List(IReadOnlyList<PackageFile> files) =>
        [
            .. files.Select(f =>
                Written(
                    f,
                    f.Content is PackageContent.Copy copy ? new FileInfo(copy.Source.Path).Length : Utf8.GetByteCount(((PackageContent.Text)f.Content).Value)
                )
            ),
        ];

    /// <summary>Writes a folder: under a temporary name beside it first, so that it is whole or not there.</summary>
    /// <exception cref="IOException">The folder is there already, or cannot be written.</exception>
    public static async Task<IReadOnlyList<WrittenFile>> WriteFolderAsync(IReadOnlyList<PackageFile> files, string folder, CancellationToken cancel)
    {
        Directory.CreateDirectory(Path.GetDirectoryName(Path.GetFullPath(folder))!);
        var temporary = HalfMade.Beside(folder);
        try
        {
            var written = new List<WrittenFile>();
            foreach (var file in files)
            {
                var path = Path.Combine(temporary, file.Path);
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                await using (var target = File.Create(path))
                    await CopyAsync(file.Content, target, cancel);
                written.Add(Written(file, new FileInfo(path).Length));
            }

            Directory.Move(temporary, folder);
            return written;
        }
        finally
        {
            if (Directory.Exists(temporary))
                Directory.Delete(temporary, recursive: true);
        }
    }

    /// <summary>Writes a ZIP; what is compressed already is stored as it is.</summary>
    public static async Task<IReadOnlyList<WrittenFile>> WriteZipAsync(IReadOnlyList<PackageFile> files, string zipPath, CancellationToken cancel)
    {
        IReadOnlyList<WrittenFile> written = [];
        await WholeFile.MakeAsync(zipPath, async temporary =>
        {
            await using var target = File.Create(temporary);
            written = await WriteZipAsync(files, target, cancel);
        });
        return written;
    }

    /// <summary>Writes a ZIP as it goes into a stream that cannot go back.</summary>
    public static async Task<IReadOnlyList<WrittenFile>> WriteZipAsync(IReadOnlyList<PackageFile> files, Stream target, CancellationToken cancel)
    {
        var written = new List<WrittenFile>();
        await using var zip = await ZipArchive.CreateAsync(target, ZipArchiveMode.Create, leaveOpen: true, Utf8, cancel);
        foreach (var file in files)
        {
            var packed = file.Content is PackageContent.Copy { AlreadyCompressed: true } ? CompressionLevel.NoCompression : CompressionLevel.Optimal;
            var entered = zip.CreateEntry(file.Path, packed);
            // The same files are the same package, whenever it is made.
            entered.LastWriteTime = Earliest;
            await using var entry = await entered.OpenAsync(cancel);
            written.Add(Written(file, await CopyAsync(file.Content, entry, cancel)));
        }

        return written;
    }

    private static async Task<long> CopyAsync(PackageContent content, Stream target, CancellationToken cancel)
    {
        if (content is PackageContent.Copy copy)
        {
            await using var source = File.OpenRead(copy.Source.Path);
            await source.CopyToAsync(target, cancel);
            return source.Length;
        }

        var bytes = Utf8.GetBytes(((PackageContent.Text)content).Value);
        await target.WriteAsync(bytes, cancel);
        return bytes.Length;
    }

    private static WrittenFile Written(PackageFile file, long bytes) => new(file.Path, bytes, file.Purpose, file.IsThePageToLink, PackageKeys.OfFile(file));
}
