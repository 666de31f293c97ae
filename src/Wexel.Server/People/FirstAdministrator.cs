using Microsoft.Extensions.Options;
using Wexel.Core.People;
using Wexel.Server.Setup;

namespace Wexel.Server.People;

/// <summary>Where nobody may add people yet, the address that is named in the settings gets an account, and a mail to choose its password by.</summary>
internal sealed class FirstAdministrator(PeopleKeeper keeper, IOptions<WexelOptions> options)
{
    internal async Task AddAsync(CancellationToken cancel)
    {
        if (options.Value.FirstAdministrator is not { Length: > 0 } mail || await keeper.HasAdministratorAsync(cancel))
            return;
        if (!MailAddresses.IsOne(mail))
            throw new CannotStartException($"“{mail}” (Wexel__FirstAdministrator) is no mail address. Write it as name@place.");
        var name = mail[..mail.LastIndexOf('@')];
        await keeper.TakeAsync(await keeper.PlanAsync([new PersonLine(1, mail, name, PersonRole.Administrator, [])], cancel), invite: true, cancel);
    }
}
