using System.Net.Http.Headers;
using System.Text.Json;
using Wexel.Core;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;

namespace Wexel.Server.Releases;

/// <summary>Puts packages into a learning system over HTTP: one address a package, so that sending again replaces it.</summary>
internal sealed class PackageSender(HttpClient http, WexelDb db, FileStore store, TimeProvider clock)
{
    /// <summary>Sends a release's package and notes where the system put it.</summary>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Problem?> SendAsync(PackagedRelease release, Outlet outlet, string identifier, CancellationToken cancel)
    {
        if (outlet.Address is null)
            return new Problem("outlet-without-address", $"“{outlet.Name}” has no address for packages. Download the package and import it there.");
        if (release.PackageKey is not { } key || !store.Has(key, MadeNames.Package))
            return new Problem("package-missing", "There is no package yet. Make it, then send it.");
        var to = new Uri(new Uri(outlet.Address), identifier);
        try
        {
            // Read from the disk as it is sent: a package of a gigabyte is never in memory.
            await using var zip = File.OpenRead(store.Derived(key, MadeNames.Package));
            using var content = new StreamContent(zip) { Headers = { ContentType = new MediaTypeHeaderValue("application/zip") } };
            using var answer = await http.PutAsync(to, content, cancel);
            if (!answer.IsSuccessStatusCode)
                return new Problem("package-refused", $"“{outlet.Name}” did not take the package: {await ReasonAsync(answer, cancel)}");
            (release.SentKey, release.SentAt, release.SentTo) = (key, clock.GetUtcNow(), answer.Headers.Location?.ToString());
            await db.SaveChangesAsync(cancel);
            return null;
        }
        catch (HttpRequestException failed)
        {
            return new Problem("outlet-not-reached", $"“{outlet.Name}” cannot be reached at {to.GetLeftPart(UriPartial.Authority)}: {failed.Message} Look whether it runs, then send again.");
        }
    }

    private static async Task<string> ReasonAsync(HttpResponseMessage answer, CancellationToken cancel)
    {
        var text = await answer.Content.ReadAsStringAsync(cancel);
        try
        {
            // RFC 9457: the sentence for people stands in "detail".
            if (JsonSerializer.Deserialize<JsonElement>(text) is { ValueKind: JsonValueKind.Object } problem && problem.TryGetProperty("detail", out var detail))
                return detail.ToString();
        }
        catch (JsonException)
        {
            // Not a problem document: the status has to do.
        }

        return $"it answered {(int)answer.StatusCode} {answer.ReasonPhrase}.";
    }
}
