namespace Wexel.Server.Setup;

/// <summary>A stream whose start was read already, from its start again.</summary>
internal sealed class Rejoined(ReadOnlyMemory<byte> start, Stream rest) : Stream
{
    private int _given;

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => throw new NotSupportedException();
    public override long Position
    {
        get => throw new NotSupportedException();
        set => throw new NotSupportedException();
    }

    public override async ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
    {
        if (_given == start.Length)
            return await rest.ReadAsync(buffer, cancellationToken);
        var now = Math.Min(buffer.Length, start.Length - _given);
        start.Slice(_given, now).CopyTo(buffer);
        _given += now;
        return now;
    }

    public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException("Read it with ReadAsync.");

    public override void Flush() => throw new NotSupportedException();

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}
