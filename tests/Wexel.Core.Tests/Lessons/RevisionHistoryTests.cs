using CsCheck;
using Wexel.Core.Lessons;

namespace Wexel.Core.Tests.Lessons;

public sealed class RevisionHistoryTests
{
    private static RevisionHistory Of(params int?[] restored) => RevisionHistory.Of(restored.Select((r, i) => new RevisionStep(i + 1, r)));

    [Fact]
    public void Edits_are_gone_back_over_one_by_one()
    {
        var history = Of(null, null, null);
        Same(history, 3, [1, 2], []);
    }

    [Fact]
    public void Undo_and_redo_are_steps_on_one_way_and_an_edit_begins_a_new_one()
    {
        Same(Of(null, null, null, 2), 2, [1], [3]);
        Same(Of(null, null, null, 2, 1), 1, [], [3, 2]);
        Same(Of(null, null, null, 2, 1, 2), 2, [1], [3]);
        Same(Of(null, null, null, 2, null), 5, [1, 2], []);
        Same(Of(null, null, null, 1), 1, [1, 2, 3], []);
        Same(Of(), 0, [], []);
    }

    private static void Same(RevisionHistory history, int now, int[] back, int[] on)
    {
        history.Now.ShouldBe(now);
        history.Back.ShouldBe(back);
        history.On.ShouldBe(on);
    }

    [Fact]
    public void What_is_replayed_is_what_somebody_did()
    {
        // A person edits, undoes and redoes at will; a page that is opened again comes to the same stacks.
        Gen.Int[0, 2]
            .Array[0, 60]
            .Sample(deeds =>
            {
                var steps = new List<RevisionStep> { new(1, null) };
                var (now, back, on) = (1, new Stack<int>(), new Stack<int>());
                foreach (var deed in deeds)
                {
                    var number = steps.Count + 1;
                    if (deed == 1 && back.Count > 0)
                    {
                        on.Push(now);
                        steps.Add(new(number, now = back.Pop()));
                    }
                    else if (deed == 2 && on.Count > 0)
                    {
                        back.Push(now);
                        steps.Add(new(number, now = on.Pop()));
                    }
                    else
                    {
                        back.Push(now);
                        on.Clear();
                        steps.Add(new(number, null));
                        now = number;
                    }
                }

                Same(RevisionHistory.Of(steps), now, [.. back.Reverse()], [.. on.Reverse()]);
            });
    }

    [Fact]
    public void A_lesson_that_begins_with_an_earlier_revision_is_that() => RevisionHistory.Of([new(5, 3), new(6, null)]).Back.ShouldBe([3]);
}
