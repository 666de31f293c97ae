using System.Buffers;
using MimeKit;
using SmtpServer;
using SmtpServer.Protocol;
using SmtpServer.Storage;

namespace Wexel.StandIns;

/// <summary>A mail that came in.</summary>
internal sealed record Letter(int Number, DateTimeOffset At, string From, string To, string Subject, string Text, string Html, string Raw);

/// <summary>The mails, newest last.</summary>
internal sealed class Letters
{
    private readonly Lock _lock = new();
    private readonly List<Letter> _all = [];

    /// <summary>For addresses with what in them nothing is taken for now; null where all is.</summary>
    internal string? ClosedFor { get; set; }

    internal void Add(MimeMessage message, string raw)
    {
        lock (_lock)
            _all.Add(
                new Letter(
                    _all.Count + 1,
                    DateTimeOffset.UtcNow,
                    message.From.ToString(),
                    message.To.ToString(),
                    message.Subject ?? "",
                    message.TextBody ?? "",
                    message.HtmlBody ?? "",
                    raw
                )
            );
    }

    internal IReadOnlyList<Letter> All
    {
        get
        {
            lock (_lock)
                return [.. _all];
        }
    }
}

/// <summary>Takes SMTP on a loopback port.</summary>
internal sealed class PostOffice(Letters letters, IConfiguration configuration) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var port = configuration.GetValue("StandIns:SmtpPort", 2525);
        var options = new SmtpServerOptionsBuilder()
            .ServerName("mailbox.example")
            .Endpoint(endpoint => endpoint.Endpoint(new System.Net.IPEndPoint(System.Net.IPAddress.Loopback, port)))
            .Build();
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(new Keep(letters));
        services.Add((IMailboxFilter)new Known());
        return new SmtpServer.SmtpServer(options, services).StartAsync(stoppingToken);
    }

    private sealed class Keep(Letters letters) : MessageStore
    {
        public override async Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            if (letters.ClosedFor is { } closed && transaction.To.Any(t => $"{t.User}@{t.Host}".Contains(closed, StringComparison.OrdinalIgnoreCase)))
                return new SmtpResponse(SmtpReplyCode.ServiceUnavailable, "closed for now");
            using var bytes = new MemoryStream(buffer.ToArray());
            letters.Add(await MimeMessage.LoadAsync(bytes, cancellationToken), System.Text.Encoding.Latin1.GetString(bytes.ToArray()));
            return SmtpResponse.Ok;
        }
    }

    /// <summary>Everybody has a box here but those whose name begins with "moved-away".</summary>
    private sealed class Known : MailboxFilter
    {
        public override Task<bool> CanDeliverToAsync(
            ISessionContext context,
            SmtpServer.Mail.IMailbox to,
            SmtpServer.Mail.IMailbox from,
            CancellationToken cancellationToken
        ) => Task.FromResult(!to.User.StartsWith("moved-away", StringComparison.OrdinalIgnoreCase));
    }
}

/// <summary>Shows the mails.</summary>
internal static class MailboxPages
{
    internal static void MapMailbox(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/mail", (Letters letters) =>
            Pages.Html(
                "Mailbox",
                letters.All.Count == 0
                    ? "<p>No mail yet.</p>"
                    : "<table><tr><th>When</th><th>To</th><th>Subject</th></tr>"
                        + string.Concat(
                            letters
                                .All.Reverse()
                                .Select(l =>
                                    $"<tr><td>{l.At:HH:mm:ss}</td><td>{Pages.Text(l.To)}</td><td><a "
                                    + $"href=\"/mail/{l.Number}\">{Pages.Text(l.Subject)}</a></td></tr>"
                                )
                        )
                        + "</table>"
            )
        );
        routes.MapGet("/mail/{number:int}", (int number, Letters letters) =>
            letters.All.FirstOrDefault(l => l.Number == number) is { } letter
                ? Pages.Html(
                    letter.Subject,
                    $"<p>From {Pages.Text(letter.From)}<br>To {Pages.Text(letter.To)}<br>{letter.At:u}</p><pre>{Pages.Text(letter.Text)}</pre>"
                        + (letter.Html.Length == 0 ? "" : $"<p><a href=\"/mail/{number}/raw\" download=\"{number}.eml\">The whole mail</a></p>")
                )
                : Pages.Html("No such mail", "", 404)
        );
        routes.MapGet("/mail/{number:int}/raw", (int number, Letters letters) =>
            letters.All.FirstOrDefault(l => l.Number == number) is { } letter
                ? Results.Bytes(System.Text.Encoding.Latin1.GetBytes(letter.Raw), "message/rfc822")
                : Results.NotFound()
        );
        routes.MapPut("/mail/closed/{part}", (string part, Letters letters) =>
        {
            letters.ClosedFor = part;
        });
        routes.MapDelete("/mail/closed", (Letters letters) =>
        {
            letters.ClosedFor = null;
        });
        // The whole of each has a place of its own.
        routes.MapGet("/mail.json", (Letters letters) => letters.All.Select(l => l with { Raw = "" }));
    }
}
