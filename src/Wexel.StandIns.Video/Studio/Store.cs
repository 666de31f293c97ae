using System.Collections.Concurrent;
using System.Security.Cryptography;
using System.Text.Json;
using Wexel.StandIns.Video.Door;

namespace Wexel.StandIns.Video.Studio;

/// <summary>Videos and lists, on disk: what was taken is there after a restart.</summary>
internal sealed class Store
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);
    private readonly string _root;
    private readonly double _pace;
    private readonly ConcurrentDictionary<string, Lock> _locks = new();

    /// <param name="data">The folder.</param>
    /// <param name="pace">How long a second of a video is processed, in seconds.</param>
    public Store(string data, double pace)
    {
        (_root, _pace) = (data, pace);
        Directory.CreateDirectory(Path.Combine(data, "videos"));
        Directory.CreateDirectory(Path.Combine(data, "lists"));
    }

    internal IEnumerable<Video> All =>
        Directory.EnumerateFiles(Path.Combine(_root, "videos"), "*.json").Select(Read<Video>).OrderByDescending(v => v.CreatedAt);

    internal Video? Find(string id) => Path.GetFileName(id) == id && File.Exists(Row(id)) ? Read<Video>(Row(id)) : null;

    /// <summary>The file of a video, whole or not.</summary>
    internal string Source(Video video) => Path.Combine(_root, "videos", $"{video.Id}.{video.Source}.mp4");

    /// <summary>The file that plays: the last that was whole.</summary>
    internal string? Plays(Video video)
    {
        var last = video.UploadedAt is null ? video.Source - 1 : video.Source;
        var file = Path.Combine(_root, "videos", $"{video.Id}.{last}.mp4");
        return File.Exists(file) ? file : null;
    }

    internal string Thumbnail(string id) => Path.Combine(_root, "videos", id + ".jpg");

    internal string Captions(string id, string language) => Path.Combine(_root, "videos", $"{id}.{language}.vtt");

    /// <summary>Begins a video; begun again by the same key it is the same one.</summary>
    internal Video Begin(string account, string channel, string key, VideoTexts texts, long bytes)
    {
        lock (LockOf("begin"))
        {
            if (All.FirstOrDefault(v => v.Key == key && v.Account == account) is { } begun)
                return begun;
            var id = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(5));
            var video = new Video(id, account, channel, key, texts, DateTimeOffset.UtcNow) { Bytes = bytes };
            Write(Row(id), video);
            return video;
        }
    }

    /// <summary>Changes a video; null where it is gone.</summary>
    internal Video? Change(string id, Func<Video, Video> how)
    {
        lock (LockOf(id))
        {
            if (Find(id) is not { } video)
                return null;
            var changed = how(video);
            Write(Row(id), changed);
            return changed;
        }
    }

    /// <summary>Notes that the file is whole, and looks at it.</summary>
    internal async Task<Video?> UploadedAsync(Video video)
    {
        var facts = await Probe.ReadAsync(Source(video));
        var now = DateTimeOffset.UtcNow;
        var longest = Account.Find(video.Account)!.Longest;
        var reason =
            facts is null ? "The file is no video that Skerry reads."
            : longest is { } most && facts.Seconds > most.TotalSeconds + 1 ? $"New accounts publish videos of at most {most.TotalMinutes:0} minutes."
            : null;
        var half = TimeSpan.FromSeconds(Math.Max(_pace, (facts?.Seconds ?? 0) * _pace) / 2);
        return Change(video.Id, v =>
            v with
            {
                UploadedAt = now,
                Seconds = facts?.Seconds ?? 0,
                Width = facts?.Width ?? 0,
                Height = facts?.Height ?? 0,
                Reason = reason,
                SmallAt = now + half,
                ReadyAt = now + 2 * half,
                Mailed = false,
            }
        );
    }

    /// <summary>Ends the processing of whatever is still processed.</summary>
    internal void BeDone()
    {
        var now = DateTimeOffset.UtcNow;
        foreach (var video in All.Where(v => v.ReadyAt > now).ToList())
            Change(video.Id, v => v with { SmallAt = now, ReadyAt = now });
    }

    internal void Remove(Video video)
    {
        lock (LockOf(video.Id))
            foreach (var file in Directory.EnumerateFiles(Path.Combine(_root, "videos"), video.Id + ".*"))
                File.Delete(file);
    }

    internal IEnumerable<Playlist> Lists => Directory.EnumerateFiles(Path.Combine(_root, "lists"), "*.json").Select(Read<Playlist>).OrderBy(l => l.Title);

    internal Playlist AddList(string channel, string title, string visibility)
    {
        lock (LockOf("lists"))
        {
            if (Lists.FirstOrDefault(l => l.Channel == channel && l.Title == title) is { } there)
                return there;
            var list = new Playlist(Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(5)), channel, title, visibility, []);
            Write(Path.Combine(_root, "lists", list.Id + ".json"), list);
            return list;
        }
    }

    internal Playlist? ChangeList(string id, Func<IReadOnlyList<string>, IReadOnlyList<string>> how)
    {
        lock (LockOf("lists"))
        {
            if (Lists.FirstOrDefault(l => l.Id == id) is not { } list)
                return null;
            list = list with { Videos = how(list.Videos) };
            Write(Path.Combine(_root, "lists", list.Id + ".json"), list);
            return list;
        }
    }

    private Lock LockOf(string name) => _locks.GetOrAdd(name, _ => new Lock());

    private string Row(string id) => Path.Combine(_root, "videos", id + ".json");

    private static T Read<T>(string file) => JsonSerializer.Deserialize<T>(File.ReadAllText(file), Json)!;

    private static void Write<T>(string file, T value)
    {
        File.WriteAllText(file + ".new", JsonSerializer.Serialize(value, Json));
        File.Move(file + ".new", file, overwrite: true);
    }
}
