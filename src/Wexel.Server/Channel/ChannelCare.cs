using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Outlets.Channels;
using Wexel.Data;
using Wexel.Data.Model;
using Wexel.Server.Shelves;

namespace Wexel.Server.Channel;

/// <summary>What a channel has besides its settings: a short address that no other has.</summary>
internal sealed class ChannelCare(WexelDb db) : IOutletCare
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

    public async Task<Problem?> RefusalAsync(Outlet outlet, string name, string settings, CancellationToken cancel)
    {
        var address = Address(outlet.Id, name, Channels.Read(settings));
        var others = await db.Outlets.AsNoTracking().Where(o => o.Kind == Kind && o.Id != outlet.Id).ToListAsync(cancel);
        return others.Find(o => Address(o) == address) is { } other
            ? new Problem("channel-address-taken", $"The channel “{other.Name}” has the short address {address} already. Enter another.", "address")
            : null;
    }

    public Task SavingAsync(Outlet outlet, CancellationToken cancel) => Task.CompletedTask;

    public Task HouseChangedAsync(CancellationToken cancel) => Task.CompletedTask;
}
