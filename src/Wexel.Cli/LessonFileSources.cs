using Wexel.Core.Lessons;
using Wexel.Making.Lessons;

namespace Wexel.Cli;

/// <summary>A lesson file on the command line, or a ZIP of one with what it names.</summary>
internal static class LessonFileSources
{
    /// <summary>Whether a name is that of a lesson file or of a ZIP.</summary>
    internal static bool Is(string name) => LessonFile.IsName(name);

    /// <exception cref="UnusableInputException">The file cannot be read, or names what is not there.</exception>
    internal static async Task<LessonRequest> ReadAsync(string path, string work, CancellationToken cancel)
    {
        if (!File.Exists(path))
            throw new UnusableInputException($"There is no file “{path}”.");
        var lesson = path;
        if (
            LessonFile.IsZip(path)
            && !(
                await LessonArchive.UnpackAsync(
                    path,
                    Path.GetFileName(path),
                    Directory.CreateDirectory(Path.Combine(work, "lesson")).FullName,
                    long.MaxValue,
                    cancel
                )
            ).Is(out lesson, out var unreadable)
        )
            throw new UnusableInputException(unreadable.Sentence);
        if (!LessonFile.Read(InputFile.Text(lesson)).Is(out var file, out var problem))
            throw new UnusableInputException($"“{path}”: {problem.Sentence}");
        var folder = Path.GetDirectoryName(Path.GetFullPath(lesson))!;
        return new LessonRequest(
            [.. file.Recordings.Select(r => Beside(r.File))],
            file.Title,
            null,
            [.. (file.Captions ?? []).Select(c => new GivenCaptions(Beside(c.File), c.Language))],
            null,
            Language: file.Language,
            Mark: file.Mark is { } mark ? Beside(mark.File) : null,
            Picture: file.Picture?.File is { } picture ? Beside(picture) : null,
            File: file,
            Cameras: [.. (file.Cameras ?? []).Select(c => Beside(c.File))],
            Shown: [.. file.ShownPictures.Select(ShownBeside)],
            Sounds: [.. file.ShelfSounds.Select(s => (s, Beside(LessonFile.ShelfSound(s.Key))))]
        );

        (string, string) ShownBeside(string key) => (key, Beside(LessonFile.ShownPicture(key)));

        // What came in a ZIP names what is in it, and nothing else of this machine.
        string Beside(string name) =>
            Path.GetFullPath(name, folder) is var whole && (!LessonFile.IsZip(path) || whole.StartsWith(folder + "/", StringComparison.Ordinal))
                ? whole
                : throw new UnusableInputException($"“{path}” names “{name}”, which does not lie in it.");
    }
}
