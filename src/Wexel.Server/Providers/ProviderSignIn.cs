using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.People;
using Wexel.Server.Remembering;
using Wexel.Server.SignIn;

namespace Wexel.Server.Providers;

/// <summary>Signs somebody in of whom a provider says who they are: who is new gets an account, and groups follow what is said.</summary>
internal sealed class ProviderSignIn(
    WexelDb db,
    UserManager<Person> people,
    SignInManager<Person> signIn,
    PeopleKeeper keeper,
    IDataProtectionProvider protection,
    Changes changes,
    SecurityLog log
)
{
    /// <summary>The token by which the provider is told later whose session is over.</summary>
    internal const string IdToken = "id_token";

    /// <summary>What a refusal says goes through the browser's address so that nobody else can make Wexel say something.</summary>
    private readonly ITimeLimitedDataProtector _refusals = protection.CreateProtector("wexel", "provider refusal").ToTimeLimitedDataProtector();

    internal async Task TakeAsync(TicketReceivedContext context, Guid id)
    {
        context.HandleResponse();
        var cancel = context.HttpContext.RequestAborted;
        if (await db.SignInProviders.AsNoTracking().Include(p => p.Groups).FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } provider)
        {
            Refuse(context, id, ProviderFaults.Gone);
            return;
        }

        var settings = ProviderScheme.Settings(provider);
        var said = Said(context.Principal!, settings);
        if (!(await PersonAsync(said, settings, id, cancel)).Is(out var person, out var problem))
        {
            log.Write(SignInEndpoints.What, said.Mail ?? said.Subject, "refused", $"{provider.Name}: {problem.Code}");
            context.Response.Redirect(
                $"/sign-in?refused={Uri.EscapeDataString(_refusals.Protect(problem.Sentence, TimeSpan.FromHours(1)))}{Wanted(context.ReturnUri)}"
            );
            return;
        }

        await FollowGroupsAsync(person, said, settings, cancel);
        var session = new AuthenticationProperties { IsPersistent = true };
        if (context.Properties?.GetTokenValue(IdToken) is { } token)
            session.StoreTokens([new AuthenticationToken { Name = IdToken, Value = token }]);
        var claims = new List<Claim> { new(SessionStore.Provider, id.ToString()) };
        if (context.Principal!.FindFirstValue(ProviderClaims.Session) is { } there)
            claims.Add(new Claim(SessionStore.ProviderSession, there));
        await signIn.SignInWithClaimsAsync(person, session, claims);
        log.Write(SignInEndpoints.What, person.Email, "done", provider.Name);
        context.Response.Redirect(context.ReturnUri ?? "/");
    }

    /// <summary>Sends somebody who cannot come in back to where one signs in.</summary>
    internal static void Refuse(HandleRequestContext<RemoteAuthenticationOptions> context, Guid provider, string code)
    {
        context.HandleResponse();
        Refuse(context.HttpContext, provider, code, (context as RemoteFailureContext)?.Properties?.RedirectUri ?? (context as AccessDeniedContext)?.ReturnUrl);
    }

    internal static void Refuse(HttpContext http, Guid provider, string code, string? wanted)
    {
        http.RequestServices.GetRequiredService<SecurityLog>().Write(SignInEndpoints.What, null, "refused", $"provider {provider}: {code}");
        http.Response.Redirect($"/sign-in?failed={code}&provider={provider}{Wanted(wanted)}");
    }

    /// <summary>What a refusal in an address says; null where it is none of ours, or an old one.</summary>
    internal string? Refusal(string kept)
    {
        try
        {
            return _refusals.Unprotect(kept);
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }

    private static string Wanted(string? to) => to is null or "/" ? "" : $"&to={Uri.EscapeDataString(to)}";

    private static ProvidedPerson Said(ClaimsPrincipal principal, ProviderSettings settings) =>
        new(
            principal.FindFirstValue(ProviderClaims.Subject)!,
            principal.FindFirstValue(ProviderClaims.Mail)?.Trim(),
            bool.TryParse(principal.FindFirstValue(ProviderClaims.MailIsVerified), out var verified) && verified,
            principal.FindFirstValue(ProviderClaims.Name),
            settings.GroupClaim.Length == 0 ? [] : [.. principal.FindAll(settings.GroupClaim).Select(c => c.Value)]
        );

    private async Task<Result<Person>> PersonAsync(ProvidedPerson said, ProviderSettings settings, Guid provider, CancellationToken cancel)
    {
        var scheme = provider.ToString("D");
        var person = await people.FindByLoginAsync(scheme, said.Subject);
        var isBound = person is not null;
        person ??= said.Mail is { } mail ? await people.FindByEmailAsync(mail) : null;
        var others = person is not null && !isBound && (await people.GetLoginsAsync(person)).Any(l => l.LoginProvider == scheme);
        if (said.Refused(settings, person is null ? null : new AccountThere(person.DisabledAt is not null, isBound, others)) is { } refused)
            return refused;
        if (isBound)
            return person!;
        if (person is null or { IsGuest: true })
        {
            var line = new PersonLine(1, said.Mail!, said.CalledHere, PersonRole.Learner, []);
            if (await keeper.TakeAsync(await keeper.PlanAsync([line], cancel), invite: false, cancel) is { } problem)
                return problem;
            person = (await people.FindByEmailAsync(said.Mail!))!;
            // What stood there as a guest was read before it belonged to the house.
            await db.Entry(person).ReloadAsync(cancel);
        }

        await people.AddLoginAsync(person, new UserLoginInfo(scheme, said.Subject, settings.Name));
        return person;
    }

    private async Task FollowGroupsAsync(Person person, ProvidedPerson said, ProviderSettings settings, CancellationToken cancel)
    {
        var now = await db.GroupMembers.Where(m => m.PersonId == person.Id).Select(m => m.GroupId).ToListAsync(cancel);
        var (joins, leaves) = said.GroupsBy(settings, now);
        foreach (var group in joins)
            await db.Database.ExecuteSqlAsync(
                $"""INSERT INTO "GroupMembers" ("GroupId", "PersonId") VALUES ({group}, {person.Id}) ON CONFLICT DO NOTHING""",
                cancel
            );
        await db.GroupMembers.Where(m => m.PersonId == person.Id && leaves.Contains(m.GroupId)).ExecuteDeleteAsync(cancel);
        changes.Changed("GroupMembers");
    }
}
