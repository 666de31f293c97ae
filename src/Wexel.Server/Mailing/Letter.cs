using MimeKit;

namespace Wexel.Server.Mailing;

/// <summary>A picture that a mail shows.</summary>
/// <param name="Name">What the mail calls it, as in <c>cid:name</c>.</param>
/// <param name="Path">Its file, a JPEG.</param>
internal sealed record LetterPicture(string Name, string Path);

/// <summary>A mail in HTML with the same in plain text beside it (RFC 2046, section 5.1.4).</summary>
/// <param name="To">The mail address.</param>
/// <param name="Subject">The subject.</param>
/// <param name="Text">In plain text.</param>
/// <param name="Html">In HTML.</param>
/// <param name="Pictures">The pictures that the HTML shows; they come with it, since who reads it is not signed in there.</param>
/// <param name="Id">What tells it from all others: a mail that is sent again after its answer was lost is known by it (RFC 5322, section 3.6.4).</param>
/// <param name="Unsubscribe">Where one request ends it (RFC 8058).</param>
internal sealed record Letter(string To, string Subject, string Text, string Html, IReadOnlyList<LetterPicture> Pictures, string Id, Uri Unsubscribe)
{
    internal MimeMessage Message(string from)
    {
        var builder = new BodyBuilder { TextBody = Text, HtmlBody = Html };
        foreach (var picture in Pictures)
        {
            var part = builder.LinkedResources.Add(picture.Path, new ContentType("image", "jpeg"));
            (part.ContentId, part.ContentDisposition) = (picture.Name, new ContentDisposition(ContentDisposition.Inline) { FileName = picture.Name + ".jpg" });
        }

        var message = new MimeMessage { Subject = Subject, Body = builder.ToMessageBody() };
        message.From.Add(new MailboxAddress("Wexel", from));
        message.To.Add(MailboxAddress.Parse(To));
        message.MessageId = $"{Id}@{from[(from.IndexOf('@', StringComparison.Ordinal) + 1)..]}";
        // Nobody answers a machine with another (RFC 3834, section 5).
        message.Headers.Add("Auto-Submitted", "auto-generated");
        message.Headers.Add(HeaderId.ListUnsubscribe, $"<{Unsubscribe}>");
        message.Headers.Add(HeaderId.ListUnsubscribePost, "List-Unsubscribe=One-Click");
        return message;
    }
}
