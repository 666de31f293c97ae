using Wexel.Core.Outlets;
using Wexel.Data.Model;

namespace Wexel.Server.Releases;

/// <summary>An outlet's limits as Core knows them.</summary>
internal static class OutletLimitsOf
{
    internal static OutletLimits Outlet(Outlet outlet) => new(outlet.Name, outlet.MostBytes, outlet.MostLength, outlet.MostBitsPerSecond);
}
