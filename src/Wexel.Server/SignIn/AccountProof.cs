using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

/// <summary>That it is somebody who sits at a browser and not one that was left open, before they change how they sign in.</summary>
internal static class AccountProof
{
    /// <summary>How lately somebody who has no password must have signed in.</summary>
    private static readonly TimeSpan Fresh = TimeSpan.FromMinutes(10);

    /// <summary>Whoever is signed in, where they know their password; where they have none, they must have signed in lately.</summary>
    /// <param name="password">What they typed.</param>
    /// <param name="field">Where they typed it.</param>
    /// <param name="http">The request.</param>
    /// <param name="people">The people.</param>
    /// <param name="sessions">Where they are signed in.</param>
    /// <param name="limits">How often it may be tried.</param>
    /// <param name="log">Where it is written down.</param>
    /// <param name="what">What they want to do.</param>
    internal static async Task<(Person? Person, ProblemHttpResult? Problem)> WhoAsync(
        string password,
        string field,
        HttpContext http,
        UserManager<Person> people,
        SessionStore sessions,
        SignInLimits limits,
        SecurityLog log,
        string what
    )
    {
        var person = (await people.GetUserAsync(http.User))!;
        if (!await people.HasPasswordAsync(person))
            return await sessions.IsFreshAsync(http.User.Session(), Fresh)
                ? (person, null)
                : (null, Refused(log, what, person, "not lately", new Problem("sign-in-again", "Sign out and in again first, to show that it is you.", field)));
        using var once = await limits.BeginAsync(http, person.Email!);
        if (once.Wait is not null)
        {
            log.Write(what, person.Email, "refused", "too many tries");
            return (null, once.TooOften(http, "sign-in-too-often", field));
        }

        if (await people.CheckPasswordAsync(person, password))
            return (person, null);
        once.Failed();
        return (null, Refused(log, what, person, "wrong password", new Problem("password-wrong", "That is not your password now. Type it again.", field)));
    }

    private static ProblemHttpResult Refused(SecurityLog log, string what, Person person, string why, Problem problem)
    {
        log.Write(what, person.Email, "refused", why);
        return Problems.Answer(problem, StatusCodes.Status403Forbidden);
    }
}
