using CsCheck;
using Wexel.Core.Lessons;

namespace Wexel.Core.Tests.Lessons;

public class NextStepTests
{
    [Theory]
    [InlineData(false, true, true, false, true, true, true, LessonStage.BringIn, "Give it a title")]
    [InlineData(true, false, false, false, false, false, false, LessonStage.Tidy, "")]
    [InlineData(true, true, false, false, false, false, false, LessonStage.Tidy, "Tidy it")]
    [InlineData(true, true, true, false, false, false, false, LessonStage.MarkUp, "Mark it up, then deliver")]
    [InlineData(true, true, true, true, false, false, false, LessonStage.Deliver, "")]
    [InlineData(true, true, true, false, true, false, false, LessonStage.Deliver, "Release it")]
    [InlineData(true, true, true, false, true, true, false, LessonStage.Deliver, "")]
    [InlineData(true, true, true, true, true, true, true, LessonStage.Deliver, "Bring its places up to date")]
    public void A_lesson_opens_where_its_work_stands(
        bool titled,
        bool looked,
        bool changed,
        bool rendering,
        bool rendered,
        bool released,
        bool behind,
        LessonStage stage,
        string words
    ) => NextStep.Of(new LessonProgress(titled, looked, changed, rendering, rendered, released, behind)).ShouldBe(new NextStep(stage, words));

    [Fact]
    public void What_is_rendered_opens_where_it_is_delivered() =>
        Gen
            .Bool.Array[7]
            .Sample(b =>
            {
                var lesson = new LessonProgress(true, b[0], b[1], b[2], b[3], b[4], b[5]);
                (NextStep.Of(lesson).Stage == LessonStage.Deliver).ShouldBe(lesson.Rendering || lesson.Rendered || lesson.Released || lesson.Behind);
            });
}
