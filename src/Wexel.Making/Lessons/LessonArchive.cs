using System.IO.Compression;
using Wexel.Core;
using Wexel.Core.Captions;
using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Making.Storage;

namespace Wexel.Making.Lessons;

/// <summary>Lessons as files: a lesson file with its recordings beside it, or a ZIP of them.</summary>
public static class LessonArchive
{
    private const string Mark = "mark";
    private const string Picture = "picture";

    /// <summary>The files of a lesson: the lesson file first, then what it names.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="id">What names it for good.</param>
    /// <param name="recordings">For each of its recordings the name that it came under, and which sound tracks are used where somebody chose.</param>
    /// <param name="cameras">For each of its cameras the name that it came under.</param>
    /// <param name="store">Where recordings and mark lie.</param>
    public static IReadOnlyList<PackageFile> Plan(
        LessonToMake lesson,
        Guid id,
        IReadOnlyList<(string FileName, IReadOnlyList<int>? Sounds)> recordings,
        IReadOnlyList<string> cameras,
        FileStore store
    )
    {
        var document = lesson.Document;
        var names = Names("recordings", document.Recordings, [.. recordings.Select(r => r.FileName)]);
        var filmed = Names("cameras", [.. document.Cameras.Select(c => c.Recording)], cameras);
        var mark = lesson.Mark is { } placed ? new LessonFile.MarkFile(Mark, placed.Placement) : null;
        var captions = CaptionFileName.ForLanguages([.. document.Captions.Select(t => t.Language)]).Select(name => $"captions-{name}.vtt").ToList();
        var file = LessonFile.Of(
            document,
            id.ToString("N"),
            [.. recordings.Select((r, i) => (names[i], r.Sounds))],
            captions,
            mark,
            Picture,
            lesson.FirstProposed,
            filmed
        );
        return
        [
            new(LessonFile.NameInZip, "The lesson; what it names lies beside it.", new PackageContent.Text(file.Text())),
            .. document.Captions.Zip(captions, (track, name) =>
                new PackageFile(
                    name,
                    "Its captions, in the time of the recordings.",
                    new PackageContent.Text(WebVttText.WriteKept(lesson.Lesson.CuesOf(track)))
                )
            ),
            .. lesson.Mark is { } m
                ? [new PackageFile(Mark, "The house’s mark.", Copied(store.Derived(m.Key, MadeNames.Mark), m.Key))]
                : Array.Empty<PackageFile>(),
            .. document.Picture?.Own is { } given
                ? [new PackageFile(Picture, "The lesson’s picture, as it was given.", Copied(store.Derived(given, MadeNames.GivenPicture), given))]
                : Array.Empty<PackageFile>(),
            .. document.ShownPictures.Select(key => new PackageFile(
                LessonFile.ShownPicture(key),
                "A picture of a question or a note, as it was given.",
                Copied(store.Derived(key, MadeNames.GivenPicture), key)
            )),
            .. document.ShelfSounds.Select(sound => new PackageFile(
                LessonFile.ShelfSound(sound.Key),
                $"The sound “{sound.Title}”, as it was given.",
                Copied(store.Derived(sound.Key, MadeNames.GivenSound), sound.Key)
            )),
            .. document
                .Recordings.Zip(names)
                .DistinctBy(r => r.Second)
                .Select(r => new PackageFile(r.Second, "A recording, as it was brought in.", Copied(store.Recording(r.First), r.First))),
            .. document
                .Cameras.Zip(filmed)
                .DistinctBy(c => c.Second)
                .Select(c => new PackageFile(
                    c.Second,
                    "A camera’s recording, as it was brought in.",
                    Copied(store.Recording(c.First.Recording), c.First.Recording)
                )),
        ];
    }

    private static PackageContent.Copy Copied(string path, string key) => new(new KeyedFile(path, key), AlreadyCompressed: true);

    /// <summary>Unpacks a ZIP beside which nothing lies; what would lie outside the folder, or take more than it may, refuses it.</summary>
    /// <param name="zip">The ZIP.</param>
    /// <param name="name">How it is called, for sentences.</param>
    /// <param name="folder">An empty folder.</param>
    /// <param name="mostBytes">The most that it may take on disk, in bytes.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Where its lesson file lies.</returns>
    public static async Task<Result<string>> UnpackAsync(string zip, string name, string folder, long mostBytes, CancellationToken cancel)
    {
        try
        {
            await using var archive = await ZipFile.OpenReadAsync(zip, cancel);
            if (archive.Entries.FirstOrDefault(e => e.FullName.EndsWith(LessonFile.Ending, StringComparison.OrdinalIgnoreCase)) is not { } lesson)
                return new Problem("lesson-zip-without-lesson", $"“{name}” holds no lesson file, whose name ends in {LessonFile.Ending}.", "file");
            var left = mostBytes;
            foreach (var entry in archive.Entries.Where(e => e.Name.Length > 0))
            {
                var path = Path.GetFullPath(entry.FullName, folder);
                if (!path.StartsWith(Path.GetFullPath(folder) + Path.DirectorySeparatorChar, StringComparison.Ordinal))
                    return new Problem("lesson-zip-outside", $"“{name}” holds “{Problem.Shown(entry.FullName)}”, which would lie outside it.", "file");
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                // What it says of its sizes may be wrong: what comes out counts.
                if ((left -= await UnpackAsync(entry, path, left, cancel)) < 0)
                    return new Problem("lesson-zip-too-large", $"“{name}” holds more than there is room for here.", "file");
            }

            return Path.GetFullPath(lesson.FullName, folder);
        }
        catch (Exception failed) when (failed is InvalidDataException or IOException)
        {
            return new Problem("lesson-zip-unreadable", $"“{name}” cannot be unpacked: {failed.Message}", "file");
        }
    }

    private static async Task<long> UnpackAsync(ZipArchiveEntry entry, string path, long most, CancellationToken cancel)
    {
        await using var packed = await entry.OpenAsync(cancel);
        await using var file = new FileStream(path, FileMode.CreateNew);
        var block = new byte[1 << 17];
        long written = 0;
        for (int read; written <= most && (read = await packed.ReadAsync(block, cancel)) > 0; written += read)
            await file.WriteAsync(block.AsMemory(0, read), cancel);
        return written;
    }

    /// <summary>Names that tell recordings apart; one that is there twice has one.</summary>
    private static List<string> Names(string folder, IReadOnlyList<string> hashes, IReadOnlyList<string> fileNames)
    {
        var taken = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        return [.. hashes.Zip(fileNames, (hash, fileName) =>
            {
                var plain = string.Concat(
                    Path.GetFileName(fileName).Select(c => char.IsControl(c) || "/\\:*?\"<>|".Contains(c, StringComparison.Ordinal) ? '-' : c)
                );
                var name = plain;
                for (var n = 2; taken.TryGetValue(name, out var other) && other != hash; n++)
                    name = $"{Path.GetFileNameWithoutExtension(plain)} {n}{Path.GetExtension(plain)}";
                taken[name] = hash;
                return $"{folder}/{name}";
            })];
    }
}
