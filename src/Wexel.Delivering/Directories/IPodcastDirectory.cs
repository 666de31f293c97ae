using Wexel.Core;

namespace Wexel.Delivering.Directories;

/// <summary>A podcast directory: feeds are submitted to it, and after a while it lists them or says why not.</summary>
public interface IPodcastDirectory
{
    /// <summary>A name for programs; it never changes.</summary>
    string Code { get; }

    /// <summary>What people call it.</summary>
    string Name { get; }

    /// <summary>Whether somebody said where it is.</summary>
    bool IsSetUp { get; }

    /// <summary>About how long it takes to answer, in words.</summary>
    string Takes { get; }

    /// <summary>Submits a feed; one that is submitted again is looked at again.</summary>
    /// <returns>The directory's name for it, or what stood in the way.</returns>
    Task<Result<string>> SubmitAsync(Uri feed, CancellationToken cancel);

    /// <summary>What it answered; null while it has not.</summary>
    Task<Result<DirectoryAnswer?>> AnswerAsync(string submission, CancellationToken cancel);
}

/// <summary>What a directory answered.</summary>
/// <param name="Page">Where the feed is listed; null where it was refused.</param>
/// <param name="Reasons">Why it was refused, in sentences.</param>
public sealed record DirectoryAnswer(Uri? Page, IReadOnlyList<string> Reasons);

/// <summary>All directories that are set up.</summary>
public sealed class PodcastDirectories(IEnumerable<IPodcastDirectory> all)
{
    /// <summary>In the order of lists.</summary>
    public IReadOnlyList<IPodcastDirectory> All { get; } = [.. all.Where(d => d.IsSetUp).OrderBy(d => d.Name, StringComparer.CurrentCulture)];

    /// <summary>A directory by its code; null where there is none.</summary>
    public IPodcastDirectory? Find(string code) => All.FirstOrDefault(d => d.Code == code);
}
