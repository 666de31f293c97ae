using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.Extensions.Options;
using MimeKit;
using Wexel.Server.Setup;

namespace Wexel.Server.Mailing;

/// <summary>Sends mails through SMTP; run as a job, so that a mail that could not go out is tried again.</summary>
internal sealed class Mailer(IOptions<WexelOptions> options)
{
    public async Task SendAsync(string to, string subject, string text, CancellationToken cancel)
    {
        using var message = new MimeMessage();
        message.From.Add(new MailboxAddress("Wexel", options.Value.MailFrom));
        message.To.Add(MailboxAddress.Parse(to));
        message.Subject = subject;
        message.Body = new TextPart("plain") { Text = text };
        using var client = new SmtpClient();
        await client.ConnectAsync(options.Value.SmtpHost, options.Value.SmtpPort, SecureSocketOptions.None, cancel);
        await client.SendAsync(message, cancel);
        await client.DisconnectAsync(quit: true, cancel);
    }
}
