using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Text.Json;
using Polly;
using Wexel.Core;

namespace Wexel.Delivering.Http;

/// <summary>
/// Files put and deleted over HTTP (RFC 9110, sections 9.3.4 and 9.3.5): one address a file, so that putting again replaces it. Where a server has
/// accepted one and is not through with it, its status monitor is asked until it is (section 15.3.3).
/// </summary>
/// <param name="http">The client.</param>
/// <param name="firstPause">How long it waits before what may pass by itself is tried again; each further pause is twice as long. Null for what is
/// usual.</param>
public sealed class PutDelivery(HttpClient http, TimeSpan? firstPause = null) : IDelivery
{
    /// <summary>How often a status monitor is asked that says nothing about it.</summary>
    private static readonly TimeSpan UsualPause = TimeSpan.FromSeconds(2);

    /// <summary>The shortest that is waited between two questions.</summary>
    private static readonly TimeSpan ShortestPause = TimeSpan.FromMilliseconds(200);

    /// <summary>The longest that is waited between two questions, whatever the monitor says.</summary>
    private static readonly TimeSpan LongestPause = TimeSpan.FromMinutes(1);

    /// <summary>How long a place may take to make something ready; who waits longer has forgotten it.</summary>
    private static readonly TimeSpan LongestProcessing = TimeSpan.FromHours(2);

    private readonly ResiliencePipeline<HttpResponseMessage> _again = TryingAgain.Pipeline(firstPause);

    /// <summary>Its code.</summary>
    public const string Put = "put";

    /// <inheritdoc/>
    public string Code => Put;

    /// <inheritdoc/>
    public string Name => "Put it over HTTP";

    /// <inheritdoc/>
    public string? AskedFor => "Address under which files are put";

    /// <inheritdoc/>
    public Problem? Unusable(string? to) =>
        Uri.TryCreate(to, UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
            ? null
            : new Problem(
                "delivery-address-unusable",
                "Write the whole address under which files are put, such as https://school.example/packages/.",
                "deliverTo"
            );

    /// <inheritdoc/>
    public async Task<Result<Delivered>> DeliverAsync(Parcel parcel, string to, IProgress<DeliveryStep> done, CancellationToken cancel)
    {
        var folder = new Uri(to.TrimEnd('/') + "/");
        string? page = null;
        try
        {
            foreach (var file in parcel.Put)
            {
                using var answer = await _again.ExecuteAsync(async stop => await PutAsync(file, At(folder, file.File.Path), stop), cancel);
                if (!answer.IsSuccessStatusCode)
                    return new Problem(
                        "package-refused",
                        $"“{parcel.Outlet}” did not take {(parcel.Put.Count == 1 ? "the package" : $"“{file.File.Path}”")}: {await ReasonAsync(answer, cancel)}"
                    );
                if (answer.StatusCode == HttpStatusCode.Accepted)
                {
                    if (!(await ReadyAsync(parcel, At(folder, file.File.Path), answer, cancel)).Is(out var ready, out var notReady))
                        return notReady;
                    page ??= ready.Page;
                }
                else
                    page ??= answer.Headers.Location?.ToString();
                done.Report(new DeliveryStep(file.File.Path, file.File.Key));
            }

            foreach (var gone in parcel.Remove)
            {
                using var answer = await _again.ExecuteAsync(async stop => await http.DeleteAsync(At(folder, gone), stop), cancel);
                if (!answer.IsSuccessStatusCode && answer.StatusCode is not (HttpStatusCode.NotFound or HttpStatusCode.Gone))
                    return new Problem("delivery-not-removed", $"“{parcel.Outlet}” did not remove “{gone}”: {await ReasonAsync(answer, cancel)}");
                done.Report(new DeliveryStep(gone, null));
            }

            return new Delivered(page);
        }
        catch (HttpRequestException failed)
        {
            return new Problem(
                "outlet-not-reached",
                $"“{parcel.Outlet}” cannot be reached at {folder.GetLeftPart(UriPartial.Authority)}: {failed.Message} Look whether it runs, then send again."
            );
        }
    }

    /// <summary>Waits until what was accepted is ready. Where no monitor is named, nothing more can be known.</summary>
    private async Task<Result<Delivered>> ReadyAsync(Parcel parcel, Uri put, HttpResponseMessage accepted, CancellationToken cancel)
    {
        if (accepted.Headers.Location is not { } location)
            return new Delivered(null);
        if (parcel.Processing is { } told)
            await told(cancel);
        var (monitor, waited) = (new Uri(put, location), Stopwatch.StartNew());
        for (var pause = PauseAfter(accepted); ; )
        {
            await Task.Delay(pause, cancel);
            using var answer = await _again.ExecuteAsync(async stop => await http.GetAsync(monitor, stop), cancel);
            if (answer.StatusCode != HttpStatusCode.Accepted)
                return answer.IsSuccessStatusCode || (int)answer.StatusCode is >= 300 and < 400
                    ? new Delivered(Page(answer, monitor))
                    : new Problem("package-refused", $"“{parcel.Outlet}” took it and could not make it ready: {await ReasonAsync(answer, cancel)}");
            if (waited.Elapsed > LongestProcessing)
                return new Problem(
                    "processing-too-long",
                    $"“{parcel.Outlet}” has been making it ready for {LongestProcessing.TotalHours:0} hours and says nothing else. Look there, then try again."
                );
            pause = PauseAfter(answer);
        }
    }

    /// <summary>The page that the monitor names, or to which it led in the end; null for none.</summary>
    private static string? Page(HttpResponseMessage answer, Uri monitor) =>
        answer.Headers.Location is { } named ? new Uri(monitor, named).AbsoluteUri
        : answer.RequestMessage?.RequestUri is { } reached && reached != monitor ? reached.AbsoluteUri
        : null;

    /// <summary>When to ask again (RFC 9110, section 10.2.3).</summary>
    private static TimeSpan PauseAfter(HttpResponseMessage answer) =>
        TimeSpan.FromTicks(Math.Clamp((answer.Headers.RetryAfter?.Delta ?? UsualPause).Ticks, ShortestPause.Ticks, LongestPause.Ticks));

    private async Task<HttpResponseMessage> PutAsync(ParcelFile file, Uri to, CancellationToken cancel)
    {
        await using var source = file.Open();
        using var content = new StreamContent(source)
        {
            Headers = { ContentType = new MediaTypeHeaderValue(file.MediaType ?? MediaTypes.ForPath(file.File.Path)) },
        };
        return await http.PutAsync(to, content, cancel);
    }

    private static Uri At(Uri folder, string path) => new(folder, string.Join('/', path.Split('/').Select(Uri.EscapeDataString)));

    private static async Task<string> ReasonAsync(HttpResponseMessage answer, CancellationToken cancel)
    {
        var text = await answer.Content.ReadAsStringAsync(cancel);
        try
        {
            // RFC 9457: the sentence for people stands in "detail".
            if (
                JsonSerializer.Deserialize<JsonElement>(text) is { ValueKind: JsonValueKind.Object } problem
                && problem.TryGetProperty("detail", out var detail)
            )
                return detail.ToString();
        }
        catch (JsonException)
        {
            // Not a problem document: the status has to do.
        }

        return $"it answered {(int)answer.StatusCode} {answer.ReasonPhrase}.";
    }
}
