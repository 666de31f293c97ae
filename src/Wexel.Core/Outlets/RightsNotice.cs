using System.Text.RegularExpressions;
using Wexel.Core.Details;
using Wexel.Core.Lessons;
using Wexel.Core.Mixing;
using Wexel.Core.Searching;
using Wexel.Core.Timing;

namespace Wexel.Core.Outlets;

/// <summary>Something in a lesson for which its house needs the right to show it or to let it be heard.</summary>
/// <param name="Text">What, in a sentence.</param>
/// <param name="IsDoubtful">Whether it may well not have it.</param>
/// <param name="At">Where it is first, in lesson time; null where that says nothing.</param>
public sealed record RightsLine(string Text, bool IsDoubtful = false, TimeSpan? At = null);

/// <summary>What is said before people outside the house can come to a lesson first: what of it is others', as far as that is known.</summary>
/// <param name="Seen">What is seen.</param>
/// <param name="Heard">What is heard.</param>
public sealed partial record RightsNotice(IReadOnlyList<RightsLine> Seen, IReadOnlyList<RightsLine> Heard)
{
    /// <summary>More addresses than these are counted.</summary>
    private const int MostNamed = 4;

    /// <summary>The notice for a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="shown">What was read on its pictures as learners see them, in lesson time.</param>
    public static RightsNotice Of(LessonDocument lesson, IReadOnlyList<TextLine> shown)
    {
        var addresses = shown
            .SelectMany(line => MailAddress().Matches(line.Text).Select(m => (m.Value, At: line.At ?? TimeSpan.Zero)))
            .GroupBy(found => found.Value, StringComparer.OrdinalIgnoreCase)
            .Select(same => (Address: same.Key, At: same.Min(s => s.At)))
            .OrderBy(found => found.At)
            .ToList();
        return new RightsNotice(
            [
                new("All that stands on the screen, for however short: names and figures of customers, messages that come up, other people’s pages."),
                .. addresses.Take(MostNamed).Select(a => new RightsLine($"The mail address {a.Address} at {TimeCode.Brief(a.At)}.", true, a.At)),
                .. addresses.Count > MostNamed
                    ? [new RightsLine($"{addresses.Count - MostNamed} more mail addresses.", true, addresses[MostNamed].At)]
                    : Array.Empty<RightsLine>(),
                .. lesson.ShownPictures.Count > 0 || lesson.Picture?.Own is not null
                    ? [new RightsLine("Pictures that somebody gave: with questions and notes, or for the lesson itself.")]
                    : Array.Empty<RightsLine>(),
            ],
            [new("Every voice: whoever is heard has agreed to it."), .. lesson.ShelfSounds.Select(sound => Line(sound, lesson.Said.Licence))]
        );
    }

    /// <summary>
    /// What a sound's licence means for a lesson. Music that is synchronised with pictures is adapted material (Creative Commons 4.0 legal code,
    /// section 1(a)): where nothing may be adapted it must not lie under a lesson, and where what is adapted must be shared alike, so must the lesson.
    /// </summary>
    private static RightsLine Line(ShelfSound sound, string? lessonLicence)
    {
        var name = $"“{Problem.Shown(sound.Title)}”";
        if (Licences.Find(sound.Licence) is not { } licence)
            return new RightsLine($"{name}: “{Problem.Shown(sound.Licence)}”. See that it covers people outside the house.", true);
        var (elements, brief) = (licence.Id.Split('-'), licence.Name.Split(',')[0]);
        var (notCommercial, noDerivatives, shareAlike) = (elements.Contains("NC"), elements.Contains("ND"), elements.Contains("SA"));
        return licence.Id switch
        {
            Licences.AllRightsReserved => new RightsLine($"{name}: all rights reserved. Have it in writing that it may be heard outside the house.", true),
            _ when noDerivatives => new RightsLine($"{name}: {brief} does not allow it to be laid under pictures. Exchange it.", true),
            _ when shareAlike && !string.Equals(lessonLicence, licence.Id, StringComparison.OrdinalIgnoreCase) => new RightsLine(
                $"{name}: {brief} asks that the lesson be given under the same licence. Choose that for the lesson, or exchange the sound.",
                true
            ),
            _ when notCommercial => new RightsLine($"{name}: {licence.Name}; nobody may earn by the lesson.", true),
            _ when sound.AsksForCredit => new RightsLine($"{name}: {licence.Name}; its author’s name stands in the description by itself."),
            _ => new RightsLine($"{name}: {licence.Name}."),
        };
    }

    /// <summary>An address as it stands on pages: local part and domain of RFC 5321, section 4.1.2, without quoted ones and literals.</summary>
    [GeneratedRegex(@"[A-Za-z0-9._%+\-]{1,64}@(?:[A-Za-z0-9\-]{1,63}\.){1,8}[A-Za-z]{2,24}", RegexOptions.CultureInvariant | RegexOptions.NonBacktracking)]
    private static partial Regex MailAddress();
}
