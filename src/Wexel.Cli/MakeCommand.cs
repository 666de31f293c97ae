using System.Text.Json;
using Wexel.Core;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Inspection;
using Wexel.Core.Outlets;
using Wexel.Media.Packaging;
using Wexel.Media.Tools;

namespace Wexel.Cli;

/// <summary>What was asked for on the command line.</summary>
internal sealed record MakeRequest(IReadOnlyList<string> Recordings, string? Title, string? Contents, string? Captions, string? Cuts, string? MoveIns, IReadOnlyList<string> Profiles, string Purpose, string? BaseUrl, string? Out, bool Json);

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
        if (PlayerFiles.FolderAbove(AppContext.BaseDirectory) is not { } player)
            return Misused("The player is not built; run ./wexel make from the project, which builds it.");
        if (Purpose.Of(request.Purpose, request.BaseUrl, player) is not { } purpose)
            return Misused($"“{request.Purpose}” cannot be made; --for takes {Purpose.Names}.");
        var sources = request.Recordings is [var course] && course.EndsWith(".json", StringComparison.OrdinalIgnoreCase)
            ? CourseFile.Read(course)
            : new MakeSources(request.Title, false, [new LessonRequest(request.Recordings, request.Title, request.Contents, request.Captions, request.Cuts, request.MoveIns)], new CourseFeed());
        var profiles = new List<Profile>();
        foreach (var name in request.Profiles)
        {
            if (NamedProfile(name) is not { } named)
                return Misused($"There is no profile “{name}”; take one of {string.Join(", ", Core.Encoding.Profiles.All.Select(p => p.Id))}, or a profile file that ends in .json.");
            profiles.Add(named);
        }

        if (profiles.Count == 0)
            profiles.Add(OutletTakes.Usual(purpose.Kind, sources.Feed.Media));
        if (profiles.Count > 1 && !purpose.TakesSeveralProfiles)
            return Misused($"--for {request.Purpose} takes one profile; several are made --for files.");
        if (profiles.GroupBy(p => p.Id).FirstOrDefault(same => same.Count() > 1) is { } twice)
            return Misused($"The profile “{twice.Key}” was given twice; their files would have one name.");
        if (profiles.Select(p => purpose.Refusal(sources, p)).FirstOrDefault(r => r is not null) is { } refusal)
            return Misused(refusal);
        if (request.Out is not null)
            RefuseWhatIsThere(request.Out);

        var times = new Stopwatches();
        var maker = new LessonMaker(profiles, player, times);
        var made = new List<MadeLesson>();
        foreach (var lesson in sources.Lessons)
            made.AddRange(await maker.MakeAsync(lesson, Path.Combine(work, $"{made.Count + 1}"), cancel));
        var title = sources.IsCourse ? sources.Title! : made[0].Sources.Lesson.Title;
        var outPath = Path.GetFullPath(request.Out ?? FileNames.Of(title) + purpose.Ending);
        RefuseWhatIsThere(outPath);
        var plan = await times.TakeAsync("plan", () => purpose.PlanAsync(title, sources, made, work, cancel));
        var zip = outPath.EndsWith(".zip", StringComparison.OrdinalIgnoreCase);
        var written = await times.TakeAsync("package", () => zip ? PackageWriter.WriteZipAsync(plan.Files, outPath, cancel) : PackageWriter.WriteFolderAsync(plan.Files, outPath, cancel));
        Report(request, sources, made, plan, outPath, written, times);
        return Made;
    }

    private static void Report(MakeRequest request, MakeSources sources, List<MadeLesson> made, MakePlan plan, string outPath, IReadOnlyList<WrittenFile> written, Stopwatches times)
    {
        string Of(MadeLesson m) => (sources.IsCourse ? $"{m.Sources.Lesson.Title}: " : "") + (request.Profiles.Count > 1 ? $"{m.Profile.Title}: " : "");
        CheckedFact[] check = [.. made.SelectMany(m => m.Check.Select(f => f with { Fact = Of(m) + f.Fact }))];
        foreach (var fact in check)
            Console.Error.WriteLine($"{(fact.Verdict == Verdict.Right ? "right" : "WRONG")}  {fact.Fact}: {fact.Measured}{(fact.Measured == fact.Expected ? "" : $"  (should be {fact.Expected})")}");
        foreach (var finding in plan.FeedCheck ?? [])
            Console.Error.WriteLine($"{(finding.Weight == FindingWeight.Wrong ? "WRONG" : "advice")}  {finding.Where}: {finding.Sentence} ({finding.Rule})");
        var report = new MakeReport(outPath, plan.Files[0].Path, [.. written.Select(f => new MadeFile(f.Path, f.Bytes, f.Purpose))], check, plan.FeedCheck, [.. made.Select(m => m.Codecs).Distinct()], times.Taken);
        Console.Out.WriteLine(request.Json ? JsonSerializer.Serialize(report, Indented) : outPath);
    }

    /// <summary>A profile that ships with Wexel, or one in a file; null where there is none of that name.</summary>
    /// <exception cref="UnusableInputException">The file holds no profile that can be used.</exception>
    private static Profile? NamedProfile(string name)
    {
        if (!name.EndsWith(".json", StringComparison.OrdinalIgnoreCase))
            return Profiles.Find(name);
        var (profile, problem) = ProfileText.Read(InputFile.Read(name, File.ReadAllText));
        return profile ?? throw new UnusableInputException($"“{name}”: {problem!.Sentence}");
    }

    private static void RefuseWhatIsThere(string path)
    {
        if (Directory.Exists(path) || File.Exists(path))
            throw new IOException($"“{Path.GetFullPath(path)}” is there already; choose another place with --out.");
    }
}
