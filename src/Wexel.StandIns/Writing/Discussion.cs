using System.Text.Json;
using AngleSharp.Html.Parser;

namespace Wexel.StandIns.Writing;

/// <summary>What a pasted link turned into.</summary>
internal sealed record Preview(string Title, string Provider, string Html, string? Thumbnail);

/// <summary>Something that was said.</summary>
internal sealed record Post(string Text, string? Link, Preview? Preview, string? NoPreview);

/// <summary>The posts, and how a link becomes a preview: oEmbed 1.0, section 4, discovery.</summary>
internal sealed class Discussion(IHttpClientFactory clients)
{
    private readonly Lock _lock = new();
    private readonly List<Post> _posts = [];

    internal IReadOnlyList<Post> All
    {
        get
        {
            lock (_lock)
                return [.. _posts];
        }
    }

    internal async Task AddAsync(string text, CancellationToken cancel)
    {
        var link = text.Split([' ', '\n', '\r', '\t']).FirstOrDefault(w => Uri.TryCreate(w, UriKind.Absolute, out var uri) && uri.Scheme is "http" or "https");
        var (preview, reason) = link is null ? (null, null) : await FindAsync(new Uri(link), cancel);
        lock (_lock)
            _posts.Add(new Post(text, link, preview, reason));
    }

    private async Task<(Preview? Preview, string? Reason)> FindAsync(Uri link, CancellationToken cancel)
    {
        var http = clients.CreateClient("previews");
        try
        {
            using var page = await http.GetAsync(link, cancel);
            if (!page.IsSuccessStatusCode)
                return (null, $"the page answered {(int)page.StatusCode}");
            var document = new HtmlParser().ParseDocument(await page.Content.ReadAsStringAsync(cancel));
            if (document.QuerySelector("link[rel~=alternate][type='application/json+oembed']")?.GetAttribute("href") is not { } discovered)
                return (null, "the page offers no preview");
            using var answer = await http.GetAsync(new Uri(link, discovered), cancel);
            if (!answer.IsSuccessStatusCode)
                return (null, $"the preview answered {(int)answer.StatusCode}");
            var said = JsonSerializer.Deserialize<JsonElement>(await answer.Content.ReadAsStringAsync(cancel));
            string? Member(string name) => said.TryGetProperty(name, out var value) ? value.ToString() : null;
            return Member("version") == "1.0" && Member("type") is "video" or "rich"
                ? (
                    new Preview(Member("title") ?? link.Host, Member("provider_name") ?? "", Cleaning.Clean(Member("html") ?? ""), Member("thumbnail_url")),
                    null
                )
                : (null, "the preview is of a type that is not shown here");
        }
        catch (Exception failed) when (failed is HttpRequestException or JsonException or TaskCanceledException)
        {
            return (null, failed.Message);
        }
    }
}
