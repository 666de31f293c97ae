using Microsoft.AspNetCore.Identity;

namespace Wexel.Data.Model;

/// <summary>Somebody who can sign in.</summary>
public sealed class Person : IdentityUser<Guid>
{
    public required string DisplayName { get; set; }

    /// <summary>Since when they can sign in no more; null while they can.</summary>
    public DateTimeOffset? DisabledAt { get; set; }

    /// <summary>When the last code of the second factor was taken, in steps of 30 seconds since 1970, so that none is taken twice (RFC 6238, section
    /// 5.2).</summary>
    public long? LastCodeStep { get; set; }

    /// <summary>The SHA-256 of that code.</summary>
    public string? LastCodeHash { get; set; }

    /// <summary>Whether they came by a code that was sent to their mail address: they do not belong to the house, and see what they are named at.</summary>
    public bool IsGuest { get; set; }

    /// <summary>Whether what they follow comes in one mail a day, and not each by itself.</summary>
    public bool MailsDaily { get; set; }

    public List<SignedIn> SignedIn { get; } = [];
}

/// <summary>The roles that people have; an administrator is a trainer too.</summary>
public static class Roles
{
    public const string Trainer = "trainer";
    public const string Administrator = "administrator";
}

/// <summary>A code that was sent to a mail address; there is one at most for each.</summary>
public sealed class MailedCode
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    /// <summary>The address, in capital letters.</summary>
    public required string Mail { get; init; }

    /// <summary>The code, hashed as passwords are.</summary>
    public required string Hash { get; init; }

    public DateTimeOffset ExpiresAt { get; init; }

    /// <summary>How often it was tried.</summary>
    public int Tries { get; set; }
}

/// <summary>People who are named together, as those who may see something.</summary>
public sealed class PeopleGroup
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; set; }
    public List<GroupMember> Members { get; } = [];
}

/// <summary>Somebody in a group.</summary>
public sealed class GroupMember
{
    public Guid GroupId { get; init; }
    public Guid PersonId { get; init; }
    public Person? Person { get; init; }
}

/// <summary>A browser in which somebody is signed in. Without its row the browser's cookie is worth nothing.</summary>
public sealed class SignedIn
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid PersonId { get; init; }

    /// <summary>The SHA-256 of what the browser's cookie holds, in lower-case hexadecimal.</summary>
    public required string KeyHash { get; init; }

    /// <summary>Who it is, as the cookie's scheme writes it.</summary>
    public required byte[] Ticket { get; set; }

    public DateTimeOffset Since { get; init; }
    public DateTimeOffset SeenAt { get; set; }
    public DateTimeOffset ExpiresAt { get; set; }

    /// <summary>The address that they signed in from; null where it is not known.</summary>
    public string? Address { get; init; }

    /// <summary>What the browser says it is; null where it says nothing.</summary>
    public string? Browser { get; init; }

    /// <summary>The provider by which they signed in; null where they did so by a password, a passkey or a code.</summary>
    public Guid? ProviderId { get; init; }

    /// <summary>Which session that is there (<c>sid</c>); null where it says none.</summary>
    public string? ProviderSession { get; init; }
}
