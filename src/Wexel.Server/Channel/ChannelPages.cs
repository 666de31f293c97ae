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
/// <param name="Follows">The numbers of the channels and courses that they follow.</param>
internal sealed record ChannelGuest(string House, string? Person, IReadOnlySet<Guid> Follows);

/// <summary>Which lessons of a channel are wanted.</summary>
/// <param name="Tag">Under what they are filed; null for all.</param>
/// <param name="Language">In which language they are; null for all.</param>
internal sealed record ChannelFilter(string? Tag = null, string? Language = null)
{
    /// <summary>What stands behind a channel's address for them, as HTML; empty where nothing does.</summary>
    internal string Address(ListOrder? order = null)
    {
        var said = new (string Name, string? Value)[] { ("order", order?.ToString().ToLowerInvariant()), ("tag", Tag), ("language", Language) }
            .Where(s => s.Value is not null)
            .Select(s => $"{s.Name}={Uri.EscapeDataString(s.Value!)}")
            .ToList();
        return said.Count == 0 ? "" : "?" + string.Join("&amp;", said);
    }
}

/// <summary>The pages of channels: a start page over all of them, and a front page each.</summary>
internal static class ChannelPages
{
    /// <summary>As many lessons of a channel as stand on the start page.</summary>
    private const int OnStart = 6;

    /// <summary>As many lessons of a list as stand on a page.</summary>
    private const int OnList = 200;

    private static readonly (ListOrder Order, string Words)[] Orders =
    [
        (ListOrder.Teaching, "in teaching order"),
        (ListOrder.Newest, "newest"),
        (ListOrder.Name, "by name"),
        (ListOrder.Length, "shortest"),
        (ListOrder.Watched, "most watched"),
    ];

    /// <summary>All channels that somebody may see.</summary>
    internal static string Start(IReadOnlyList<ListedChannel> channels, IReadOnlyList<LearnersList> lists, ChannelGuest guest)
    {
        var body = new StringBuilder($"<h1>{Text(guest.House)}: lessons</h1>");
        foreach (var channel in channels)
        {
            var front = ChannelFront.Of(channel.Lessons, ListOrder.Teaching);
            body.Append($"<section class=\"channel\" style=\"--channel:{channel.Settings.Colour}\">{Picture(channel)}<div class=\"over\">")
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

        if (lists.Count > 0)
        {
            body.Append("<section class=\"channel lists\"><div class=\"over\"><h2>Lists</h2></div><ul>");
            foreach (var list in lists)
                body.Append($"<li><a href=\"/list/{list.Token}\" dir=\"auto\">{Text(list.Name)}</a> ")
                    .Append($"<span>{Count(list.Lessons.Count)} · {TimeCode.Brief(Length(list.Lessons))}{SeenOf(list.Lessons, guest)}</span></li>");
            body.Append("</ul></section>");
        }

        if (guest.Person is null)
            body.Append("<p><a href=\"/sign-in?to=%2Fchannel\">Sign in</a> to see what is for people of the house.</p>");
        return Page(guest.House, channels, null, guest, body.ToString());
    }

    /// <summary>One channel.</summary>
    internal static string Front(ListedChannel channel, IReadOnlyList<ListedChannel> channels, ListOrder order, ChannelFilter only, ChannelGuest guest)
    {
        var front = ChannelFront.Of(channel.Lessons, order, only.Tag, only.Language);
        var here = $"/c/{channel.Address}";
        var body = new StringBuilder($"<section class=\"channel front\" style=\"--channel:{channel.Settings.Colour}\"><div>{Picture(channel)}").Append(
            $"<h1 dir=\"auto\">{Text(channel.Name)}</h1>"
        );
        if (channel.Settings.About.Length > 0)
            body.Append($"<p class=\"about\" dir=\"auto\">{Text(channel.Settings.About)}</p>");
        body.Append(Owners(channel))
            .Append(Follow(channel.Id, channel.Name, here, guest))
            .Append(GoOn(front))
            .Append("<nav class=\"orders\" aria-label=\"Order\">");
        foreach (var (one, words) in Orders)
            body.Append(one == order ? $"<span aria-current=\"true\">{words}</span> " : $"<a href=\"{here}{only.Address(one)}\">{words}</a> ");
        body.Append("</nav>");
        if (only.Tag is { } tag)
            body.Append($"<p class=\"about\">Filed under “{Text(tag)}” · <a href=\"{here}{(only with { Tag = null }).Address()}\">all subjects</a></p>");
        if (only.Language is { } language)
            body.Append($"<p class=\"about\">In {Text(language)} · <a href=\"{here}{(only with { Language = null }).Address()}\">all languages</a></p>");
        foreach (var part in front.Parts)
        {
            if (part.Title is { } title)
                body.Append(
                    $"<div class=\"over\"><h2 dir=\"auto\">{Text(title)}</h2><p>{Count(part.Lessons.Count)} · {TimeCode.Brief(part.Length)}"
                        + $"{SeenOf(part.Lessons, guest)}</p>{(part.Course is { } course ? Follow(course, title, here, guest) : "")}</div>"
                );
            body.Append("<ol>");
            foreach (var lesson in part.Lessons)
                body.Append(Item(lesson, front.Next, part.Title is null ? 2 : 3));
            body.Append("</ol>");
        }

        if (front.Parts.Count == 0)
            body.Append("<p>Nothing here is filed so any more.</p>");
        body.Append("</div>");
        body.Append(Filters(front, only, here)).Append("</section>");
        return Page(channel.Name, channels, channel, guest, body.ToString());
    }

    /// <summary>One list across courses, so much of it at once that a page of it loads quickly.</summary>
    /// <param name="list">The list.</param>
    /// <param name="from">The place in it at which the page begins, from 1.</param>
    /// <param name="channels">The channels to which the page leads.</param>
    /// <param name="guest">Who looks at it.</param>
    internal static string List(LearnersList list, int from, IReadOnlyList<ListedChannel> channels, ChannelGuest guest)
    {
        var front = ChannelFront.Of(list.Lessons, ListOrder.Teaching);
        var body = new StringBuilder($"<section class=\"channel\"><h1 dir=\"auto\">{Text(list.Name)}</h1>")
            .Append($"<p class=\"about\">{Count(list.Lessons.Count)} · {TimeCode.Brief(Length(list.Lessons))}{SeenOf(list.Lessons, guest)}</p>")
            .Append(GoOn(front))
            .Append("<ol>");
        foreach (var lesson in list.Lessons.Skip(from - 1).Take(OnList))
            body.Append(Item(lesson, front.Next, 2));
        body.Append("</ol>");
        if (list.Lessons.Count == 0)
            body.Append("<p>Nothing in this list is for you, or nothing is in it yet.</p>");
        if (list.Lessons.Count > OnList)
            body.Append("<nav class=\"orders\" aria-label=\"Parts of the list\">")
                .AppendJoin(
                    ' ',
                    Enumerable
                        .Range(0, (list.Lessons.Count + OnList - 1) / OnList)
                        .Select(part => (First: (part * OnList) + 1, Last: Math.Min((part + 1) * OnList, list.Lessons.Count)))
                        .Select(p =>
                            p.First == from
                                ? $"<span aria-current=\"true\">{p.First} to {p.Last}</span>"
                                : $"<a href=\"/list/{list.Token}?from={p.First}\">{p.First} to {p.Last}</a>"
                        )
                )
                .Append("</nav>");
        body.Append("</section>");
        return Page(list.Name, channels, null, guest, body.ToString(), typed: "");
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
                    .Append(
                        moment.Kind == TextKind.Tag ? "Subject: "
                        : moment.Kind == TextKind.Screen ? "On the screen: "
                        : ""
                    )
                    .Append("<span dir=\"auto\">")
                    .AppendJoin("", moment.Parts.Select(p => p.Found ? $"<mark>{Text(p.Text)}</mark>" : Text(p.Text)))
                    .Append("</span></li>");
            body.Append("</ul></div></li>");
        }

        body.Append("</ol>");
        if (found is { More: true })
            body.Append("<p>There are more than these. Another word beside them finds fewer.</p>");
        return Page("Find in the lessons", channels, null, guest, body.ToString(), typed);
    }

    /// <summary>By what the lessons can be picked out: only where there is something to choose.</summary>
    private static string Filters(ChannelFront front, ChannelFilter only, string here)
    {
        var languages = front.Languages.Count > 1;
        if (front.Tags.Count == 0 && !languages)
            return "";
        var body = new StringBuilder("<aside>");
        if (front.Tags.Count > 0)
            body.Append("<h2>Subjects</h2><p>")
                .AppendJoin(" · ", front.Tags.Select(t => $"<a href=\"{here}{(only with { Tag = t }).Address()}\" dir=\"auto\">{Text(t)}</a>"))
                .Append("</p>");
        if (languages)
            body.Append("<h2>Languages</h2><p>")
                .AppendJoin(" · ", front.Languages.Select(l => $"<a href=\"{here}{(only with { Language = l }).Address()}\">{Text(l)}</a>"))
                .Append("</p>");
        return body.Append("</aside>").ToString();
    }

    /// <summary>What a channel is known by besides its name, and who looks after it.</summary>
    private static string Picture(ListedChannel channel) =>
        channel.Settings.Picture is { } key ? $"<img class=\"known-by\" src=\"/c/{channel.Address}/picture.jpg?of={key}\" alt=\"\" loading=\"lazy\">" : "";

    private static string Owners(ListedChannel channel) =>
        channel.Owners.Count == 0 ? "" : $"<p class=\"about\">Looked after by <span dir=\"auto\">{Text(string.Join(", ", channel.Owners))}</span></p>";

    /// <summary>Following, and ending it, without scripts.</summary>
    private static string Follow(Guid what, string name, string here, ChannelGuest guest)
    {
        if (guest.Person is null)
            return "";
        var follows = guest.Follows.Contains(what);
        return $"""
            <form class="follow" method="post" action="/follow/{what}"><input type="hidden" name="back" value="{here}">{(
                follows ? "<input type=\"hidden\" name=\"end\" value=\"yes\"><span>You follow it.</span> " : ""
            )}<button aria-label="{(follows ? "Follow no more" : "Follow")}: {Text(name)}">{(follows ? "Follow no more" : "Follow")}</button></form>
            """;
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
            : string.Create(CultureInfo.InvariantCulture, $" · you have seen {Math.Floor(new ChannelPart(null, null, lessons).SeenShare * 100):0} %");

    private static TimeSpan Length(IReadOnlyList<ChannelLesson> lessons) => new ChannelPart(null, null, lessons).Length;

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

        var person = guest.Person is { } name ? $"<a href=\"/account\" dir=\"auto\">{Text(name)}</a>" : "<a href=\"/sign-in?to=%2Fchannel\">Sign in</a>";
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
