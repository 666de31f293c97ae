using System.Collections.Concurrent;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Connections;
using Wexel.Server.Setup;

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

    /// <summary>The disk has no room for more of it; what came is kept.</summary>
    NoRoom,

    /// <summary>Another piece of the same file is coming.</summary>
    Busy,
}

/// <summary>Adds pieces to files that come in pieces: at the end only, one at a time, and as far as they come.</summary>
internal sealed class PieceWriter(DiskRoom room)
{
    private const int BlockBytes = 256 * 1024;

    /// <summary>After how many bytes is looked again whether there is room: a piece need not say how long it is.</summary>
    private const long LookAfter = 16 * 1024 * 1024;

    /// <summary>The files to which a piece is coming; with where it starts, if what comes counts only once it was checked.</summary>
    private readonly ConcurrentDictionary<string, long?> _busy = new();

    /// <summary>Where a piece starts that is coming and counts only once it was checked; null where there is none.</summary>
    internal long? Unchecked(string path) => _busy.GetValueOrDefault(path);

    /// <param name="path">The file; one that is not there has been moved to where it belongs.</param>
    /// <param name="offset">Where the piece starts.</param>
    /// <param name="whole">How large the file will be.</param>
    /// <param name="body">The piece.</param>
    /// <param name="announced">How long the piece is said to be, where it is said.</param>
    /// <param name="checksum">What must come out; null where nothing was said. A piece that breaks off is not checked and not kept.</param>
    /// <param name="cancel">The connection broke off.</param>
    internal async Task<PieceResult> AddAsync(
        string path,
        long offset,
        long whole,
        Stream body,
        long? announced,
        (HashAlgorithmName Algorithm, byte[] Sum)? checksum,
        CancellationToken cancel
    )
    {
        if (!_busy.TryAdd(path, null))
            return PieceResult.Busy;
        try
        {
            await using var file = new FileStream(
                path,
                new FileStreamOptions
                {
                    Mode = FileMode.Open,
                    Access = FileAccess.Write,
                    Share = FileShare.Read,
                    Options = FileOptions.Asynchronous,
                    BufferSize = 0,
                }
            );
            if (file.Length != offset)
                return PieceResult.OtherOffset;
            if (offset + (announced ?? 0) > whole)
                return PieceResult.TooLong;
            file.Position = offset;
            _busy[path] = checksum is null ? null : offset;
            using var hash = checksum is { } expected ? IncrementalHash.CreateHash(expected.Algorithm) : null;
            var result = await CopyAsync(body, file, whole, hash, cancel);
            if (result == PieceResult.Kept && checksum is { } wanted && !CryptographicOperations.FixedTimeEquals(hash!.GetHashAndReset(), wanted.Sum))
                result = PieceResult.OtherChecksum;
            // What could not be checked is not kept.
            if (result is not (PieceResult.Kept or PieceResult.NoRoom) || (result == PieceResult.NoRoom && checksum is not null))
                file.SetLength(offset);
            // What is said to have come must be there after the power went.
            await Task.Run(() => file.Flush(flushToDisk: true), CancellationToken.None);
            return result;
        }
        catch (FileNotFoundException)
        {
            return PieceResult.OtherOffset;
        }
        catch (IOException)
        {
            // Another server on the same store holds the file, or its disk is full: the client tries again.
            return PieceResult.Busy;
        }
        finally
        {
            _busy.TryRemove(path, out _);
        }
    }

    private async Task<PieceResult> CopyAsync(Stream body, FileStream file, long whole, IncrementalHash? hash, CancellationToken cancel)
    {
        var block = new byte[BlockBytes];
        try
        {
            long? looked = null;
            int read;
            while ((read = await body.ReadAsync(block, cancel)) > 0)
            {
                if (file.Position + read > whole)
                    return PieceResult.TooLong;
                if (looked is null || file.Position - looked >= LookAfter)
                {
                    if (room.Usable < Math.Min(LookAfter, whole - file.Position))
                        return PieceResult.NoRoom;
                    looked = file.Position;
                }

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
