using System.Text.Json.Serialization;
using Wexel.Core.Keys;
using Wexel.Core.Overlays.Actions;

namespace Wexel.Core.Overlays;

/// <summary>
/// What happens when an area is clicked. A kind is a class in <c>Actions</c>; a line here registers it, and nothing else in Core has to know
/// it. Desk and player have a part for each too, by the same name.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(GoToSection), GoToSection.Name)]
[JsonDerivedType(typeof(GoToTime), GoToTime.Name)]
[JsonDerivedType(typeof(OpenLink), OpenLink.Name)]
[JsonDerivedType(typeof(ShowText), ShowText.Name)]
[JsonDerivedType(typeof(WaitForClick), WaitForClick.Name)]
public abstract record AreaAction
{
    /// <summary>Its kind, as documents write it.</summary>
    [JsonIgnore]
    public abstract string Kind { get; }

    /// <summary>What the player does, where it leads and what it says.</summary>
    /// <param name="sectionAt">Where a section begins in lesson time, by its name; null for one that there is not.</param>
    public abstract AreaDoes Does(Func<string, TimeSpan?> sectionAt);

    /// <summary>Why it cannot be done, each in a sentence that says what to do; none where it can.</summary>
    [JsonIgnore]
    public virtual IEnumerable<string> Faults => [];

    /// <summary>The section that it leads to, by its name; null for none.</summary>
    [JsonIgnore]
    public virtual string? Section => null;

    /// <summary>As it is saved: texts within their limits.</summary>
    public virtual AreaAction Tidied() => this;

    /// <summary>The same where every moment lies elsewhere.</summary>
    public virtual AreaAction Moved(Func<TimeSpan, TimeSpan> to) => this;

    /// <summary>Writes all of it that makes a difference.</summary>
    public abstract void Declare(KeyFields key);
}

/// <summary>What the player does when an area is clicked.</summary>
/// <param name="Kind">The kind of action.</param>
/// <param name="To">The time to go to, in lesson time; null for none.</param>
/// <param name="Address">The address to open; null for none.</param>
/// <param name="Says">What is said; null for nothing.</param>
public sealed record AreaDoes(
    string Kind,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] TimeSpan? To = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Address = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Says = null
);
