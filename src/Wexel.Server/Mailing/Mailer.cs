using System.Net.Security;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.Extensions.Options;
using MimeKit;
using Wexel.Server.Setup;

namespace Wexel.Server.Mailing;

/// <summary>Sends mails through SMTP, over TLS wherever the server offers it (RFC 3207); run as a job, so that a mail that could not go out is tried
/// again.</summary>
internal sealed class Mailer(IOptions<WexelOptions> options)
{
    public async Task SendAsync(string to, string subject, string text, CancellationToken cancel)
    {
        using var message = new MimeMessage();
        message.From.Add(new MailboxAddress("Wexel", options.Value.MailFrom));
        message.To.Add(MailboxAddress.Parse(to));
        message.Subject = subject;
        message.Body = new TextPart("plain") { Text = text };
        await SendAsync(message, cancel);
    }

    /// <summary>Sends one in HTML.</summary>
    /// <exception cref="SmtpCommandException">The server would not have it.</exception>
    internal async Task SendAsync(Letter letter, CancellationToken cancel)
    {
        using var message = letter.Message(options.Value.MailFrom);
        await SendAsync(message, cancel);
    }

    private async Task SendAsync(MimeMessage message, CancellationToken cancel)
    {
        using var client = new SmtpClient { ServerCertificateValidationCallback = Trusts };
        await client.ConnectAsync(
            options.Value.SmtpHost,
            options.Value.SmtpPort,
            options.Value.SmtpTls switch
            {
                SmtpTls.Never => SecureSocketOptions.None,
                SmtpTls.Always => SecureSocketOptions.StartTls,
                SmtpTls.FromTheStart => SecureSocketOptions.SslOnConnect,
                _ => SecureSocketOptions.StartTlsWhenAvailable,
            },
            cancel
        );
        if (options.Value.SmtpUser is { Length: > 0 } user)
            await client.AuthenticateAsync(user, options.Value.SmtpPassword ?? "", cancel);
        await client.SendAsync(message, cancel);
        await client.DisconnectAsync(quit: true, cancel);
    }

    /// <summary>A certificate that the machine trusts, or the one that is named in the settings and no other.</summary>
    private bool Trusts(object sender, X509Certificate? certificate, X509Chain? chain, SslPolicyErrors errors) =>
        options.Value.SmtpCertificate is { Length: > 0 } named
            ? certificate is not null
                && named
                    .Replace(":", "", StringComparison.Ordinal)
                    .Equals(Convert.ToHexString(SHA256.HashData(certificate.GetRawCertData())), StringComparison.OrdinalIgnoreCase)
            : errors == SslPolicyErrors.None;
}
