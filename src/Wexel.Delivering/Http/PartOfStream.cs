namespace Wexel.Delivering.Http;

/// <summary>The next bytes of a stream, so many of them; the stream stays open.</summary>
internal sealed class PartOfStream(Stream whole, long bytes) : Stream
{
    private long _left = bytes;

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => throw new NotSupportedException();
    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override int Read(Span<byte> buffer)
    {
        var read = whole.Read(buffer[..(int)Math.Min(buffer.Length, _left)]);
        _left -= read;
        return read;
    }

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        var read = await whole.ReadAsync(buffer[..(int)Math.Min(buffer.Length, _left)], cancellationToken);
        _left -= read;
        return read;
    }

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}
