using Wexel.Server.Telemetry;

namespace Wexel.Server.SignIn;

/// <summary>Who did what from where, and how that ended, for whoever looks after the server. No password, code, key or cookie ever stands in it.</summary>
internal sealed class SecurityLog(ILoggerFactory logs, IHttpContextAccessor http, Figures figures)
{
    /// <summary>The category by which it is told from the rest of the log, and written to a file of its own.</summary>
    internal const string Category = "Wexel.Security";

    private const int LongestAccount = 100;

    private readonly ILogger _log = logs.CreateLogger(Category);

    /// <param name="what">What was done, such as "sign-in".</param>
    /// <param name="account">Whose account it was about; null where it is about none.</param>
    /// <param name="outcome">How it ended, such as "refused".</param>
    /// <param name="why">Why; may be empty.</param>
    internal void Write(string what, string? account, string outcome, string why = "")
    {
        var from = http.HttpContext?.Connection.RemoteIpAddress?.ToString() ?? "here";
        if (what == SignInEndpoints.What && outcome != "done")
            figures.SignInRefused();
        _log.Log(
            outcome == "done" ? LogLevel.Information : LogLevel.Warning,
            "{What} of {Account} from {Address}: {Outcome} {Why}",
            what,
            OneLine(account),
            from,
            outcome,
            why
        );
    }

    /// <summary>What somebody typed must not look like another line of the log.</summary>
    private static string OneLine(string? account)
    {
        var line = new string([.. (account ?? "nobody").Select(c => char.IsControl(c) ? ' ' : c)]);
        return line.Length <= LongestAccount ? line : line[..LongestAccount];
    }
}
