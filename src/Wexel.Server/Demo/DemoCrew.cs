using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using Wexel.Core.People;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.People;
using Wexel.Server.Providers;
using Wexel.Server.Setup;

namespace Wexel.Server.Demo;

/// <summary>The people of the demo's house, their groups, and the provider by which more of them come.</summary>
internal sealed class DemoCrew(WexelDb db, UserManager<Person> people, PeopleKeeper keeper, ProviderKeeper providers, IOptions<WexelOptions> options)
{
    /// <summary>The demo's provider, whose number is in the addresses that the stand-ins are told.</summary>
    private static readonly Guid CrewPass = Guid.Parse("0199c3e0-0000-7000-8000-00000000c0de");

    private const string Desk = "Ticket desk",
        Deck = "Deck crew",
        Office = "Harbour office",
        New = "New this season";

    private static readonly PersonLine[] All =
    [
        Line("Mara Tarn", "mara.tarn", PersonRole.Administrator, Office),
        Line("Pia Strand", "pia.strand", PersonRole.Trainer, Deck),
        Line("Joss Reed", "joss.reed", PersonRole.Learner, Desk),
        Line("Ana Quill", "ana.quill", PersonRole.Learner, Desk),
        Line("Tam Brook", "tam.brook", PersonRole.Learner, Desk, New),
        Line("Nell Howe", "nell.howe", PersonRole.Learner, Desk, New),
        Line("Dag Hollis", "dag.hollis", PersonRole.Learner, Deck),
        Line("Kit Amory", "kit.amory", PersonRole.Learner, Deck),
        Line("Olu Marsh", "olu.marsh", PersonRole.Learner, Desk, Office),
        Line("Rory Vane", "rory.vane", PersonRole.Learner, Deck, New),
        Line("Sib Lund", "sib.lund", PersonRole.Learner, Office),
        Line("Una Perrin", "una.perrin", PersonRole.Learner, Office),
    ];

    private static PersonLine Line(string name, string mail, PersonRole role, params string[] groups) =>
        new(0, $"{mail}@brackwater.example", name, role, groups);

    internal async Task AddAsync(string password, CancellationToken cancel)
    {
        if (await keeper.TakeAsync(await keeper.PlanAsync(All, cancel), invite: false, cancel) is { } problem)
            throw new InvalidOperationException(problem.Sentence);
        foreach (var line in All)
        {
            var person = (await people.FindByEmailAsync(line.Mail))!;
            if (!await people.HasPasswordAsync(person))
                await people.AddPasswordAsync(person, password);
        }

        if (options.Value.PracticeProvider is not { } address || await db.SignInProviders.AnyAsync(p => p.Id == CrewPass, cancel))
            return;
        var groups = await db.PeopleGroups.ToDictionaryAsync(g => g.Name, g => g.Id, cancel);
        var settings = new ProviderSettings(
            "Crew pass",
            address.AbsoluteUri,
            "wexel",
            "groups",
            "groups",
            [new("ticket desk", groups[Desk]), new("deck", groups[Deck]), new("harbour office", groups[Office])],
            OwnsAddresses: false
        );
        if (!(await providers.SaveAsync(null, settings, "tide-table", cancel, CrewPass)).Is(out _, out var unusable))
            throw new InvalidOperationException(unusable.Sentence);
    }
}
