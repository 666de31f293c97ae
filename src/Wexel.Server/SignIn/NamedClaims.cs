using System.Security.Claims;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.Options;
using Wexel.Data.Model;

namespace Wexel.Server.SignIn;

/// <summary>Puts a person's name for people into the cookie.</summary>
internal sealed class NamedClaims(UserManager<Person> people, RoleManager<IdentityRole<Guid>> roles, IOptions<IdentityOptions> options)
    : UserClaimsPrincipalFactory<Person, IdentityRole<Guid>>(people, roles, options)
{
    protected override async Task<ClaimsIdentity> GenerateClaimsAsync(Person user)
    {
        var identity = await base.GenerateClaimsAsync(user);
        identity.AddClaim(new Claim(ClaimTypes.GivenName, user.DisplayName));
        return identity;
    }
}
