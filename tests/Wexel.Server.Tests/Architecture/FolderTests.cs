namespace Wexel.Server.Tests.Architecture;

/// <summary>Which folders may use which. A folder uses only such as stand above it, so that there are no circles.</summary>
public class FolderTests
{
    /// <summary>A line a folder, the lowest first: its name, and what it uses. A constant is copied where it is used and leaves no arrow.</summary>
    private static readonly Dictionary<string, string> Tables = new()
    {
        ["Wexel.Core"] = """
            Timing
            Naming
            Documents
            Keys: Timing
            Recordings: Keys Timing
            Placing: Keys Recordings Timing
            Kit: Keys Recordings
            Captions: Keys Placing Recordings Timing
            Speech: Captions Documents Placing Recordings Timing
            Screens: Recordings Speech Timing
            Contents: Captions Documents Keys Placing Timing
            Scoring
            Questions: Contents Documents Keys Placing Scoring Timing
            Overlays: Contents Keys Placing Scoring Timing
            Surveys: Contents Keys
            Proposing: Captions Contents Recordings Screens Speech Timing
            Translating: Captions Contents Keys Placing Timing
            Editing: Keys Placing Recordings Timing
            Cameras: Editing Keys Placing Recordings Timing
            Details: Captions Contents Documents Keys Placing
            Mixing: Contents Details Keys Placing Recordings Timing
            Lessons: Cameras Captions Contents Details Documents Editing Keys Kit Mixing Overlays Placing Questions Recordings Scoring Surveys Timing \
                Translating
            Searching: Captions Contents Details Lessons Timing
            People: Documents
            Streaming: Recordings Timing
            Encoding: Cameras Captions Contents Details Documents Editing Keys Kit Mixing Placing Recordings Timing
            Inspection: Encoding Placing Recordings Timing
            Legibility: Editing Placing Recordings Timing
            Packages: Captions Contents Details Documents Encoding Keys Naming Overlays Questions Recordings Scoring Surveys Timing Translating
            Feeds: Captions Contents Details Documents Keys Kit Packages Recordings Timing
            Outlets: Captions Contents Details Documents Encoding Feeds Inspection Keys Kit Lessons Mixing Packages People Recordings \
                Searching Timing
            Library: Encoding Outlets
            Learning: Documents Placing Questions Scoring Timing
            """,
        ["Wexel.Media"] = """
            Containers
            Tools: Containers
            Packaging: Tools
            Probing: Containers Tools
            Speech: Tools
            Spelling: Tools
            Translating: Tools
            Analysing: Tools
            Screens: Analysing Tools
            Mixing: Analysing Tools
            Rendering: Analysing Containers Mixing Probing Tools
            Measuring: Analysing Containers Probing Rendering Tools
            """,
        ["Wexel.Delivering"] = """
            Downloads
            Folders
            Http
            Directories
                VideoServices: Http
            """,
        ["Wexel.Making"] = """
            Storage
            Transcripts
            Lessons: Storage
            Rendering: Lessons Storage
            Releasing: Lessons Rendering Storage
            """,
        ["Wexel.Server"] = """
            Live
            Setup
            Telemetry
            Audit
            Remembering
            Mailing: Setup
            Upkeep: Setup
            Learning: Live Mailing Setup Upkeep
            SignIn: Mailing Remembering Setup Telemetry
            Serving: Setup SignIn Telemetry
            People: Mailing Remembering Setup SignIn
            Providers: People Remembering Setup SignIn
            Shelves: Live Setup
            Questions: Setup Shelves
            Outcomes: Learning Setup Shelves
            Following: Mailing People Serving Setup Shelves SignIn Upkeep
            Lists: Setup Shelves SignIn
            Kit: Setup Shelves
            Sounds: Setup Shelves
            Recordings: Live Setup Shelves
            Speech: Live Setup Shelves Upkeep
            Screens: Live Setup Shelves Upkeep
            Contents: Screens Setup Shelves Speech
            Uploads: Live Recordings Setup SignIn Upkeep
            Captions: Setup Shelves Speech Uploads
            Translating: Setup Shelves
            Details: Live Setup Shelves
            Outlets: Setup Shelves SignIn
            Feeds: Outlets Serving Setup Shelves Upkeep
            Estimates: Setup Shelves
            Rendering: Estimates Live Mailing Setup Shelves SignIn Telemetry Upkeep
            Profiles: Estimates Setup Shelves
            Trying: Estimates Setup Shelves
            Releases: Feeds Live Mailing Outlets People Rendering Setup Shelves SignIn Telemetry Upkeep
            VideoServices: Live Releases Setup Shelves SignIn Upkeep
            Board: Estimates Releases Setup Shelves SignIn
            Lessons: Live Recordings Releases Screens Setup Shelves SignIn Upkeep
            Library: Releases Rendering Setup Shelves SignIn
            Channel: Following Learning Lists People Releases Remembering Screens Serving Setup Shelves SignIn Upkeep
            Demo: Details Feeds Kit Learning Lists Outlets People Providers Recordings Releases Setup Shelves Uploads
            """,
    };

    public static TheoryData<string> Projects => [.. Tables.Keys];

    [Theory]
    [MemberData(nameof(Projects))]
    public void Folders_use_what_the_table_says_and_nothing_else(string project)
    {
        var table = Read(project);
        var found = Arrows.Within(project);
        var folders = Directory
            .EnumerateDirectories(Path.Combine(ServerFixture.Home, "src", project))
            .Select(f => Path.GetFileName(f)!)
            .Where(f => f is not ("bin" or "obj" or "Migrations" or "Properties"));
        folders.Order().ShouldBe(table.Select(line => line.Folder).Order(), "Every folder has a line.");
        table.Select(line => Line(line.Folder, found[line.Folder])).ShouldBe(table.Select(line => Line(line.Folder, line.Uses)));
    }

    [Theory]
    [MemberData(nameof(Projects))]
    public void No_folder_uses_one_that_stands_below_it(string project)
    {
        var above = new HashSet<string>();
        foreach (var (folder, uses) in Read(project))
        {
            uses.ShouldBeSubsetOf(above, $"{project}/{folder}");
            above.Add(folder);
        }
    }

    private static string Line(string folder, IEnumerable<string> uses) => $"{folder}: {string.Join(' ', uses.Order())}";

    private static List<(string Folder, string[] Uses)> Read(string project) =>
        [
            .. Tables[project]
                .Replace("\\\n", " ", StringComparison.Ordinal)
                .Split('\n')
                .Select(line => line.Split([' ', ':'], StringSplitOptions.RemoveEmptyEntries))
                .Select(words => (words[0], words[1..])),
        ];
}
