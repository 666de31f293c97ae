using System.Net;
using System.Net.Sockets;

namespace Wexel.Delivering.Http;

/// <summary>
/// The one guard of everything that Wexel fetches. It connects to other machines only: what somebody entered as an address must not reach services of
/// this machine, or what a cloud tells its machines of themselves. It is the address that is connected to which is judged, whatever name led there. It
/// goes on within one origin alone, and an answer is read only so far.
/// </summary>
public static class OutsideOnly
{
    /// <summary>The most of an answer that is read at once, in bytes. What is larger is no answer that Wexel asked for.</summary>
    public const long MostRead = 4 * 1024 * 1024;

    /// <summary>A handler that connects to other machines, and to named ones of this machine.</summary>
    /// <param name="excepted">Whether a host and port may be reached though they are inside.</param>
    public static HttpMessageHandler Handler(Func<string, int, bool> excepted) => new SameOriginOnly(Connecting(excepted));

    private static SocketsHttpHandler Connecting(Func<string, int, bool> excepted) =>
        new()
        {
            AllowAutoRedirect = false,
            ConnectCallback = async (context, cancel) =>
            {
                var (host, port) = (context.DnsEndPoint.Host, context.DnsEndPoint.Port);
                var all = await Dns.GetHostAddressesAsync(host, cancel);
                var allowed = excepted(host, port) ? all : [.. all.Where(a => !IsInside(a))];
                if (allowed.Length == 0)
                    throw new InsideException(
                        $"{host} is this machine itself, or an address that only machines talk to. Whoever looks after the server can allow it "
                            + $"(Wexel__OutletHosts)."
                    );
                var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
                try
                {
                    await socket.ConnectAsync(allowed, port, cancel);
                    return new NetworkStream(socket, ownsSocket: true);
                }
                catch
                {
                    socket.Dispose();
                    throw;
                }
            },
        };

    /// <summary>An address lies inside; it will tomorrow too.</summary>
    public sealed class InsideException(string message) : HttpRequestException(message);

    /// <summary>Whether an address is this machine's own (RFC 1122, section 3.2.1.3; RFC 4291, section 2.5), or link-local (RFC 3927; RFC 4291,
    /// section 2.5.6).</summary>
    public static bool IsInside(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6)
            address = address.MapToIPv4();
        return IPAddress.IsLoopback(address)
            || address.Equals(IPAddress.Any)
            || address.Equals(IPAddress.IPv6Any)
            || address.IsIPv6LinkLocal
            || (address.AddressFamily == AddressFamily.InterNetwork && address.GetAddressBytes() is [169, 254, ..] or [0, ..]);
    }
}
