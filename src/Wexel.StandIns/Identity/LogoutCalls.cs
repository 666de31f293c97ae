using Microsoft.Extensions.Options;
using Microsoft.IdentityModel.JsonWebTokens;
using Microsoft.IdentityModel.Tokens;
using OpenIddict.Server;

namespace Wexel.StandIns.Identity;

/// <summary>Tells applications that a session is over (OpenID Connect Back-Channel Logout 1.0, section 2.5).</summary>
internal sealed class LogoutCalls(ClientDesk clients, IOptionsMonitor<OpenIddictServerOptions> server, IHttpClientFactory http)
{
    internal const string Client = "logout";

    /// <summary>Tells all in which a session was used.</summary>
    /// <returns>What each of them answered.</returns>
    internal async Task<IReadOnlyList<string>> TellAsync(CrewSession session, string issuer, CancellationToken cancel)
    {
        var said = new List<string>();
        foreach (var client in clients.End(session.Id).Where(c => c.BackChannel.Length > 0))
        {
            var token = new JsonWebTokenHandler().CreateToken(
                new SecurityTokenDescriptor
                {
                    Issuer = issuer,
                    Audience = client.Id,
                    TokenType = "logout+jwt",
                    SigningCredentials = server.CurrentValue.SigningCredentials[0],
                    Claims = new Dictionary<string, object>
                    {
                        ["sub"] = session.Who.Subject,
                        ["sid"] = session.Id,
                        ["jti"] = Guid.NewGuid().ToString("N"),
                        ["events"] = new Dictionary<string, object>
                        {
                            ["http://schemas.openid.net/event/backchannel-logout"] = new Dictionary<string, object>(),
                        },
                    },
                }
            );
            try
            {
                using var body = new FormUrlEncodedContent([new("logout_token", token)]);
                using var answer = await http.CreateClient(Client).PostAsync(new Uri(client.BackChannel), body, cancel);
                said.Add($"{client.Id}: {(int)answer.StatusCode}");
            }
            catch (HttpRequestException failed)
            {
                said.Add($"{client.Id}: {failed.Message}");
            }
        }

        return said;
    }
}
