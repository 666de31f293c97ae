using System.Collections.Concurrent;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Wexel.StandIns.Learning;

/// <summary>Somebody to be while trying a package.</summary>
internal sealed record Pupil(string Id, string Name);

/// <summary>The packages that were taken, and what their lessons recorded of each pupil.</summary>
internal sealed class School(string data, TimeSpan processing)
{
    private readonly ConcurrentDictionary<string, DateTimeOffset> _ready = new();

    /// <summary>How long it makes a package ready that it has taken.</summary>
    internal TimeSpan Processing => processing;

    /// <summary>How long it will still be making a package ready; zero once it is.</summary>
    internal TimeSpan LeftOf(string name) => _ready.TryGetValue(name, out var at) && at > DateTimeOffset.UtcNow ? at - DateTimeOffset.UtcNow : TimeSpan.Zero;

    internal static readonly IReadOnlyList<Pupil> Pupils = [new("p1", "Marr, Ilse"), new("p2", "Finch, Odo"), new("p3", "Hallow, Wren")];

    private readonly string _root = Directory.CreateDirectory(Path.Combine(data, "learning")).FullName;
    private readonly ConcurrentDictionary<string, Lock> _locks = new();

    internal IEnumerable<string> Names =>
        Directory.EnumerateDirectories(_root).Select(d => Path.GetFileName(d)).Where(Archive.IsPlainName).Order(StringComparer.Ordinal);

    /// <exception cref="RefusedException">The package is not taken.</exception>
    internal Package Take(string name, Stream zip)
    {
        if (!Archive.IsPlainName(name))
            throw new RefusedException("A package's name has lower-case letters, digits and hyphens, 60 at most.");
        Archive.Unpack(zip, Path.Combine(_root, name), folder => PackageReader.Read(folder));
        _ready[name] = DateTimeOffset.UtcNow + processing;
        return Open(name)!;
    }

    internal Package? Open(string name) => Names.Contains(name) ? PackageReader.Read(Path.Combine(_root, name)) : null;

    internal string? Content(string name, string path) => Archive.IsPlainName(name) ? Archive.Find(Path.Combine(_root, name), path) : null;

    /// <summary>What is kept of an item and a pupil: <c>elements</c> and a <c>log</c> of calls.</summary>
    internal JsonObject Kept(string name, string item, string pupil)
    {
        lock (LockOf(name))
        {
            var file = RecordFile(name, item, pupil);
            return File.Exists(file) ? JsonNode.Parse(File.ReadAllText(file))!.AsObject() : [];
        }
    }

    internal void Keep(string name, string item, string pupil, JsonElement kept)
    {
        lock (LockOf(name))
        {
            var file = RecordFile(name, item, pupil);
            if (!File.Exists(file) || !IsOlder(kept, JsonDocument.Parse(File.ReadAllText(file)).RootElement))
                File.WriteAllText(file, kept.GetRawText());
        }
    }

    /// <summary>Whether one was sent before another of the same launch, and came after it.</summary>
    private static bool IsOlder(JsonElement one, JsonElement other)
    {
        static (string?, int) Sent(JsonElement of) =>
            of.TryGetProperty("launch", out var launch) && of.TryGetProperty("number", out var number) ? (launch.GetString(), number.GetInt32()) : (null, 0);
        var (launch, number) = Sent(one);
        return launch is not null && Sent(other) is var (before, last) && before == launch && number < last;
    }

    /// <summary>Records lie outside the package, so that a new version of it keeps them.</summary>
    private string RecordFile(string name, string item, string pupil)
    {
        var folder = Directory.CreateDirectory(Path.Combine(_root, name + ".records")).FullName;
        return Path.Combine(folder, Uri.EscapeDataString($"{item} {pupil}").Replace('.', '_') + ".json");
    }

    private Lock LockOf(string name) => _locks.GetOrAdd(name, _ => new Lock());
}
