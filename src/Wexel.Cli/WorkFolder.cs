using System.Diagnostics;
using System.Globalization;

namespace Wexel.Cli;

/// <summary>
/// The folder in which one <c>make</c> works. It goes when the work ends, however it ends: a watch beside it waits for the end of a pipe
/// that closes with this process, ends the encoders that still work in the folder, and removes it. What even that left behind, as when the
/// power goes, goes at the next start.
/// </summary>
internal sealed class WorkFolder : IDisposable
{
    private const string Prefix = "wexel-make-";
    private const string Owner = "owner";

    /// <summary>Encoders are told by what they were called with: their own folder, which no other has.</summary>
    private const string Watch = """
        exec 2>/dev/null
        read -r _
        for process in /proc/[0-9]*; do
          tr '\0' ' ' < "$process/cmdline" | grep -q "^\(nice \)\?ff[a-z]* .*$0" && kill -KILL "${process#/proc/}"
        done
        rm -rf "$0"
        """;

    private readonly Process _watch;

    internal WorkFolder()
    {
        Sweep();
        Path = Directory.CreateTempSubdirectory(Prefix).FullName;
        File.WriteAllText(System.IO.Path.Combine(Path, Owner), Name(Environment.ProcessId));
        _watch = Process.Start(new ProcessStartInfo("setsid", ["sh", "-c", Watch, Path]) { RedirectStandardInput = true })!;
    }

    internal string Path { get; }

    public void Dispose()
    {
        Directory.Delete(Path, recursive: true);
        _watch.StandardInput.Close();
        _watch.Dispose();
    }

    /// <summary>Removes folders whose owner has ended.</summary>
    private static void Sweep()
    {
        foreach (var folder in Directory.EnumerateDirectories(System.IO.Path.GetTempPath(), Prefix + "*"))
        {
            try
            {
                if (File.ReadAllText(System.IO.Path.Combine(folder, Owner)) is var owner && !Lives(owner))
                    Directory.Delete(folder, recursive: true);
            }
            catch (Exception left) when (left is IOException or UnauthorizedAccessException)
            {
                // It is somebody else's, or just going.
            }
        }
    }

    /// <summary>A number is given to another process when its own has ended; when it started, in ticks of the kernel, tells the two apart (proc(5),
    /// stat). Null for none.</summary>
    private static string? Name(int id)
    {
        try
        {
            var stat = File.ReadAllText($"/proc/{id}/stat");
            return $"{id} {stat[(stat.LastIndexOf(')') + 2)..].Split(' ')[19]}";
        }
        catch (IOException)
        {
            return null;
        }
    }

    private static bool Lives(string owner) => int.TryParse(owner.Split(' ')[0], CultureInfo.InvariantCulture, out var id) && Name(id) == owner;
}
