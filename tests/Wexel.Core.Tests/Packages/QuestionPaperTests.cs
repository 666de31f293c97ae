using System.Xml.Linq;
using Wexel.Core.Packages;
using Wexel.Core.Questions;
using Wexel.Core.Questions.Kinds;
using Wexel.Core.Tests.Questions;

namespace Wexel.Core.Tests.Packages;

public class QuestionPaperTests
{
    [Fact]
    public void Asks_on_one_page_and_answers_on_another()
    {
        var questions = QuestionTests.Each.Select((asks, i) => new Question($"q{i}", Ms.Of(1000), "Which <lane>?\nThink.", asks)).ToList();
        var html = QuestionPaper.Html("Lanes & <b>decks</b>", "en-GB", [.. questions, new Question("none", default, "Not ready", new TrueOrFalse(null))]);
        var asked = html[..html.IndexOf("class=\"answers\"", StringComparison.Ordinal)];
        asked.ShouldContain("Lane A, up to 6 m");
        asked.ShouldContain("On the picture at 0:01");
        asked.ShouldContain("Which &lt;lane&gt;?");
        // What is right stands behind the break alone.
        foreach (var right in new[] { "gangway", "7.4", "Greet → Measure → Sell", "Car – Lane A" })
        {
            asked.ShouldNotContain(right);
            html.ShouldContain(right);
        }

        html.ShouldNotContain("Not ready");
        html.ShouldNotContain("<b>");
        // Each element is closed, as XML would have it, but for the ones that HTML never closes.
        XElement
            .Parse(html[html.IndexOf("<body>", StringComparison.Ordinal)..html.IndexOf("</html>", StringComparison.Ordinal)])
            .Elements()
            .Count()
            .ShouldBe(4);
    }
}
