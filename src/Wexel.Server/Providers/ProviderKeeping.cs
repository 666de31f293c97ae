using Microsoft.AspNetCore.Authentication.OpenIdConnect;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Npgsql;
using Wexel.Core;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Setup;

namespace Wexel.Server.Providers;

/// <param name="Id">Which.</param>
/// <param name="Settings">How it is set up.</param>
/// <param name="HasSecret">Whether a secret is kept for it; it is never shown.</param>
/// <param name="Back">The address to which it sends people back.</param>
/// <param name="SignedOut">The address at which it says that somebody has signed out there.</param>
/// <param name="AfterSignOut">The address to which it sends people who have signed out.</param>
/// <param name="People">How many have signed in by it.</param>
internal sealed record ProviderView(Guid Id, ProviderSettings Settings, bool HasSecret, Uri Back, Uri SignedOut, Uri AfterSignOut, int People);

/// <param name="Settings">How it is set up.</param>
/// <param name="Secret">The secret that it knows Wexel by; null where it stays as it is, empty for none.</param>
internal sealed record ProviderRequest(ProviderSettings Settings, string? Secret = null);

internal sealed record ProviderAdded(Guid Id);

/// <summary>What was found where a provider was tried.</summary>
/// <param name="Sentence">What was found.</param>
internal sealed record ProviderTried(string Sentence);

/// <summary>The providers by which people sign in, for administrators.</summary>
internal static class ProviderKeeping
{
    internal static void MapProviders(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/providers").RequireAuthorization(policy => policy.RequireRole(Roles.Administrator));
        group.MapGet("", ListAsync).WithName("Providers");
        group.MapPost("", AddAsync).WithName("AddProvider");
        group.MapPut("{id:guid}", SaveAsync).WithName("SaveProvider");
        group.MapDelete("{id:guid}", RemoveAsync).WithName("RemoveProvider");
        group.MapPost("{id:guid}/try", TryAsync).WithName("TryProvider");
    }

    private static async Task<Ok<IReadOnlyList<ProviderView>>> ListAsync(WexelDb db, IOptions<WexelOptions> options, CancellationToken cancel)
    {
        var people = (await db.UserLogins.GroupBy(l => l.LoginProvider).Select(g => new { g.Key, Count = g.Count() }).ToListAsync(cancel)).ToDictionary(
            g => g.Key,
            g => g.Count
        );
        Uri At(string path) => new(options.Value.PublicAddress, path);
        return TypedResults.Ok<IReadOnlyList<ProviderView>>([
            .. (await db.SignInProviders.AsNoTracking().Include(p => p.Groups).OrderBy(p => p.Name).ToListAsync(cancel)).Select(p => new ProviderView(
                p.Id,
                ProviderScheme.Settings(p),
                p.Secret is not null,
                At(ProviderScheme.Back(p.Id)),
                At(ProviderScheme.SignedOut(p.Id)),
                At("sign-in"),
                people.GetValueOrDefault(p.Id.ToString("D"))
            )),
        ]);
    }

    private static async Task<Results<Ok<ProviderAdded>, ProblemHttpResult>> AddAsync(
        ProviderRequest request,
        ProviderKeeper keeper,
        CancellationToken cancel
    ) =>
        (await keeper.SaveAsync(null, request.Settings, request.Secret, cancel)).Is(out var id, out var problem)
            ? TypedResults.Ok(new ProviderAdded(id))
            : Problems.Answer(problem);

    private static async Task<Results<NoContent, ProblemHttpResult>> SaveAsync(
        Guid id,
        ProviderRequest request,
        ProviderKeeper keeper,
        CancellationToken cancel
    ) =>
        (await keeper.SaveAsync(id, request.Settings, request.Secret, cancel)).Is(out _, out var problem) ? TypedResults.NoContent() : Problems.Answer(problem);

    /// <summary>Removes a provider. Who signed in by it is signed out; their accounts stay, and another way in is a password by mail.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveAsync(Guid id, ProviderKeeper keeper, CancellationToken cancel) =>
        await keeper.RemoveAsync(id, cancel) ? TypedResults.NoContent() : Problems.NotThere("provider");

    private static async Task<Results<Ok<ProviderTried>, ProblemHttpResult>> TryAsync(Guid id, ProviderKeeper keeper, CancellationToken cancel) =>
        (await keeper.TryAsync(id, cancel)).Is(out var sentence, out var problem) ? TypedResults.Ok(new ProviderTried(sentence)) : Problems.Answer(problem);
}

/// <summary>Keeps providers.</summary>
internal sealed class ProviderKeeper(
    WexelDb db,
    ProviderScheme schemes,
    IOptionsMonitor<OpenIdConnectOptions> handlers,
    IOptions<WexelOptions> options,
    SignIn.SessionStore sessions
)
{
    /// <param name="id">Which; null for a new one.</param>
    /// <param name="settings">How it is to be.</param>
    /// <param name="secret">The secret; null where it stays as it is, empty for none.</param>
    /// <param name="cancel">Stops it.</param>
    /// <param name="as">Which number a new one has; null for any.</param>
    internal async Task<Result<Guid>> SaveAsync(Guid? id, ProviderSettings settings, string? secret, CancellationToken cancel, Guid? @as = null)
    {
        if (!settings.Accepted(address => ProviderScheme.MayBePlain(options.Value, address)).Is(out var told, out var problem))
            return problem;
        var groups = told.Groups.Select(g => g.Group).ToHashSet();
        if (await db.PeopleGroups.CountAsync(g => groups.Contains(g.Id), cancel) < groups.Count)
            return new Problem("provider-group-gone", "A group is not there any more. Load the page again.", "groups");
        var provider = id is null
            ? new SignInProvider
            {
                Id = @as ?? Guid.CreateVersion7(),
                Name = "",
                Address = "",
                Client = "",
                Scopes = "",
                GroupClaim = "",
            }
            : await db.SignInProviders.Include(p => p.Groups).FirstOrDefaultAsync(p => p.Id == id, cancel);
        if (provider is null)
            return new Problem("provider-gone", "This provider is not there any more. Load the page again.");
        if (id is null)
            db.SignInProviders.Add(provider);
        (provider.Name, provider.Address, provider.Client) = (told.Name, told.Address, told.Client);
        (provider.Scopes, provider.GroupClaim, provider.OwnsAddresses) = (told.Scopes, told.GroupClaim, told.OwnsAddresses);
        if (secret is not null)
            provider.Secret = secret.Length == 0 ? null : schemes.Protected(secret);
        provider.Groups.RemoveAll(g => !told.Groups.Contains(new GroupMapping(g.Value, g.GroupId)));
        provider.Groups.AddRange(
            told.Groups.Where(g => !provider.Groups.Exists(known => (known.Value, known.GroupId) == (g.Value, g.Group)))
                .Select(g => new ProviderGroup
                {
                    ProviderId = provider.Id,
                    Value = g.Value,
                    GroupId = g.Group,
                })
        );
        provider.Version++;
        try
        {
            await db.SaveChangesAsync(cancel);
            return provider.Id;
        }
        catch (DbUpdateException failed) when (failed.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation })
        {
            return new Problem("provider-name-taken", $"There is a provider “{told.Name}” already. Give this one another name.", "name");
        }
    }

    internal async Task<bool> RemoveAsync(Guid id, CancellationToken cancel)
    {
        var login = id.ToString("D");
        await using var all = await db.Database.BeginTransactionAsync(cancel);
        await db.UserLogins.Where(l => l.LoginProvider == login).ExecuteDeleteAsync(cancel);
        var removed = await db.SignInProviders.Where(p => p.Id == id).ExecuteDeleteAsync(cancel) > 0;
        await all.CommitAsync(cancel);
        sessions.Forget();
        return removed;
    }

    /// <summary>Asks a provider what it can do.</summary>
    internal async Task<Result<string>> TryAsync(Guid id, CancellationToken cancel)
    {
        if (await db.SignInProviders.AsNoTracking().FirstOrDefaultAsync(p => p.Id == id, cancel) is not { } provider)
            return new Problem("provider-gone", "This provider is not there any more. Load the page again.");
        var manager = handlers.Get(ProviderScheme.For(provider).Name).ConfigurationManager!;
        try
        {
            manager.RequestRefresh();
            var there = await manager.GetConfigurationAsync(cancel);
            if (there.Issuer.TrimEnd('/') != provider.Address.TrimEnd('/'))
                return new Problem("provider-issuer", $"It answers, and calls itself {there.Issuer}. Write that as its address.", "address");
            return $"It answers, with {(there.SigningKeys.Count == 1 ? "one key" : $"{there.SigningKeys.Count} keys")} to sign by"
                + (string.IsNullOrEmpty(there.EndSessionEndpoint) ? "; it does not sign people out." : ", and signs people out too.");
        }
        catch (Exception away) when (away is InvalidOperationException or HttpRequestException or IOException)
        {
            var code = ProviderFaults.From(away);
            return ProviderFaults.Problem(code == "odd" ? ProviderFaults.Away : code, provider.Name);
        }
    }
}
