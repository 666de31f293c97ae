namespace Wexel.Core.Outlets;

/// <summary>A step on the way of a lesson to an outlet. Each can be done again: where it was done, it does nothing.</summary>
public enum ReleaseStep
{
    /// <summary>Picture and sound are encoded.</summary>
    Encode,

    /// <summary>The file that learners get is put together.</summary>
    Finish,

    /// <summary>It is looked at.</summary>
    Check,

    /// <summary>It is copied as the outlet takes it.</summary>
    Copy,

    /// <summary>The package is made.</summary>
    Pack,

    /// <summary>The outlet shows it.</summary>
    Publish,

    /// <summary>It is put where the outlet is.</summary>
    Deliver,
}

/// <summary>What is to stand at an outlet.</summary>
/// <param name="Key">The key of all of it, see <see cref="ReleaseKeys"/>.</param>
/// <param name="Tracks">The keys of what the file is put together from.</param>
/// <param name="File">The key of the file.</param>
/// <param name="Copies">The keys of its copies; empty where it is taken as it is.</param>
/// <param name="Packs">Whether a package is made of it.</param>
/// <param name="Delivers">Whether it is put somewhere.</param>
/// <param name="Download">Another file beside it, for learners to keep; null where there is none.</param>
public sealed record ReleaseWanted(
    string Key,
    IReadOnlyList<string> Tracks,
    string File,
    IReadOnlyList<string> Copies,
    bool Packs,
    bool Delivers,
    DownloadWanted? Download = null
)
{
    /// <summary>The keys of the files that learners get.</summary>
    public IEnumerable<string> Files => Download is null ? [File] : [File, Download.File];
}

/// <summary>A file for learners to keep.</summary>
/// <param name="Tracks">The keys of what it is put together from.</param>
/// <param name="File">Its key.</param>
public sealed record DownloadWanted(IReadOnlyList<string> Tracks, string File);

/// <summary>What there is.</summary>
/// <param name="Files">The keys of all that lies here whole.</param>
/// <param name="Checked">The keys of files that were checked.</param>
/// <param name="PackedFrom">The key of all of which the package was made; null where there is none.</param>
/// <param name="Published">The key of all that the outlet shows; null where it shows nothing.</param>
/// <param name="Delivered">The key of all that was put there; null for nothing.</param>
public sealed record ReleaseActual(IReadOnlySet<string> Files, IReadOnlySet<string> Checked, string? PackedFrom, string? Published, string? Delivered);

/// <summary>What has to be done, so that at an outlet stands what is wanted: the difference of two values. Done twice it is nothing.</summary>
public static class ReleasePlan
{
    /// <summary>The steps in their order; none where all stands as it is wanted.</summary>
    public static IReadOnlyList<ReleaseStep> Steps(ReleaseWanted wanted, ReleaseActual actual)
    {
        var steps = new List<ReleaseStep>();
        var fileIsThere = actual.Files.Contains(wanted.File);
        var copyLacks = !wanted.Copies.All(actual.Files.Contains);
        var downloadLacks = wanted.Download is { } download && !actual.Files.Contains(download.File);
        // What lies finished needs no tracks, but a copy is made of them.
        if (((!fileIsThere || copyLacks) && Lacks(wanted.Tracks)) || (downloadLacks && Lacks(wanted.Download!.Tracks)))
            steps.Add(ReleaseStep.Encode);
        if (!fileIsThere || downloadLacks)
            steps.Add(ReleaseStep.Finish);
        if (!fileIsThere || downloadLacks || !actual.Checked.IsSupersetOf(wanted.Files))
            steps.Add(ReleaseStep.Check);
        if (copyLacks)
            steps.Add(ReleaseStep.Copy);
        if (wanted.Packs && (!fileIsThere || actual.PackedFrom != wanted.Key))
            steps.Add(ReleaseStep.Pack);
        if (steps.Count > 0 || actual.Published != wanted.Key)
            steps.Add(ReleaseStep.Publish);
        if (wanted.Delivers && actual.Delivered != wanted.Key)
            steps.Add(ReleaseStep.Deliver);
        return steps;

        bool Lacks(IReadOnlyList<string> tracks) => !tracks.All(actual.Files.Contains);
    }
}
