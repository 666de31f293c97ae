using System.Diagnostics;
using System.Diagnostics.Metrics;

namespace Wexel.Server.Telemetry;

/// <summary>What is counted and measured of the work, by the names of OpenTelemetry; it goes nowhere where nothing is configured.</summary>
internal sealed class Figures : IDisposable
{
    /// <summary>The name of what is measured and traced here.</summary>
    internal const string Name = "Wexel";

    /// <summary>Traces of the work in the background.</summary>
    internal static readonly ActivitySource Work = new(Name);

    private readonly Meter _meter = new(Name);
    private readonly Counter<long> _releases;
    private readonly Counter<long> _refused;
    private readonly Counter<long> _faults;
    private readonly Histogram<double> _speed;
    private long _waiting;
    private long _working;

    public Figures()
    {
        _releases = _meter.CreateCounter<long>("wexel.releases", "{release}", "Lessons released");
        _refused = _meter.CreateCounter<long>("wexel.sign_ins.refused", "{try}", "Tries to sign in that were refused");
        _faults = _meter.CreateCounter<long>("wexel.faults", "{fault}", "Requests and pieces of work that failed inside");
        _speed = _meter.CreateHistogram<double>("wexel.render.speed", "s/s", "Seconds of lesson made in a second");
        _meter.CreateObservableGauge(
            "wexel.queue.length",
            () =>
                new[]
                {
                    new Measurement<long>(Interlocked.Read(ref _waiting), new KeyValuePair<string, object?>("state", "waiting")),
                    new Measurement<long>(Interlocked.Read(ref _working), new KeyValuePair<string, object?>("state", "working")),
                },
            "{rendition}",
            "Renditions in the queue"
        );
    }

    internal void Queue(long waiting, long working)
    {
        Interlocked.Exchange(ref _waiting, waiting);
        Interlocked.Exchange(ref _working, working);
    }

    internal void Rendered(TimeSpan lesson, TimeSpan took) => _speed.Record(lesson / (took > TimeSpan.Zero ? took : TimeSpan.FromTicks(1)));

    /// <param name="kind">The kind of outlet.</param>
    internal void Released(string kind) => _releases.Add(1, new KeyValuePair<string, object?>("outlet", kind));

    internal void SignInRefused() => _refused.Add(1);

    /// <param name="where">What failed, such as "request" or "render".</param>
    internal void Fault(string where) => _faults.Add(1, new KeyValuePair<string, object?>("where", where));

    public void Dispose() => _meter.Dispose();
}
