using System.Collections.Concurrent;
using MailKit.Net.Smtp;
using MimeKit;

namespace Wexel.StandIns.Listening;

/// <summary>A feed that was submitted; no verdict while somebody still looks at it.</summary>
internal sealed record Submission(int Number, Uri Address, bool? Accepted, string Title, IReadOnlyList<string> Reasons);

/// <summary>The desk of a podcast directory: looks at a submitted feed after a while, and writes to its owner.</summary>
internal sealed class DirectoryDesk(IHttpClientFactory clients, IConfiguration configuration, ILogger<DirectoryDesk> log)
{
    private readonly ConcurrentDictionary<int, Submission> _all = new();
    private int _last;

    internal IEnumerable<Submission> All => _all.Values.OrderByDescending(s => s.Number);

    internal void Submit(Uri address)
    {
        var number = Interlocked.Increment(ref _last);
        _all[number] = new Submission(number, address, null, address.ToString(), []);
        _ = LookAsync(number, address);
    }

    private async Task LookAsync(int number, Uri address)
    {
        await Task.Delay(TimeSpan.FromSeconds(configuration.GetValue("StandIns:DirectorySeconds", 20.0)));
        try
        {
            using var answer = await clients.CreateClient(Subscriptions.Client).GetAsync(address);
            var show = answer.IsSuccessStatusCode ? Show.Read(await answer.Content.ReadAsByteArrayAsync()) : null;
            List<string> reasons = show is null ? [$"The feed answered {(int)answer.StatusCode}."] : [.. show.Troubles];
            if (show is { KeptOut: true })
                reasons.Add("The feed asks directories to keep it out (itunes:block).");
            if (show is { OwnerMail: null or "" })
                reasons.Add("The feed names no owner to write to.");
            _all[number] = new Submission(number, address, reasons.Count == 0, show?.Title ?? address.ToString(), reasons);
            if (show?.OwnerMail is { Length: > 0 } owner)
                await WriteAsync(owner, show.Title, reasons);
        }
        catch (Exception failed) when (failed is HttpRequestException or TaskCanceledException)
        {
            _all[number] = new Submission(number, address, false, address.ToString(), [$"The feed was not reached: {failed.Message}"]);
        }
        catch (Exception failed) when (failed is SmtpCommandException or IOException or ParseException or System.Net.Sockets.SocketException)
        {
            log.LogWarning(failed, "The owner of {Feed} could not be written to", address);
        }
    }

    private async Task WriteAsync(string owner, string title, List<string> reasons)
    {
        using var mail = new MimeMessage();
        mail.From.Add(new MailboxAddress("The directory", "desk@directory.example"));
        mail.To.Add(MailboxAddress.Parse(owner));
        mail.Subject = reasons.Count == 0 ? $"Accepted: {title}" : $"Not accepted: {title}";
        mail.Body = new TextPart("plain")
        {
            Text = reasons.Count == 0 ? "The show is in the directory." : "These things stand in the way:\n" + string.Join('\n', reasons),
        };
        using var smtp = new SmtpClient();
        await smtp.ConnectAsync("127.0.0.1", configuration.GetValue("StandIns:SmtpPort", 2525), MailKit.Security.SecureSocketOptions.None);
        await smtp.SendAsync(mail);
        await smtp.DisconnectAsync(true);
    }
}

/// <summary>The desk's page.</summary>
internal static class DirectoryPages
{
    private const string Counter =
        "body{font:16px/1.6 'DejaVu Serif',serif;background:#f3f7ea;color:#1e2b12;margin:0}main{max-width:56rem;margin:0 auto;padding:1rem 1.5rem "
        + "3rem;border-top:14px solid #7d9a3c}a{color:#3d5410}article{border:2px dotted #7d9a3c;padding:.4rem 1rem;margin:.8rem "
        + "0}input,button{font:inherit}";

    internal static void MapDirectory(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/directory", (DirectoryDesk desk) =>
            Pages.Html(
                "Directory desk",
                $"""
                <form method="post"><label>Address of the feed <input name="address" type="url" size="60" required></label> <button>Submit</button></form>
                <p>Somebody looks at it after a while, and writes to the owner whom the feed names.</p>
                {string.Concat(
                    desk.All.Select(s =>
                        $"<article><p><b>{Pages.Text(s.Title)}</b>: "
                            + $"{(s.Accepted is null ? "waiting" : s.Accepted.Value ? "accepted" : "not accepted")}</p>"
                            + $"<ul>{string.Concat(s.Reasons.Select(r => $"<li>{Pages.Text(r)}</li>"))}</ul></article>"
                    )
                )}
                """,
                style: Counter
            )
        );
        routes.MapPost("/directory", async (HttpRequest request, DirectoryDesk desk, CancellationToken cancel) =>
        {
            if (Uri.TryCreate((await request.ReadFormAsync(cancel))["address"], UriKind.Absolute, out var address) && address.Scheme is "http" or "https")
                desk.Submit(address);
            return Results.Redirect("/directory");
        });
    }
}
