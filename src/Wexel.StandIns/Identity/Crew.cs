using System.Security.Claims;
using System.Security.Cryptography;

namespace Wexel.StandIns.Identity;

/// <summary>Somebody whom the provider knows.</summary>
/// <param name="Name">What they sign in with.</param>
/// <param name="FullName">Their name.</param>
/// <param name="Mail">Their mail address.</param>
/// <param name="Groups">The groups that it says they are in.</param>
internal sealed record CrewMember(string Name, string FullName, string Mail, IReadOnlyList<string> Groups)
{
    /// <summary>Who they are to others, for good.</summary>
    internal string Subject => Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.UTF8.GetBytes(Name)))[..16];

    /// <summary>The password of everybody here.</summary>
    internal const string Password = "Tide-2026";

    internal static IReadOnlyList<CrewMember> All { get; } =
    [
        new("wes", "Wes Calder", "wes.calder@brackwater.example", ["deck", "crew"]),
        new("ida", "Ida Fenn", "ida.fenn@brackwater.example", ["ticket desk", "crew"]),
        new("olu", "Olu Marsh", "olu.marsh@brackwater.example", ["ticket desk", "harbour office"]),
        new("joss", "Joss Reed", "joss.reed@brackwater.example", ["ticket desk"]),
    ];

    internal static CrewMember? Find(string? name) => All.FirstOrDefault(p => p.Name.Equals(name?.Trim(), StringComparison.OrdinalIgnoreCase));
}

/// <summary>What goes wrong at the provider, where somebody wants it to.</summary>
internal enum ProviderFault
{
    None,
    Late,
    WronglySigned,
    AnotherNonce,
    NoMail,
    UnverifiedMail,
    ClockAhead,
    ClockBehind,
    AnotherAudience,
}

/// <summary>A session in a browser.</summary>
/// <param name="Id">Its number, as others are told (<c>sid</c>).</param>
/// <param name="Who">Whose it is.</param>
/// <param name="Fault">What is to go wrong in it.</param>
internal sealed record CrewSession(string Id, CrewMember Who, ProviderFault Fault)
{
    internal const string Scheme = "crew";

    internal ClaimsPrincipal AsCookie() =>
        new(new ClaimsIdentity([new Claim("sid", Id), new Claim("name", Who.Name), new Claim("fault", Fault.ToString())], Scheme));

    internal static CrewSession? Read(ClaimsPrincipal? cookie) =>
        CrewMember.Find(cookie?.FindFirst("name")?.Value) is { } who
            ? new CrewSession(cookie!.FindFirst("sid")!.Value, who, Enum.Parse<ProviderFault>(cookie.FindFirst("fault")!.Value))
            : null;
}
