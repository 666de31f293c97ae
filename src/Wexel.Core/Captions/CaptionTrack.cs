using System.Security.Cryptography;
using System.Text.Json.Serialization;

namespace Wexel.Core.Captions;

/// <summary>What captions are to the voice.</summary>
public enum TrackKind
{
    /// <summary>What is said, in the language in which it is said.</summary>
    Captions,

    /// <summary>What is said, in another language.</summary>
    Translation,

    /// <summary>What a machine heard, as it heard it.</summary>
    MachineDraft,
}

/// <summary>How far a track is.</summary>
public enum TrackState
{
    /// <summary>A machine made it, and nobody has looked all of it through; learners get it only where somebody says so.</summary>
    Draft,

    /// <summary>Somebody wrote or corrected it.</summary>
    Corrected,

    /// <summary>Somebody else, or the same person once more, has checked it against the voice.</summary>
    Checked,
}

/// <summary>One track of captions; its cues lie in a file of their own, named by its hash.</summary>
/// <param name="Id">A name inside the lesson that stays when it is corrected.</param>
/// <param name="Hash">SHA-256 of the file, which is WebVTT with an identifier for each cue.</param>
/// <param name="Language">As a BCP 47 tag.</param>
/// <param name="FileName">The file that was added.</param>
/// <param name="CueCount">How many captions there are.</param>
/// <param name="Kind">What it is.</param>
/// <param name="State">How far it is.</param>
/// <param name="GoesOut">Whether learners get it though it is a draft; it is called one there too.</param>
/// <param name="CheckedBy">Who checked it; null where nobody has.</param>
/// <param name="CheckedAt">When that was.</param>
public sealed record CaptionTrack(
    string Id,
    string Hash,
    string Language,
    string FileName,
    int CueCount,
    TrackKind Kind = TrackKind.Captions,
    TrackState State = TrackState.Corrected,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool GoesOut = false,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? CheckedBy = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] DateTimeOffset? CheckedAt = null
)
{
    /// <summary>The most tracks that a lesson may have.</summary>
    public const int Most = 50;

    /// <summary>Whether learners get it.</summary>
    [JsonIgnore]
    public bool IsForLearners => State != TrackState.Draft || GoesOut;

    /// <summary>The track with other captions.</summary>
    public CaptionTrack With(IReadOnlyList<Cue> cues) => this with { Hash = HashOf(cues), CueCount = cues.Count };

    /// <summary>A new track.</summary>
    /// <param name="id">A name inside the lesson.</param>
    /// <param name="cues">Its captions, each with a name.</param>
    /// <param name="language">As a BCP 47 tag.</param>
    /// <param name="fileName">The file that they came in.</param>
    public static CaptionTrack Of(string id, IReadOnlyList<Cue> cues, string language, string fileName) =>
        new(id, HashOf(cues), language, fileName, cues.Count);

    /// <summary>Gives a name to each track that has none of its own.</summary>
    public static IReadOnlyList<CaptionTrack> WithNames(IReadOnlyList<CaptionTrack> tracks)
    {
        var taken = tracks.Select(t => t.Id).ToHashSet();
        var next = 1;
        var named = new List<CaptionTrack>();
        foreach (var track in tracks)
        {
            var isOwn = track.Id.Length > 0 && named.TrueForAll(t => t.Id != track.Id);
            while (!isOwn && !taken.Add($"t{next}"))
                next++;
            named.Add(isOwn ? track : track with { Id = $"t{next}" });
        }

        return named;
    }

    /// <summary>The hash of the file in which captions are kept.</summary>
    public static string HashOf(IReadOnlyList<Cue> cues) =>
        Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(WebVttText.WriteKept(cues))));
}
