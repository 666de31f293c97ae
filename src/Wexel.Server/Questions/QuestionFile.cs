using System.IO.Compression;
using Wexel.Core;
using Wexel.Core.Questions.Lists;
using Wexel.Core.Questions.Qti;

namespace Wexel.Server.Questions;

/// <summary>A file of questions that somebody chose: a text list, a QTI item, or a QTI package.</summary>
internal static class QuestionFile
{
    /// <summary>The largest file that is read, in bytes.</summary>
    internal const int Largest = 20_000_000;

    private const long MostUnpacked = 100_000_000;
    private const int MostEntries = 5_000;

    internal static Result<QuestionList> Read(byte[] file) =>
        file is [(byte)'P', (byte)'K', ..] ? Package(file)
        : PlainText.Decode(file) is not { } text ? Unusable("This is no text and no package. Choose a list in GIFT, Aiken or CSV, or questions in QTI.")
        : text.AsSpan().TrimStart() is ['<', ..] ? QtiReader.Read([("The file", text.TrimStart())])
        : QuestionList.Read(text);

    private static Result<QuestionList> Package(byte[] file)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
            if (zip.Entries.Count > MostEntries)
                return Unusable($"The package has more than {MostEntries:N0} files. Split it.");
            var (documents, unpacked) = (new List<(string, string)>(), 0L);
            foreach (var entry in zip.Entries.Where(e => e.FullName.EndsWith(".xml", StringComparison.OrdinalIgnoreCase)))
            {
                using var bytes = new MemoryStream();
                using (var content = entry.Open())
                {
                    // How long it says it is need not be how long it is.
                    var block = new byte[81_920];
                    for (int read; (read = content.Read(block)) > 0; )
                    {
                        if ((unpacked += read) > MostUnpacked)
                            return Unusable("The package unpacks to far more than it holds. Split it.");
                        bytes.Write(block, 0, read);
                    }
                }

                if (PlainText.Decode(bytes.ToArray()) is { } text)
                    documents.Add((entry.FullName, text.TrimStart()));
            }

            return QtiReader.Read(documents);
        }
        catch (InvalidDataException)
        {
            return Unusable("The package cannot be unpacked: a part of it is missing. Copy it again.");
        }
    }

    private static Problem Unusable(string sentence) => new("questions-unreadable", sentence, "file");
}
