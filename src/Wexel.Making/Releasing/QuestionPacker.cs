using Wexel.Core.Keys;
using Wexel.Core.Lessons;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Qti;
using Wexel.Making.Lessons;
using Wexel.Making.Rendering;
using Wexel.Making.Storage;

namespace Wexel.Making.Releasing;

/// <summary>Packs a lesson's questions for other programs, with the pictures that they have and those on which places are clicked.</summary>
/// <param name="folders">Where they lie.</param>
public sealed class QuestionPacker(MakingFolders folders)
{
    private readonly PictureMaker _pictures = new(folders);
    private readonly ShownPictures _shown = new(folders.Store);

    /// <summary>The files of a QTI package.</summary>
    /// <param name="id">What names the lesson.</param>
    /// <param name="lesson">The lesson.</param>
    /// <param name="version">The version that is written.</param>
    /// <param name="cancel">Stops it.</param>
    /// <exception cref="Media.Tools.ToolFailedException">A recording cannot be read where a place on its picture is clicked.</exception>
    public async Task<IReadOnlyList<PackageFile>> PackAsync(string id, LessonToMake lesson, QtiVersion version, CancellationToken cancel)
    {
        var (questions, pictures, files) = (new List<Question>(), new Dictionary<string, QtiPictures>(), new Dictionary<string, KeyedFile>());
        foreach (var question in lesson.Document.Questions)
        {
            var shown = question.Picture is { } key ? await ShownAsync(key) : null;
            var planned = question.Asks.IsOnPicture ? PlannedPicture.Of(lesson, new LessonPicture(question.At)) : null;
            var clicked = planned is null ? null : await ClickedAsync(planned);
            pictures[question.Id] = new QtiPictures(shown, clicked);
            questions.Add(planned is null ? question : SeenOnPicture.At(question, planned.Planned!, planned.Frame));
        }

        return
        [
            .. QtiPackage
                .Write(id, lesson.Document.Title, questions, version, q => pictures[q.Id])
                .Select(f => new PackageFile(f.Path, "", new PackageContent.Text(f.Text))),
            .. files.Select(f => new PackageFile(f.Key, "", new PackageContent.Copy(f.Value, AlreadyCompressed: true))),
        ];

        async Task<string> ShownAsync(string key) => Added(new KeyedFile(await _shown.MakeAsync(key), key));

        async Task<QtiPicture> ClickedAsync(PlannedPicture planned)
        {
            await _pictures.MakeAsync(planned, cancel);
            return new QtiPicture(Added(folders.Store.Keyed(planned.Key, MadeNames.Poster)), planned.Size.Width, planned.Size.Height);
        }

        string Added(KeyedFile file)
        {
            var path = $"{QtiPackage.PictureFolder}{file.Key}.jpg";
            files[path] = file;
            return path;
        }
    }
}
