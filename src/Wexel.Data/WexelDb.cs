using Microsoft.AspNetCore.DataProtection.EntityFrameworkCore;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Wexel.Data.Model;

namespace Wexel.Data;

/// <summary>People, outlets, releases, jobs and what learners did; lessons as revisions.</summary>
public sealed class WexelDb(DbContextOptions<WexelDb> options) : IdentityDbContext<Person, IdentityRole<Guid>, Guid>(options), IDataProtectionKeyContext
{
    public DbSet<Course> Courses => Set<Course>();
    public DbSet<Lesson> Lessons => Set<Lesson>();
    public DbSet<LessonRevision> LessonRevisions => Set<LessonRevision>();
    public DbSet<ReleasedText> ReleasedTexts => Set<ReleasedText>();
    public DbSet<ReleasedWord> ReleasedWords => Set<ReleasedWord>();
    public DbSet<SearchedText> SearchedTexts => Set<SearchedText>();
    public DbSet<Recording> Recordings => Set<Recording>();
    public DbSet<HeardRecording> HeardRecordings => Set<HeardRecording>();
    public DbSet<Rendition> Renditions => Set<Rendition>();
    public DbSet<RenderBatch> RenderBatches => Set<RenderBatch>();
    public DbSet<OwnProfile> Profiles => Set<OwnProfile>();
    public DbSet<CheckOverride> CheckOverrides => Set<CheckOverride>();
    public DbSet<Outlet> Outlets => Set<Outlet>();
    public DbSet<Release> Releases => Set<Release>();
    public DbSet<ReleaseBatch> ReleaseBatches => Set<ReleaseBatch>();
    public DbSet<CourseRelease> CourseReleases => Set<CourseRelease>();
    public DbSet<FeedListener> FeedListeners => Set<FeedListener>();
    public DbSet<FeedListing> FeedListings => Set<FeedListing>();
    public DbSet<VideoAccount> VideoAccounts => Set<VideoAccount>();
    public DbSet<VideoDay> VideoDays => Set<VideoDay>();
    public DbSet<AuditEntry> AuditEntries => Set<AuditEntry>();
    public DbSet<PodcastFeed> PodcastFeeds => Set<PodcastFeed>();
    public DbSet<SignedIn> SignedIn => Set<SignedIn>();
    public DbSet<PeopleGroup> PeopleGroups => Set<PeopleGroup>();
    public DbSet<SignInProvider> SignInProviders => Set<SignInProvider>();
    public DbSet<ProviderGroup> ProviderGroups => Set<ProviderGroup>();
    public DbSet<MailedCode> MailedCodes => Set<MailedCode>();
    public DbSet<GroupMember> GroupMembers => Set<GroupMember>();
    public DbSet<Upload> Uploads => Set<Upload>();
    public DbSet<House> Houses => Set<House>();
    public DbSet<LearningEntry> LearningLog => Set<LearningEntry>();
    public DbSet<LearnerRecord> LearnerRecords => Set<LearnerRecord>();
    public DbSet<LearnerNote> LearnerNotes => Set<LearnerNote>();
    public DbSet<SurveyReplyRow> SurveyReplies => Set<SurveyReplyRow>();
    public DbSet<PooledQuestion> PooledQuestions => Set<PooledQuestion>();

    public DbSet<KeptSound> KeptSounds => Set<KeptSound>();
    public DbSet<SurveyMark> SurveyMarks => Set<SurveyMark>();
    public DbSet<LessonList> LessonLists => Set<LessonList>();
    public DbSet<ListedLesson> ListedLessons => Set<ListedLesson>();
    public DbSet<Follow> Follows => Set<Follow>();
    public DbSet<FollowerMail> FollowerMails => Set<FollowerMail>();
    public DbSet<DataProtectionKey> DataProtectionKeys => Set<DataProtectionKey>();

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Lesson>(lesson =>
        {
            lesson.HasOne(l => l.Recording).WithMany().HasForeignKey(l => l.RecordingHash);
            lesson.Property(l => l.Suggesting).HasColumnType("jsonb");
            lesson.Property(l => l.Proposing).HasColumnType("jsonb");
            lesson.Property(l => l.Script).HasColumnType("jsonb");
            lesson.Property(l => l.LeftInText).HasDefaultValueSql("'{}'");
            lesson.Property(l => l.Said).HasColumnType("jsonb").HasDefaultValue("{}");
            // What lies in the bin is found by those alone who look there.
            lesson.HasQueryFilter(l => l.BinnedAt == null);
            lesson.HasMany(l => l.Texts).WithOne().HasForeignKey(t => t.LessonId);
            lesson.HasMany(l => l.Revisions).WithOne().HasForeignKey(r => r.LessonId);
            // Two people who save at once: the second's update finds no row and is told.
            lesson.Property(l => l.Revision).IsConcurrencyToken();
        });
        builder.HasPostgresExtension("pg_trgm");
        builder.Entity<SearchedText>(text =>
        {
            text.HasKey(t => new
            {
                t.LessonId,
                t.Kind,
                t.Ref,
            });
            text.Property(t => t.Kind).HasConversion<string>();
            text.HasIndex(t => t.Text).HasMethod("gin").HasOperators("gin_trgm_ops");
        });
        builder.Entity<ReleasedText>(text =>
        {
            text.HasKey(t => new { t.ReleaseId, t.Dictionary });
            // What is put in is found at once; otherwise a search would go through all that came since the database was tidied last.
            text.HasIndex(t => t.Stems).HasMethod("gin").HasStorageParameter("fastupdate", false);
            text.HasOne<Release>().WithMany().HasForeignKey(t => t.ReleaseId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<ReleasedWord>(word =>
        {
            word.HasKey(w => w.Word);
            word.HasIndex(w => w.Word).HasMethod("gin").HasOperators("gin_trgm_ops");
        });
        builder.Entity<LessonRevision>(revision =>
        {
            revision.HasKey(r => new { r.LessonId, r.Number });
            revision.Property(r => r.Document).HasColumnType("jsonb");
        });
        builder.Entity<Recording>(recording =>
        {
            recording.HasKey(r => r.Hash);
            recording.Property(r => r.Facts).HasColumnType("jsonb");
            recording.Property(r => r.Analysis).HasColumnType("jsonb");
            recording.Property(r => r.AnalysisSoFar).HasColumnType("jsonb");
        });
        builder.Entity<HeardRecording>(heard =>
        {
            heard.HasKey(h => h.RecordingHash);
            heard.HasOne<Recording>().WithOne().HasForeignKey<HeardRecording>(h => h.RecordingHash).OnDelete(DeleteBehavior.Cascade);
            heard.Property(h => h.State).HasConversion<string>();
            heard.Property(h => h.Heard).HasColumnType("jsonb");
        });
        builder.Entity<House>(house =>
        {
            house.Property(h => h.Words).HasColumnType("jsonb");
            house.Property(h => h.Id).ValueGeneratedNever();
            house.Property(h => h.MarkPlacement).HasColumnType("jsonb");
            house.Property(h => h.Details).HasColumnType("jsonb");
        });
        builder.Entity<Upload>(upload =>
        {
            upload.Property(u => u.Problem).HasColumnType("jsonb");
            upload.HasIndex(u => u.By);
            upload.HasIndex(u => u.ExpiresAt);
        });
        builder.Entity<Person>().HasMany(p => p.SignedIn).WithOne().HasForeignKey(s => s.PersonId);
        builder.Entity<PeopleGroup>().HasMany(g => g.Members).WithOne().HasForeignKey(m => m.GroupId);
        builder.Entity<MailedCode>().HasIndex(c => c.Mail).IsUnique();
        builder.Entity<PeopleGroup>().HasIndex(g => g.Name).IsUnique();
        builder.Entity<GroupMember>(member =>
        {
            member.HasKey(m => new { m.GroupId, m.PersonId });
            member.HasIndex(m => m.PersonId);
        });
        builder.Entity<LessonList>(list =>
        {
            list.HasIndex(l => l.Name).IsUnique();
            list.HasIndex(l => l.Token).IsUnique();
            list.Property(l => l.Visibility).HasConversion<string>();
            list.Property(l => l.Named).HasColumnType("jsonb");
            list.HasMany(l => l.Lessons).WithOne().HasForeignKey(l => l.ListId);
            list.HasOne<Person>().WithMany().HasForeignKey(l => l.OwnerId).OnDelete(DeleteBehavior.SetNull);
        });
        builder.Entity<ListedLesson>(lesson =>
        {
            lesson.HasKey(l => new { l.ListId, l.LessonId });
            lesson.HasIndex(l => new { l.AddedBy, l.AddedAt });
            lesson.HasOne(l => l.Lesson).WithMany().HasForeignKey(l => l.LessonId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<Follow>(follow =>
        {
            follow.HasIndex(f => new { f.PersonId, f.OutletId }).IsUnique();
            follow.HasIndex(f => new { f.PersonId, f.CourseId }).IsUnique();
            follow.HasOne<Person>().WithMany().HasForeignKey(f => f.PersonId).OnDelete(DeleteBehavior.Cascade);
            follow.HasOne<Outlet>().WithMany().HasForeignKey(f => f.OutletId).OnDelete(DeleteBehavior.Cascade);
            follow.HasOne<Course>().WithMany().HasForeignKey(f => f.CourseId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<FollowerMail>(mail =>
        {
            // One lesson is told to somebody once, in however many channels it stands.
            mail.HasKey(m => new { m.PersonId, m.LessonId });
            mail.HasIndex(m => m.DueAt).HasFilter("\"SentAt\" is null");
            mail.HasOne(m => m.Follow).WithMany().HasForeignKey(m => m.FollowId).OnDelete(DeleteBehavior.Cascade);
            mail.HasOne(m => m.Release).WithMany().HasForeignKey(m => m.ReleaseId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<IdentityUserPasskey<Guid>>(passkey =>
        {
            passkey.ToTable("AspNetUserPasskeys").HasKey(p => p.CredentialId);
            passkey.OwnsOne(p => p.Data).ToJson();
            passkey.HasOne<Person>().WithMany().HasForeignKey(p => p.UserId);
        });
        builder.Entity<SignedIn>(session =>
        {
            session.HasIndex(s => s.KeyHash).IsUnique();
            session.HasIndex(s => new { s.ProviderId, s.ProviderSession });
            session.HasOne<SignInProvider>().WithMany().HasForeignKey(s => s.ProviderId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<SignInProvider>(provider =>
        {
            provider.HasIndex(p => p.Name).IsUnique();
            provider.HasMany(p => p.Groups).WithOne().HasForeignKey(g => g.ProviderId);
        });
        builder.Entity<ProviderGroup>(mapped =>
        {
            mapped.HasKey(m => new
            {
                m.ProviderId,
                m.Value,
                m.GroupId,
            });
            mapped.HasOne<PeopleGroup>().WithMany().HasForeignKey(m => m.GroupId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<Rendition>(rendition =>
        {
            rendition.Property(r => r.State).HasConversion<string>();
            rendition.Property(r => r.Check).HasColumnType("jsonb");
            rendition.Property(r => r.Profile).HasColumnType("jsonb");
            rendition.Property(r => r.MadeBy).HasColumnType("jsonb");
            rendition.HasOne(r => r.Batch).WithMany(b => b.Renditions).HasForeignKey(r => r.BatchId);
            rendition.HasIndex(r => r.State);
        });
        builder.Entity<CheckOverride>().HasIndex(o => new { o.EncodeKey, o.Code }).IsUnique();
        builder.Entity<OwnProfile>().Property(p => p.Document).HasColumnType("jsonb");
        builder.Entity<Outlet>(outlet =>
        {
            outlet.Property(o => o.Settings).HasColumnType("jsonb");
            outlet.Property(o => o.Details).HasColumnType("jsonb");
        });
        builder.Entity<Release>(release =>
        {
            release.Property(r => r.Visibility).HasConversion<string>();
            release.Property(r => r.WantedVisibility).HasConversion<string>();
            release.Property(r => r.Problem).HasColumnType("jsonb");
            release.Property(r => r.SaidNumber).IsConcurrencyToken();
            release.HasIndex(r => r.Phase);
            release.HasIndex(r => r.BatchId);
            release.Property(r => r.Container).HasConversion<string>();
            release.Property(r => r.DownloadContainer).HasConversion<string>();
            release.Property(r => r.Profile).HasColumnType("jsonb");
            release.Property(r => r.Player).HasColumnType("jsonb");
            release.Property(r => r.Episode).HasColumnType("jsonb");
            release.Property(r => r.Details).HasColumnType("jsonb");
            release.Property(r => r.Named).HasColumnType("jsonb");
            release.Property(r => r.Invited).HasColumnType("jsonb");
            release.Property(r => r.There).HasColumnType("jsonb");
            release.Property(r => r.VideoPlace).HasColumnType("jsonb");
            release.Property(r => r.VideoThere).HasColumnType("jsonb");
            release.Property(r => r.PackageFiles).HasColumnType("jsonb");
            release.HasIndex(r => r.Token).IsUnique();
            release.HasIndex(r => new { r.LessonId, r.OutletId }).IsUnique();
            // One that is still on its way stands nowhere yet; who brings it there looks past this.
            release.HasQueryFilter(r => r.MadeFrom != "");
        });
        builder.Entity<VideoAccount>(account =>
        {
            account.Property(a => a.Facts).HasColumnType("jsonb");
            account.HasIndex(a => new { a.Service, a.AccountId }).IsUnique();
        });
        builder.Entity<VideoDay>(day =>
        {
            day.HasKey(d => new { d.ReleaseId, d.Day });
            day.HasOne(d => d.Release).WithMany().HasForeignKey(d => d.ReleaseId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<AuditEntry>(entry =>
        {
            entry.HasKey(e => e.Number);
            entry.Property(e => e.Number).UseIdentityAlwaysColumn();
        });
        builder.Entity<PodcastFeed>(feed =>
        {
            feed.HasKey(f => f.OutletId);
            feed.HasOne(f => f.Outlet).WithOne(o => o.Feed).HasForeignKey<PodcastFeed>(f => f.OutletId);
            feed.Property(f => f.Artwork).HasColumnType("jsonb");
            feed.HasIndex(f => f.Token).IsUnique();
        });
        builder.Entity<FeedListener>(listener =>
        {
            listener.HasIndex(l => l.Token).IsUnique();
            listener.HasOne(l => l.Feed).WithMany(f => f.Listeners).HasForeignKey(l => l.OutletId);
        });
        builder.Entity<FeedListing>(listing =>
        {
            listing.HasKey(l => new
            {
                l.OutletId,
                l.Directory,
                l.IsSound,
            });
            listing.HasOne(l => l.Feed).WithMany(f => f.Listings).HasForeignKey(l => l.OutletId);
            listing.Property(l => l.Reasons).HasColumnType("jsonb");
        });
        builder.Entity<CourseRelease>(release =>
        {
            release.Property(r => r.Profile).HasColumnType("jsonb");
            release.Property(r => r.PackageFiles).HasColumnType("jsonb");
            release.Property(r => r.There).HasColumnType("jsonb");
            release.Property(r => r.Problem).HasColumnType("jsonb");
            release.Property(r => r.SaidNumber).IsConcurrencyToken();
            release.HasIndex(r => new { r.CourseId, r.OutletId }).IsUnique();
        });
        builder.Entity<LearningEntry>(entry =>
        {
            entry.HasKey(e => e.Number);
            entry.HasOne<Lesson>().WithMany().HasForeignKey(e => e.LessonId);
            entry.Property(e => e.Data).HasColumnType("jsonb");
            entry.HasIndex(e => e.EventId).IsUnique();
            entry.HasIndex(e => new
            {
                e.LessonId,
                e.LearnerKey,
                e.Number,
            });
        });
        builder.Entity<LearnerNote>(note =>
        {
            note.Property(n => n.Kind).HasConversion<string>();
            note.HasIndex(n => new { n.LessonId, n.LearnerKey });
            note.HasOne<Lesson>().WithMany().HasForeignKey(n => n.LessonId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<SurveyReplyRow>(reply =>
        {
            reply.Property(r => r.Values).HasColumnType("jsonb");
            reply.HasIndex(r => r.LessonId);
            reply.HasOne<Lesson>().WithMany().HasForeignKey(r => r.LessonId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<PooledQuestion>(pooled =>
        {
            pooled.Property(p => p.Question).HasColumnType("jsonb");
            pooled.HasIndex(p => p.Asks).IsUnique();
        });
        builder.Entity<KeptSound>(sound =>
        {
            sound.HasKey(s => s.Key);
            sound.Property(s => s.Sound).HasColumnType("jsonb");
        });
        builder.Entity<SurveyMark>(mark =>
        {
            mark.HasKey(m => new { m.LessonId, m.LearnerKey });
            mark.HasOne<Lesson>().WithMany().HasForeignKey(m => m.LessonId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<LearnerRecord>(record =>
        {
            record.HasOne<Lesson>().WithMany().HasForeignKey(r => r.LessonId);
            record.Property(r => r.State).HasColumnType("jsonb");
            record.HasIndex(r => new { r.LessonId, r.LearnerKey }).IsUnique();
        });
    }
}
