using Wexel.Core.Encoding;

namespace Wexel.Core.Tests.Encoding;

/// <summary>On which devices the files of profiles play: common practice, no source.</summary>
public class PlaysOnTests
{
    [Theory]
    [InlineData("web", "phones and tablets, computers, televisions")]
    [InlineData("web-720p", "phones and tablets, computers, televisions")]
    [InlineData("full-hd", "phones and tablets, computers, televisions")]
    [InlineData("podcast-sound", "phones and tablets, computers, televisions")]
    [InlineData("adaptive", "phones and tablets, computers")]
    [InlineData("open-formats", "computers")]
    public void Each_profile_that_ships_plays_where_it_is_said(string profile, string devices) =>
        string.Join(", ", PlaysOn.For(Profiles.Find(profile)!).Where(d => d.Plays).Select(d => d.Devices)).ShouldBe(devices);

    [Theory]
    [InlineData(480, true, "Small text is soft on a large screen.")]
    [InlineData(720, true, "Also from a stick.")]
    [InlineData(1080, true, "Also from a stick.")]
    [InlineData(1440, false, "Only those of ultra high definition.")]
    public void What_televisions_play_goes_by_the_lines(int lines, bool plays, string words)
    {
        var profile = Profiles.Web with { Picture = Profiles.Web.Picture! with { Size = SizeSettings.AtMost(lines) } };
        PlaysOn.For(profile)[^1].ShouldBe(new DevicePlays("televisions", plays, words));
        PlaysOn.For(profile)[0].Words.Length.ShouldBe(lines > 1080 ? "They show no more of it than of 1080 lines, and load more.".Length : 0);
    }
}
