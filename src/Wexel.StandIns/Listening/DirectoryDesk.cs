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

    internal Submission Submit(Uri address)
    {
        var number = Interlocked.Increment(ref _last);
        var submission = _all[number] = new Submission(number, address, null, address.ToString(), []);
        _ = LookAsync(number, address);
        return submission;
    }

    internal Submission? Find(int number) => _all.GetValueOrDefault(number);

    private async Task LookAsync(int number, Uri address)
    {
        try
        {
            // That it has come is written at once; somebody looks at it after a while.
            if (await ReadAsync(address) is { OwnerMail: { Length: > 0 } at } come)
                await WriteAsync(at, $"Submitted: {come.Title}", "The show has come to the directory desk. Somebody looks at it after a while.");
            await Task.Delay(TimeSpan.FromSeconds(configuration.GetValue("StandIns:DirectorySeconds", 20.0)));
            var show = await ReadAsync(address);
            List<string> reasons = show is null ? ["The feed did not answer as one."] : [.. show.Troubles];
            if (show is { KeptOut: true })
                reasons.Add("The feed asks directories to keep it out (itunes:block).");
            if (show is { OwnerMail: null or "" })
                reasons.Add("The feed names no owner to write to.");
            _all[number] = new Submission(number, address, reasons.Count == 0, show?.Title ?? address.ToString(), reasons);
            if (show?.OwnerMail is { Length: > 0 } owner)
                await WriteAsync(
                    owner,
                    reasons.Count == 0 ? $"Accepted: {show.Title}" : $"Not accepted: {show.Title}",
                    reasons.Count == 0 ? "The show is in the directory." : "These things stand in the way:\n" + string.Join('\n', reasons)
                );
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

    private async Task<Show?> ReadAsync(Uri address)
    {
        using var answer = await clients.CreateClient(Subscriptions.Client).GetAsync(address);
        return answer.IsSuccessStatusCode ? Show.Read(await answer.Content.ReadAsByteArrayAsync()) : null;
    }

    private async Task WriteAsync(string owner, string subject, string text)
    {
        using var mail = new MimeMessage();
        mail.From.Add(new MailboxAddress("The directory", "desk@directory.example"));
        mail.To.Add(MailboxAddress.Parse(owner));
        mail.Subject = subject;
        mail.Body = new TextPart("plain") { Text = text };
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
        routes.MapPost("/directory/submissions", (Submitted submitted, DirectoryDesk desk, HttpRequest request) =>
            Uri.TryCreate(submitted.Feed, UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
                ? Results.Json(View(desk.Submit(address), request), statusCode: 201)
                : Results.BadRequest()
        );
        routes.MapGet("/directory/submissions/{number:int}", (int number, DirectoryDesk desk, HttpRequest request) =>
            desk.Find(number) is { } submission ? Results.Json(View(submission, request)) : Results.NotFound()
        );
        routes.MapGet("/directory/shows/{number:int}", (int number, DirectoryDesk desk) =>
            desk.Find(number) is { Accepted: true } show
                ? Pages.Html(
                    show.Title,
                    $"<p><a href=\"{Pages.Text(show.Address.AbsoluteUri)}\">{Pages.Text(show.Address.AbsoluteUri)}</a></p>",
                    style: Counter
                )
                : Pages.Html("Not listed", "", 404, Counter)
        );
        routes.MapPost("/directory", async (HttpRequest request, DirectoryDesk desk, CancellationToken cancel) =>
        {
            if (Uri.TryCreate((await request.ReadFormAsync(cancel))["address"], UriKind.Absolute, out var address) && address.Scheme is "http" or "https")
                desk.Submit(address);
            return Results.Redirect("/directory");
        });
    }

    private sealed record Submitted(string Feed);

    private static object View(Submission submission, HttpRequest request) =>
        new
        {
            submission.Number,
            submission.Accepted,
            Page = submission.Accepted == true ? $"{request.Scheme}://{request.Host}/directory/shows/{submission.Number}" : null,
            submission.Reasons,
        };
}
