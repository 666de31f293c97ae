using System.Text.Json;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;

namespace Wexel.Core.Tests.Lessons;

public sealed class LessonDocumentTests
{
    [Fact]
    public void A_document_that_an_earlier_version_saved_is_read_as_it_was_meant()
    {
        var first = JsonSerializer.Deserialize<LessonDocument>(
            """{"title":"A","description":"","language":"en","recordingHash":"h","sections":[],"captions":null}""",
            WexelJson.Options
        )!;
        first.Cuts.ShouldBeEmpty();
        first.HouseMark.ShouldBeTrue("the house's mark is the house's choice");
        first.Canvas.ShouldBeNull();
        LessonRules
            .Describe(first, JsonSerializer.Deserialize<LessonDocument>(JsonSerializer.Serialize(first, WexelJson.Options), WexelJson.Options)!)
            .ShouldBeEmpty();
    }
}
