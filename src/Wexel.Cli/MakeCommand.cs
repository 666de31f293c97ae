using System.Text.Json;
using Wexel.Core.Captions;
using Wexel.Core.Contents;
using Wexel.Core.Documents;
using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Inspection;
using Wexel.Core.Naming;
using Wexel.Core.Packages;
using Wexel.Core.Recordings;
using Wexel.Making;
using Wexel.Making.Storage;
using Wexel.Media.Packaging;
using Wexel.Media.Tools;

namespace Wexel.Cli;

/// <summary>What was asked for on the command line.</summary>
internal sealed record MakeRequest(
    IReadOnlyList<string> Recordings,
    string? Title,
    string? Contents,
    IReadOnlyList<string> Captions,
    string? Cuts,
    string? MoveIns,
    string? Sound,
    string? Language,
    string? Canvas,
    string? Mark,
    IReadOnlyList<string> Profiles,
    string Purpose,
    string? BaseUrl,
    string? Out,
    IReadOnlyList<string> Allowed,
    bool Json
);

/// <summary>The report that <c>--json</c> prints.</summary>
/// <param name="Path">What was made.</param>
/// <param name="Start">The file in it to begin with.</param>
/// <param name="Files">All files in it.</param>
/// <param name="Check">What was found of what was made.</param>
/// <param name="FeedCheck">What was found of the feed; null where there is none.</param>
/// <param name="Wrong">The codes of what is wrong and was not allowed; the exit code is 3 where there is any.</param>
/// <param name="LeftOut">What was placed and no learner will see, in sentences.</param>
/// <param name="Codecs">What a page needs to know before it loads the video (RFC 6381).</param>
/// <param name="MillisecondsTaken">How long each step took.</param>
internal sealed record MakeReport(
    string Path,
    string Start,
    IReadOnlyList<MadeFile> Files,
    IReadOnlyList<CheckedFact> Check,
    IReadOnlyList<FeedFinding>? FeedCheck,
    IReadOnlyList<string> Wrong,
    IReadOnlyList<string> LeftOut,
    IReadOnlyList<string> Codecs,
    IReadOnlyDictionary<string, long> MillisecondsTaken
);

/// <summary>A file that was made.</summary>
internal sealed record MadeFile(string Path, long Bytes, string For);

/// <summary><c>wexel make</c>.</summary>
internal static class MakeCommand
{
    private const int Made = 0;
    internal const int Failed = 1;
    private const int CannotBeUsed = 2;
    private const int MadeAndWrong = 3;

    /// <summary>Under this code, what is wrong with a feed may be allowed.</summary>
    private const string Feed = "feed";

    private static readonly JsonSerializerOptions Indented = new(WexelJson.Options) { WriteIndented = true };

    internal static async Task<int> RunAsync(MakeRequest request, Surroundings where, CancellationToken cancel)
    {
        using var work = new WorkFolder();
        try
        {
            return await MakeAsync(request, where, work.Path, cancel);
        }
        catch (UnusableInputException unusable)
        {
            where.Error.WriteLine(unusable.Message);
            return CannotBeUsed;
        }
        catch (Exception failed) when (failed is MisusedException or IOException or UnauthorizedAccessException)
        {
            where.Error.WriteLine(failed.Message);
            return Failed;
        }
        catch (OperationCanceledException)
        {
            where.Error.WriteLine("Stopped. Nothing was made.");
            return Failed;
        }
        catch (ToolFailedException failed)
        {
            where.Error.WriteLine($"The encoder said: {failed.Said}\n{failed.Advice}");
            return Failed;
        }
    }

    private static async Task<int> MakeAsync(MakeRequest request, Surroundings where, string work, CancellationToken cancel)
    {
        if (PlayerFiles.FolderAbove(AppContext.BaseDirectory) is not { } player)
            throw new MisusedException("The player is not built; run ./wexel make from the project, which builds it.");
        var folders = new MakingFolders(new FileStore(work, HalfMade.Beside), player);
        if (Purpose.Find(request.Purpose, request.BaseUrl, folders) is not { } purpose)
            throw new MisusedException($"“{request.Purpose}” cannot be made; --for takes {Purpose.Names}.");
        string? Whole(string? path) => path is null ? null : where.Whole(path);
        var sources =
            request.Recordings is [var file] && LessonFileSources.Is(file) ? await OfFileAsync(request, where.Whole(file), work, cancel)
            : request.Recordings is [var course] && course.EndsWith(".json", StringComparison.OrdinalIgnoreCase) ? CourseFile.Read(where.Whole(course))
            : new MakeSources(
                request.Title,
                false,
                [
                    new LessonRequest(
                        [.. request.Recordings.Select(where.Whole)],
                        request.Title,
                        Whole(request.Contents),
                        [.. request.Captions.Select(GivenCaptions.Read).Select(c => c with { Path = Whole(c.Path)! })],
                        Whole(request.Cuts),
                        Whole(request.MoveIns),
                        request.Sound,
                        request.Language ?? LanguageTag.Usual,
                        request.Canvas,
                        Whole(request.Mark)
                    ),
                ],
                new CourseFeed()
            );
        sources = sources with
        {
            Lessons =
            [
                .. sources.Lessons.Select(l =>
                    l with
                    {
                        Language = LanguageTag.Parse(l.Language) ?? throw new UnusableInputException($"“{l.Language}” is no language; write it such as en-GB."),
                    }
                ),
            ],
        };
        var (profiles, marks) = (new List<Profile>(), new Dictionary<string, byte[]>());
        foreach (var name in request.Profiles)
        {
            if (NamedProfile(name, where, marks) is not { } named)
                throw new MisusedException(
                    $"There is no profile “{name}”; take one of {string.Join(", ", Core.Encoding.Profiles.All.Select(p => p.Id))}, or a profile "
                        + $"file that ends in .json."
                );
            profiles.Add(named);
        }

        if (profiles.Count == 0)
            profiles.Add(purpose.Usual(sources));
        if (profiles.Count > 1 && !purpose.TakesSeveralProfiles)
            throw new MisusedException($"--for {request.Purpose} takes one profile; several are made --for files.");
        if (profiles.GroupBy(p => p.Id).FirstOrDefault(same => same.Count() > 1) is { } twice)
            throw new MisusedException($"The profile “{twice.Key}” was given twice; their files would have one name.");
        if (profiles.Select(p => purpose.Refusal(sources, p)).FirstOrDefault(r => r is not null) is { } refusal)
            throw new MisusedException(refusal);
        var titles = sources.Lessons.Select((lesson, i) => TitleOf(lesson, sources.IsCourse ? i + 1 : null, where)).ToList();
        foreach (var sentence in titles.Append(sources.IsCourse ? sources.Title! : "").Select(t => purpose.Kind.TitleThere(t)).OfType<string>())
            where.Error.WriteLine(sentence);
        var outPath = where.Whole(request.Out ?? FileNames.FromTitle(sources.IsCourse ? sources.Title! : titles[0]) + purpose.Ending);
        RefuseWhatIsThere(outPath);
        RefuseWhereNothingCanBeWritten(outPath);

        var times = new Stopwatches();
        var maker = new LessonMaker(profiles, marks, folders, times, where);
        var made = new List<MadeLesson>();
        foreach (var (lesson, name) in sources.Lessons.Zip(titles))
            made.AddRange(await maker.MakeAsync(lesson with { Title = name }, cancel));
        var title = sources.IsCourse ? sources.Title! : titles[0];
        var plan = await times.TakeAsync("plan", () => purpose.PlanAsync(title, sources, made, cancel));
        var zip = outPath.EndsWith(".zip", StringComparison.OrdinalIgnoreCase);
        // What is unpacked beside others lies in a folder of its own.
        if (zip && purpose.Kind.DeliversFiles)
            plan = plan with { Files = PackageFile.Within(plan.Files, FileName.Safe(title, "lesson")) };
        var written = await times.TakeAsync("package", () =>
            zip ? PackageWriter.WriteZipAsync(plan.Files, outPath, cancel) : PackageWriter.WriteFolderAsync(plan.Files, outPath, cancel)
        );
        return Report(request, where, sources, made, plan, outPath, written, times);
    }

    /// <summary>A lesson file says all of a lesson; only its language and its title may be said anew, as for a draft.</summary>
    private static async Task<MakeSources> OfFileAsync(MakeRequest request, string path, string work, CancellationToken cancel)
    {
        if (
            new[]
            {
                request.Contents,
                request.Captions.Count > 0 ? request.Captions[0] : null,
                request.Cuts,
                request.MoveIns,
                request.Sound,
                request.Canvas,
            }.Any(o => o is not null)
        )
            throw new MisusedException("A lesson file says its contents, captions, cuts, move-ins, sound and canvas itself; change them in it.");
        var read = await LessonFileSources.ReadAsync(path, work, cancel);
        var file = read.File! with { Title = request.Title ?? read.File!.Title, Language = request.Language ?? read.File!.Language };
        return new MakeSources(
            null,
            false,
            [read with { Title = file.Title, Language = file.Language, Mark = request.Mark is { } mark ? mark : read.Mark, File = file }],
            new CourseFeed()
        );
    }

    /// <summary>The lesson's title: given, or from the name of its first recording.</summary>
    /// <exception cref="UnusableInputException">A recording is not there, or its name says nothing.</exception>
    private static string TitleOf(LessonRequest lesson, int? number, Surroundings where)
    {
        if (lesson.Recordings.FirstOrDefault(r => !File.Exists(r)) is { } missing)
            throw new UnusableInputException($"There is no file “{missing}”.");
        var name = Path.GetFileName(lesson.Recordings[0]);
        var given = lesson.Title ?? TitleProposal.From(name) ?? "";
        var title = SectionRules.OneLine(given);
        if (title.Length == 0)
            throw new UnusableInputException(
                $"The name “{name}” says nothing about the lesson; give it a title "
                    + $"{(number is null ? "with --title \"…\"" : $"as \"title\" of lesson {number}")}."
            );
        if (title.EndsWith('…') && !given.TrimEnd().EndsWith('…'))
            where.Error.WriteLine($"The title has more than {SectionRules.LongestTitle} characters; it is now “{title}”.");
        return title;
    }

    private static int Report(
        MakeRequest request,
        Surroundings where,
        MakeSources sources,
        List<MadeLesson> made,
        MakePlan plan,
        string outPath,
        IReadOnlyList<WrittenFile> written,
        Stopwatches times
    )
    {
        string Of(MadeLesson m) => (sources.IsCourse ? $"{m.Title}: " : "") + (request.Profiles.Count > 1 ? $"{m.Profile.Title}: " : "");
        CheckedFact[] check = [.. made.SelectMany(m => m.Finished.Check.Select(f => f with { Fact = Of(m) + f.Fact }))];
        foreach (var fact in check)
            where.Error.WriteLine(
                $"{(fact.Verdict == Verdict.Right ? "right" : "WRONG")}  {fact.Fact}: "
                    + $"{fact.Measured}{(fact.Measured == fact.Expected ? "" : $"  (should be {fact.Expected})")}"
            );
        foreach (var finding in plan.FeedCheck ?? [])
            where.Error.WriteLine($"{(finding.Weight == FindingWeight.Wrong ? "WRONG" : "advice")}  {finding.Where}: {finding.Sentence} ({finding.Rule})");
        string[] found =
        [
            .. check.Where(f => f.Verdict == Verdict.Wrong).Select(f => f.Code),
            .. (plan.FeedCheck ?? []).Any(f => f.Weight == FindingWeight.Wrong) ? new[] { Feed } : [],
        ];
        string[] wrong = [.. found.Except(request.Allowed)];
        foreach (var needless in request.Allowed.Except(found))
            where.Error.WriteLine($"--allow {needless}: nothing of that code is wrong.");
        string[] leftOut = [.. made.SelectMany(m => m.LeftOut).Distinct()];
        var report = new MakeReport(
            outPath,
            plan.Files[0].Path,
            [.. written.Select(f => new MadeFile(f.Path, f.Bytes, f.Purpose))],
            check,
            plan.FeedCheck,
            wrong,
            leftOut,
            [.. made.Select(m => m.Finished.Codecs).Distinct()],
            times.Taken
        );
        where.Out.WriteLine(request.Json ? JsonSerializer.Serialize(report, Indented) : outPath);
        if (wrong.Length == 0)
            return Made;
        where.Error.WriteLine(
            $"Made, and something is wrong with it: see what is marked WRONG above. To let it pass: "
                + $"{string.Join(' ', wrong.Select(code => $"--allow {code}"))}."
        );
        return MadeAndWrong;
    }

    /// <summary>A profile that ships with Wexel, or one in a file; null where there is none of that name. The picture of a mark that it brings is put
    /// to the others.</summary>
    /// <exception cref="UnusableInputException">The file holds no profile that can be used.</exception>
    private static Profile? NamedProfile(string name, Surroundings where, Dictionary<string, byte[]> marks)
    {
        if (!name.EndsWith(".json", StringComparison.OrdinalIgnoreCase))
            return Profiles.Find(name);
        var text = InputFile.Text(where.Whole(name));
        var (profile, problem) = ProfileText.Read(text);
        if (profile?.Picture?.OwnMark is { } mark)
            marks[mark.Key] = ProfileText.Mark(text)
                ?? throw new UnusableInputException(
                    $"“{name}” brings a mark of its own and does not hold its picture. Take the profile’s file from Wexel again: it is in it."
                );
        return profile ?? throw new UnusableInputException($"“{name}”: {problem!.Sentence}");
    }

    /// <summary>Found before the work and not after it: the nearest folder that is there must take a file.</summary>
    private static void RefuseWhereNothingCanBeWritten(string path)
    {
        var folder = Path.GetDirectoryName(path);
        while (folder is not null && !Directory.Exists(folder) && !File.Exists(folder))
            folder = Path.GetDirectoryName(folder);
        try
        {
            using var tried = new FileStream(
                Path.Combine(folder ?? "/", $".wexel-{Guid.NewGuid():N}"),
                new FileStreamOptions
                {
                    Mode = FileMode.CreateNew,
                    Access = FileAccess.Write,
                    Options = FileOptions.DeleteOnClose,
                }
            );
        }
        catch (Exception failed) when (failed is IOException or UnauthorizedAccessException)
        {
            throw new IOException($"Nothing can be written in “{folder}”; choose another place with --out.", failed);
        }
    }

    private static void RefuseWhatIsThere(string path)
    {
        if (Directory.Exists(path) || File.Exists(path))
            throw new IOException($"“{path}” is there already; choose another place with --out.");
    }
}
