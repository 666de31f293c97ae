using MailKit.Net.Smtp;
using MimeKit;
using Wexel.StandIns.Video.Door;

namespace Wexel.StandIns.Video.Studio;

/// <summary>Writes to accounts when a video is ready, or refused.</summary>
internal sealed class ReadyMails(Store store, IConfiguration configuration, ILogger<ReadyMails> log) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(1));
        while (await timer.WaitForNextTickAsync(stoppingToken))
            foreach (var video in store.All.Where(v => !v.Mailed && v.State(DateTimeOffset.UtcNow) is VideoState.Ready or VideoState.Refused).ToList())
                try
                {
                    await WriteAsync(video, stoppingToken);
                    store.Change(video.Id, v => v with { Mailed = true });
                }
                catch (Exception failed) when (failed is SmtpCommandException or IOException or System.Net.Sockets.SocketException)
                {
                    log.LogWarning(failed, "The account {Account} could not be written to", video.Account);
                }
    }

    private async Task WriteAsync(Video video, CancellationToken cancel)
    {
        using var mail = new MimeMessage();
        mail.From.Add(new MailboxAddress("Skerry", "videos@skerry.example"));
        mail.To.Add(MailboxAddress.Parse(Account.Find(video.Account)!.Mail));
        mail.Subject = video.Reason is null ? $"Your video is ready: {video.Texts.Title}" : $"Your video was refused: {video.Texts.Title}";
        mail.Body = new TextPart("plain") { Text = video.Reason ?? "It plays in all sizes." };
        using var smtp = new SmtpClient();
        await smtp.ConnectAsync("127.0.0.1", configuration.GetValue("Video:SmtpPort", 2525), MailKit.Security.SecureSocketOptions.None, cancel);
        await smtp.SendAsync(mail, cancel);
        await smtp.DisconnectAsync(true, cancel);
    }
}
