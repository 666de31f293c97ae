using Wexel.Core.Keys;

namespace Wexel.Core.Details;

/// <summary>What stands in a media file besides its title and chapters, so that it says what it is wherever it is copied to.</summary>
/// <param name="Description">What it is about; null where nobody said.</param>
/// <param name="Author">Who made it.</param>
/// <param name="Rights">What others may do with it.</param>
/// <param name="Category">The subject that it belongs to.</param>
/// <param name="Keywords">Words by which it is found.</param>
public sealed record FileTags(string? Description, string? Author, string? Rights, string? Category, IReadOnlyList<string> Keywords)
{
    /// <summary>The tags of what is said; null where nothing of it is.</summary>
    /// <param name="said">What is said about a lesson.</param>
    public static FileTags? Of(DetailSet said)
    {
        var tags = new FileTags(said.Description, said.Author?.Name, Licences.InWords(said.Licence), said.Category, said.Tags ?? []);
        return tags is { Description: null, Author: null, Rights: null, Category: null, Keywords.Count: 0 } ? null : tags;
    }

    /// <summary>Writes them into a key.</summary>
    public static void Declare(KeyFields key, FileTags tags) =>
        key.Add("description", tags.Description)
            .Add("author", tags.Author)
            .Add("rights", tags.Rights)
            .Add("category", tags.Category)
            .Each("keywords", tags.Keywords);
}
