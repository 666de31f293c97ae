using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using Wexel.Core.Details;
using Wexel.Core.Documents;
using Wexel.Core.Lessons;
using Wexel.Core.People;

namespace Wexel.Core.Outlets;

/// <summary>
/// A kind of outlet, declared in one place: what is asked when one is added, what it takes, what is made for it and handed on. Everything
/// that Wexel does at outlets asks this, and asks nothing else which kind it is.
/// </summary>
public abstract class OutletKind
{
    /// <summary>A name for programs; it never changes.</summary>
    public abstract string Code { get; }

    /// <summary>What it is, behind an outlet's name.</summary>
    public abstract string Name { get; }

    /// <summary>For what it is, in one sentence for whoever adds one.</summary>
    public abstract string About { get; }

    /// <summary>Its place in lists. What gives an address that anybody opens stands before what must be unpacked or subscribed to.</summary>
    public abstract int Rank { get; }

    /// <summary>What is asked of an outlet of this kind besides its name.</summary>
    public virtual IReadOnlyList<OutletField> Fields => [];

    /// <summary>Names that say nothing of what is there, in small letters: whoever gives one is told what comes of that. None where the name does not
    /// lead learners.</summary>
    public virtual IReadOnlyList<string> GeneralNames => [];

    /// <summary>Whether learners come to Wexel's own pages for it, where who may see a release is asked.</summary>
    public virtual bool HasPages => false;

    /// <summary>Whether what is made for it goes to a service that shows it on its own pages, under an account of somebody's.</summary>
    public virtual bool PublishesVideos => false;

    /// <summary>Of whom it is asked at each release whether they may see it; nobody where that is not asked.</summary>
    public virtual IReadOnlyList<Visibility> WhoMaySee => HasPages ? Enum.GetValues<Visibility>() : [];

    /// <summary>What it means there that somebody may see it, in a sentence.</summary>
    public virtual string Means(Visibility visibility) => VisibilityWords.For(visibility).Means;

    /// <summary>Whether it is asked at each release who may see it.</summary>
    public bool AsksWho => WhoMaySee.Count > 0;

    /// <summary>The details of a lesson that it has, with what holds for each there.</summary>
    public virtual IReadOnlyList<DetailRule> Details => [];

    /// <summary>Who sees what stands there, in a few words; null where that is said at each release.</summary>
    public virtual string? SeenBy => null;

    /// <summary>Who alone changes an outlet besides administrators; nobody, where every trainer does.</summary>
    /// <param name="settings">The settings as they are kept; null for those that a new one starts with.</param>
    public virtual IReadOnlyList<Guid> Keepers(string? settings) => [];

    /// <summary>Whether people outside the house may come to what stands there, whatever is said at the release.</summary>
    public virtual bool IsOpen => false;

    /// <summary>Whether it takes a course as a whole.</summary>
    public virtual bool TakesCourses => false;

    /// <summary>What is made for it is called so; null where no package is made.</summary>
    public virtual string? PackageWord => null;

    /// <summary>By which deliveries what was made can be put there, by their codes; none where learners fetch it here.</summary>
    public virtual IReadOnlyList<string> Deliveries => [];

    /// <summary>Whether the files of a package are put there one by one, in a folder, and not as one file.</summary>
    public virtual bool DeliversFiles => false;

    /// <summary>Whether such a folder is named after its lesson, for people to find; otherwise its name is an address that never changes.</summary>
    public virtual bool IsNamedAfterLesson => false;

    /// <summary>Whether what was put there can be taken away again from here.</summary>
    public virtual bool TakesBack => false;

    /// <summary>The parts of a lesson of which every kind says what becomes of them there, in their order.</summary>
    public static IReadOnlyList<string> Parts { get; } =
    [
        "Contents",
        "Chapters in the file",
        "Captions in each language",
        "Description",
        "Picture",
        "Completion",
        Carried.Questions,
        Carried.Score,
        Carried.Overlays,
        Carried.Survey,
    ];

    /// <summary>What of a lesson survives there: each of <see cref="Parts"/>, and what else there is to say.</summary>
    public abstract IReadOnlyList<Carried> Carries { get; }

    /// <summary>What has to be done there by hand, each in a sentence.</summary>
    /// <param name="page">The file of a package that is linked; null for none.</param>
    public virtual IReadOnlyList<string> ByHand(string? page) => [];

    /// <summary>What becomes of a lesson's title there, in a sentence; null where it stays as it is.</summary>
    public virtual string? TitleThere(string title) => null;

    /// <summary>What is lost when the file of a release goes, in one sentence: the release is taken down.</summary>
    /// <param name="outlet">The outlet's name.</param>
    public abstract string Loss(string outlet);

    /// <summary>For what a rendition is that is released there, in one sentence.</summary>
    /// <param name="outlet">The outlet's name.</param>
    public abstract string RenditionPurpose(string outlet);

    /// <summary>What a new outlet of this kind starts with.</summary>
    public abstract JsonObject Start();

    /// <summary>Settings as somebody entered them, to be kept; or what cannot be used.</summary>
    public abstract Result<string> Accept(JsonObject entered);

    /// <summary>Settings as they are kept, of any version so far, as they are shown.</summary>
    public abstract JsonObject Show(string? settings);

    /// <summary>What holds at an outlet with some settings.</summary>
    /// <param name="settings">The settings as they are kept; null for those that a new one starts with.</param>
    public abstract OutletTerms Terms(string? settings);
}

/// <summary>A kind of outlet with settings of its own.</summary>
/// <typeparam name="T">The settings.</typeparam>
public abstract class OutletKind<T> : OutletKind
    where T : class
{
    /// <summary>How its settings are kept.</summary>
    public abstract DocumentFormat<T> Format { get; }

    /// <summary>What a new one starts with.</summary>
    protected abstract T Usual { get; }

    /// <summary>What cannot be used of settings, or null.</summary>
    protected virtual Problem? Unusable(T settings) => null;

    /// <summary>What holds with some settings.</summary>
    protected abstract OutletTerms Terms(T settings);

    /// <summary>Settings as they are kept; null for those that a new one starts with.</summary>
    public T Read(string? settings) => settings is null ? Usual : Format.Read(settings);

    /// <inheritdoc/>
    public override JsonObject Start() => Format.Node(Usual);

    /// <inheritdoc/>
    public override JsonObject Show(string? settings) => Format.Node(Read(settings));

    /// <inheritdoc/>
    public override OutletTerms Terms(string? settings) => Terms(Read(settings));

    /// <inheritdoc/>
    public override Result<string> Accept(JsonObject entered)
    {
        // What nobody entered is as a new one has it.
        var whole = Start();
        foreach (var (name, value) in entered)
            whole[name] = value?.DeepClone();
        try
        {
            var settings = Format.Read(whole);
            return Unusable(settings) is { } problem ? problem : Format.Write(settings);
        }
        catch (JsonException failed)
        {
            return new Problem(
                "outlet-settings-unreadable",
                $"The settings of the {Name} cannot be read{(failed.Path is { Length: > 2 } path ? $" at “{path[2..]}”" : "")}. Load the page again.",
                failed.Path?.TrimStart('$', '.')
            );
        }
    }
}

/// <summary>What is asked of an outlet: one field of its settings.</summary>
/// <param name="Name">Its name in the settings.</param>
/// <param name="Label">What stands before it.</param>
/// <param name="Input">How it is entered.</param>
/// <param name="Help">What it does, in a sentence; empty where the label says it.</param>
/// <param name="Choices">What can be chosen, with its value and its words; null where it is typed.</param>
public sealed record OutletField(string Name, string Label, OutletInput Input, string Help = "", IReadOnlyList<OutletChoice>? Choices = null);

/// <summary>A value that can be chosen.</summary>
public sealed record OutletChoice(string Value, string Words);

/// <summary>How a field is entered.</summary>
public enum OutletInput
{
    /// <summary>One line.</summary>
    Line,

    /// <summary>Several lines.</summary>
    Text,

    /// <summary>A whole web address.</summary>
    Address,

    /// <summary>A colour, as <c>#RRGGBB</c>.</summary>
    Colour,

    /// <summary>One of several.</summary>
    Choice,

    /// <summary>Yes or no.</summary>
    YesNo,

    /// <summary>A picture, by its key.</summary>
    Picture,

    /// <summary>People who make lessons, by their numbers.</summary>
    People,
}

/// <summary>What of a lesson survives at an outlet.</summary>
/// <param name="What">What it is.</param>
/// <param name="As">What it becomes there; null where it stays what it is.</param>
/// <param name="Lost">Whether it is gone.</param>
public sealed record Carried(string What, string? As = null, bool Lost = false)
{
    /// <summary>What is asked.</summary>
    public const string Questions = "Questions";

    /// <summary>The points that are reached.</summary>
    public const string Score = "Score";

    /// <summary>What can be clicked or read over the picture.</summary>
    public const string Overlays = "Places to click, and notes";

    /// <summary>What learners are asked about a lesson.</summary>
    public const string Survey = "Survey";

    /// <summary>The parts that some lessons have, each with whether one has it; of a lesson without them nothing is said.</summary>
    private static readonly Dictionary<string, Func<LessonDocument, bool>> OfSome = new()
    {
        [Questions] = lesson => lesson.Asks,
        [Score] = lesson => lesson.CountsPoints,
        [Overlays] = lesson => lesson.HasOverlays,
        [Survey] = lesson => lesson.HasSurvey,
    };

    /// <summary>What is said of some lessons.</summary>
    /// <param name="carries">What a kind says of all parts.</param>
    /// <param name="lessons">The lessons.</param>
    public static IEnumerable<Carried> For(IEnumerable<Carried> carries, IReadOnlyList<LessonDocument> lessons) =>
        carries.Where(c => !OfSome.TryGetValue(c.What, out var has) || lessons.Any(has));

    /// <summary>What does not stay what it is, in sentences; empty where all of it does.</summary>
    public static string Sentence(IEnumerable<Carried> carries) =>
        string.Join(' ', carries.Where(c => c.Lost || c.As is not null).Select(c => c.Lost ? $"{c.What}: not there." : $"{c.What}: {c.As}"));
}

/// <summary>All kinds that there are.</summary>
public sealed class OutletKinds
{
    private readonly Dictionary<string, OutletKind> _kinds;

    /// <param name="kinds">The kinds; each has a code of its own.</param>
    /// <exception cref="ArgumentException">Two have the same code.</exception>
    public OutletKinds(IEnumerable<OutletKind> kinds)
    {
        _kinds = kinds.ToDictionary(k => k.Code);
        All = [.. _kinds.Values.OrderBy(k => k.Rank).ThenBy(k => k.Code, StringComparer.Ordinal)];
    }

    /// <summary>In the order of lists.</summary>
    public IReadOnlyList<OutletKind> All { get; }

    /// <summary>Those whose learners come to Wexel's own pages, by their codes.</summary>
    public IReadOnlyList<string> WithPages => [.. All.Where(k => k.HasPages).Select(k => k.Code)];

    /// <summary>A kind by its code.</summary>
    /// <exception cref="KeyNotFoundException">There is none.</exception>
    public OutletKind this[string code] => _kinds[code];

    /// <summary>A kind by its code; null where there is none.</summary>
    public OutletKind? Find(string code) => _kinds.GetValueOrDefault(code);

    /// <summary>Finds every kind that an assembly declares.</summary>
    public static IEnumerable<OutletKind> In(Assembly assembly) =>
        assembly
            .GetTypes()
            .Where(t => !t.IsAbstract && t.IsAssignableTo(typeof(OutletKind)))
            .OrderBy(t => t.FullName, StringComparer.Ordinal)
            .Select(t => (OutletKind)Activator.CreateInstance(t, nonPublic: true)!);

    /// <summary>The kinds that ship with Wexel.</summary>
    public static OutletKinds Shipped { get; } = new(In(typeof(OutletKind).Assembly));
}
