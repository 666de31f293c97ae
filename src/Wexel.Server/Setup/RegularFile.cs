using System.Runtime.InteropServices;
using System.Text;
using Microsoft.Win32.SafeHandles;

namespace Wexel.Server.Setup;

/// <summary>Opens files that somebody else put somewhere: nothing but regular ones, no links are followed, and nothing is waited for (open(2)).</summary>
internal static class RegularFile
{
    private const int NonBlocking = 0x800;
    private const int CloseOnExec = 0x80000;

    private static int NoFollow => RuntimeInformation.ProcessArchitecture is Architecture.Arm64 or Architecture.Arm ? 0x8000 : 0x20000;

    /// <summary>Opens a file for reading.</summary>
    /// <returns>Null where it is a link, a pipe, a device or anything else but a regular file with something in it.</returns>
    /// <exception cref="IOException">It cannot be opened.</exception>
    internal static FileStream? Open(string path)
    {
        if (new FileInfo(path).LinkTarget is not null)
            return null;
        var handle = OpenFile(Encoding.UTF8.GetBytes(path + '\0'), NonBlocking | CloseOnExec | NoFollow);
        if (handle.IsInvalid)
            throw new IOException($"{path} cannot be opened: {Marshal.GetLastPInvokeErrorMessage()}.");
        var file = new FileStream(handle, FileAccess.Read, bufferSize: 0);
        // Pipes cannot be sought in; devices have no length.
        if (file.CanSeek && file.Length > 0)
            return file;
        file.Dispose();
        return null;
    }

    [DllImport("libc", EntryPoint = "open", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern SafeFileHandle OpenFile(byte[] path, int flags);
}
