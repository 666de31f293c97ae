using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Wexel.Core.Documents;

namespace Wexel.Core.Details;

/// <summary>What is said about a lesson for those who find it, as far as somebody said it; null where nobody did.</summary>
/// <param name="Title">The title.</param>
/// <param name="ShortTitle">The title where lists have little room.</param>
/// <param name="Description">What it is about: paragraphs, in which times lead to their places.</param>
/// <param name="Tags">Words by which it is found; none at all where the list is empty.</param>
/// <param name="Category">The subject that it belongs to.</param>
/// <param name="Language">Its language with its region, as a BCP 47 tag.</param>
/// <param name="ForChildren">Whether it is made for children.</param>
/// <param name="FromAge">From which age it is meant to be seen, in years; 0 for all ages.</param>
/// <param name="Licence">The identifier of one of <see cref="Licences"/>, or what is allowed in one's own words.</param>
/// <param name="ThirdParty">Whether there is material of others in it, and by whose permission.</param>
/// <param name="Author">Who made it.</param>
/// <param name="MayEmbed">Whether it may stand on other sites.</param>
/// <param name="MayDownload">Whether learners may download it.</param>
/// <param name="DownloadAs">The identifier of the profile with which that file is made; the one that plays where nobody said.</param>
/// <param name="MayWrite">Whether learners may write to the author.</param>
/// <param name="MayNote">Whether learners may leave notes at moments of it.</param>
/// <param name="TellFollowers">Whether those who follow a place are told of it.</param>
/// <param name="Credits">What must be said of things in it whatever its description says; it stands behind that, where all sets are merged.</param>
public sealed record DetailSet(
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Title = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? ShortTitle = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Description = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<string>? Tags = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Category = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Language = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? ForChildren = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] int? FromAge = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Licence = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] ThirdParty? ThirdParty = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Author? Author = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? MayEmbed = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? MayDownload = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? DownloadAs = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? MayWrite = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? MayNote = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? TellFollowers = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Credits = null
)
{
    /// <summary>How it is kept.</summary>
    public static DocumentFormat<DetailSet> Format { get; } = new("details", LearnersWroteNothing, TheFileThatPlays);

    /// <summary>Nobody was asked whether learners may write and leave notes.</summary>
    private static void LearnersWroteNothing(JsonObject set) { }

    /// <summary>There was no other to download.</summary>
    private static void TheFileThatPlays(JsonObject set) { }

    /// <summary>Nothing is said.</summary>
    public static DetailSet None { get; } = new();
}

/// <summary>Who made a lesson.</summary>
/// <param name="Name">A person or a department.</param>
/// <param name="Contact">A mail address or a web address; null where none is given.</param>
public sealed record Author(string Name, string? Contact = null);

/// <summary>Material of others in a lesson.</summary>
/// <param name="Used">Whether there is any.</param>
/// <param name="Permission">By whose permission it is there; empty where there is none.</param>
public sealed record ThirdParty(bool Used, string Permission = "");
