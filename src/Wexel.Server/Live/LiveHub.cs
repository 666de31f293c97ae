using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using Wexel.Data.Model;

namespace Wexel.Server.Live;

/// <summary>Tells open desks what changed; they fetch what they show.</summary>
[Authorize(Roles = Roles.Trainer)]
internal sealed class LiveHub : Hub;

/// <summary>A rendition's news.</summary>
internal sealed record RenditionNews(Guid Id, Guid LessonId, RenditionState State, double Progress, double? SecondsLeft);

/// <summary>How far the renditions are that are made in one pass.</summary>
internal sealed record ProgressNews(IReadOnlyList<Guid> Renditions, IReadOnlyList<Guid> Lessons, double Progress, double? SecondsLeft);

/// <summary>Sends news to every open desk.</summary>
internal sealed class LiveNews(IHubContext<LiveHub> hub)
{
    internal Task RenditionAsync(RenditionNews news) => hub.Clients.All.SendAsync("rendition", news);

    internal Task ProgressAsync(ProgressNews news) => hub.Clients.All.SendAsync("progress", news);

    internal Task RecordingAsync(string hash) => hub.Clients.All.SendAsync("recording", hash);

    internal Task UploadAsync(Guid id) => hub.Clients.All.SendAsync("upload", id);

    internal Task CourseAsync(Guid courseId) => hub.Clients.All.SendAsync("course", courseId);

    internal Task LessonAsync(Guid lessonId) => hub.Clients.All.SendAsync("lesson", lessonId);
}
