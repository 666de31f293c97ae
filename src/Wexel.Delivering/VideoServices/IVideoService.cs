using Wexel.Core;
using Wexel.Core.Outlets.VideoServices;

namespace Wexel.Delivering.VideoServices;

/// <summary>
/// A video service: how accounts are connected, how videos are uploaded and changed, and how often they were watched. An adaptor for one is a folder
/// beside this file with a class that implements it, and a line that registers it; docs/video-services.md says what each method is held to.
/// </summary>
/// <remarks>
/// Whatever stands in the way is a <see cref="Problem"/> with a sentence for people, by the codes of <see cref="ServiceProblem"/>; nothing is thrown but
/// <see cref="OperationCanceledException"/>. What may pass by itself (a busy service, a broken line, a token whose time is over) is tried again within.
/// </remarks>
public interface IVideoService
{
    /// <summary>A name for programs; it never changes.</summary>
    string Code { get; }

    /// <summary>What people call it.</summary>
    string Name { get; }

    /// <summary>Whether somebody said where it is, and how Wexel is known there.</summary>
    bool IsSetUp { get; }

    /// <summary>Where somebody is asked whether Wexel may act for their account (RFC 6749, section 4.1.1; RFC 7636, section 4.3).</summary>
    /// <param name="back">Where they are sent back to.</param>
    /// <param name="state">What comes back with them.</param>
    /// <param name="challenge">The S256 challenge.</param>
    Uri AskAt(Uri back, string state, string challenge);

    /// <summary>Takes what somebody allowed (RFC 6749, section 4.1.3).</summary>
    /// <param name="code">The code that came back with them.</param>
    /// <param name="verifier">What the challenge was made of.</param>
    /// <param name="back">Where they were sent back to.</param>
    /// <param name="cancel">Stops it.</param>
    Task<Result<ServiceTokens>> ConnectAsync(string code, string verifier, Uri back, CancellationToken cancel);

    /// <summary>New tokens for old ones (RFC 6749, section 6). <see cref="ServiceProblem.Withdrawn"/> where what was allowed is not any more.</summary>
    Task<Result<ServiceTokens>> RefreshAsync(ServiceTokens tokens, CancellationToken cancel);

    /// <summary>What the account is, and what it may do.</summary>
    Task<Result<ServiceAccount>> AccountAsync(ServiceAccess access, CancellationToken cancel);

    /// <summary>The playlists of a channel.</summary>
    Task<Result<IReadOnlyList<ServiceList>>> ListsAsync(ServiceAccess access, string channel, CancellationToken cancel);

    /// <summary>Makes a playlist; one of that title that is there already is the one.</summary>
    Task<Result<ServiceList>> AddListAsync(ServiceAccess access, string channel, string title, bool isOpen, CancellationToken cancel);

    /// <summary>Begins a video, or another file for one. Begun again under the same key it is the same: nothing is there twice.</summary>
    Task<Result<ServiceUpload>> BeginAsync(ServiceAccess access, NewVideo video, CancellationToken cancel);

    /// <summary>Sends what the service does not have yet of a file, and no byte twice that it has noted.</summary>
    /// <param name="access">The account.</param>
    /// <param name="upload">Where to, as <see cref="BeginAsync"/> said.</param>
    /// <param name="bytes">How large the file is.</param>
    /// <param name="open">Opens it from its start; what is there already is passed over.</param>
    /// <param name="sent">Told how much the service has.</param>
    /// <param name="cancel">Stops it.</param>
    Task<Problem?> SendAsync(ServiceAccess access, string upload, long bytes, Func<Stream> open, IProgress<long> sent, CancellationToken cancel);

    /// <summary>How a video stands there; null where it is gone.</summary>
    Task<Result<ServiceVideo?>> ReadAsync(ServiceAccess access, string id, CancellationToken cancel);

    /// <summary>Says what is said of a video.</summary>
    Task<Problem?> SayAsync(ServiceAccess access, string id, VideoTexts texts, CancellationToken cancel);

    /// <summary>Puts captions of a language as WebVTT, or takes them away.</summary>
    Task<Problem?> CaptionsAsync(ServiceAccess access, string id, string language, string? webVtt, CancellationToken cancel);

    /// <summary>Chooses a picture, a JPEG.</summary>
    Task<Problem?> ThumbnailAsync(ServiceAccess access, string id, Func<Stream> open, CancellationToken cancel);

    /// <summary>Puts a video in a playlist, or takes it out.</summary>
    Task<Problem?> ListAsync(ServiceAccess access, string list, string id, bool isIn, CancellationToken cancel);

    /// <summary>Removes a video; one that is gone is removed.</summary>
    Task<Problem?> RemoveAsync(ServiceAccess access, string id, CancellationToken cancel);

    /// <summary>How often a video was watched, by day.</summary>
    Task<Result<IReadOnlyList<ServiceDay>>> FiguresAsync(ServiceAccess access, string id, DateOnly since, DateOnly until, CancellationToken cancel);
}

/// <summary>The tokens of a connection.</summary>
/// <param name="Access">What is shown with each request.</param>
/// <param name="Refresh">What new ones are had for; null for none.</param>
/// <param name="EndsAt">When the first is no longer good, by this machine's clock; null where nobody said.</param>
public sealed record ServiceTokens(string Access, string? Refresh, DateTimeOffset? EndsAt);

/// <summary>Acts for an account: gives the token that is good now.</summary>
/// <param name="Token">The token; told the one that was refused, it has a new one.</param>
public sealed record ServiceAccess(Func<string?, CancellationToken, Task<Result<string>>> Token);

/// <summary>An account, as its service describes it.</summary>
/// <param name="Id">The service's name for it.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Channels">Its channels.</param>
/// <param name="MostBytes">The largest video, in bytes; null for any.</param>
/// <param name="MostLength">The longest video; null for any.</param>
/// <param name="LongestDescription">The longest description, in characters.</param>
/// <param name="Categories">The categories that the service knows; none where any is taken.</param>
/// <param name="Heights">The heights in which videos play there, in pixels, the largest first.</param>
public sealed record ServiceAccount(
    string Id,
    string Name,
    IReadOnlyList<ServiceChannel> Channels,
    long? MostBytes,
    TimeSpan? MostLength,
    int LongestDescription,
    IReadOnlyList<string> Categories,
    IReadOnlyList<int> Heights
);

/// <summary>A channel of an account.</summary>
public sealed record ServiceChannel(string Id, string Name);

/// <summary>A playlist.</summary>
/// <param name="IsOpen">Whether everybody may see it.</param>
public sealed record ServiceList(string Id, string Title, bool IsOpen);

/// <summary>A video that is to be uploaded.</summary>
/// <param name="Key">A name of the upload: begun again under it, it is the same one.</param>
/// <param name="Channel">The channel.</param>
/// <param name="Bytes">How large the file is.</param>
/// <param name="Texts">What is said of it.</param>
/// <param name="Replaces">The video whose file it replaces; null for a new one.</param>
public sealed record NewVideo(string Key, string Channel, long Bytes, VideoTexts Texts, string? Replaces);

/// <summary>An upload that was begun.</summary>
/// <param name="Id">The service's name for the video.</param>
/// <param name="Link">Where people will watch it.</param>
/// <param name="To">Where its file is sent.</param>
public sealed record ServiceUpload(string Id, string Link, string To);

/// <summary>A video, as it stands there.</summary>
/// <param name="Link">Where people watch it.</param>
/// <param name="Embed">A page with its player alone, which other pages may show in a frame; null where they may not.</param>
/// <param name="Stage">How far it is.</param>
/// <param name="Reason">Why it was refused.</param>
/// <param name="ReadyAt">When it is ready at the earliest, by this machine's clock.</param>
/// <param name="Texts">What is said of it there.</param>
/// <param name="HasThumbnail">Whether a picture was chosen.</param>
/// <param name="Captions">The languages of its captions.</param>
/// <param name="Lists">The playlists that it is in.</param>
public sealed record ServiceVideo(
    string Link,
    string? Embed,
    VideoStage Stage,
    string? Reason,
    DateTimeOffset? ReadyAt,
    VideoTexts Texts,
    bool HasThumbnail,
    IReadOnlyList<string> Captions,
    IReadOnlyList<string> Lists
);

/// <summary>A day's figures.</summary>
/// <param name="Day">The day, in UTC.</param>
/// <param name="Views">How often it was begun.</param>
/// <param name="Watched">For how long it was watched, by all together.</param>
public sealed record ServiceDay(DateOnly Day, int Views, TimeSpan Watched);

/// <summary>What stands in the way at a service, by its code.</summary>
public static class ServiceProblem
{
    /// <summary>What was allowed is not allowed any more; somebody must connect it again.</summary>
    public const string Withdrawn = "video-service-withdrawn";

    /// <summary>It was not reached, or is busy for longer than is waited.</summary>
    public const string NotReached = "video-service-not-reached";

    /// <summary>Its answer cannot be meant.</summary>
    public const string OddAnswer = "video-service-odd-answer";

    /// <summary>It refused, and said why.</summary>
    public const string Refused = "video-service-refused";

    /// <summary>As much was sent as it takes in some time.</summary>
    public const string Quota = "video-service-quota";

    /// <summary>The video is not there.</summary>
    public const string Gone = "video-service-gone";
}

/// <summary>All services that are set up.</summary>
public sealed class AllVideoServices(IEnumerable<IVideoService> all)
{
    private readonly Dictionary<string, IVideoService> _all = all.Where(s => s.IsSetUp).ToDictionary(s => s.Code);

    /// <summary>In the order of lists.</summary>
    public IReadOnlyList<IVideoService> All => [.. _all.Values.OrderBy(s => s.Name, StringComparer.CurrentCulture)];

    /// <summary>The one that is taken where nobody chose one; null where there is none.</summary>
    public IVideoService? Usual => All is [var first, ..] ? first : null;

    /// <summary>A service by its code; null where there is none.</summary>
    public IVideoService? Find(string code) => _all.GetValueOrDefault(code);
}
