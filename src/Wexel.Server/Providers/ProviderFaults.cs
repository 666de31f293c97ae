using Microsoft.AspNetCore.Authentication;
using Microsoft.IdentityModel.Protocols.OpenIdConnect;
using Microsoft.IdentityModel.Tokens;
using Wexel.Core;
using Wexel.Delivering.Http;

namespace Wexel.Server.Providers;

/// <summary>In how many ways signing in by a provider fails, and what is said then. Only a code goes through the browser's address.</summary>
internal static class ProviderFaults
{
    internal const string Declined = "declined",
        Away = "away",
        Gone = "gone";

    /// <summary>What is said of each, where {0} is the provider's name.</summary>
    private static readonly Dictionary<string, string> Sentences = new()
    {
        [Declined] = "You did not let {0} tell Wexel who you are. Sign in again if you want to.",
        [Away] = "{0} did not answer in time. Try again in a few minutes; nothing of yours is lost.",
        [Gone] = "This way of signing in is not there any more. Take another one.",
        ["begun"] = "This sign-in was begun in another browser, or too long ago, or was used already. Begin it again here.",
        ["nonce"] = "The answer of {0} belongs to another sign-in. Begin again; if it happens once more, tell whoever looks after Wexel.",
        ["signature"] = "The answer was not signed by {0}, so it is not believed. Tell whoever looks after Wexel before you try again.",
        ["clock"] =
            "The clocks of {0} and of Wexel are too far apart, or this took too long. Try again; if it happens once more, tell whoever looks after "
            + "Wexel to check both clocks.",
        ["audience"] = "The answer of {0} is meant for another application. Tell whoever looks after Wexel.",
        ["client"] = "{0} does not know Wexel, or Wexel’s secret is another there. Whoever looks after Wexel finds both in the Kit, under people.",
        ["inside"] = "{0} stands on this machine or an address that only machines talk to, and is not allowed. Whoever looks after the server can allow it.",
        ["odd"] = "{0} answered something that Wexel does not understand. Try again; if it happens once more, tell whoever looks after Wexel.",
    };

    /// <summary>The code of what went wrong.</summary>
    internal static string From(Exception? failure)
    {
        for (var reason = failure; reason is not null; reason = reason.InnerException)
        {
            var code = reason switch
            {
                OpenIdConnectProtocolInvalidNonceException => "nonce",
                SecurityTokenInvalidSignatureException or SecurityTokenSignatureKeyNotFoundException => "signature",
                SecurityTokenExpiredException or SecurityTokenNotYetValidException or SecurityTokenInvalidLifetimeException => "clock",
                SecurityTokenInvalidAudienceException or SecurityTokenInvalidIssuerException => "audience",
                OpenIdConnectProtocolException refused when Says(refused, "invalid_client", "unauthorized_client") => "client",
                OpenIdConnectProtocolException refused when Says(refused, "invalid_grant") => "begun",
                AuthenticationFailureException failed when failed.Message.Contains("orrelation", StringComparison.Ordinal) || Says(failed, "state") => "begun",
                OperationCanceledException or TimeoutException => Away,
                OutsideOnly.InsideException => "inside",
                // What could not be read says so around why it could not.
                HttpRequestException or IOException when reason.InnerException is null or not HttpRequestException => Away,
                _ => null,
            };
            if (code is not null)
                return code;
        }

        return "odd";
    }

    private static bool Says(Exception failure, params string[] words) =>
        Array.Exists(words, w => failure.Message.Contains(w, StringComparison.OrdinalIgnoreCase));

    /// <summary>What is said of a code that came by an address; null where there is no such.</summary>
    internal static string? Sentence(string code, string provider) =>
        Sentences.TryGetValue(code, out var sentence) ? string.Format(System.Globalization.CultureInfo.InvariantCulture, sentence, provider) : null;

    internal static Problem Problem(string code, string provider) => new($"provider-{code}", Sentence(code, provider)!, "address");
}
