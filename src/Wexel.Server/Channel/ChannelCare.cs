using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Kit;
using Wexel.Core.Lessons;
using Wexel.Core.Outlets.Channels;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Making.Storage;
using Wexel.Server.People;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>What a channel has besides its settings: a short address that no other has.</summary>
internal sealed class ChannelCare(WexelDb db, PeopleKeeper people, FileStore store) : IOutletCare
{
    /// <summary>Channels by settings that are read as theirs.</summary>
    private static readonly ChannelKind Channels = new();

    public string Kind => ChannelKind.Channel;

    /// <summary>The settings of a channel.</summary>
    internal static ChannelSettings Settings(Outlet channel) => Channels.Read(channel.Settings);

    /// <summary>Under which short address a channel is found.</summary>
    internal static string Address(Outlet channel) => Address(channel.Id, channel.Name, Settings(channel));

    // A name with no letter that may stand in an address still has one.
    private static string Address(Guid id, string name, ChannelSettings settings) =>
        settings.Address.Length > 0 ? settings.Address
        : ChannelAddress.From(name) is { Length: > 0 } named ? named
        : id.ToString("N");

    /// <summary>Where a picture lies that was given for a channel; null where it is not there.</summary>
    internal static string? Picture(FileStore store, string key) =>
        ImageFacts.IsKey(key) && store.Has(key, MadeNames.GivenPicture)
            ? store.Derived(LessonPicture.OwnKey(key, LessonPicture.SizeOfOwn(null)), MadeNames.Poster)
            : null;

    public async Task<Problem?> RefusalAsync(Outlet outlet, string name, string settings, CancellationToken cancel)
    {
        var wanted = Channels.Read(settings);
        if (wanted.Picture is { } picture && Picture(store, picture) is null)
            return new Problem("channel-picture-gone", "The picture is not there any more. Choose it again.", "picture");
        var owners = (wanted.Owners ?? []).ToHashSet();
        if (await db.Users.CountAsync(p => owners.Contains(p.Id) && people.InRole(Roles.Trainer).Contains(p.Id), cancel) < owners.Count)
            return new Problem("channel-owner-unfit", "A channel is looked after by people who make lessons. Take out whoever does not.", "owners");
        var address = Address(outlet.Id, name, wanted);
        var others = await db.Outlets.AsNoTracking().Where(o => o.Kind == Kind && o.Id != outlet.Id).ToListAsync(cancel);
        return others.Find(o => Address(o) == address) is { } other
            ? new Problem("channel-address-taken", $"The channel “{other.Name}” has the short address {address} already. Enter another.", "address")
            : null;
    }

    public Task SavingAsync(Outlet outlet, CancellationToken cancel) => Task.CompletedTask;

    public Task HouseChangedAsync(CancellationToken cancel) => Task.CompletedTask;
}
