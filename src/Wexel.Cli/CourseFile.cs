using System.Text.Json;
using Wexel.Core.Captions;
using Wexel.Core.Details;
using Wexel.Core.Documents;

namespace Wexel.Cli;

/// <summary>A course on the command line: <c>course.json</c>, whose paths are relative to it.</summary>
/// <param name="Title">The course's title.</param>
/// <param name="Lessons">The lessons in teaching order.</param>
/// <param name="Feed">What is said of its podcast feed.</param>
/// <param name="Details">What is said about all of its lessons, such as author and licence.</param>
/// <param name="Description">What the course is about.</param>
internal sealed record CourseFile(
    string? Title,
    IReadOnlyList<CourseFile.CourseLesson?>? Lessons,
    CourseFeed? Feed,
    DetailSet? Details = null,
    string? Description = null
)
{
    /// <summary>One lesson: <c>recording</c>, or <c>recordings</c> for several in their order, and <c>title</c>, <c>contents</c>, <c>captions</c>,
    /// <c>cuts</c>, <c>moveIns</c>, <c>sound</c>, <c>canvas</c>, <c>mark</c>, <c>language</c> and <c>details</c> where there are any.</summary>
    internal sealed record CourseLesson(
        string? Recording,
        IReadOnlyList<string>? Recordings,
        string? Title,
        string? Contents,
        string? Captions,
        string? Cuts,
        string? MoveIns,
        string? Sound,
        string? Language,
        string? Canvas = null,
        string? Mark = null,
        DetailSet? Details = null
    );

    /// <summary>The course's title, its lessons, and what is said of its feed.</summary>
    /// <exception cref="UnusableInputException">The file cannot be read or lacks something.</exception>
    internal static MakeSources Read(string path)
    {
        CourseFile? course;
        try
        {
            course = JsonSerializer.Deserialize<CourseFile>(InputFile.Text(path), WexelJson.Options);
        }
        catch (JsonException failed)
        {
            throw new UnusableInputException($"“{path}” is not a course: line {failed.LineNumber + 1} cannot be read as JSON.");
        }

        if (string.IsNullOrWhiteSpace(course?.Title))
            throw new UnusableInputException($"“{path}” has no title; write \"title\": \"…\" into it.");
        if (
            course
                .Lessons?.Select(l => l?.Details)
                .Append(course.Details)
                .OfType<DetailSet>()
                .Select(DetailFields.Unusable)
                .FirstOrDefault(p => p is not null) is
            { } unusable
        )
            throw new UnusableInputException($"“{path}”: {unusable.Sentence}");
        if (course.Lessons is not { Count: > 0 } lessons)
            throw new UnusableInputException($"“{path}” has no lessons; write \"lessons\": [{{ \"recording\": \"…\" }}] into it.");
        var folder = Path.GetDirectoryName(Path.GetFullPath(path))!;
        string? Beside(string? file) => file is null ? null : Path.Combine(folder, file);
        return new MakeSources(
            course.Title,
            true,
            [
                .. lessons.Select(
                    (lesson, i) =>
                        Named(lesson) is { Count: > 0 } recordings
                            ? new LessonRequest(
                                [.. recordings.Select(r => Beside(r)!)],
                                lesson!.Title,
                                Beside(lesson.Contents),
                                lesson.Captions is { } captions ? [new GivenCaptions(Beside(captions)!, null)] : [],
                                Beside(lesson.Cuts),
                                Beside(lesson.MoveIns),
                                lesson.Sound,
                                lesson.Language ?? course.Feed?.Language ?? LanguageTag.Usual,
                                lesson.Canvas,
                                Beside(lesson.Mark),
                                Details: lesson.Details,
                                House: course.Details
                            )
                            : throw new UnusableInputException($"Lesson {i + 1} in “{path}” names no recording.")
                ),
            ],
            course.Feed is null ? new CourseFeed() : course.Feed with { Artwork = Beside(course.Feed.Artwork) },
            course.Description?.Trim() ?? ""
        );
    }

    private static IReadOnlyList<string> Named(CourseLesson? lesson) =>
        [.. (lesson?.Recordings ?? []).Prepend(lesson?.Recording ?? "").Where(name => !string.IsNullOrEmpty(name))];
}
