using System.Collections.Concurrent;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Connections;

namespace Wexel.Server.Uploads;

/// <summary>What came of a piece.</summary>
internal enum PieceResult
{
    /// <summary>It was kept, as far as it came.</summary>
    Kept,

    /// <summary>It does not start where the file ends.</summary>
    OtherOffset,

    /// <summary>It is longer than what is missing.</summary>
    TooLong,

    /// <summary>Its checksum is another.</summary>
    OtherChecksum,

    /// <summary>Another piece of the same file is coming.</summary>
    Busy,
}

/// <summary>Adds pieces to files that come in pieces: at the end only, one at a time, and as far as they come.</summary>
internal sealed class PieceWriter
{
    private const int BlockBytes = 256 * 1024;

    private readonly ConcurrentDictionary<string, bool> _busy = new();

    /// <param name="path">The file; it is made where it is not there.</param>
    /// <param name="offset">Where the piece starts.</param>
    /// <param name="whole">How large the file will be.</param>
    /// <param name="body">The piece.</param>
    /// <param name="announced">How long the piece is said to be, where it is said.</param>
    /// <param name="checksum">What must come out; null where nothing was said. A piece that breaks off is not checked and not kept.</param>
    /// <param name="cancel">The connection broke off.</param>
    internal async Task<PieceResult> AddAsync(string path, long offset, long whole, Stream body, long? announced, (HashAlgorithmName Algorithm, byte[] Sum)? checksum, CancellationToken cancel)
    {
        if (!_busy.TryAdd(path, true))
            return PieceResult.Busy;
        try
        {
            await using var file = new FileStream(path, new FileStreamOptions { Mode = FileMode.OpenOrCreate, Access = FileAccess.Write, Share = FileShare.Read, Options = FileOptions.Asynchronous, BufferSize = 0 });
            if (file.Length != offset)
                return PieceResult.OtherOffset;
            if (offset + (announced ?? 0) > whole)
                return PieceResult.TooLong;
            file.Position = offset;
            using var hash = checksum is { } expected ? IncrementalHash.CreateHash(expected.Algorithm) : null;
            var result = await CopyAsync(body, file, whole, hash, cancel);
            if (result == PieceResult.Kept && checksum is { } wanted && !CryptographicOperations.FixedTimeEquals(hash!.GetHashAndReset(), wanted.Sum))
                result = PieceResult.OtherChecksum;
            if (result != PieceResult.Kept)
                file.SetLength(offset);
            return result;
        }
        catch (IOException) when (File.Exists(path))
        {
            // Another server on the same store holds the file, or its disk is full: the client tries again.
            return PieceResult.Busy;
        }
        finally
        {
            _busy.TryRemove(path, out _);
        }
    }

    private static async Task<PieceResult> CopyAsync(Stream body, FileStream file, long whole, IncrementalHash? hash, CancellationToken cancel)
    {
        var block = new byte[BlockBytes];
        try
        {
            int read;
            while ((read = await body.ReadAsync(block, cancel)) > 0)
            {
                if (file.Position + read > whole)
                    return PieceResult.TooLong;
                hash?.AppendData(block, 0, read);
                await file.WriteAsync(block.AsMemory(0, read), CancellationToken.None);
            }
        }
        catch (Exception brokenOff) when (brokenOff is OperationCanceledException or ConnectionResetException or BadHttpRequestException)
        {
            // What came is kept, so that the next piece goes on from there; what should have been checked and could not be is not.
            if (hash is not null)
                return PieceResult.OtherChecksum;
        }

        return PieceResult.Kept;
    }
}
