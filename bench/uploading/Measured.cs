using System.Diagnostics;
using System.Net;
using System.Text.RegularExpressions;
using Wexel.Core;
using Wexel.Core.Outlets.VideoServices;
using Wexel.Core.People;
using Wexel.Delivering.Http;
using Wexel.Delivering.VideoServices;
using Wexel.Delivering.VideoServices.Skerry;

namespace Wexel.Uploading;

/// <summary>Uploads a file by the adaptor and plainly, in turn, and says what each took.</summary>
internal static partial class Measured
{
    private const int Rounds = 3;
    private const string Back = "http://127.0.0.1:9/back";

    internal static async Task RunAsync(string file, Uri skerry, Uri plain)
    {
        using var guarded = new HttpClient(OutsideOnly.Handler((_, _) => true)) { Timeout = TimeSpan.FromMinutes(30) };
        var service = new SkerryService(guarded, new SkerrySettings { Address = skerry, ClientSecret = "tide-table" }, TimeProvider.System);
        var access = await ConnectedAsync(service, skerry);
        var (bytes, upload, put, most) = (new FileInfo(file).Length, double.MaxValue, double.MaxValue, 0L);
        for (var round = 0; round < Rounds; round++)
        {
            var begun = Taken(await service.BeginAsync(access, new NewVideo($"bench {round} {Guid.NewGuid()}", "desk-lessons", bytes, Texts, null), default));
            GC.Collect();
            var before = Process.GetCurrentProcess().WorkingSet64;
            using (var watch = new Timer(_ => most = Math.Max(most, Process.GetCurrentProcess().WorkingSet64 - before), null, 0, 50))
            {
                var clock = Stopwatch.StartNew();
                if (await service.SendAsync(access, begun.To, bytes, () => File.OpenRead(file), new Progress<long>(), default) is { } problem)
                    throw new InvalidOperationException(problem.Sentence);
                upload = Math.Min(upload, clock.Elapsed.TotalSeconds);
            }

            await service.RemoveAsync(access, begun.Id, default);
            using var plainly = new HttpClient { Timeout = TimeSpan.FromMinutes(30) };
            await using var source = File.OpenRead(file);
            var also = Stopwatch.StartNew();
            (await plainly.PutAsync(new Uri(plain, $"file-{round}"), new StreamContent(source, 128 * 1024))).EnsureSuccessStatusCode();
            put = Math.Min(put, also.Elapsed.TotalSeconds);
        }

        Console.WriteLine(
            FormattableString.Invariant(
                $"Upload of {bytes / 1e9:0.0} GB through the adaptor / a plain PUT of it ({upload:0.0} s / {put:0.0} s)|{upload / put:0.000}|1.2"
            )
        );
        Console.WriteLine(FormattableString.Invariant($"Memory more than before while it uploads, MB|{most / 1e6:0.0}|100"));
    }

    private static VideoTexts Texts { get; } = new("Bench", "d", ["t"], "Work", false, null, true, false, Visibility.WithLink, [], null);

    /// <summary>Lets the adaptor in, as somebody does in a browser.</summary>
    private static async Task<ServiceAccess> ConnectedAsync(SkerryService service, Uri skerry)
    {
        using var browser = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false });
        const string verifier = "0123456789012345678901234567890123456789012";
        var challenge = Convert.ToBase64String(System.Security.Cryptography.SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(verifier)));
        var asked = service.AskAt(new Uri(Back), "bench", challenge.TrimEnd('=').Replace('+', '-').Replace('/', '_'));
        var hidden = Hidden().Matches(await browser.GetStringAsync(asked));
        using var form = new FormUrlEncodedContent([
            .. hidden.Select(m => KeyValuePair.Create(WebUtility.HtmlDecode(m.Groups[1].Value), WebUtility.HtmlDecode(m.Groups[2].Value))),
            KeyValuePair.Create("account", "ticket-desk"),
        ]);
        var back = (await browser.PostAsync(new Uri(skerry, "door/authorize"), form)).Headers.Location!;
        var code = Microsoft.AspNetCore.WebUtilities.QueryHelpers.ParseQuery(back.Query)["code"].ToString();
        var tokens = Taken(await service.ConnectAsync(code, verifier, new Uri(Back), default));
        return new ServiceAccess((_, _) => Task.FromResult<Result<string>>(tokens.Access));
    }

    private static T Taken<T>(Result<T> result) => result.Is(out var value, out var problem) ? value : throw new InvalidOperationException(problem.Sentence);

    [GeneratedRegex("<input type=\"hidden\" name=\"([^\"]*)\" value=\"([^\"]*)\">")]
    private static partial Regex Hidden();
}
