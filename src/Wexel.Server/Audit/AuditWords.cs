using System.Collections.Frozen;

namespace Wexel.Server.Audit;

/// <summary>What the number in an address is of.</summary>
internal enum AuditSubject
{
    None,
    Lesson,
    Course,
    Outlet,
    Release,
    CourseRelease,
    Rendition,
    Profile,
}

/// <summary>An action as people read it.</summary>
/// <param name="Words">What was done, behind who did it.</param>
/// <param name="Subject">What the number in the address is of.</param>
internal sealed record AuditAction(string Words, AuditSubject Subject = AuditSubject.None);

/// <summary>All actions, by the names of their addresses; and the addresses that only work something out.</summary>
internal static class AuditWords
{
    private static readonly FrozenDictionary<string, AuditAction> Actions = new Dictionary<string, AuditAction>
    {
        ["SignIn"] = new("signed in"),
        ["WantCode"] = new("had a code sent"),
        ["SignInByCode"] = new("signed in by a code"),
        ["SignOut"] = new("signed out"),
        ["ChangePassword"] = new("changed their password"),
        ["BeginSecondFactor"] = new("began to set up a code from an app"),
        ["ConfirmSecondFactor"] = new("set up a code from an app"),
        ["EndSecondFactor"] = new("took the code from an app away"),
        ["AddPasskey"] = new("added a passkey"),
        ["RemovePasskey"] = new("removed a passkey"),
        ["SignInByPasskey"] = new("signed in by a passkey"),
        ["Follow"] = new("began to follow something"),
        ["EndFollow"] = new("ended following something"),
        ["ChooseMails"] = new("chose how often mails tell of what is new"),
        ["AddList"] = new("made a list of lessons"),
        ["SaveList"] = new("changed a list of lessons"),
        ["RemoveList"] = new("removed a list of lessons"),
        ["OrderList"] = new("put a list of lessons into another order"),
        ["PutIntoList"] = new("put a lesson into a list"),
        ["TakeOutOfList"] = new("took a lesson out of a list"),
        ["EndSession"] = new("signed another browser out"),
        ["StopDraft"] = new("stopped the draft of captions of", AuditSubject.Lesson),
        ["ListenAgain"] = new("had a draft of captions made again for", AuditSubject.Lesson),
        ["AnswerNote"] = new("answered a learner’s note at", AuditSubject.Lesson),
        ["GiveLesson"] = new("gave to somebody else", AuditSubject.Lesson),
        ["ForgetPassword"] = new("had a link for a new password sent"),
        ["ChoosePassword"] = new("chose a new password"),
        ["AddPerson"] = new("added somebody"),
        ["ChangePerson"] = new("changed what somebody is called or does"),
        ["DisablePerson"] = new("let somebody sign in no more"),
        ["EnablePerson"] = new("let somebody sign in again"),
        ["RemovePersonalData"] = new("removed what was known of somebody"),
        ["InvitePerson"] = new("had a mail sent to somebody who is new"),
        ["TakePeople"] = new("added people from a list"),
        ["AddProvider"] = new("set up a way to sign in"),
        ["SaveProvider"] = new("changed a way to sign in"),
        ["RemoveProvider"] = new("removed a way to sign in"),
        ["JoinGroup"] = new("put somebody into a group"),
        ["LeaveGroup"] = new("took somebody out of a group"),
        ["AddGroup"] = new("made a group of people"),
        ["SaveGroup"] = new("changed a group of people"),
        ["RemoveGroup"] = new("removed a group of people"),
        ["BringIn"] = new("brought in a recording"),
        ["BeginUpload"] = new("began to bring in a recording"),
        ["EndUpload"] = new("stopped an upload"),
        ["LookThrough"] = new("had a recording looked through again"),
        ["UseSounds"] = new("chose the sound of a recording"),
        ["SaveLesson"] = new("changed", AuditSubject.Lesson),
        ["SaveSuggesting"] = new("chose how cuts are suggested in", AuditSubject.Lesson),
        ["SplitLesson"] = new("split", AuditSubject.Lesson),
        ["AddCourse"] = new("made a course"),
        ["SaveCourse"] = new("changed the name or description of", AuditSubject.Course),
        ["RemoveCourse"] = new("deleted the course", AuditSubject.Course),
        ["OrderCourses"] = new("changed the order of the courses"),
        ["MoveLessons"] = new("moved lessons to another course"),
        ["CopyLesson"] = new("copied", AuditSubject.Lesson),
        ["BinLessons"] = new("put lessons into the bin"),
        ["RestoreLesson"] = new("took out of the bin", AuditSubject.Lesson),
        ["DeleteLesson"] = new("deleted for good", AuditSubject.Lesson),
        ["OrderCourse"] = new("changed the order of", AuditSubject.Course),
        ["Render"] = new("had lessons rendered"),
        ["CancelRendition"] = new("stopped a render of", AuditSubject.Rendition),
        ["HoldRendition"] = new("held a render of", AuditSubject.Rendition),
        ["GoOnWithRendition"] = new("went on with a render of", AuditSubject.Rendition),
        ["RenderFirst"] = new("had rendered first", AuditSubject.Rendition),
        ["OrderQueue"] = new("changed the order of the queue"),
        ["LetPass"] = new("let a finding of the file check pass in", AuditSubject.Rendition),
        ["KeepMaster"] = new("had a master copy made of", AuditSubject.Lesson),
        ["KeepFile"] = new("said whether a file is kept of", AuditSubject.Lesson),
        ["DeleteFile"] = new("deleted a file of", AuditSubject.Lesson),
        ["FreeSpace"] = new("freed space"),
        ["Release"] = new("released", AuditSubject.Lesson),
        ["WantReleases"] = new("released to places"),
        ["StopRelease"] = new("stopped the release of", AuditSubject.Release),
        ["OpenRelease"] = new("changed who may see", AuditSubject.Release),
        ["TakeDown"] = new("took down", AuditSubject.Release),
        ["ApplyBoard"] = new("applied a plan on the board"),
        ["ReleaseCourse"] = new("made the package of", AuditSubject.Course),
        ["TakeCourseDown"] = new("took down the course", AuditSubject.CourseRelease),
        ["SaveReleaseDetails"] = new("changed what is said at one place of", AuditSubject.Lesson),
        ["AddOutlet"] = new("added an outlet"),
        ["SaveOutlet"] = new("changed the outlet", AuditSubject.Outlet),
        ["SaveOutletDetails"] = new("changed what is said at", AuditSubject.Outlet),
        ["LimitOutlet"] = new("changed the limits of", AuditSubject.Outlet),
        ["ChooseOutletProfile"] = new("chose the profile of", AuditSubject.Outlet),
        ["RemoveOutlet"] = new("removed the outlet", AuditSubject.Outlet),
        ["AddFeed"] = new("added a podcast feed"),
        ["SaveFeed"] = new("changed the feed", AuditSubject.Outlet),
        ["MoveFeed"] = new("gave a new address to", AuditSubject.Outlet),
        ["TakeArtwork"] = new("changed the artwork of", AuditSubject.Outlet),
        ["DropArtwork"] = new("had the artwork made again of", AuditSubject.Outlet),
        ["AddProfile"] = new("added a profile"),
        ["BringInProfile"] = new("brought in a profile as a file"),
        ["SaveProfile"] = new("changed the profile", AuditSubject.Profile),
        ["RemoveProfile"] = new("removed the profile", AuditSubject.Profile),
        ["SaveHouse"] = new("changed the house’s colour"),
        ["SavePlan"] = new("changed the line and the hosting plan"),
        ["SaveHouseWords"] = new("changed the house’s word list"),
        ["SaveNames"] = new("changed how files are named"),
        ["SaveHouseDetails"] = new("changed what the house says about all lessons"),
        ["TakeMark"] = new("changed the house’s mark"),
        ["PlaceMark"] = new("placed the house’s mark"),
        ["DropMark"] = new("removed the house’s mark"),
    }.ToFrozenDictionary();

    /// <summary>Addresses that are asked with a body and change nothing, or only what a later change names.</summary>
    internal static IReadOnlySet<string> ChangeNothing { get; } =
        new[]
        {
            "AddCaptions",
            "ChangeCues",
            "TakePicture",
            "CanvasOutcome",
            "CanvasSizes",
            "ChangeReel",
            "CheckProfile",
            "CutsOutcome",
            "Difference",
            "Estimate",
            "MakeItFit",
            "MarkBox",
            "NameUpload",
            "PlanBoard",
            "PreviewPeople",
            "TryProvider",
            "BeginPasskey",
            "AskPasskey",
            "ReadContents",
            "SplitOutcome",
            "TakeCaptionsInside",
            "TakeDraft",
            "TryProfiles",
            "ViewPath",
        }.ToFrozenSet();

    /// <summary>The names of all actions.</summary>
    internal static IEnumerable<string> Names => Actions.Keys;

    /// <summary>An action by the name of its address; null where it is none.</summary>
    internal static AuditAction? Find(string? name) => name is null ? null : Actions.GetValueOrDefault(name);
}
