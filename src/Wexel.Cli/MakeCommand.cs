using System.Text.Json;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Inspection;
using Wexel.Core.Packages;
using Wexel.Media.Packaging;
using Wexel.Media.Tools;

namespace Wexel.Cli;

/// <summary>What was asked for on the command line.</summary>
internal sealed record MakeRequest(string Recording, string? Title, string? Contents, string? Captions, string? Profile, string Purpose, string? BaseUrl, string? Out, bool Json);

/// <summary>The report that <c>--json</c> prints.</summary>
internal sealed record MakeReport(
    string Path,
    string Start,
    IReadOnlyList<MadeFile> Files,
    IReadOnlyList<CheckedFact> Check,
    IReadOnlyList<FeedFinding>? FeedCheck,
    IReadOnlyList<string> Codecs,
    IReadOnlyDictionary<string, long> MillisecondsTaken);

/// <summary>A file that was made.</summary>
internal sealed record MadeFile(string Path, long Bytes, string For);

/// <summary><c>wexel make</c>.</summary>
internal static class MakeCommand
{
    private const string Web = "web";
    private const string Scorm12 = "scorm12";
    private const string Podcast = "podcast";

    private const int Made = 0;
    private const int Failed = 1;
    private const int CannotBeUsed = 2;

    private static readonly JsonSerializerOptions Indented = new(WexelJson.Options) { WriteIndented = true };

    internal static int Misused(string message)
    {
        Console.Error.WriteLine(message);
        return Failed;
    }

    internal static async Task<int> RunAsync(MakeRequest request, CancellationToken cancel)
    {
        var work = Directory.CreateTempSubdirectory("wexel-make-");
        try
        {
            return await MakeAsync(request, work.FullName, cancel);
        }
        catch (UnusableInputException unusable)
        {
            Console.Error.WriteLine(unusable.Message);
            return CannotBeUsed;
        }
        catch (OperationCanceledException)
        {
            return Misused("Stopped. Nothing was made.");
        }
        catch (ToolFailedException failed)
        {
            return Misused($"The encoder said: {failed.Said}\n{failed.Advice}");
        }
        catch (IOException failed)
        {
            return Misused(failed.Message);
        }
        catch (UnauthorizedAccessException failed)
        {
            return Misused(failed.Message);
        }
        finally
        {
            work.Delete(recursive: true);
        }
    }

    private static async Task<int> MakeAsync(MakeRequest request, string work, CancellationToken cancel)
    {
        var times = new Stopwatches();
        if (request.Purpose is not (Web or Scorm12 or Podcast))
            return Misused($"“{request.Purpose}” cannot be made; --for takes {Web}, {Scorm12} or {Podcast}.");
        if (Profiles.Find(request.Profile ?? (request.Purpose == Podcast ? Profiles.Podcast720 : Profiles.Web).Id) is not { } profile)
            return Misused($"There is no profile “{request.Profile}”; take one of {string.Join(", ", Profiles.All.Select(p => p.Id))}.");
        if (PlayerFiles.FolderAbove(AppContext.BaseDirectory) is not { } player)
            return Misused("The player is not built; run ./wexel make from the project, which builds it.");
        Uri? folder = null;
        if (request.Purpose == Podcast && !(Uri.TryCreate(request.BaseUrl?.TrimEnd('/') + "/", UriKind.Absolute, out folder) && folder.Scheme is "http" or "https"))
            return Misused($"A feed names its files by whole addresses: give the one where the folder will lie with --base-url, such as https://intranet.example/listening/.");

        var isCourse = request.Recording.EndsWith(".json", StringComparison.OrdinalIgnoreCase);
        if (isCourse && request.Purpose == Web)
            return Misused($"A course is made --for {Scorm12} or --for {Podcast}.");
        var (courseTitle, lessons, feed) = isCourse
            ? CourseFile.Read(request.Recording)
            : (request.Title, [new LessonRequest(request.Recording, request.Title, request.Contents, request.Captions)], null);
        if (request.Purpose == Podcast && !(feed ?? new CourseFeed()).Settings(courseTitle ?? "?").Takes(profile))
            return Misused($"Podcast apps want a constant frame rate, which “{profile.Id}” does not make; take {Profiles.Podcast720.Id}.");
        if (request.Out is not null)
            RefuseWhatIsThere(request.Out);

        var maker = new LessonMaker(profile, times);
        var made = new List<MadeLesson>();
        foreach (var lesson in lessons)
            made.Add(await maker.MakeAsync(lesson, Path.Combine(work, $"{made.Count + 1}"), cancel));
        var title = isCourse ? courseTitle! : made[0].Sources.Lesson.Title;
        var outPath = Path.GetFullPath(request.Out ?? FileName(title) + (request.Purpose == Scorm12 ? ".zip" : ""));
        RefuseWhatIsThere(outPath);
        var podcast = folder is null ? null : await times.TakeAsync("episodes", () =>
            PodcastMaker.PlanAsync((feed ?? new CourseFeed()).Settings(title), feed?.Artwork, folder, made, Path.Combine(player, "fonts"), work, cancel));
        var files = podcast?.Files ?? (request.Purpose == Web
            ? WebFolder.Plan(made[0].Sources, PlayerFiles.In(player))
            : Scorm12Package.Plan(new Scorm12Sources(FileName(title), title, [.. made.Select(m => m.Sources)], PlayerFiles.In(player))));
        var zip = outPath.EndsWith(".zip", StringComparison.OrdinalIgnoreCase);
        var written = await times.TakeAsync("package", () => zip ? PackageWriter.WriteZipAsync(files, outPath, cancel) : PackageWriter.WriteFolderAsync(files, outPath, cancel));

        CheckedFact[] check = [.. made.SelectMany(m => isCourse ? m.Check.Select(f => f with { Fact = $"{m.Sources.Lesson.Title}: {f.Fact}" }) : m.Check)];
        foreach (var fact in check)
            Console.Error.WriteLine($"{(fact.Verdict == Verdict.Right ? "right" : "WRONG")}  {fact.Fact}: {fact.Measured}");
        foreach (var finding in podcast?.Check ?? [])
            Console.Error.WriteLine($"{(finding.Weight == FindingWeight.Wrong ? "WRONG" : "advice")}  {finding.Where}: {finding.Sentence} ({finding.Rule})");
        var report = new MakeReport(outPath, files[0].Path, [.. written.Select(f => new MadeFile(f.Path, f.Bytes, f.Purpose))], check, podcast?.Check, [.. made.Select(m => m.Codecs).Distinct()], times.Taken);
        Console.Out.WriteLine(request.Json ? JsonSerializer.Serialize(report, Indented) : outPath);
        return Made;
    }

    private static void RefuseWhatIsThere(string path)
    {
        if (Directory.Exists(path) || File.Exists(path))
            throw new IOException($"“{Path.GetFullPath(path)}” is there already; choose another place with --out.");
    }

    /// <summary>A title as a file's name: lower case, words joined by hyphens.</summary>
    internal static string FileName(string title) =>
        string.Join('-', new string([.. title.ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : ' ')]).Split(' ', StringSplitOptions.RemoveEmptyEntries)) is { Length: > 0 } name ? name : "lesson";
}
