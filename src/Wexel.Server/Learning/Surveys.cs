using Microsoft.EntityFrameworkCore;
using Wexel.Core;
using Wexel.Core.Documents;
using Wexel.Core.Surveys;
using Wexel.Data;
using Wexel.Data.Model;

namespace Wexel.Server.Learning;

/// <summary>What learners say of lessons, once each. Whoever was promised to be anonymous is: only that they replied is kept, apart from what they
/// said.</summary>
internal sealed class Surveys(WexelDb db, NewLearners newcomers, TimeProvider clock)
{
    /// <summary>Takes a reply.</summary>
    /// <param name="taken">Of what, and where.</param>
    /// <param name="learner">Who replies.</param>
    /// <param name="survey">What they were asked, and promised.</param>
    /// <param name="values">What they said.</param>
    /// <param name="cancel">Stops it.</param>
    /// <returns>Why it is not taken; null where it is.</returns>
    internal async Task<Problem?> TakeAsync(
        Taken taken,
        Learner learner,
        Survey survey,
        IReadOnlyDictionary<string, IReadOnlyList<string>> values,
        CancellationToken cancel
    )
    {
        var said = survey.Taken(values);
        if (said.Count == 0)
            return new Problem("survey-empty", "Nothing is filled in yet.", "values");
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await db.Database.ExecuteSqlAsync($"SELECT pg_advisory_xact_lock(hashtextextended({taken.LessonId + learner.Key}, 0))", cancel);
        if (await DidAsync(taken.LessonId, learner.Key, cancel))
            return new Problem("survey-twice", "You said what you think of this lesson before. It counts once.", "values");
        var known = await db.LearnerRecords.AnyAsync(r => r.LessonId == taken.LessonId && r.LearnerKey == learner.Key, cancel);
        if (!known && !newcomers.MayCome(taken.LessonId, learner))
            return new Problem("learners-too-many", "Too many new learners came from one address. Send it again later.", "values");
        db.SurveyMarks.Add(new SurveyMark { LessonId = taken.LessonId, LearnerKey = learner.Key });
        db.SurveyReplies.Add(
            new SurveyReplyRow
            {
                LessonId = taken.LessonId,
                OutletId = taken.OutletId,
                Named = survey.Named,
                LearnerKey = survey.Named ? learner.Key : null,
                Name = survey.Named ? learner.Name : null,
                At = survey.Named ? clock.GetUtcNow() : null,
                Values = WexelJson.Write(said),
            }
        );
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        return null;
    }

    /// <summary>Whether somebody replied already.</summary>
    internal Task<bool> DidAsync(Guid lesson, string learnerKey, CancellationToken cancel) =>
        db.SurveyMarks.AnyAsync(m => m.LessonId == lesson && m.LearnerKey == learnerKey, cancel);
}
