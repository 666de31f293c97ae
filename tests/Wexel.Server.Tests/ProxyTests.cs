using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Net.Security;
using System.Net.WebSockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using System.Text.Json;
using CliWrap;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Wexel.Server.Tests;

/// <summary>The example of docs/operating.md, <c>ops/nginx.conf</c>, with a certificate of its own in front of the real server.</summary>
public sealed class ProxyTests(ReleasedServerFixture fixture) : IClassFixture<ReleasedServerFixture>
{
    [Fact]
    public async Task Behind_nginx_as_it_is_documented_all_of_it_works_over_TLS_and_nginx_sends_the_files()
    {
        var folder = Directory.CreateTempSubdirectory("wexel-nginx-").FullName;
        File.SetUnixFileMode(
            folder,
            UnixFileMode.UserRead
                | UnixFileMode.UserWrite
                | UnixFileMode.UserExecute
                | UnixFileMode.OtherRead
                | UnixFileMode.OtherExecute
                | UnixFileMode.GroupRead
                | UnixFileMode.GroupExecute
        );
        var (behind, tls, plain) = (ServerProcess.FreePort(), ServerProcess.FreePort(), ServerProcess.FreePort());
        await using var server = fixture.Server.WithWebHostBuilder(host =>
            host.UseUrls($"http://127.0.0.1:{behind}")
                .UseSetting("Wexel:PublicAddress", "https://wexel.example/")
                .UseSetting("Wexel:Proxies:0", "127.0.0.1")
                .UseSetting("Wexel:SendFilesBy", "/wexel-files/")
        );
        server.UseKestrel();
        server.StartServer();
        using (var key = RSA.Create(2048))
        {
            var request = new CertificateRequest("CN=wexel.example", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
            using var made = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
            await File.WriteAllTextAsync(Path.Combine(folder, "cert.pem"), made.ExportCertificatePem(), TestContext.Current.CancellationToken);
            await File.WriteAllTextAsync(Path.Combine(folder, "key.pem"), key.ExportPkcs8PrivateKeyPem(), TestContext.Current.CancellationToken);
        }

        // The example as it stands, but for ports, certificate and folder.
        var example = (await File.ReadAllTextAsync(Path.Combine(ServerFixture.Home, "ops", "nginx.conf"), TestContext.Current.CancellationToken))
            .Replace("listen 443", $"listen 127.0.0.1:{tls}", StringComparison.Ordinal)
            .Replace("listen 80", $"listen 127.0.0.1:{plain}", StringComparison.Ordinal)
            .Replace("/etc/ssl/wexel.example.pem", Path.Combine(folder, "cert.pem"), StringComparison.Ordinal)
            .Replace("/etc/ssl/wexel.example.key", Path.Combine(folder, "key.pem"), StringComparison.Ordinal)
            .Replace("127.0.0.1:5080", $"127.0.0.1:{behind}", StringComparison.Ordinal)
            .Replace("/var/lib/wexel/STATE/files", fixture.Data, StringComparison.Ordinal);
        await File.WriteAllTextAsync(
            Path.Combine(folder, "nginx.conf"),
            $$"""
            daemon off; worker_processes 1; pid {{folder}}/pid; error_log {{folder}}/error.log; user root;
            events { }
            http { access_log off; client_body_temp_path {{folder}}/body; proxy_temp_path {{folder}}/proxy;
            fastcgi_temp_path {{folder}}/f; uwsgi_temp_path {{folder}}/u; scgi_temp_path {{folder}}/s;
            {{example}}
            }
            """,
            TestContext.Current.CancellationToken
        );
        using var nginx = Process.Start(new ProcessStartInfo("nginx", ["-c", Path.Combine(folder, "nginx.conf"), "-e", Path.Combine(folder, "error.log")]))!;
        try
        {
            using var handler = new SocketsHttpHandler
            {
                AllowAutoRedirect = false,
                SslOptions = new SslClientAuthenticationOptions
                {
                    RemoteCertificateValidationCallback = (_, certificate, _, _) => certificate!.Subject == "CN=wexel.example",
                },
                ConnectCallback = async (context, cancel) =>
                {
                    var socket = new System.Net.Sockets.Socket(System.Net.Sockets.SocketType.Stream, System.Net.Sockets.ProtocolType.Tcp);
                    await socket.ConnectAsync(IPAddress.Loopback, context.DnsEndPoint.Port == 443 ? tls : plain, cancel);
                    return new System.Net.Sockets.NetworkStream(socket, ownsSocket: true);
                },
            };
            using var trainer = new HttpClient(handler) { BaseAddress = new Uri("https://wexel.example/") };
            HttpResponseMessage? signedIn = null;
            for (var i = 0; i < 100 && signedIn is null; i++)
            {
                try
                {
                    signedIn = await trainer.PostAsJsonAsync(
                        "api/sign-in",
                        new { email = ServerFixture.Trainer, password = ServerFixture.Password },
                        TestContext.Current.CancellationToken
                    );
                }
                catch (HttpRequestException)
                {
                    await Task.Delay(100, TestContext.Current.CancellationToken);
                }
            }

            signedIn!.StatusCode.ShouldBe(HttpStatusCode.OK);
            signedIn
                .Headers.GetValues("Set-Cookie")
                .ShouldContain(c => c.StartsWith("__Host-wexel=", StringComparison.Ordinal) && c.Contains("secure", StringComparison.OrdinalIgnoreCase));
            signedIn.Headers.GetValues("Strict-Transport-Security").ShouldNotBeEmpty();
            var over = await trainer.GetAsync("http://wexel.example/board", TestContext.Current.CancellationToken);
            (over.StatusCode, over.Headers.Location!.ToString()).ShouldBe((HttpStatusCode.PermanentRedirect, "https://wexel.example/board"));

            var lesson = (await trainer.JsonAsync("api/lessons"))[0].GetProperty("lessons")[0].GetProperty("id").GetGuid();
            var link = (await trainer.JsonAsync($"api/lessons/{lesson}/releases"))
                .EnumerateArray()
                .First(o => o.GetProperty("kind").GetString() == "channel")
                .GetProperty("release")
                .GetProperty("link")
                .GetString()!;
            link.ShouldStartWith("https://wexel.example/watch/");
            var range = new HttpRequestMessage(HttpMethod.Get, link + "/video.mp4") { Headers = { Range = new RangeHeaderValue(100, 199) } };
            var part = await trainer.SendAsync(range, TestContext.Current.CancellationToken);
            (part.StatusCode, part.Content.Headers.ContentLength, part.Content.Headers.ContentType!.MediaType).ShouldBe(
                (HttpStatusCode.PartialContent, 100, "video/mp4")
            );
            var whole = await trainer.GetByteArrayAsync(link + "/video.mp4", TestContext.Current.CancellationToken);
            whole.ShouldBe(await fixture.Anonymous().GetByteArrayAsync(new Uri(link).AbsolutePath + "/video.mp4", TestContext.Current.CancellationToken));
            (await part.Content.ReadAsByteArrayAsync(TestContext.Current.CancellationToken)).ShouldBe(whole[100..200]);
            // It is nginx that sends it, and nobody reaches its files by an address.
            part.Headers.Server.ToString().ShouldStartWith("nginx");
            (await trainer.GetAsync("wexel-files/", TestContext.Current.CancellationToken)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
            // More than is taken in one go elsewhere: a recording comes through all the same.
            var clip = Path.Combine(folder, "clip.mp4");
            await CliWrap
                .Cli.Wrap("ffmpeg")
                .WithArguments([
                    "-v",
                    "error",
                    "-f",
                    "lavfi",
                    "-i",
                    "nullsrc=s=320x180:r=30:d=2.3,geq=random(1)*255:128:128",
                    "-c:v",
                    "libx264",
                    "-qp",
                    "0",
                    "-pix_fmt",
                    "yuv420p",
                    clip,
                ])
                .ExecuteAsync();
            var bytes = await File.ReadAllBytesAsync(clip, TestContext.Current.CancellationToken);
            (
                await trainer.PutAsync(
                    "api/recordings?fileName=through.mp4",
                    new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } },
                    TestContext.Current.CancellationToken
                )
            ).StatusCode.ShouldBe(HttpStatusCode.OK);
            var live = await trainer.PostAsync("live/negotiate?negotiateVersion=1", null, TestContext.Current.CancellationToken);
            live.StatusCode.ShouldBe(HttpStatusCode.OK);
            // The live line stays open in both directions (SignalR's handshake).
            using var line = new ClientWebSocket();
            using var invoker = new HttpMessageInvoker(handler, disposeHandler: false);
            line.Options.SetRequestHeader("Cookie", handler.CookieContainer.GetCookieHeader(trainer.BaseAddress));
            var token = (await live.Content.ReadFromJsonAsync<JsonElement>(TestContext.Current.CancellationToken)).GetProperty("connectionToken").GetString();
            await line.ConnectAsync(new Uri($"wss://wexel.example/live?id={token}"), invoker, TestContext.Current.CancellationToken);
            await line.SendAsync(
                Encoding.UTF8.GetBytes("{\"protocol\":\"json\",\"version\":1}\u001e"),
                WebSocketMessageType.Text,
                endOfMessage: true,
                TestContext.Current.CancellationToken
            );
            var said = new byte[100];
            var received = await line.ReceiveAsync(said, TestContext.Current.CancellationToken);
            Encoding.UTF8.GetString(said, 0, received.Count).ShouldStartWith("{}\u001e");
        }
        finally
        {
            nginx.Kill(entireProcessTree: true);
            await nginx.WaitForExitAsync(TestContext.Current.CancellationToken);
            Directory.Delete(folder, recursive: true);
        }
    }
}
