using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Delivering.VideoServices;

namespace Wexel.Server.VideoServices;

/// <summary>An account with its service.</summary>
/// <param name="Row">The account, as it is kept.</param>
/// <param name="Service">The service.</param>
/// <param name="Facts">What the service said of it last.</param>
/// <param name="Access">Acts for it.</param>
internal sealed record ConnectedAccount(VideoAccount Row, IVideoService Service, ServiceAccount Facts, ServiceAccess Access);

/// <summary>The accounts for which Wexel may act. Their tokens are protected where they are kept, and are written nowhere else.</summary>
internal sealed class VideoAccounts(
    WexelDb db,
    IDbContextFactory<WexelDb> databases,
    AllVideoServices services,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    /// <summary>A token is had anew so long before its time is over.</summary>
    private static readonly TimeSpan Ahead = TimeSpan.FromSeconds(20);

    private readonly IDataProtector _tokens = protection.CreateProtector("wexel", "video account");

    /// <summary>Whether its tokens can be read is found out when they are needed.</summary>
    internal async Task<ConnectedAccount?> FindAsync(Guid id, CancellationToken cancel) =>
        await db.VideoAccounts.AsNoTracking().FirstOrDefaultAsync(a => a.Id == id, cancel) is { } row && services.Find(row.Service) is { } service
            ? new ConnectedAccount(row, service, Facts(row), new ServiceAccess((refused, stop) => TokenAsync(service, id, refused, stop)))
            : null;

    /// <summary>What a service said of an account.</summary>
    internal static ServiceAccount Facts(VideoAccount row) => WexelJson.Read<ServiceAccount>(row.Facts);

    /// <summary>Keeps what somebody allowed: a new account, or one that was connected before.</summary>
    internal async Task<Result<VideoAccount>> ConnectAsync(IVideoService service, ServiceTokens tokens, CancellationToken cancel)
    {
        var access = new ServiceAccess((refused, _) => Task.FromResult<Result<string>>(refused is null ? tokens.Access : Withdrawn()));
        if (!(await service.AccountAsync(access, cancel)).Is(out var facts, out var problem))
            return problem;
        var row = await db.VideoAccounts.FirstOrDefaultAsync(a => a.Service == service.Code && a.AccountId == facts.Id, cancel);
        if (row is null)
            db.VideoAccounts.Add(
                row = new VideoAccount
                {
                    Service = service.Code,
                    AccountId = facts.Id,
                    Name = "",
                    Facts = "",
                    Tokens = "",
                }
            );
        (row.Name, row.Facts, row.Tokens, row.WithdrawnAt) = (facts.Name, WexelJson.Write(facts), Protected(tokens), null);
        row.ConnectedAt = row.FactsAt = clock.GetUtcNow();
        await db.SaveChangesAsync(cancel);
        return row;
    }

    /// <summary>Asks the service again what it says of an account.</summary>
    /// <returns>What stood in the way, or null.</returns>
    internal async Task<Problem?> LookAgainAsync(Guid id, CancellationToken cancel)
    {
        if (await FindAsync(id, cancel) is not { } account)
            return null;
        var now = clock.GetUtcNow();
        var asked = db.VideoAccounts.Where(a => a.Id == id);
        if (!(await account.Service.AccountAsync(account.Access, cancel)).Is(out var facts, out var problem))
        {
            await asked.ExecuteUpdateAsync(set => set.SetProperty(a => a.FactsAt, now), cancel);
            return problem;
        }

        var text = WexelJson.Write(facts);
        await asked.ExecuteUpdateAsync(
            set => set.SetProperty(a => a.FactsAt, now).SetProperty(a => a.Name, facts.Name).SetProperty(a => a.Facts, text),
            cancel
        );
        return null;
    }

    private string Protected(ServiceTokens tokens) => _tokens.Protect(WexelJson.Write(tokens));

    private static Problem Withdrawn() => new(ServiceProblem.Withdrawn, "The service does not let Wexel act for this account. Connect it again.");

    /// <summary>The token that is good now. Of several who need a new one, one asks for it.</summary>
    private async Task<Result<string>> TokenAsync(IVideoService service, Guid id, string? refused, CancellationToken cancel)
    {
        await using var own = await databases.CreateDbContextAsync(cancel);
        if (await KeptAsync(own, id, cancel) is { } good && IsGood(good, refused))
            return good.Access;
        await using var waiting = await databases.CreateDbContextAsync(cancel);
        await using var turn = await WorkHold.WaitAsync(waiting, $"video account {id:N}", cancel);
        if (await KeptAsync(own, id, cancel) is not { } kept)
            return Withdrawn();
        if (IsGood(kept, refused))
            return kept.Access;
        if ((await service.RefreshAsync(kept, cancel)).Is(out var fresh, out var problem))
        {
            var text = Protected(fresh);
            await own.VideoAccounts.Where(a => a.Id == id).ExecuteUpdateAsync(set => set.SetProperty(a => a.Tokens, text), cancel);
            return fresh.Access;
        }

        if (problem.Code == ServiceProblem.Withdrawn)
        {
            var now = clock.GetUtcNow();
            await own.VideoAccounts.Where(a => a.Id == id).ExecuteUpdateAsync(set => set.SetProperty(a => a.WithdrawnAt, now), cancel);
        }

        return problem;
    }

    private bool IsGood(ServiceTokens tokens, string? refused) => tokens.Access != refused && !(tokens.EndsAt - Ahead < clock.GetUtcNow());

    /// <summary>The tokens as they are kept; null where the account is gone, was withdrawn, or was protected by keys that are no more.</summary>
    private async Task<ServiceTokens?> KeptAsync(WexelDb own, Guid id, CancellationToken cancel)
    {
        var kept = await own.VideoAccounts.Where(a => a.Id == id && a.WithdrawnAt == null).Select(a => a.Tokens).FirstOrDefaultAsync(cancel);
        try
        {
            return kept is null ? null : WexelJson.Read<ServiceTokens>(_tokens.Unprotect(kept));
        }
        catch (System.Security.Cryptography.CryptographicException)
        {
            return null;
        }
    }
}
