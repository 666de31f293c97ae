using Wexel.Core.Captions;

namespace Wexel.Core.Tests.Captions;

public class LanguageTagTests
{
    // RFC 5646, section 2.1.1: the custom of writing; Appendix A has the examples but for the first and the fourth.
    [Theory]
    [InlineData("EN_gb", "en-GB")]
    [InlineData("de", "de")]
    [InlineData("zh-hant-tw", "zh-Hant-TW")]
    [InlineData(" sr-LATN ", "sr-Latn")]
    [InlineData("es-419", "es-419")]
    [InlineData("english", null)]
    [InlineData("e", null)]
    [InlineData("en-", null)]
    [InlineData("", null)]
    public void A_tag_is_written_by_custom(string text, string? tag) => LanguageTag.Parse(text).ShouldBe(tag);
}
