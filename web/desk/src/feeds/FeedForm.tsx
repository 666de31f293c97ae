import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useId } from 'react'
import { useForm } from 'react-hook-form'
import { api, Refused, type Schemas, taken } from '../app/api'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { Waiting } from '../ui/Page'

type Settings = Schemas['FeedSettings']

interface Props {
  settings: Settings
  action: string
  save: (settings: Settings) => Promise<unknown>
}

/** What is said of a feed. The server judges it; its sentence stands at the field that it is about. */
export function FeedForm(props: Props) {
  const categories = useQuery({ queryKey: ['feed-categories'], queryFn: () => taken(api.GET('/api/feed-categories')), staleTime: Number.POSITIVE_INFINITY })
  return <Waiting query={categories}>{categories.data && <Fields {...props} categories={categories.data} />}</Waiting>
}

function Fields({ settings, action, save, categories }: Props & { categories: Record<string, string[]> }) {
  const { register, handleSubmit, watch, setError, setValue, reset, formState } = useForm<Settings>({ values: settings })
  const under = categories[watch('category')] ?? []
  const problem = (name: keyof Settings) => formState.errors[name]?.message
  const submit = handleSubmit(async (entered) => {
    try {
      await save({ ...entered, title: entered.title.trim(), subcategory: entered.subcategory || null, link: entered.link?.trim() || null })
      reset(entered)
    } catch (refused) {
      setError(refused instanceof Refused && refused.field ? (refused.field as keyof Settings) : 'title', { message: (refused as Error).message })
    }
  })
  return (
    <form onSubmit={submit} noValidate className="flex max-w-[560px] flex-col gap-4">
      <Field label="Title" {...register('title')} problem={problem('title')} />
      <LongField label="Description" problem={problem('description')}>
        {(id) => <textarea id={id} rows={3} className="w-full border border-quiet/60 bg-field px-2 py-1.5" {...register('description')} />}
      </LongField>
      <div className="grid grid-cols-2 gap-4">
        <Field label="Author, as apps show it" {...register('author')} problem={problem('author')} />
        <Field label="Owner’s mail address" type="email" {...register('ownerMail')} problem={problem('ownerMail')} />
        <Choice
          label="Category"
          {...register('category', { onChange: () => setValue('subcategory', null) })}
          options={Object.keys(categories).map((c) => [c, c])}
          problem={problem('category')}
        />
        <Choice label="Subcategory" {...register('subcategory')} options={[['', 'None'], ...under.map((c) => [c, c] as [string, string])]} />
        <Field label="Language, such as en-GB" {...register('language')} problem={problem('language')} />
        <Field label="Page about it, if there is one" type="url" {...register('link')} problem={problem('link')} />
        <Choice
          label="Episodes are"
          {...register('media')}
          options={[
            ['video', 'video, M4V'],
            ['sound', 'sound only, M4A'],
          ]}
          problem={problem('media')}
        />
        <Choice
          label="Order"
          {...register('order')}
          options={[
            ['serial', 'as the course goes'],
            ['episodic', 'by date, newest first'],
          ]}
        />
        <Field label="Artwork’s colour, such as #0B6570" {...register('colour')} problem={problem('colour')} />
      </div>
      {watch('media') === 'video' && (
        <label className="flex items-center gap-2">
          <input type="checkbox" className="h-4 w-4 accent-copper" {...register('alsoSound')} />A second feed beside it has the same episodes as sound alone
        </label>
      )}
      <label className="flex items-center gap-2">
        <input type="checkbox" className="h-4 w-4 accent-copper" {...register('unlisted')} />
        Unlisted: directories keep it out, and only people with its address find it
      </label>
      <label className="flex items-center gap-2">
        <input type="checkbox" className="h-4 w-4 accent-copper" {...register('private')} />
        Private: each listener has an address of their own, and there is none for all
      </label>
      <label className="flex items-center gap-2">
        <input type="checkbox" className="h-4 w-4 accent-copper" {...register('explicit')} />
        Explicit: not fit for children
      </label>
      <p className="flex items-center gap-4">
        <Button type="submit" disabled={formState.isSubmitting}>
          {action}
        </Button>
        <span role="status" className="text-quiet">
          {formState.isSubmitting ? 'Saving…' : formState.isDirty ? 'Changed, not saved yet' : ''}
        </span>
      </p>
    </form>
  )
}

function LongField({ label, problem, children }: { label: string; problem?: string; children: (id: string) => ReactNode }) {
  const id = useId()
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-quiet">
        {label}
      </label>
      {children(id)}
      {problem && <p className="text-brick">{problem}</p>}
    </div>
  )
}

function Choice({
  label,
  options,
  problem,
  ...rest
}: { label: string; options: [string, string][]; problem?: string } & React.SelectHTMLAttributes<HTMLSelectElement>) {
  return (
    <LongField label={label} problem={problem}>
      {(id) => (
        <select id={id} className="w-full border border-quiet/60 bg-field px-2 py-1.5" {...rest}>
          {options.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      )}
    </LongField>
  )
}
