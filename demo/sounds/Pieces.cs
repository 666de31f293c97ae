namespace Wexel.Demo.Sounds;

/// <summary>A piece of music: what it is called, and who plays what in each of its bars.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="Genre">Its genre.</param>
/// <param name="Moods">How it feels.</param>
/// <param name="Words">Other words by which it is found.</param>
/// <param name="Tempo">Beats a minute; a bar is a whole number of milliseconds.</param>
/// <param name="Beats">Beats a bar.</param>
/// <param name="Root">The note that it stands on.</param>
/// <param name="Scale">The steps of its scale, in semitones.</param>
/// <param name="Chords">The degree of the scale on which each bar's chord stands, from 0.</param>
/// <param name="Play">Plays a bar.</param>
internal sealed record Piece(
    string Title,
    string Genre,
    string[] Moods,
    string Words,
    double Tempo,
    int Beats,
    int Root,
    int[] Scale,
    int[] Chords,
    Action<Bar> Play
)
{
    internal double BeatSeconds => 60 / Tempo;

    internal Synth Played(int seed)
    {
        var synth = new Synth(BeatSeconds * Beats * Chords.Length, round: true, seed);
        var dice = new Random(seed);
        for (var i = 0; i < Chords.Length; i++)
            Play(new Bar(synth, this, i, dice));
        synth.Room(0.3, 1.6);
        return synth;
    }
}

/// <summary>One bar of a piece, and what players do in it.</summary>
/// <param name="Synth">What plays.</param>
/// <param name="Piece">The piece.</param>
/// <param name="Index">Which bar, from 0.</param>
/// <param name="Dice">What is left to chance; the same at every making.</param>
internal sealed record Bar(Synth Synth, Piece Piece, int Index, Random Dice)
{
    internal double At(double beat) => ((Index * Piece.Beats) + beat) * Piece.BeatSeconds;

    internal double Long(double beats) => beats * Piece.BeatSeconds;

    /// <summary>A note of the bar's chord: 0 its root, 1 its third, 2 its fifth, 3 its root an octave up, and so on.</summary>
    internal int Chord(int step, int octave = 0) => Scale(Piece.Chords[Index] + (step % 3 * 2) + (step / 3 * 7), octave);

    internal int Scale(int degree, int octave = 0) => Piece.Root + Piece.Scale[degree % 7] + (12 * (octave + (degree / 7)));

    internal void Pad(double volume, int octave = 0)
    {
        for (var step = 0; step < 3; step++)
            Synth.Pad(At(0), Chord(step, octave), volume, Long(Piece.Beats) - 0.2);
    }

    internal void Bass(double volume, params (double Beat, int Step, double Beats)[] notes)
    {
        foreach (var (beat, step, beats) in notes)
            Synth.Bass(At(beat), Chord(step, -2), volume, Long(beats));
    }

    /// <summary>The chord's notes one after the other, up and down.</summary>
    internal void Broken(double every, int[] steps, Action<double, int, double> strike)
    {
        for (var (i, beat) = (0, 0.0); beat < Piece.Beats - 0.01; beat += every, i++)
            strike(At(beat), Chord(steps[i % steps.Length]), i % 2 == 0 ? 1 : 0.75);
    }

    /// <summary>A tune: steps of the scale, mostly near each other.</summary>
    internal void Tune(double every, double share, Action<double, int> strike)
    {
        for (var beat = 0.0; beat < Piece.Beats - 0.01; beat += every)
        {
            if (Dice.NextDouble() < share)
                strike(At(beat), Dice.Next(3) == 0 ? Scale(Dice.Next(4, 9)) : Chord(Dice.Next(0, 4)));
        }
    }
}

/// <summary>The pieces and effects that come with Wexel. All of them are made here, from nothing, and free of rights (CC0).</summary>
internal static class Pieces
{
    private static readonly int[] Major = [0, 2, 4, 5, 7, 9, 11];
    private static readonly int[] Minor = [0, 2, 3, 5, 7, 8, 10];
    private static readonly int[] Dorian = [0, 2, 3, 5, 7, 9, 10];

    internal static IReadOnlyList<Piece> Music { get; } =
    [new("Morning tide", "Acoustic", ["Calm", "Warm"], "guitar, slow, opening", 80, 4, 60, Major, [0, 4, 5, 3, 0, 4, 3, 4], b =>
        {
            b.Broken(0.5, [0, 2, 3, 4, 3, 2, 4, 3], (at, note, v) => b.Synth.Pluck(at, note, 0.5 * v, -0.25, 0.35));
            b.Pad(0.12);
            b.Bass(0.3, (0, 0, 2), (2, 2, 2));
        }), new("Rope and anchor", "Folk", ["Playful", "Warm"], "guitar, dance, harbour", 120, 3, 62, Dorian, [0, 0, 3, 0, 6, 3, 0, 0], b =>
        {
            b.Broken(0.5, [0, 3, 2, 4, 3, 5], (at, note, v) => b.Synth.Pluck(at, note, 0.45 * v, 0.3, 0.7, 1.4));
            b.Bass(0.4, (0, 0, 1));
            b.Synth.Noise(b.At(1), 0.1, 0.3, 5000, 26, 0.2);
            b.Synth.Noise(b.At(2), 0.1, 0.3, 5000, 26, 0.2);
            b.Tune(1, 0.5, (at, note) => b.Synth.Pluck(at, note + 12, 0.3, -0.4, 0.5, 1.2));
        }), new("Harbour lights", "Ambient", ["Calm", "Warm"], "evening, soft, wide", 60, 4, 57, Major, [0, 3, 5, 4, 0, 3, 1, 4], b =>
        {
            b.Pad(0.3);
            b.Pad(0.12, 1);
            b.Tune(2, 0.7, (at, note) => b.Synth.Bell(at, note + 12, 0.12, b.Index % 2 == 0 ? -0.5 : 0.5, 2, 0.6, 4));
        }), new("First crossing", "Electronic", ["Bright", "Busy"], "start, upbeat, drums", 120, 4, 60, Major, [0, 5, 3, 4, 0, 5, 3, 4, 5, 3, 0, 4], b =>
        {
            b.Broken(0.5, [0, 3, 2, 4, 1, 3, 2, 5], (at, note, v) => b.Synth.Bell(at, note + 12, 0.2 * v, 0.4, 1, 1.6, 0.7));
            b.Pad(0.12);
            b.Bass(0.5, (0, 0, 0.75), (1.5, 0, 0.4), (2, 0, 0.75), (3.5, 2, 0.4));
            Drums(b, 0.45, 0.12, true);
        }), new("Timetable", "Electronic", ["Busy", "Serious"], "fast, ticking, work", 125, 4, 57, Minor, [0, 0, 5, 6, 0, 0, 3, 4, 0, 0, 5, 6], b =>
        {
            b.Broken(0.25, [0, 3, 2, 3, 4, 3, 2, 3], (at, note, v) => b.Synth.Pluck(at, note + 12, 0.24 * v, -0.3, 0.9, 0.35));
            b.Bass(0.5, (0, 0, 0.5), (1, 0, 0.5), (2, 0, 0.5), (3, 0, 0.5));
            Drums(b, 0.35, 0.1, false);
        }), new("Slow fog", "Ambient", ["Calm", "Serious"], "dark, still, thinking", 60, 4, 50, Minor, [0, 0, 5, 5, 3, 3, 0, 6, 0, 0, 5, 5, 3, 3, 4, 4], b =>
        {
            b.Pad(0.34);
            b.Bass(0.2, (0, 0, 3.5));
            if (b.Index % 2 == 1)
                b.Tune(2, 0.5, (at, note) => b.Synth.Key(at, note + 12, 0.2, 0.4, 4));
        }), new("Two decks", "Jazz", ["Warm"], "walking bass, brushes, evening", 96, 4, 58, Dorian, [0, 3, 0, 4, 1, 4, 0, 4], b =>
        {
            for (var beat = 0; beat < 4; beat++)
            {
                b.Synth.Bass(b.At(beat), b.Scale(b.Piece.Chords[b.Index] + new[] { 0, 2, 4, 5 }[beat], -2), 0.5, b.Long(0.85));
                b.Synth.Noise(b.At(beat), 0.09, 0.2, 3500, 12, 0.3);
            }

            foreach (var beat in new[] { 1.0, 2.66 })
                for (var step = 1; step < 4; step++)
                    b.Synth.Bell(b.At(beat), b.Chord(step) + (step == 3 ? -2 : 0), 0.13, -0.3, 1, 0.9, 1.6);
            b.Tune(0.666, 0.35, (at, note) => b.Synth.Bell(at, note + 12, 0.16, 0.3, 1, 1.3, 1.4));
        }), new("Ticket waltz", "Piano", ["Playful", "Bright"], "dance, three, light", 120, 3, 65, Major, [0, 4, 5, 1, 3, 0, 1, 4], b =>
        {
            b.Synth.Key(b.At(0), b.Chord(0, -1), 0.4, -0.3, 1.6);
            foreach (var beat in new[] { 1, 2 })
                for (var step = 1; step < 4; step++)
                    b.Synth.Key(b.At(beat), b.Chord(step) - 12, 0.14, -0.1, 0.8);
            b.Tune(1, 0.8, (at, note) => b.Synth.Key(at, note + 12, 0.3, 0.3, 1.8));
        }), new("Quiet quay", "Piano", ["Calm"], "slow, alone, thinking", 75, 4, 60, Major, [5, 3, 0, 4, 5, 3, 0, 4], b =>
        {
            b.Broken(1, [0, 2, 4, 2], (at, note, v) => b.Synth.Key(at, note - 12, 0.3 * v, -0.3));
            b.Tune(1, 0.55, (at, note) => b.Synth.Key(at, note + 12, 0.3, 0.25, 3.5));
        }), new("Gulls", "Folk", ["Bright", "Playful"], "flute, summer, dance", 100, 4, 67, Major, [0, 3, 4, 0, 5, 3, 4, 0], b =>
        {
            b.Broken(0.5, [0, 2, 1, 2], (at, note, v) => b.Synth.Pluck(at, note - 12, 0.4 * v, 0.35, 0.6, 1.3));
            b.Tune(0.5, 0.6, (at, note) => b.Synth.Bell(at, note + 12, 0.12, -0.3, 2, 0.25, 0.9));
            b.Bass(0.3, (0, 0, 1.5), (2, 2, 1.5));
            b.Synth.Noise(b.At(1), 0.1, -0.2, 6000, 30, 0.15);
            b.Synth.Noise(b.At(3), 0.1, -0.2, 6000, 30, 0.15);
        }), new("Night boat", "Electronic", ["Serious", "Calm"], "dark, pulse, travel", 100, 4, 52, Minor, [0, 0, 5, 5, 3, 3, 6, 6, 0, 0, 5, 4], b =>
        {
            b.Pad(0.2);
            b.Broken(0.5, [0, 3, 4, 3, 5, 3, 4, 3], (at, note, v) => b.Synth.Bell(at, note + 12, 0.16 * v, 0.4, 1, 2, 0.5));
            b.Bass(0.5, (0, 0, 1.5), (2, 0, 1.5));
            b.Synth.Kick(b.At(0), 0.5);
            b.Synth.Kick(b.At(2), 0.4);
        }), new("Coffee on board", "Jazz", ["Playful", "Warm"], "short, light, break", 120, 4, 60, Major, [0, 5, 1, 4], b =>
        {
            b.Bass(0.5, (0, 0, 0.9), (1, 2, 0.9), (2, 0, 0.9), (3, 2, 0.9));
            foreach (var beat in new[] { 0.66, 2.0, 3.66 })
                for (var step = 1; step < 4; step++)
                    b.Synth.Key(b.At(beat), b.Chord(step), 0.16, -0.25, 0.9);
            b.Tune(0.666, 0.4, (at, note) => b.Synth.Key(at, note + 12, 0.24, 0.3, 1.2));
            b.Synth.Noise(b.At(1), 0.1, 0.2, 4500, 20, 0.2);
            b.Synth.Noise(b.At(3), 0.1, 0.2, 4500, 20, 0.2);
        })];

    internal static IReadOnlyList<(string Title, string Words, double Seconds, Action<Synth> Play)> Effects { get; } =
    [("Ship’s bell", "bell, attention, strike", 3, s => s.Bell(0.01, 81, 0.8, 0, 2.76, 2.5, 2.9)), ("Horn, far off", "ship, horn, leaving, start", 3.5, s =>
        {
            s.Horn(0.05, 41, 0.7, 2.2);
            s.Room(0.5, 2);
        }), ("Page turned", "paper, next, section", 0.7, s => s.Swell(0, 0.8, 0.6, 900, 6000)), ("Chime", "soft, new, notice, section", 2, s =>
        {
            s.Bell(0.01, 84, 0.6, -0.2, 3.5, 0.8, 1.8);
            s.Bell(0.13, 88, 0.6, 0.2, 3.5, 0.8, 1.8);
        }), ("Button", "click, press, key", 0.2, s => s.Noise(0.005, 0.8, 0, 2500, 90, 0.15)), ("Done", "right, correct, finished, good", 1.4, s =>
        {
            s.Key(0.01, 72, 0.7, 0, 0.9);
            s.Key(0.15, 79, 0.8, 0, 1.2);
        }), ("Not quite", "wrong, mistake, again, error", 1.1, s =>
        {
            s.Key(0.01, 60, 0.7, 0, 0.6);
            s.Key(0.2, 55, 0.8, 0, 0.9);
        }), ("Wave on the shore", "sea, water, noise, calm", 5, s =>
        {
            s.Swell(0, 0.6, 3.2, 300, 3800);
            s.Swell(1.6, 0.5, 3.2, 250, 3000);
        })];

    private static void Drums(Bar b, double kick, double hat, bool open)
    {
        b.Synth.Kick(b.At(0), kick);
        b.Synth.Kick(b.At(2), kick);
        b.Synth.Noise(b.At(1), kick * 0.35, 0, 1500, 18, 0.25);
        b.Synth.Noise(b.At(3), kick * 0.35, 0, 1500, 18, 0.25);
        for (var beat = 0.5; beat < 4; beat++)
            b.Synth.Noise(b.At(beat), hat, 0.3, 7000, open ? 22 : 60, 0.2);
    }
}
