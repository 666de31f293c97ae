using System.Runtime.InteropServices;
using Wexel.Core.Documents;
using Wexel.Core.Mixing;
using Wexel.Demo.Sounds;
using Wexel.Media.Mixing;
using Wexel.Media.Tools;

// Makes the sounds that come with Wexel, and the list that says what they are. Usage: dotnet run --project demo/sounds -- FOLDER
var folder = args is [var given] ? given : "src/Wexel.Server/Sounds/Shipped";
Directory.CreateDirectory(folder);
foreach (var old in Directory.EnumerateFiles(folder))
    File.Delete(old);
var list = new List<object>();
foreach (var (seed, piece) in Pieces.Music.Index())
    await KeepAsync(piece.Title, piece.Played(seed + 1), 2, SoundUse.Music, piece.Genre, piece.Moods, piece.Words, piece.Tempo, piece.Beats);
foreach (var (seed, effect) in Pieces.Effects.Index())
{
    var synth = new Synth(effect.Seconds, round: false, seed + 101);
    effect.Play(synth);
    await KeepAsync(effect.Title, synth, 1, SoundUse.Effect, "", [], effect.Words, null, 4);
}

await File.WriteAllTextAsync(Path.Combine(folder, "sounds.json"), WexelJson.Write(list) + "\n");
return;

async Task KeepAsync(string title, Synth synth, int channels, SoundUse use, string genre, IReadOnlyList<string> moods, string words, double? tempo, int beats)
{
    var file = new string([.. title.ToLowerInvariant().Where(c => char.IsAsciiLetter(c) || c == ' ')]).Replace(' ', '-') + ".opus";
    var path = Path.Combine(folder, file);
    var samples = synth.Samples(channels);
    await MediaTool.FeedAsync(
        [
            "-f",
            "f32le",
            "-ar",
            $"{Synth.Rate}",
            "-ac",
            $"{channels}",
            "-i",
            "pipe:0",
            "-fflags",
            "+bitexact",
            "-flags",
            "+bitexact",
            "-c:a",
            "libopus",
            "-b:a",
            channels == 2 ? "72k" : "48k",
            "file:" + path,
        ],
        (stream, stop) => stream.WriteAsync(MemoryMarshal.AsBytes(samples.AsSpan()).ToArray(), stop).AsTask(),
        CancellationToken.None
    );
    var facts = (await SoundFile.ReadAsync(path, CancellationToken.None)).Value!;
    var key = Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(await File.ReadAllBytesAsync(path)));
    var sound = new ShelfSound(key, title, "Wexel", "CC0-1.0", facts.Length, channels, facts.Lufs, facts.TruePeak, TimeSpan.Zero, tempo, beats);
    list.Add(new { File = file, Shelved = new ShelvedSound(sound, use, genre, moods, words, "Made for Wexel") });
    Console.WriteLine($"{file}: {facts.Length.TotalSeconds:0.###} s, {facts.Lufs} LUFS, {new FileInfo(path).Length / 1000} kB");
}
