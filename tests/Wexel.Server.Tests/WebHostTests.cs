using System.IO.Compression;
using System.Net;

namespace Wexel.Server.Tests;

public sealed class WebHostTests(StandInsFixture outside) : IClassFixture<StandInsFixture>
{
    private static ByteArrayContent Zip(params string[] names)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var name in names)
            {
                using var entry = new StreamWriter(zip.CreateEntry(name).Open());
                entry.Write("<p>hello");
            }
        }

        return new ByteArrayContent(bytes.ToArray());
    }

    [Fact]
    public async Task Unpacks_and_serves()
    {
        (await outside.Client.PutAsync("sites/good", Zip("index.html", "a/b.html"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await outside.Client.GetStringAsync("sites/good/")).ShouldBe("<p>hello");
        (await outside.Client.GetAsync("sites/good")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await outside.Client.GetAsync("sites/good/..%2f..%2fx")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("../evil.html")]
    [InlineData("/tmp/wexel-evil.html")]
    public async Task Refuses_a_path_outside_the_folder(string name) =>
        (await outside.Client.PutAsync("sites/bad", Zip(name))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

    [Fact]
    public async Task Refuses_what_is_no_ZIP() =>
        (await outside.Client.PutAsync("sites/bad", new ByteArrayContent([1, 2, 3]))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
}
