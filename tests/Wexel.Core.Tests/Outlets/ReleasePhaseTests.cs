using CsCheck;
using Wexel.Core.Outlets;

namespace Wexel.Core.Tests.Outlets;

public class ReleasePhaseTests
{
    private static readonly ReleasePhase[] Way =
    [
        ReleasePhase.Planned,
        ReleasePhase.Rendering,
        ReleasePhase.Checking,
        ReleasePhase.Packing,
        ReleasePhase.Sending,
        ReleasePhase.ProcessingThere,
    ];

    [Theory]
    [InlineData(ReleasePhase.Planned, ReleasePhase.Live, true)]
    [InlineData(ReleasePhase.Rendering, ReleasePhase.Checking, true)]
    [InlineData(ReleasePhase.Packing, ReleasePhase.Rendering, false)]
    [InlineData(ReleasePhase.Sending, ReleasePhase.Planned, true)]
    [InlineData(ReleasePhase.ProcessingThere, ReleasePhase.Live, true)]
    [InlineData(ReleasePhase.Live, ReleasePhase.Sending, false)]
    [InlineData(ReleasePhase.Live, ReleasePhase.Planned, true)]
    [InlineData(ReleasePhase.Live, ReleasePhase.Failed, false)]
    [InlineData(ReleasePhase.Live, ReleasePhase.Behind, true)]
    [InlineData(ReleasePhase.Behind, ReleasePhase.Live, true)]
    [InlineData(ReleasePhase.Behind, ReleasePhase.Rendering, false)]
    [InlineData(ReleasePhase.Failed, ReleasePhase.Live, false)]
    [InlineData(ReleasePhase.Failed, ReleasePhase.Planned, true)]
    [InlineData(ReleasePhase.TakenDown, ReleasePhase.Live, false)]
    [InlineData(ReleasePhase.TakenDown, ReleasePhase.Planned, true)]
    [InlineData(ReleasePhase.TakenDown, ReleasePhase.Failed, false)]
    public void A_release_goes_from_one_phase_to_another(ReleasePhase from, ReleasePhase to, bool may) => ReleasePhases.May(from, to).ShouldBe(may);

    [Fact]
    public void On_its_way_it_may_leave_out_stop_and_begin_anew_and_never_goes_back()
    {
        foreach (var (i, from) in Way.Index())
        {
            ReleasePhases.IsUnderWay(from).ShouldBeTrue();
            foreach (var to in new[] { ReleasePhase.Live, ReleasePhase.Failed, ReleasePhase.TakenDown, ReleasePhase.Planned, from }.Concat(Way[i..]))
                ReleasePhases.May(from, to).ShouldBeTrue($"{from} to {to}");
            foreach (var to in Way[..i].Skip(1))
                ReleasePhases.May(from, to).ShouldBeFalse($"{from} to {to}");
            ReleasePhases.May(from, ReleasePhase.Behind).ShouldBeFalse();
        }
    }

    [Fact]
    public void What_has_ended_is_not_under_way_and_from_everywhere_it_can_be_wanted_again_and_taken_down()
    {
        foreach (var phase in Enum.GetValues<ReleasePhase>())
        {
            ReleasePhases.IsUnderWay(phase).ShouldBe(Way.Contains(phase));
            ReleasePhases.May(phase, ReleasePhase.Planned).ShouldBeTrue();
            ReleasePhases.May(phase, ReleasePhase.TakenDown).ShouldBeTrue();
        }
    }

    [Theory]
    [InlineData(ReleaseStep.Encode, ReleasePhase.Rendering)]
    [InlineData(ReleaseStep.Finish, ReleasePhase.Checking)]
    [InlineData(ReleaseStep.Check, ReleasePhase.Checking)]
    [InlineData(ReleaseStep.Copy, ReleasePhase.Packing)]
    [InlineData(ReleaseStep.Pack, ReleasePhase.Packing)]
    [InlineData(ReleaseStep.Publish, ReleasePhase.Packing)]
    [InlineData(ReleaseStep.Deliver, ReleasePhase.Sending)]
    public void Every_step_has_its_phase(ReleaseStep step, ReleasePhase phase) => ReleasePhases.DoneIn(step).ShouldBe(phase);

    [Theory]
    [InlineData(ReleasePhase.Live, false, ReleasePhase.Live)]
    [InlineData(ReleasePhase.Live, true, ReleasePhase.Behind)]
    [InlineData(ReleasePhase.Sending, true, ReleasePhase.Sending)]
    [InlineData(ReleasePhase.Failed, true, ReleasePhase.Failed)]
    public void Only_what_is_live_is_behind(ReleasePhase phase, bool behind, ReleasePhase shown) => ReleasePhases.Shown(phase, behind).ShouldBe(shown);

    /// <summary>The steps of any plan are done in phases that follow each other: a worker that does them in order never goes back.</summary>
    [Fact]
    public void The_steps_of_a_plan_go_forward() =>
        Gen.Select(Gen.Bool, Gen.Bool, Gen.Bool, Gen.Bool, Gen.Bool, Gen.Bool)
            .Sample(
                (track, file, isChecked, copies, packs, delivers) =>
                {
                    var wanted = new ReleaseWanted("k", ["t"], "f", copies ? ["c"] : [], packs, delivers);
                    var there = new HashSet<string>();
                    if (track)
                        there.Add("t");
                    if (file)
                        there.Add("f");
                    var actual = new ReleaseActual(there, isChecked ? new HashSet<string> { "f" } : [], null, null, null);
                    var at = ReleasePhase.Planned;
                    foreach (var step in ReleasePlan.Steps(wanted, actual))
                    {
                        ReleasePhases.May(at, ReleasePhases.DoneIn(step)).ShouldBeTrue();
                        at = ReleasePhases.DoneIn(step);
                    }

                    ReleasePhases.May(at, ReleasePhase.Live).ShouldBeTrue();
                }
            );
}
