using Wexel.Core.Keys;
using Wexel.Core.Placing;
using Wexel.Core.Timing;

namespace Wexel.Core.Overlays;

/// <summary>Notes of a lesson; several may be seen at once.</summary>
internal sealed class NoteKind : PlacedKind<Note>
{
    public override string Name => "note";

    public override int Most => 200;

    public override TimeSpan Shortest { get; } = TimeSpan.FromSeconds(0.2);

    public override IReadOnlyList<(string Word, Func<Note, Note, bool> Differs)> Changes { get; } =
    [("moved", (a, b) => a.Span != b.Span), ("changed", (a, b) => a with { Span = default } != b with { Span = default })];

    public override string Named(Note thing) => thing.Text.Length > 0 ? $"the note “{Problem.Shown(thing.Text)}”" : "the note";

    public override Note At(Note thing, TimeRange span) => thing with { Span = span };

    public override Note Called(Note thing, string id) => thing with { Id = id };

    public override Note Merged(Note before, Note theirs, Note mine)
    {
        T Of<T>(Func<Note, T> part) => Equals(part(mine), part(before)) ? part(theirs) : part(mine);
        return new Note(mine.Id, Of(n => n.Span), Of(n => n.Text), Of(n => n.Corner), Of(n => n.Address), Of(n => n.Picture));
    }

    public override void Declare(KeyFields key, Note thing) =>
        key.Add("id", thing.Id)
            .Add("span", thing.Span)
            .Add("text", thing.Text)
            .Add("corner", (NoteCorner?)thing.Corner)
            .Add("address", thing.Address)
            .Add("picture", thing.Picture);

    public override IReadOnlyList<Note> Tidy(IEnumerable<Note> things, TimeSpan length) =>
        [
            .. things
                .Select(n =>
                    n with
                    {
                        Span = n.Span.Within(length),
                        Text = PlainText.Within(n.Text, Note.LongestText),
                        Corner = Enum.IsDefined(n.Corner) ? n.Corner : NoteCorner.TopRight,
                        Address = SafeLink.Tidied(n.Address),
                    }
                )
                .Where(n => n.Span.Length >= Shortest)
                .OrderBy(n => n.Span.Start),
        ];

    public override IEnumerable<string> Faults(Note thing) =>
        [
            .. thing.Text.Length == 0 && thing.Picture is null ? ["It says nothing. Write it, or delete it."] : Array.Empty<string>(),
            .. thing.Address.Length > 0 && SafeLink.Fault(thing.Address) is { } fault ? [fault] : Array.Empty<string>(),
        ];
}
