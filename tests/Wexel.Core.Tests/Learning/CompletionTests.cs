using System.Text.Json;
using Wexel.Core.Learning;
using Wexel.Core.Timing;

namespace Wexel.Core.Tests.Learning;

public class CompletionTests
{
    public sealed record Vector(string Name, long LengthMs, long[][] Ranges, long SeenMs, bool Complete)
    {
        public override string ToString() => Name;
    }

    /// <summary>The same file is read by the player's tests: one rule, two languages.</summary>
    public static IEnumerable<TheoryDataRow<Vector>> Vectors() =>
        JsonSerializer
            .Deserialize<Vector[]>(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "vectors", "completion.json")), JsonSerializerOptions.Web)!
            .Select(v => new TheoryDataRow<Vector>(v));

    [Theory]
    [MemberData(nameof(Vectors))]
    public void Judges_by_the_union_of_what_was_watched(Vector vector)
    {
        var attendance = Completion.Judge(vector.Ranges.Select(r => new TimeRange(Ms.Of(r[0]), Ms.Of(r[1]))), Ms.Of(vector.LengthMs));
        attendance.Seen.ShouldBe(Ms.Of(vector.SeenMs));
        attendance.Complete.ShouldBe(vector.Complete);
    }
}
