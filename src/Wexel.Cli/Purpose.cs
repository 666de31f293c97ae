using Wexel.Core.Encoding;
using Wexel.Core.Feeds;
using Wexel.Core.Keys;
using Wexel.Core.Outlets;
using Wexel.Core.Outlets.LearningSystems;
using Wexel.Core.Outlets.WebServers;
using Wexel.Core.Packages;
using Wexel.Making;
using Wexel.Making.Releasing;

namespace Wexel.Cli;

/// <summary>What stands on the command line: one lesson, or a course of them.</summary>
internal sealed record MakeSources(string? Title, bool IsCourse, IReadOnlyList<LessonRequest> Lessons, CourseFeed Feed, string Description = "");

/// <summary>The files that are to be written, and what is to be said of them.</summary>
internal sealed record MakePlan(IReadOnlyList<PackageFile> Files, IReadOnlyList<FeedFinding>? FeedCheck = null);

/// <summary>What <c>--for</c> asks for.</summary>
internal abstract class Purpose(MakingFolders folders)
{
    internal const string Names = "web, scorm12, podcast or files";

    /// <summary>Where it is made.</summary>
    protected MakingFolders Folders => folders;

    /// <summary>Packs.</summary>
    protected Packer Packer { get; } = new(folders);

    /// <summary>The kind of outlet that it is made for.</summary>
    internal abstract OutletKind Kind { get; }

    /// <summary>What holds at such an outlet.</summary>
    protected virtual OutletTerms Terms(MakeSources sources) => Kind.Terms(null);

    /// <summary>The profile that is taken where none is named.</summary>
    internal Profile Usual(MakeSources sources) => Terms(sources).Usual;

    /// <summary>Whether it is made with several profiles at once.</summary>
    internal virtual bool TakesSeveralProfiles => false;

    /// <summary>What the name of what is made ends in, where none was given.</summary>
    internal virtual string Ending => "";

    /// <summary>The purpose of a name, or null where there is none.</summary>
    internal static Purpose? Find(string name, string? baseUrl, MakingFolders folders) =>
        name switch
        {
            "web" => new WebPurpose(folders),
            "scorm12" => new LearningSystemPurpose(folders),
            "podcast" => new PodcastPurpose(baseUrl, folders),
            "files" => new FilesPurpose(folders),
            _ => null,
        };

    /// <summary>Why it cannot be made, in one sentence, before anything is; null when it can.</summary>
    internal virtual string? Refusal(MakeSources sources, Profile profile) => Terms(sources).Refusal(profile)?.Sentence;

    internal abstract Task<MakePlan> PlanAsync(string title, MakeSources sources, IReadOnlyList<MadeLesson> made, CancellationToken cancel);

    /// <summary>What each lesson gives to a package, in their order.</summary>
    protected async Task<IReadOnlyList<LessonSources>> PackedAsync(IReadOnlyList<MadeLesson> made, CancellationToken cancel)
    {
        var packed = new List<LessonSources>(made.Count);
        foreach (var lesson in made)
            packed.Add(await lesson.PackedAsync(Packer, cancel));
        return packed;
    }
}

/// <summary>A folder for any web server.</summary>
internal sealed class WebPurpose(MakingFolders folders) : Purpose(folders)
{
    internal override OutletKind Kind { get; } = new WebServerKind();

    internal override async Task<MakePlan> PlanAsync(string title, MakeSources sources, IReadOnlyList<MadeLesson> made, CancellationToken cancel) =>
        new(Terms(sources).Package(Packer.Sources("", title, await PackedAsync(made, cancel), sources.IsCourse ? sources.Description : null))!);
}

/// <summary>A package for a learning system.</summary>
internal sealed class LearningSystemPurpose(MakingFolders folders) : Purpose(folders)
{
    internal override OutletKind Kind { get; } = new LearningSystemKind();

    internal override string Ending => ".zip";

    internal override async Task<MakePlan> PlanAsync(string title, MakeSources sources, IReadOnlyList<MadeLesson> made, CancellationToken cancel) =>
        new(Terms(sources).Package(Packer.Sources(Identifier(sources, made), title, await PackedAsync(made, cancel)))!);

    private static string Identifier(MakeSources sources, IReadOnlyList<MadeLesson> made) =>
        sources.IsCourse
            ? $"course-{MadeKey.Hash(Makers.LessonId, k => k.Add("title", sources.Title).Each("lessons", [.. made.Select(m => m.Id)]))[..32]}"
            : $"lesson-{made[0].Id}";
}
