import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, type Schemas, taken } from '../app/api'
import { PackageRow } from '../deliver/PackageRow'
import { useProfiles } from '../profiles/settings'
import { Button } from '../ui/Button'
import { Mark } from '../ui/Mark'
import { day, size } from '../ui/words'

/** Courses as one package or folder, where outlets take them: all lessons in teaching order. */
export function WholeCourses() {
  const courses = useQuery({ queryKey: ['board', 'courses'], queryFn: () => taken(api.GET('/api/board/courses')) })
  const rows = (courses.data ?? []).filter((c) => c.outlets.length > 0)
  if (rows.length === 0) return null
  return (
    <section className="mt-10 max-w-[720px]">
      <h2>Whole courses</h2>
      <p className="text-quiet">All lessons in teaching order: one package for a learning system, one folder for a web server.</p>
      {rows.map((course) => course.outlets.map((outlet) => <CourseAt key={`${course.courseId} ${outlet.id}`} course={course} outlet={outlet} />))}
    </section>
  )
}

function CourseAt({ course, outlet }: { course: Schemas['CourseBoardRow']; outlet: Schemas['CourseOutletView'] }) {
  const client = useQueryClient()
  const profiles = useProfiles()
  const { release: now, way } = outlet
  const under = way !== null && way.phase !== 'failed'
  const [profileId, setProfileId] = useState(now?.profileId ?? 'web')
  const refresh = () => client.invalidateQueries({ queryKey: ['board'] })
  const make = useMutation({
    mutationFn: () => taken(api.POST('/api/courses/{id}/releases', { params: { path: { id: course.courseId } }, body: { outletId: outlet.id, profileId } })),
    onSettled: refresh,
    onError: () => undefined,
  })
  const takeDown = useMutation({
    mutationFn: () => taken(api.DELETE('/api/course-releases/{id}', { params: { path: { id: now?.id ?? '' } } })),
    onSettled: refresh,
  })
  return (
    <div className="border-b border-hairline py-3" data-testid="whole-course">
      <p className="flex justify-between gap-2">
        <span>
          <b>{course.course}</b>{' '}
          <span className="text-quiet">
            {course.lessons === 1 ? '1 lesson' : `${course.lessons} lessons`}, {outlet.name}
          </span>
        </span>
        {way ? (
          <Mark kind={way.phase === 'failed' ? 'failed' : 'working'}>{wayInWords(way)}</Mark>
        ) : now ? (
          <Mark kind={now.behind ? 'behind' : 'live'}>
            {now.behind ? 'Behind' : 'Made'}, {day(now.releasedAt)}
          </Mark>
        ) : (
          <Mark kind="nothing">Not made</Mark>
        )}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <label className="flex items-center gap-2">
          Profile
          <select className="border border-hairline bg-field px-2 py-1" value={profileId} onChange={(e) => setProfileId(e.target.value)}>
            {profiles.data?.map(({ profile: p }) => (
              <option key={p.id} value={p.id}>
                {p.title}
              </option>
            ))}
          </select>
        </label>
        {!under && (!now || way || now.behind || now.profileId !== profileId || (outlet.takesPackages && !now.package.sent)) && (
          <Button onClick={() => make.mutate()} disabled={make.isPending}>
            {outlet.takesPackages ? `Release the course to ${outlet.name}` : `Make the course ${outlet.packageWord}`}
          </Button>
        )}
      </p>
      {(way?.problem ?? make.error ?? takeDown.error) && !under && (
        <p role="alert" className="mt-2 text-brick">
          {way?.problem?.sentence ?? (make.error ?? takeDown.error)?.message}
        </p>
      )}
      {now && (
        <div className="mt-2">
          <PackageRow made={now.package} what={outlet.packageWord} sendTo={outlet.takesPackages ? outlet.name : undefined} opens />
          {!under && (
            <Button look="link" className="mt-1 min-h-6" disabled={takeDown.isPending} onClick={() => takeDown.mutate()}>
              Take the course down
            </Button>
          )}
        </div>
      )}
    </div>
  )
}

function wayInWords(way: Schemas['CourseWayView']): string {
  if (way.phase === 'failed') return way.takesDown ? 'Could not be taken down' : 'Did not get there'
  if (way.takesDown) return 'Being taken down'
  if (way.phase === 'rendering') return 'Rendering'
  if (way.phase !== 'sending') return way.phase === 'packing' ? 'Packing' : 'Begins'
  return way.bytesToSend ? `Sending, ${size(way.sentBytes)} of ${size(way.bytesToSend)}` : 'Sending'
}
