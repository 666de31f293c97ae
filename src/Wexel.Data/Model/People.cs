using Microsoft.AspNetCore.Identity;

namespace Wexel.Data.Model;

/// <summary>Somebody who can sign in.</summary>
public sealed class Person : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }
}

/// <summary>The roles that people have.</summary>
public static class Roles
{
    public const string Trainer = "trainer";
}
