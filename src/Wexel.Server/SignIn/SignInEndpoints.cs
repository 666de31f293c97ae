using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Wexel.Core;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.SignIn;

internal sealed record SignInRequest(string Email, string Password);

internal sealed record Me(string Name, string Email, bool Trainer);

internal static class SignInEndpoints
{
    internal static void MapSignIn(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sign-in", SignInAsync).AllowAnonymous().WithName("SignIn");
        routes.MapPost("/api/sign-out", SignOutAsync).RequireAuthorization().WithName("SignOut");
        routes.MapGet("/api/me", MeAsync).RequireAuthorization().WithName("Me");
    }

    private static async Task<Results<Ok<Me>, ProblemHttpResult>> SignInAsync(SignInRequest request, SignInManager<Person> signIn, UserManager<Person> people)
    {
        var person = await people.FindByEmailAsync(request.Email);
        if (person is null || !(await signIn.PasswordSignInAsync(person, request.Password, isPersistent: true, lockoutOnFailure: true)).Succeeded)
            return Problems.Of(new Problem("sign-in-failed", "That address and password do not go together. Check both and try again.", "password"), StatusCodes.Status401Unauthorized);
        return TypedResults.Ok(new Me(person.DisplayName, person.Email!, await people.IsInRoleAsync(person, Roles.Trainer)));
    }

    private static async Task<NoContent> SignOutAsync(SignInManager<Person> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<Me>, UnauthorizedHttpResult>> MeAsync(ClaimsPrincipal user, UserManager<Person> people) =>
        await people.GetUserAsync(user) is { } person
            ? TypedResults.Ok(new Me(person.DisplayName, person.Email!, user.IsInRole(Roles.Trainer)))
            : TypedResults.Unauthorized();

    internal static Guid Id(this ClaimsPrincipal user) => Guid.Parse(user.FindFirstValue(ClaimTypes.NameIdentifier)!);
}
