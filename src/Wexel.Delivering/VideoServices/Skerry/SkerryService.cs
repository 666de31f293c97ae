using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using Duende.IdentityModel.Client;
using Wexel.Core;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Delivering.Http;

namespace Wexel.Delivering.VideoServices.Skerry;

/// <summary>The adaptor for Skerry, the video service that ships with Wexel as a stand-in for those outside.</summary>
/// <param name="http">The client, behind the guard.</param>
/// <param name="settings">How Wexel is known there.</param>
/// <param name="clock">This machine's clock.</param>
/// <param name="firstPause">How long is waited before something is tried again; null for what is usual.</param>
public sealed class SkerryService(HttpClient http, SkerrySettings settings, TimeProvider clock, TimeSpan? firstPause = null) : IVideoService
{
    private readonly SkerryLine _line = new(http, firstPause);

    /// <inheritdoc/>
    public string Code => "skerry";

    /// <inheritdoc/>
    public string Name => "Skerry";

    /// <inheritdoc/>
    public bool IsSetUp => settings.Address is not null;

    /// <inheritdoc/>
    public Uri AskAt(Uri back, string state, string challenge) =>
        new(
            new RequestUrl(At("door/authorize").AbsoluteUri).CreateAuthorizeUrl(
                settings.ClientId,
                "code",
                "publish offline_access",
                back.AbsoluteUri,
                state,
                codeChallenge: challenge,
                codeChallengeMethod: "S256"
            )
        );

    /// <inheritdoc/>
    public async Task<Result<ServiceTokens>> ConnectAsync(string code, string verifier, Uri back, CancellationToken cancel)
    {
        using var request = new AuthorizationCodeTokenRequest
        {
            Address = At("door/token").AbsoluteUri,
            ClientId = settings.ClientId,
            ClientSecret = settings.ClientSecret,
            ClientCredentialStyle = ClientCredentialStyle.PostBody,
            Code = code,
            CodeVerifier = verifier,
            RedirectUri = back.AbsoluteUri,
        };
        return Tokens(await http.RequestAuthorizationCodeTokenAsync(request, cancel), null);
    }

    /// <inheritdoc/>
    public async Task<Result<ServiceTokens>> RefreshAsync(ServiceTokens tokens, CancellationToken cancel)
    {
        if (tokens.Refresh is not { } refresh)
            return SkerryLine.Withdrawn();
        using var request = new RefreshTokenRequest
        {
            Address = At("door/token").AbsoluteUri,
            ClientId = settings.ClientId,
            ClientSecret = settings.ClientSecret,
            ClientCredentialStyle = ClientCredentialStyle.PostBody,
            RefreshToken = refresh,
        };
        return Tokens(await http.RequestRefreshTokenAsync(request, cancel), refresh);
    }

    private Result<ServiceTokens> Tokens(TokenResponse answer, string? refresh) =>
        answer switch
        {
            { IsError: false, AccessToken: { Length: > 0 } token } => new ServiceTokens(
                token,
                answer.RefreshToken ?? refresh,
                // Counted from now, by this machine's clock: the other may go wrong.
                answer.ExpiresIn > 0
                    ? clock.GetUtcNow().AddSeconds(answer.ExpiresIn)
                    : null
            ),
            { Error: "invalid_grant" } => SkerryLine.Withdrawn(),
            { ErrorType: ResponseErrorType.Exception } => SkerryLine.NotReached(answer.Exception?.Message ?? "it did not answer."),
            { ErrorType: ResponseErrorType.Protocol } => new Problem(
                ServiceProblem.Refused,
                $"Skerry does not let Wexel act for anybody: {answer.ErrorDescription ?? answer.Error}. Whoever looks after the server can put that right "
                    + "(Wexel__Skerry)."
            ),
            _ => SkerryLine.NotReached($"it answered {(int)answer.HttpStatusCode}."),
        };

    /// <inheritdoc/>
    public async Task<Result<ServiceAccount>> AccountAsync(ServiceAccess access, CancellationToken cancel) =>
        (await _line.ReadAsync<SkerryWire.Account>(access, () => Get("api/account"), cancel)).Is(out var there, out var problem)
            ? new ServiceAccount(
                there.Id,
                there.Name,
                there.Channels,
                there.MostBytes,
                there.MostSeconds is { } seconds ? TimeSpan.FromSeconds(seconds) : null,
                there.LongestDescription,
                there.Categories ?? [],
                there.Heights ?? []
            )
            : problem;

    /// <inheritdoc/>
    public async Task<Result<IReadOnlyList<ServiceList>>> ListsAsync(ServiceAccess access, string channel, CancellationToken cancel) =>
        (await _line.ReadAsync<List<SkerryWire.List>>(access, () => Get($"api/lists?channel={Uri.EscapeDataString(channel)}"), cancel)).Is(
            out var lists,
            out var problem
        )
            ? lists.ConvertAll(List)
            : problem;

    /// <inheritdoc/>
    public async Task<Result<ServiceList>> AddListAsync(ServiceAccess access, string channel, string title, bool isOpen, CancellationToken cancel) =>
        (
            await _line.ReadAsync<SkerryWire.List>(
                access,
                () =>
                    Sent(
                        HttpMethod.Post,
                        "api/lists",
                        new
                        {
                            channel,
                            title,
                            visibility = isOpen ? "public" : "unlisted",
                        }
                    ),
                cancel
            )
        ).Is(out var list, out var problem)
            ? List(list)
            : problem;

    /// <inheritdoc/>
    public async Task<Result<ServiceUpload>> BeginAsync(ServiceAccess access, NewVideo video, CancellationToken cancel)
    {
        HttpRequestMessage Begin() =>
            video.Replaces is { } id
                ? Sent(HttpMethod.Post, $"api/videos/{id}/source", new { video.Key, video.Bytes })
                : Sent(
                    HttpMethod.Post,
                    "api/videos",
                    new
                    {
                        video.Channel,
                        video.Key,
                        video.Bytes,
                        Texts = SkerryWire.Written(video.Texts),
                    }
                );
        if (!(await _line.AskAsync(access, Begin, cancel)).Is(out var came, out var problem))
            return problem;
        if (came.IsGone)
            return Gone();
        if (!SkerryLine.Read<SkerryWire.Video>(came).Is(out var begun, out var odd))
            return odd;
        return came.Answer.Headers.Location is { } to && IsPage(begun.Link)
            ? new ServiceUpload(begun.Id, begun.Link, new Uri(At(""), to).AbsoluteUri)
            : new Problem(ServiceProblem.OddAnswer, "Skerry did not say where the file is to be sent, or where it is watched. Try again later.");
    }

    /// <inheritdoc/>
    public async Task<Problem?> SendAsync(ServiceAccess access, string upload, long bytes, Func<Stream> open, IProgress<long> sent, CancellationToken cancel)
    {
        // What it was told to send to must lie at Skerry: the token goes with it.
        var to = new Uri(upload);
        if (to.GetLeftPart(UriPartial.Authority) != At("").GetLeftPart(UriPartial.Authority))
            return new Problem(ServiceProblem.OddAnswer, $"Skerry wants the file to be sent to {to.Host}, which Wexel does not do.");
        await using var file = open();
        while (true)
        {
            if (!(await _line.AskAsync(access, () => Tus(HttpMethod.Head, to), cancel)).Is(out var came, out var problem))
                return problem;
            if (came.IsGone || Offset(came) is not { } offset)
                return Gone();
            sent.Report(offset);
            // A service that has another file under this name is asked nothing more.
            if (offset > bytes)
                return new Problem(ServiceProblem.OddAnswer, "Skerry has more of the file than there is. Try again, and it is sent anew.");
            while (offset < bytes)
            {
                var (from, length) = (offset, (int)Math.Min(settings.Piece, bytes - offset));
                if (!(await _line.AskAsync(access, () => Piece(to, file, from, length), cancel)).Is(out var taken, out var failed))
                    return failed;
                // It has more than was thought, or less: it is asked.
                if (!taken.Answer.IsSuccessStatusCode || Offset(taken) is not { } now)
                    break;
                offset = now;
                sent.Report(offset);
            }

            if (offset >= bytes)
                return null;
        }
    }

    /// <inheritdoc/>
    public async Task<Result<ServiceVideo?>> ReadAsync(ServiceAccess access, string id, CancellationToken cancel)
    {
        if (!(await _line.AskAsync(access, () => Get($"api/videos/{id}"), cancel)).Is(out var came, out var problem))
            return problem;
        if (came.IsGone)
            return new Result<ServiceVideo?>(null);
        if (!SkerryLine.Read<SkerryWire.Video>(came).Is(out var there, out var odd))
            return odd;
        if (!IsPage(there.Link))
            return new Problem(ServiceProblem.OddAnswer, "Skerry did not say where the video is watched. Try again later.");
        return new ServiceVideo(
            there.Link,
            there.Embed is { } embed && IsPage(embed) ? embed : null,
            SkerryWire.Read(there.State),
            there.Reason,
            there.ReadyAt - came.Ahead(clock.GetUtcNow()),
            SkerryWire.Read(there.Texts),
            there.Thumbnail is not null,
            [.. there.Captions?.Keys ?? []],
            there.Lists ?? []
        );
    }

    /// <inheritdoc/>
    public Task<Problem?> SayAsync(ServiceAccess access, string id, VideoTexts texts, CancellationToken cancel) =>
        DoAsync(access, () => Sent(HttpMethod.Patch, $"api/videos/{id}", SkerryWire.Written(texts)), cancel);

    /// <inheritdoc/>
    public Task<Problem?> CaptionsAsync(ServiceAccess access, string id, string language, string? webVtt, CancellationToken cancel) =>
        DoAsync(
            access,
            () =>
                new HttpRequestMessage(webVtt is null ? HttpMethod.Delete : HttpMethod.Put, At($"api/videos/{id}/captions/{language}"))
                {
                    Content = webVtt is null ? null : new StringContent(webVtt, Encoding.UTF8, "text/vtt"),
                },
            cancel
        );

    /// <inheritdoc/>
    public Task<Problem?> ThumbnailAsync(ServiceAccess access, string id, Func<Stream> open, CancellationToken cancel) =>
        DoAsync(
            access,
            () =>
                new HttpRequestMessage(HttpMethod.Put, At($"api/videos/{id}/thumbnail"))
                {
                    Content = new StreamContent(open()) { Headers = { { "Content-Type", "image/jpeg" } } },
                },
            cancel
        );

    /// <inheritdoc/>
    public Task<Problem?> ListAsync(ServiceAccess access, string list, string id, bool isIn, CancellationToken cancel) =>
        DoAsync(access, () => new HttpRequestMessage(isIn ? HttpMethod.Put : HttpMethod.Delete, At($"api/lists/{list}/{id}")), cancel);

    /// <inheritdoc/>
    public async Task<Problem?> RemoveAsync(ServiceAccess access, string id, CancellationToken cancel) =>
        await DoAsync(access, () => new HttpRequestMessage(HttpMethod.Delete, At($"api/videos/{id}")), cancel) is { Code: not ServiceProblem.Gone } problem
            ? problem
            : null;

    /// <inheritdoc/>
    public async Task<Result<IReadOnlyList<ServiceDay>>> FiguresAsync(ServiceAccess access, string id, DateOnly since, DateOnly until, CancellationToken cancel)
    {
        var asked = string.Create(CultureInfo.InvariantCulture, $"api/videos/{id}/figures?since={since:yyyy-MM-dd}&until={until:yyyy-MM-dd}");
        if (!(await _line.AskAsync(access, () => Get(asked), cancel)).Is(out var came, out var problem))
            return problem;
        if (came.IsGone)
            return Gone();
        return SkerryLine.Read<List<SkerryWire.Day>>(came).Is(out var days, out var odd)
            ? days.ConvertAll(d => new ServiceDay(d.On, d.Views, TimeSpan.FromMinutes(d.Minutes)))
            : odd;
    }

    private async Task<Problem?> DoAsync(ServiceAccess access, Func<HttpRequestMessage> request, CancellationToken cancel) =>
        !(await _line.AskAsync(access, request, cancel)).Is(out var came, out var problem) ? problem
        : came.IsGone ? Gone()
        : came.Answer.IsSuccessStatusCode ? null
        : new Problem(ServiceProblem.Refused, $"Skerry does not take it now: {came.Text}");

    /// <summary>What is shown as a link leads to a page, and to nothing else that a browser might do.</summary>
    private static bool IsPage(string link) => Uri.TryCreate(link, UriKind.Absolute, out var page) && page.Scheme is "http" or "https";

    private Uri At(string path) => new(settings.Address ?? throw new InvalidOperationException("Nobody said where Skerry is."), path);

    private HttpRequestMessage Get(string path) => new(HttpMethod.Get, At(path));

    private HttpRequestMessage Sent<T>(HttpMethod method, string path, T body) =>
        new(method, At(path)) { Content = JsonContent.Create(body, options: SkerryWire.Json) };

    /// <summary>A request of tus 1.0.0.</summary>
    private static HttpRequestMessage Tus(HttpMethod method, Uri to) => new(method, to) { Headers = { { "Tus-Resumable", "1.0.0" } } };

    private static HttpRequestMessage Piece(Uri to, Stream file, long from, int length)
    {
        file.Position = from;
        var piece = Tus(HttpMethod.Patch, to);
        piece.Headers.Add("Upload-Offset", from.ToString(CultureInfo.InvariantCulture));
        piece.Content = new StreamContent(new PartOfStream(file, length), 128 * 1024)
        {
            Headers = { { "Content-Type", "application/offset+octet-stream" }, { "Content-Length", length.ToString(CultureInfo.InvariantCulture) } },
        };
        return piece;
    }

    private static long? Offset(SkerryLine.Came came) =>
        came.Answer.Headers.TryGetValues("Upload-Offset", out var values)
        && long.TryParse(values.First(), NumberStyles.None, CultureInfo.InvariantCulture, out var offset)
            ? offset
            : null;

    private static ServiceList List(SkerryWire.List list) => new(list.Id, list.Title, list.Visibility == "public");

    private static Problem Gone() => new(ServiceProblem.Gone, "The video is not at Skerry any more. Try again, and it is uploaded anew.");
}
