using System.Net;

namespace Wexel.Delivering.Http;

/// <summary>
/// Goes on where an answer sends to within the same origin (RFC 6454), and nowhere else: an answer that sends to another host comes back as it is, so
/// that neither what is fetched nor what is sent with it goes where nobody meant it to.
/// </summary>
internal sealed class SameOriginOnly : DelegatingHandler
{
    private const int MostSteps = 5;

    internal SameOriginOnly(HttpMessageHandler inner)
        : base(inner) { }

    protected override async Task<HttpResponseMessage> SendAsync(HttpRequestMessage request, CancellationToken cancellationToken)
    {
        var answer = await base.SendAsync(request, cancellationToken);
        for (var step = 0; step < MostSteps && Next(request, answer) is { } to; step++)
        {
            // What was sent is not sent a second time: it was read from where it came as it went.
            var next = new HttpRequestMessage(request.Method == HttpMethod.Head ? HttpMethod.Head : HttpMethod.Get, to) { Version = request.Version };
            foreach (var (name, values) in request.Headers)
                next.Headers.TryAddWithoutValidation(name, values);
            answer.Dispose();
            (request, answer) = (next, await base.SendAsync(next, cancellationToken));
        }

        return answer;
    }

    /// <summary>Where to go on; null where the answer is one, or leads elsewhere. What must be sent again as it was (307, 308) is left to the caller.</summary>
    private static Uri? Next(HttpRequestMessage request, HttpResponseMessage answer)
    {
        var asks = request.Method == HttpMethod.Get || request.Method == HttpMethod.Head;
        var leads =
            answer.StatusCode is HttpStatusCode.MovedPermanently or HttpStatusCode.Found or HttpStatusCode.SeeOther
            || (asks && answer.StatusCode is HttpStatusCode.TemporaryRedirect or HttpStatusCode.PermanentRedirect);
        if (!leads || answer.Headers.Location is not { } location)
            return null;
        var (from, to) = (request.RequestUri!, new Uri(request.RequestUri!, location));
        return (from.Scheme, from.IdnHost, from.Port) == (to.Scheme, to.IdnHost, to.Port) ? to : null;
    }
}
