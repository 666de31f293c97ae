using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Serialization;
using Wexel.Core;

namespace Wexel.Delivering.Directories.Desk;

/// <summary>The adaptor for the directory that ships with Wexel as a stand-in for those outside.</summary>
/// <param name="http">The client, behind the guard.</param>
/// <param name="address">Where it is; null where nobody uses it.</param>
public sealed class DirectoryDesk(HttpClient http, Uri? address) : IPodcastDirectory
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    private sealed record Submitted([property: JsonRequired] int Number, bool? Accepted, Uri? Page, IReadOnlyList<string>? Reasons);

    /// <inheritdoc/>
    public string Code => "desk";

    /// <inheritdoc/>
    public string Name => "Directory desk";

    /// <inheritdoc/>
    public bool IsSetUp => address is not null;

    /// <inheritdoc/>
    public string Takes => "24 to 48 hours";

    /// <inheritdoc/>
    public async Task<Result<string>> SubmitAsync(Uri feed, CancellationToken cancel) =>
        (await AskAsync(() => http.PostAsJsonAsync(At("submissions"), new { feed = feed.AbsoluteUri }, cancel), cancel)).Is(out var there, out var problem)
            ? there.Number.ToString(System.Globalization.CultureInfo.InvariantCulture)
            : problem;

    /// <inheritdoc/>
    public async Task<Result<DirectoryAnswer?>> AnswerAsync(string submission, CancellationToken cancel) =>
        !(await AskAsync(() => http.GetAsync(At($"submissions/{Uri.EscapeDataString(submission)}"), cancel), cancel)).Is(out var there, out var problem)
            ? problem
        : there.Accepted is null ? new Result<DirectoryAnswer?>(null)
        : new DirectoryAnswer(there.Page, there.Reasons ?? []);

    private Uri At(string path) => new(address!, "directory/" + path);

    private async Task<Result<Submitted>> AskAsync(Func<Task<HttpResponseMessage>> ask, CancellationToken cancel)
    {
        try
        {
            using var answer = await ask();
            var text = await answer.Content.ReadAsStringAsync(cancel);
            if (!answer.IsSuccessStatusCode)
                return new Problem("directory-refused", $"The {Name} did not take it: it answered {(int)answer.StatusCode}. Try again later.");
            return JsonSerializer.Deserialize<Submitted>(text, Json) is { } there && there.Page is null or { Scheme: "http" or "https" } ? there : Odd();
        }
        catch (JsonException)
        {
            return Odd();
        }
        catch (TaskCanceledException) when (!cancel.IsCancellationRequested)
        {
            return new Problem("directory-not-reached", $"The {Name} did not answer in time. Try again later.");
        }
        catch (HttpRequestException failed)
        {
            return new Problem("directory-not-reached", $"The {Name} cannot be reached: {failed.Message} Try again later.");
        }
    }

    private Problem Odd() => new("directory-odd-answer", $"The {Name}’s answer cannot be used. Try again later.");
}
