using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Mixing;

/// <summary>Sounds under a lesson's voice; several may lie at the same place.</summary>
internal sealed class SoundBedKind : PlacedKind<SoundBed>
{
    private static readonly TimeSpan LongestFade = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan QuickestTurn = TimeSpan.FromSeconds(0.02);
    private static readonly TimeSpan SlowestTurn = TimeSpan.FromSeconds(5);

    public override string Name => "sound";

    public override int Most => 50;

    public override TimeSpan Shortest { get; } = TimeSpan.FromSeconds(0.05);

    public override IReadOnlyList<(string Word, Func<SoundBed, SoundBed, bool> Differs)> Changes { get; } =
    [
        ("moved", (a, b) => a.Span != b.Span),
        ("exchanged", (a, b) => a.Sound.Key != b.Sound.Key),
        ("changed", (a, b) => a with { Span = default, Sound = b.Sound } != b with { Span = default }),
    ];

    public override string Named(SoundBed thing) => $"the sound “{Problem.Shown(thing.Sound.Title)}”";

    public override SoundBed At(SoundBed thing, TimeRange span) => thing with { Span = span };

    public override SoundBed Called(SoundBed thing, string id) => thing with { Id = id };

    public override SoundBed Merged(SoundBed before, SoundBed theirs, SoundBed mine)
    {
        T Of<T>(Func<SoundBed, T> part) => Equals(part(mine), part(before)) ? part(theirs) : part(mine);
        return new SoundBed(
            mine.Id,
            Of(b => b.Span),
            Of(b => b.Sound),
            Of(b => b.FadeIn),
            Of(b => b.FadeOut),
            Of(b => b.Apart),
            Of(b => b.Duck),
            Of(b => b.Attack),
            Of(b => b.Release),
            Of(b => b.Loops),
            Of(b => b.EndsAtBar)
        );
    }

    public override void Declare(KeyFields key, SoundBed thing) =>
        key.Add("id", thing.Id)
            .Add("span", thing.Span)
            .Part("sound", thing.Sound, Declare)
            .Add("in", thing.FadeIn)
            .Add("out", thing.FadeOut)
            .Add("apart", thing.Apart)
            .Add("duck", thing.Duck)
            .Add("attack", thing.Attack)
            .Add("release", thing.Release)
            .Add("loops", thing.Loops)
            .Add("bar", thing.EndsAtBar);

    public override IReadOnlyList<SoundBed> Tidy(IEnumerable<SoundBed> things, TimeSpan length) =>
        [
            .. things
                .Select(b =>
                    b with
                    {
                        Span = b.Span.Within(length),
                        Sound = b.Sound.Tidied(),
                        FadeIn = ShelfSound.Between(b.FadeIn, TimeSpan.Zero, LongestFade),
                        FadeOut = ShelfSound.Between(b.FadeOut, TimeSpan.Zero, LongestFade),
                        Apart = ShelfSound.Between(b.Apart, SoundBed.LeastApart, SoundBed.MostApart),
                        Duck = ShelfSound.Between(b.Duck, 0, SoundBed.MostDuck),
                        Attack = ShelfSound.Between(b.Attack, QuickestTurn, SlowestTurn),
                        Release = ShelfSound.Between(b.Release, QuickestTurn, SlowestTurn),
                    }
                )
                .Where(b => b.Span.Length >= Shortest)
                .OrderBy(b => b.Span.Start),
        ];

    private static void Declare(KeyFields key, ShelfSound sound) =>
        key.Add("key", sound.Key)
            .Add("title", sound.Title)
            .Add("author", sound.Author)
            .Add("licence", sound.Licence)
            .Add("length", sound.Length)
            .Add("channels", sound.Channels)
            .Add("lufs", sound.Lufs)
            .Add("peak", sound.TruePeak)
            .Add("tempo", sound.Tempo)
            .Add("beats", sound.Beats)
            .Add("first", sound.FirstBeat);
}
