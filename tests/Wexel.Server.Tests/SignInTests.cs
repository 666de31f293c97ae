using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Tests;

/// <summary>Who is let in, who is held back, and when that ends.</summary>
public sealed class SignInTests(ServerFixture fixture) : IClassFixture<ServerFixture>
{
    private const string Tam = "tam.brook@brackwater.example";
    private const string Nell = "nell.howe@brackwater.example";
    private const string Ana = "ana.quill@brackwater.example";

    private static Task<HttpResponseMessage> TryAsync(HttpClient client, string email, string password, string? code = null) =>
        client.PostAsJsonAsync(
            "/api/sign-in",
            new
            {
                email,
                password,
                code,
            }
        );

    private static string CookieOf(HttpResponseMessage signedIn) =>
        signedIn.Headers.GetValues("Set-Cookie").First(c => c.StartsWith("wexel=", StringComparison.Ordinal)).Split(';')[0];

    private async Task<HttpStatusCode> WithAsync(string cookie)
    {
        var request = new HttpRequestMessage(HttpMethod.Get, "/api/me") { Headers = { { "Cookie", cookie } } };
        return (await fixture.Server.CreateClient(new WebApplicationFactoryClientOptions { HandleCookies = false }).SendAsync(request)).StatusCode;
    }

    [Fact]
    public async Task A_cookie_is_worth_nothing_after_signing_out()
    {
        var client = fixture.Anonymous();
        var cookie = CookieOf(await TryAsync(client, ServerFixture.Learner, ServerFixture.Password));
        (await WithAsync(cookie)).ShouldBe(HttpStatusCode.OK);
        (await client.PostAsync("/api/sign-out", null)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await WithAsync(cookie)).ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task Sessions_are_listed_and_each_can_be_ended_from_another()
    {
        var (here, there) = (fixture.Anonymous(), fixture.Anonymous());
        await TryAsync(here, Ana, ServerFixture.Password);
        there.DefaultRequestHeaders.Add("User-Agent", "Ferry/1.0");
        await TryAsync(there, Ana, ServerFixture.Password);
        var sessions = (await here.JsonAsync("/api/me/sessions")).EnumerateArray().ToList();
        sessions.Count.ShouldBe(2);
        var other = sessions.Single(s => !s.GetProperty("here").GetBoolean());
        other.GetProperty("browser").GetString().ShouldBe("Ferry/1.0");
        // Nobody else can end it, or see it.
        (await (await fixture.SignedInAsync()).DeleteAsync($"/api/me/sessions/{other.GetProperty("id").GetString()}")).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await here.DeleteAsync($"/api/me/sessions/{other.GetProperty("id").GetString()}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await there.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await here.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_changed_password_ends_all_other_sessions_and_a_disabled_person_has_none()
    {
        var (here, there) = (fixture.Anonymous(), fixture.Anonymous());
        await TryAsync(here, Nell, ServerFixture.Password);
        await TryAsync(there, Nell, ServerFixture.Password);
        (await here.PutAsJsonAsync("/api/me/password", new { now = "not it at all", wanted = "rope-lantern-gull" })).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        foreach (var easy in new[] { "short", "password12", "nell-rope-lantern", "aaaaaaaaaaaa" })
        {
            var weak = await here.PutAsJsonAsync("/api/me/password", new { now = ServerFixture.Password, wanted = easy });
            weak.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, easy);
            (await weak.ProblemAsync()).GetProperty("field").GetString().ShouldBe("wanted");
        }

        (await here.PutAsJsonAsync("/api/me/password", new { now = ServerFixture.Password, wanted = "rope-lantern-gull" })).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await there.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await here.GetAsync("/api/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await TryAsync(fixture.Anonymous(), Nell, ServerFixture.Password)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);

        using (var scope = fixture.Server.Services.CreateScope())
            await scope
                .ServiceProvider.GetRequiredService<WexelDb>()
                .Users.Where(u => u.Email == Nell)
                .ExecuteUpdateAsync(set => set.SetProperty(u => u.DisabledAt, DateTimeOffset.UtcNow));
        await here.UntilStatusAsync("/api/me", HttpStatusCode.Unauthorized);
        (await TryAsync(fixture.Anonymous(), Nell, "rope-lantern-gull")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    /// <summary>A stranger who tries and tries is held back, also with the right password at last; whoever has signed in here before is not.</summary>
    [Fact]
    public async Task Strangers_cannot_guess_for_long_and_cannot_lock_out_whose_account_it_is()
    {
        var own = fixture.Anonymous();
        (await TryAsync(own, Tam, ServerFixture.Password)).EnsureSuccessStatusCode();
        var stranger = fixture.Anonymous();
        var answers = new List<HttpStatusCode>();
        for (var i = 0; i < 15; i++)
            answers.Add((await TryAsync(stranger, Tam, $"guess {i}")).StatusCode);
        answers.Count(a => a == HttpStatusCode.Unauthorized).ShouldBeInRange(8, 11);
        var held = await TryAsync(stranger, Tam, ServerFixture.Password);
        held.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        held.Headers.RetryAfter!.Delta!.Value.ShouldBeGreaterThan(TimeSpan.Zero);
        (await held.ProblemAsync()).GetProperty("detail").GetString()!.ShouldContain("Wait");
        await own.PostAsync("/api/sign-out", null);
        (await TryAsync(own, Tam, ServerFixture.Password)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task An_address_that_tries_many_accounts_is_held_back()
    {
        await using var server = fixture.Server.WithWebHostBuilder(host => host.UseSetting("Wexel:SignInsAnAddress", "20"));
        var client = server.CreateClient();
        var answers = new List<HttpStatusCode>();
        for (var i = 0; i < 30; i++)
            answers.Add((await TryAsync(client, $"somebody{i}@brackwater.example", "a guess")).StatusCode);
        answers.Count(a => a == HttpStatusCode.TooManyRequests).ShouldBeInRange(8, 10);
    }

    /// <summary>Who has an account must not be told by how long the answer takes: both hash a password.</summary>
    [Fact]
    public async Task An_unknown_address_is_answered_as_a_known_one_is()
    {
        var counted = new CountingHasher();
        await using var server = fixture.Server.WithWebHostBuilder(host =>
            host.ConfigureServices(services => services.AddSingleton<IPasswordHasher<Person>>(counted))
        );
        var client = server.CreateClient();
        (await TryAsync(client, "nobody@brackwater.example", "a guess")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        counted.Verified.ShouldBe(1);
        (await TryAsync(client, ServerFixture.Learner, "a guess")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        counted.Verified.ShouldBe(2);
    }

    private sealed class CountingHasher : IPasswordHasher<Person>
    {
        internal int Verified { get; private set; }

        public string HashPassword(Person user, string password) => "hash";

        public PasswordVerificationResult VerifyHashedPassword(Person user, string hashedPassword, string providedPassword)
        {
            Verified++;
            return PasswordVerificationResult.Failed;
        }
    }

    /// <summary>What is stored says how often it was hashed (ASP.NET Core Identity, version 3: the iterations stand in bytes 5 to 8).</summary>
    [Fact]
    public void Passwords_are_hashed_as_often_as_is_recommended_today()
    {
        new Setup.WexelOptions().PasswordIterations.ShouldBeGreaterThanOrEqualTo(210_000);
        using var scope = fixture.Server.Services.CreateScope();
        var stored = Convert.FromBase64String(
            scope.ServiceProvider.GetRequiredService<IPasswordHasher<Person>>().HashPassword(new Person { DisplayName = "" }, "x")
        );
        // HMAC-SHA-512 is 2; the tests' servers hash a thousand times.
        (
            System.Buffers.Binary.BinaryPrimitives.ReadUInt32BigEndian(stored.AsSpan(1)),
            System.Buffers.Binary.BinaryPrimitives.ReadUInt32BigEndian(stored.AsSpan(5))
        ).ShouldBe((2u, 1000u));
    }

    /// <summary>The codes are reckoned here by RFC 6238 and RFC 4226, apart from what the server uses.</summary>
    [Fact]
    public async Task A_second_factor_is_asked_for_once_it_is_on_and_no_code_is_taken_twice()
    {
        var client = await fixture.SignedInAsync();
        (await client.PostAsJsonAsync("/api/me/second-factor", new { password = "wrong" })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var begun = await (
            await client.PostAsJsonAsync("/api/me/second-factor", new { password = ServerFixture.Password })
        ).Content.ReadFromJsonAsync<JsonElement>();
        var key = begun.GetProperty("key").GetString()!;
        begun.GetProperty("picture").GetString()!.ShouldStartWith("<svg");
        (await client.PutAsJsonAsync("/api/me/second-factor", new { code = "000000" })).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var first = Code(key, 0);
        var on = await client.PutAsJsonAsync("/api/me/second-factor", new { code = first });
        on.StatusCode.ShouldBe(HttpStatusCode.OK);
        var recovery = (await on.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("codes").EnumerateArray().Select(c => c.GetString()!).ToList();
        recovery.Count.ShouldBe(10);
        try
        {
            var asked = await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password);
            asked.StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            (await asked.ProblemAsync()).GetProperty("code").GetString().ShouldBe("sign-in-code");
            // Without the password nobody is told that there is a second factor.
            (await (await TryAsync(client, ServerFixture.Trainer, "wrong")).ProblemAsync()).GetProperty("code").GetString().ShouldBe("sign-in-failed");
            (await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password, first)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
            (await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password, Code(key, 1))).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password, recovery[0])).StatusCode.ShouldBe(HttpStatusCode.OK);
            (await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password, recovery[0])).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        }
        finally
        {
            var off = new HttpRequestMessage(HttpMethod.Delete, "/api/me/second-factor")
            {
                Content = JsonContent.Create(new { password = ServerFixture.Password }),
            };
            (await client.SendAsync(off)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        (await TryAsync(client, ServerFixture.Trainer, ServerFixture.Password)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    private static string Code(string key, int later)
    {
        const string Letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
        var (bits, secret, value) = (0, new List<byte>(), 0);
        foreach (var letter in key)
        {
            value = (value << 5) | Letters.IndexOf(letter, StringComparison.Ordinal);
            bits += 5;
            if (bits >= 8)
                secret.Add((byte)(value >> (bits -= 8)));
        }

        var step = BitConverter.GetBytes(System.Net.IPAddress.HostToNetworkOrder((DateTimeOffset.UtcNow.ToUnixTimeSeconds() / 30) + later));
#pragma warning disable CA5350 // The standard's own function.
        var hash = HMACSHA1.HashData(secret.ToArray(), step);
#pragma warning restore CA5350
        var at = hash[^1] & 0x0F;
        var number = ((hash[at] & 0x7F) << 24) | (hash[at + 1] << 16) | (hash[at + 2] << 8) | hash[at + 3];
        return (number % 1_000_000).ToString("000000", System.Globalization.CultureInfo.InvariantCulture);
    }

    [Fact]
    public async Task The_security_log_says_who_from_where_what_and_how_it_ended_and_no_secret()
    {
        var file = Path.Combine(fixture.Data, "security");
        await using (var server = fixture.Server.WithWebHostBuilder(host => host.UseSetting("Wexel:SecurityLog", file)))
        {
            var client = server.CreateClient();
            await TryAsync(client, ServerFixture.Learner, "a-wrong-secret");
            await TryAsync(client, "forged\nline@brackwater.example", "another-secret");
            await TryAsync(client, ServerFixture.Learner, ServerFixture.Password);
            await client.PostAsync("/api/sign-out", null);
        }

        var written = string.Concat(Directory.EnumerateFiles(fixture.Data, "security*").Select(File.ReadAllText));
        written.ShouldContain($"sign-in of {ServerFixture.Learner} from here: refused wrong password");
        written.ShouldContain($"sign-in of {ServerFixture.Learner} from here: done");
        written.ShouldContain("sign-out");
        written.Split('\n').ShouldAllBe(line => line.Length == 0 || char.IsAsciiDigit(line[0]));
        foreach (var secret in new[] { "a-wrong-secret", "another-secret", ServerFixture.Password })
            written.ShouldNotContain(secret);
    }
}
