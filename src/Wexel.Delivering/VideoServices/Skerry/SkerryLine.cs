using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using Polly;
using Wexel.Core;
using Wexel.Delivering.Http;

namespace Wexel.Delivering.VideoServices.Skerry;

/// <summary>One request after the other to Skerry: with the token that is good now, tried again where it may pass, and read with care.</summary>
/// <param name="http">The client, behind the guard.</param>
/// <param name="firstPause">How long is waited before something is tried again.</param>
internal sealed class SkerryLine(HttpClient http, TimeSpan? firstPause)
{
    private readonly ResiliencePipeline<HttpResponseMessage> _again = TryingAgain.Pipeline(firstPause);

    /// <summary>What came back.</summary>
    /// <param name="Answer">The answer, whose text was read.</param>
    /// <param name="Text">Its text.</param>
    internal sealed record Came(HttpResponseMessage Answer, string Text)
    {
        internal bool IsGone => Answer.StatusCode is HttpStatusCode.NotFound or HttpStatusCode.Gone;

        /// <summary>How far the other clock is ahead of this machine's.</summary>
        internal TimeSpan Ahead(DateTimeOffset now) => Answer.Headers.Date is { } there ? there - now : TimeSpan.Zero;
    }

    /// <summary>Asks, with a request that is made anew each time.</summary>
    internal async Task<Result<Came>> AskAsync(ServiceAccess access, Func<HttpRequestMessage> request, CancellationToken cancel)
    {
        string? refused = null;
        for (var tries = 0; ; tries++)
        {
            if (!(await access.Token(refused, cancel)).Is(out var token, out var problem))
                return problem;
            if (!(await SendAsync(request, token, cancel)).Is(out var came, out var failed))
                return failed;
            if (came.Answer.StatusCode != HttpStatusCode.Unauthorized || tries > 0)
                return came.Answer.StatusCode == HttpStatusCode.Unauthorized ? Withdrawn() : Judged(came);
            refused = token;
        }
    }

    /// <summary>Asks for something that comes as JSON.</summary>
    internal async Task<Result<T>> ReadAsync<T>(ServiceAccess access, Func<HttpRequestMessage> request, CancellationToken cancel)
        where T : class => (await AskAsync(access, request, cancel)).Is(out var came, out var problem) ? Read<T>(came) : problem;

    /// <summary>What an answer says; or that it says something that cannot be meant.</summary>
    internal static Result<T> Read<T>(Came came)
        where T : class
    {
        try
        {
            return JsonSerializer.Deserialize<T>(came.Text, SkerryWire.Json) is { } read ? read : Odd("nothing");
        }
        catch (JsonException)
        {
            return Odd($"“{Problem.Shown(came.Text.Trim())}”");
        }
    }

    private async Task<Result<Came>> SendAsync(Func<HttpRequestMessage> request, string token, CancellationToken cancel)
    {
        try
        {
            var answer = await _again.ExecuteAsync(
                async stop =>
                {
                    using var asked = request();
                    asked.Headers.Authorization = new AuthenticationHeaderValue("Bearer", token);
                    return await http.SendAsync(asked, stop);
                },
                cancel
            );
            return new Came(answer, await answer.Content.ReadAsStringAsync(cancel));
        }
        catch (HttpRequestException failed) when (failed.HttpRequestError == HttpRequestError.ConfigurationLimitExceeded)
        {
            return Odd($"more than {OutsideOnly.MostRead / 1024 / 1024} MB");
        }
        catch (HttpRequestException failed)
        {
            return NotReached(failed.Message);
        }
        catch (TaskCanceledException) when (!cancel.IsCancellationRequested)
        {
            return NotReached("it did not answer in time.");
        }
    }

    private static Result<Came> Judged(Came came)
    {
        var status = (int)came.Answer.StatusCode;
        if (came.Answer.IsSuccessStatusCode || came.IsGone || came.Answer.StatusCode == HttpStatusCode.Conflict)
            return came;
        if (status is >= 300 and < 400)
            return Odd($"that Wexel should go on to {came.Answer.Headers.Location?.ToString() ?? "nowhere"}, which it does not do");
        if (status is 429 or >= 500)
            return NotReached($"it is busy ({status}).");
        var said = Trouble(came.Text);
        return said?.Title == "Quota"
            ? new Problem(ServiceProblem.Quota, $"Skerry takes no more now: {said.Detail} What was sent is kept; try again then, and it goes on there.")
            : new Problem(ServiceProblem.Refused, $"Skerry refused it: {said?.Detail ?? $"it answered {status}."}");
    }

    private static SkerryWire.Trouble? Trouble(string text)
    {
        try
        {
            return JsonSerializer.Deserialize<SkerryWire.Trouble>(text, SkerryWire.Json);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    internal static Problem Withdrawn() =>
        new(ServiceProblem.Withdrawn, "Wexel may not act for this account any more: somebody withdrew that at Skerry. Connect it again, and it goes on.");

    internal static Problem NotReached(string why) => new(ServiceProblem.NotReached, $"Skerry cannot be reached: {why} Try again later.");

    private static Problem Odd(string what) =>
        new(ServiceProblem.OddAnswer, $"Skerry’s answer cannot be used: it says {what}. Try again later; if it stays so, its interface has changed.");
}
