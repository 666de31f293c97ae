using System.Globalization;
using System.Net;
using System.Text;
using Wexel.Core.Outlets.Channels;
using Wexel.Core.Packages;
using Wexel.Core.Searching;
using Wexel.Core.Timing;

namespace Wexel.Server.Channel;

/// <summary>Who looks at a channel.</summary>
/// <param name="House">Whose channels they are.</param>
/// <param name="Person">The name of whoever is signed in; null for strangers.</param>
internal sealed record ChannelGuest(string House, string? Person);

/// <summary>The pages of channels: a start page over all of them, and a front page each.</summary>
internal static class ChannelPages
{
    /// <summary>As many lessons of a channel as stand on the start page.</summary>
    private const int OnStart = 6;

    private static readonly (ListOrder Order, string Words)[] Orders =
    [
        (ListOrder.Teaching, "in teaching order"),
        (ListOrder.Newest, "newest"),
        (ListOrder.Name, "by name"),
        (ListOrder.Length, "shortest"),
        (ListOrder.Watched, "most watched"),
    ];

    /// <summary>All channels that somebody may see.</summary>
    internal static string Start(IReadOnlyList<ListedChannel> channels, ChannelGuest guest)
    {
        var body = new StringBuilder($"<h1>{Text(guest.House)}: lessons</h1>");
        foreach (var channel in channels)
        {
            var front = ChannelFront.Of(channel.Lessons, ListOrder.Teaching, null);
            body.Append($"<section class=\"channel\" style=\"--channel:{channel.Settings.Colour}\"><div class=\"over\">")
                .Append($"<h2><a href=\"/c/{channel.Address}\" dir=\"auto\">{Text(channel.Name)}</a></h2>")
                .Append($"<p>{Count(channel.Lessons.Count)} · {TimeCode.Brief(Length(channel.Lessons))}{SeenOf(channel.Lessons, guest)}</p></div>");
            if (channel.Settings.About.Length > 0)
                body.Append($"<p class=\"about\" dir=\"auto\">{Text(channel.Settings.About)}</p>");
            body.Append(GoOn(front)).Append("<ol>");
            foreach (var lesson in channel.Lessons.Take(OnStart))
                body.Append(Item(lesson, front.Next, 3));
            body.Append("</ol>");
            if (channel.Lessons.Count > OnStart)
                body.Append($"<p><a href=\"/c/{channel.Address}\">All {Count(channel.Lessons.Count)} of {Text(channel.Name)}</a></p>");
            body.Append("</section>");
        }

        if (guest.Person is null)
            body.Append("<p><a href=\"/sign-in?to=%2Fchannel\">Sign in</a> to see what is for people of the house.</p>");
        return Page(guest.House, channels, null, guest, body.ToString());
    }

    /// <summary>One channel.</summary>
    internal static string Front(ListedChannel channel, IReadOnlyList<ListedChannel> channels, ListOrder order, string? tag, ChannelGuest guest)
    {
        var front = ChannelFront.Of(channel.Lessons, order, tag);
        var here = $"/c/{channel.Address}";
        var body = new StringBuilder($"<section class=\"channel front\" style=\"--channel:{channel.Settings.Colour}\"><div>").Append(
            $"<h1 dir=\"auto\">{Text(channel.Name)}</h1>"
        );
        if (channel.Settings.About.Length > 0)
            body.Append($"<p class=\"about\" dir=\"auto\">{Text(channel.Settings.About)}</p>");
        body.Append(GoOn(front)).Append("<nav class=\"orders\" aria-label=\"Order\">");
        foreach (var (one, words) in Orders)
            body.Append(
                one == order
                    ? $"<span aria-current=\"true\">{words}</span> "
                    : $"<a href=\"{here}?order={one.ToString().ToLowerInvariant()}{(tag is null ? "" : $"&amp;tag={Uri.EscapeDataString(tag)}")}\">{words}</a> "
            );
        body.Append("</nav>");
        if (tag is not null)
            body.Append($"<p class=\"about\">Filed under “{Text(tag)}” · <a href=\"{here}\">all lessons</a></p>");
        foreach (var part in front.Parts)
        {
            if (part.Title is { } title)
                body.Append(
                    $"<div class=\"over\"><h2 dir=\"auto\">{Text(title)}</h2><p>{Count(part.Lessons.Count)} · {TimeCode.Brief(part.Length)}"
                        + $"{SeenOf(part.Lessons, guest)}</p></div>"
                );
            body.Append("<ol>");
            foreach (var lesson in part.Lessons)
                body.Append(Item(lesson, front.Next, part.Title is null ? 2 : 3));
            body.Append("</ol>");
        }

        if (front.Parts.Count == 0)
            body.Append("<p>Nothing here is filed so any more.</p>");
        body.Append("</div>");
        if (front.Tags.Count > 0)
            body.Append("<aside><h2>Subjects</h2><p>")
                .AppendJoin(" · ", front.Tags.Select(t => $"<a href=\"{here}?tag={Uri.EscapeDataString(t)}\" dir=\"auto\">{Text(t)}</a>"))
                .Append("</p></aside>");
        body.Append("</section>");
        return Page(channel.Name, channels, channel, guest, body.ToString());
    }

    /// <summary>What was found of what somebody looked for.</summary>
    internal static string Search(string typed, Found? found, IReadOnlyList<ListedChannel> channels, ChannelGuest guest)
    {
        var body = new StringBuilder("<h1>").Append(typed.Length == 0 ? "Find in the lessons" : $"Found for “{Text(typed)}”").Append("</h1>");
        if (found is null)
            body.Append("<p>Type a word or several above: lessons are found by their titles, sections and subjects, and by what is said in them.</p>");
        else if (found.Lessons.Count == 0)
            body.Append("<p>No lesson that you may see says all of these words. Try fewer, or others.</p>");
        if (found?.Instead is { } instead)
            body.Append($"<p class=\"about\" role=\"status\">Nobody says “{Text(typed)}”. This is what is said of “{Text(instead)}”.</p>");
        body.Append("<ol class=\"found\">");
        foreach (var lesson in found?.Lessons ?? [])
        {
            var page = $"/watch/{lesson.Token}";
            var picture = lesson.HasPicture ? $"<img src=\"{page}/poster.jpg\" alt=\"\" loading=\"lazy\">" : "";
            body.Append($"<li><a class=\"still\" href=\"{page}\" tabindex=\"-1\" aria-hidden=\"true\">{picture}</a><div>")
                .Append($"<h2><a href=\"{page}\" dir=\"auto\">{Text(lesson.Title)}</a></h2>")
                .Append($"<p class=\"where\" dir=\"auto\">{Text(lesson.Channel)} · {Text(lesson.Course)} · {TimeCode.Brief(lesson.Length)}</p><ul>");
            foreach (var moment in lesson.Moments.Where(m => m.Kind != TextKind.Title))
                body.Append(moment.At is { } at ? $"<li><a href=\"{page}#t={Seconds(at)}&amp;play\">{TimeCode.Brief(at)}</a> " : "<li>")
                    .Append(moment.Kind == TextKind.Tag ? "Subject: <span dir=\"auto\">" : "<span dir=\"auto\">")
                    .AppendJoin("", moment.Parts.Select(p => p.Found ? $"<mark>{Text(p.Text)}</mark>" : Text(p.Text)))
                    .Append("</span></li>");
            body.Append("</ul></div></li>");
        }

        body.Append("</ol>");
        if (found is { More: true })
            body.Append("<p>There are more than these. Another word beside them finds fewer.</p>");
        return Page("Find in the lessons", channels, null, guest, body.ToString(), typed);
    }

    private static string Seconds(TimeSpan at) => at.TotalSeconds.ToString("0.###", CultureInfo.InvariantCulture);

    private static string GoOn(ChannelFront front) =>
        front.GoOn is not { Seen: { } seen } lesson
            ? ""
            : $"""
                <div class="go-on"><a class="still" href="/watch/{lesson.Token}" tabindex="-1" aria-hidden="true">{Picture(lesson)}</a>
                <p><span>Go on where you were</span><b id="on-{lesson.Token}" dir="auto">{Text(lesson.Title)}</b>
                <span>at {TimeCode.Brief(seen.At)} · {TimeCode.Brief(lesson.Length - seen.At)} left</span></p>
                <a href="/watch/{lesson.Token}" aria-describedby="on-{lesson.Token}">Go on</a></div>
                """;

    private static string Item(ChannelLesson lesson, ChannelLesson? next, int level)
    {
        var (mark, words) = lesson.Seen switch
        {
            { Complete: true } => ("live", "Seen"),
            { } seen when seen.At > TimeSpan.Zero => ("behind", $"To {TimeCode.Brief(seen.At)}"),
            _ => ("nothing", lesson == next ? "Next" : "Not seen"),
        };
        var language = lesson.Language is { } tag ? $" lang=\"{Text(tag)}\"" : "";
        return $"""
            <li><span class="number">{lesson.Position.ToString(CultureInfo.InvariantCulture)}</span>
            <a class="still" href="/watch/{lesson.Token}" tabindex="-1" aria-hidden="true">{Picture(lesson)}</a>
            <div><h{level}><a href="/watch/{lesson.Token}" dir="auto"{language}>{Text(lesson.Title)}</a></h{level}>{(
                lesson.About.Length > 0 ? $"<p dir=\"auto\"{language}>{Text(lesson.About)}</p>" : ""
            )}</div>
            <span class="length">{TimeCode.Brief(lesson.Length)}</span>
            <span class="state"><i class="mark mark-{mark}" aria-hidden="true"></i> {words}</span></li>
            """;
    }

    private static string Picture(ChannelLesson lesson) => lesson.HasPicture ? $"<img src=\"/watch/{lesson.Token}/poster.jpg\" alt=\"\" loading=\"lazy\">" : "";

    private static string SeenOf(IReadOnlyList<ChannelLesson> lessons, ChannelGuest guest) =>
        guest.Person is null
            ? ""
            : string.Create(CultureInfo.InvariantCulture, $" · you have seen {Math.Floor(new ChannelPart(null, lessons).SeenShare * 100):0} %");

    private static TimeSpan Length(IReadOnlyList<ChannelLesson> lessons) => new ChannelPart(null, lessons).Length;

    private static string Count(int lessons) => lessons == 1 ? "1 lesson" : $"{lessons} lessons";

    private static string Text(string text) => WebUtility.HtmlEncode(text);

    private static string Page(string title, IReadOnlyList<ListedChannel> channels, ListedChannel? here, ChannelGuest guest, string body, string? typed = null)
    {
        var links = new StringBuilder($"<a href=\"/channel\"{(here is null && typed is null ? " aria-current=\"page\"" : "")}>Channels</a>");
        foreach (var channel in channels)
        {
            var current = channel == here ? " aria-current=\"page\"" : "";
            links
                .Append($"<a href=\"/c/{channel.Address}\" dir=\"auto\" style=\"--channel:{channel.Settings.Colour}\"{current}>")
                .Append($"{Text(channel.Name)}</a>");
        }

        var person = guest.Person is { } name ? $"<span dir=\"auto\">{Text(name)}</span>" : "<a href=\"/sign-in?to=%2Fchannel\">Sign in</a>";
        return $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>{Text(title)}</title>
            <link rel="icon" href="data:,"><link rel="stylesheet" href="/player/{PlayerPage.Style}"></head>
            <body><header class="channels"><b>{Text(guest.House)}</b><nav aria-label="Channels">{links}</nav>
            <form role="search" action="/search"><input type="search" name="q" aria-label="Find in the lessons" placeholder="Find in the lessons"
            value="{Text(typed ?? "")}" maxlength="200"><button>Find</button></form>{person}</header>
            <main class="channels">{body}</main></body></html>
            """;
    }
}
