using System.Globalization;

namespace Wexel.Media.Tools;

/// <summary>
/// The process that something half-made belongs to, by a name that no other process of any machine has: the machine, the process's number, and
/// when it started, in ticks of the kernel (proc(5), stat), since a number is given to another process when its own has ended.
/// </summary>
public static class Owner
{
    private static readonly string Machine = new([.. Environment.MachineName.Where(char.IsAsciiLetterOrDigit)]);

    /// <summary>The name of this process; letters, digits and dots.</summary>
    public static string Mine { get; } = Name(Environment.ProcessId)!;

    /// <summary>Whether the process of that name lives; null where it is another machine's, of which nothing is known here.</summary>
    public static bool? Lives(string owner)
    {
        var parts = owner.Split('.');
        return parts is not [var machine, var number, _] || machine != Machine || !int.TryParse(number, CultureInfo.InvariantCulture, out var id)
            ? null
            : Name(id) == owner;
    }

    private static string? Name(int id)
    {
        try
        {
            var stat = File.ReadAllText($"/proc/{id}/stat");
            return $"{Machine}.{id}.{stat[(stat.LastIndexOf(')') + 2)..].Split(' ')[19]}";
        }
        catch (IOException)
        {
            return null;
        }
    }
}
