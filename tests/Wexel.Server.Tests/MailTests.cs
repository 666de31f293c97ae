using System.Buffers;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using MailKit.Security;
using Microsoft.Extensions.Options;
using SmtpServer;
using SmtpServer.Protocol;
using SmtpServer.Storage;
using Wexel.Server.Mailing;
using Wexel.Server.Setup;

namespace Wexel.Server.Tests;

/// <summary>Mails go over TLS where the server offers it, and only to one whose certificate is trusted.</summary>
public sealed class MailTests
{
    private static X509Certificate2 Certificate()
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest("CN=mail.brackwater.example", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        return X509CertificateLoader.LoadPkcs12(made.Export(X509ContentType.Pkcs12), null);
    }

    private static async Task<bool?> SendAsync(X509Certificate2? certificate, Action<WexelOptions> set)
    {
        var (port, seen) = (ServerProcess.FreePort(), new Seen());
        var options = new SmtpServerOptionsBuilder()
            .ServerName("mail.brackwater.example")
            .Endpoint(e =>
            {
                e.Endpoint(new IPEndPoint(IPAddress.Loopback, port));
                if (certificate is not null)
                    e.Certificate(certificate);
            })
            .Build();
        var services = new SmtpServer.ComponentModel.ServiceProvider();
        services.Add(seen);
        using var stop = new CancellationTokenSource();
        var serving = new SmtpServer.SmtpServer(options, services).StartAsync(stop.Token);
        var wexel = new WexelOptions { SmtpPort = port };
        set(wexel);
        try
        {
            await new Mailer(Options.Create(wexel)).SendAsync("mara.tarn@brackwater.example", "s", "t", TestContext.Current.CancellationToken);
        }
        finally
        {
            await stop.CancelAsync();
            await serving.ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }

        return seen.Secure;
    }

    [Fact]
    public async Task Without_an_offer_of_TLS_it_goes_as_it_is_unless_TLS_is_demanded()
    {
        (await SendAsync(null, _ => { })).ShouldBe(false);
        await Should.ThrowAsync<NotSupportedException>(() => SendAsync(null, o => o.SmtpTls = SmtpTls.Always));
    }

    [Fact]
    public async Task Where_TLS_is_offered_it_is_taken_and_the_certificate_must_be_trusted()
    {
        using var certificate = Certificate();
        var fingerprint = Convert.ToHexString(SHA256.HashData(certificate.RawData));
        await Should.ThrowAsync<SslHandshakeException>(() => SendAsync(certificate, _ => { }));
        await Should.ThrowAsync<SslHandshakeException>(() => SendAsync(certificate, o => o.SmtpCertificate = new string('A', 64)));
        (await SendAsync(certificate, o => o.SmtpCertificate = fingerprint)).ShouldBe(true);
        (
            await SendAsync(certificate, o => o.SmtpCertificate = string.Join(':', fingerprint.ToLowerInvariant().Chunk(2).Select(pair => new string(pair))))
        ).ShouldBe(true);
        (await SendAsync(certificate, o => o.SmtpTls = SmtpTls.Never)).ShouldBe(false);
    }

    /// <summary>Whether the last mail came over TLS.</summary>
    private sealed class Seen : MessageStore
    {
        internal bool? Secure { get; private set; }

        public override Task<SmtpResponse> SaveAsync(
            ISessionContext context,
            IMessageTransaction transaction,
            ReadOnlySequence<byte> buffer,
            CancellationToken cancellationToken
        )
        {
            Secure = context.Pipe.IsSecure;
            return Task.FromResult(SmtpResponse.Ok);
        }
    }
}
