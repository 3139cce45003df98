/** Handover: the page to download, and every change in it. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { RadioGroup } from 'radix-ui'
import { api, type HandedOver, type HandoverView, type ScriptForm } from '../../api.ts'
import { Button, Heading } from '../../ui/index.tsx'
import { save } from '../../ui/save.ts'
import { useMeasured, useSessionState, useView, useWork } from '../../work/context.ts'
import { Addresses } from './Addresses.tsx'

export function HandoverTask() {
  const { siteKey, page, site, run } = useWork()
  const { stale, surveys } = useMeasured()
  const { live } = useView()
  const state = useSessionState()
  const script: ScriptForm = site.small ? 'small' : 'plain'
  const settled = state.storing === 'stored' && stale.size === 0
  const handover = useQuery({
    queryKey: ['handover', siteKey, page.key, page, surveys, script, site.address],
    // The latest survey counts.
    queryFn: async () => {
      await live.flush()
      return api.handover(siteKey, page.key, script)
    },
    enabled: settled && page.sections.length > 0,
    // The current result stays visible while it's computed again.
    placeholderData: (before, query) => (query?.queryKey[2] === page.key ? before : undefined),
  })
  const client = useQueryClient()
  const key = ['handed-over', siteKey, page.key]
  const taken = useQuery({ queryKey: key, queryFn: () => api.handedOver(siteKey, page.key) })
  const handOver = useMutation({
    mutationFn: (form: 'page' | 'zip') => api.handOver(siteKey, page.key, form, script),
    onSuccess: (content, form) => {
      const name = page.file.split('/').at(-1)!
      save(content, form === 'page' ? name : `${name.replace(/\.[^.]*$/, '')}.zip`)
      void client.invalidateQueries({ queryKey: key })
    },
  })
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  const view = handover.data
  return (
    <>
      <Heading>Download</Heading>
      <p className="mb-3 text-sm text-faint">Your page with the changes below and nothing else. The ZIP also has its files.</p>
      <div className="flex flex-wrap gap-2">
        <Button kind="main" disabled={handOver.isPending} onClick={() => handOver.mutate('page')}>
          Download {page.file}
        </Button>
        <Button disabled={handOver.isPending} onClick={() => handOver.mutate('zip')}>
          Download ZIP with its files
        </Button>
      </div>
      {view?.script && <Script sizes={view.script} form={script} choose={(form) => run({ type: 'site/small', small: form === 'small' })} />}
      <Addresses />
      <Taken taken={taken.data ?? []} />
      {handOver.isPending && (
        <p role="status" className="mt-3 text-faint">
          Writing the download…
        </p>
      )}
      {(!settled || handover.isFetching) && (
        <p role="status" className="mt-3 text-faint">
          {settled ? 'Writing the page…' : 'Waiting until the last change is stored and measured…'}
        </p>
      )}
      {[handover.error, handOver.error].map(
        (error, i) =>
          error && (
            <p key={i} role="alert" className="mt-3 text-brick">
              {error.message}
            </p>
          ),
      )}
      {view && (
        <>
          {site.screens.some((s) => !view.measured.includes(s.key)) && (
            <p className="mt-3 text-brick">
              Not every screen was measured; the offsets of the others are estimates until the script measures on arrival.
            </p>
          )}
          <Heading aside={<span className="text-xs text-faint">{(view.bytes / 1024).toFixed(0)} kB in all</span>}>
            {view.edits.length === 1 ? '1 change' : `${view.edits.length} changes`}
          </Heading>
          <ol>
            {view.edits.map((edit, i) => (
              <li key={i} className="border-b border-hair py-1.5">
                <span className="block text-xs text-faint tabular-nums">byte {edit.offset.toLocaleString('en')}</span>
                {edit.removed && <Code sign="−" text={edit.removed} />}
                {edit.inserted && <Code sign="+" text={edit.inserted} />}
              </li>
            ))}
          </ol>
        </>
      )}
    </>
  )
}

const kB = (bytes: number) => `${(bytes / 1024).toFixed(1)} kB`
const forms: Record<ScriptForm, string> = { plain: 'Readable', small: 'Minified' }

/** Readable for maintainers, or minified. */
function Script({
  sizes,
  form,
  choose,
}: {
  sizes: NonNullable<HandoverView['script']>
  form: ScriptForm
  choose: (form: ScriptForm) => void
}) {
  return (
    <div className="mt-4 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
      <span id="script-form">Script</span>
      <RadioGroup.Root
        value={form}
        onValueChange={(next) => choose(next as ScriptForm)}
        aria-labelledby="script-form"
        orientation="horizontal"
        className="flex flex-wrap gap-1"
      >
        {(['plain', 'small'] as const).map((one) => (
          <RadioGroup.Item
            key={one}
            value={one}
            // Arrow keys move the focus, and with it the choice.
            onFocus={() => choose(one)}
            className="min-h-7 rounded-sm border border-hair px-2.5 data-[state=checked]:border-teal data-[state=checked]:bg-wash data-[state=checked]:font-semibold"
          >
            {forms[one]}, {kB(sizes[one].bytes)} <span className="font-normal text-faint">({kB(sizes[one].packed)} gzipped)</span>
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  )
}

const when = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'short' })

/** Earlier handovers. Their IDs become former IDs when changed. */
function Taken({ taken }: { taken: readonly HandedOver[] }) {
  if (!taken.length) return null
  return (
    <section aria-label="Earlier handovers" className="mt-4">
      <Heading>Earlier handovers</Heading>
      <p className="mb-1 text-sm text-faint">Links to earlier IDs keep working after a rename.</p>
      <ol className="text-sm tabular-nums">
        {taken.slice(0, 10).map((t) => (
          <li key={t.at} className="border-b border-hair py-1">
            {when.format(t.at)}, version {t.version}, {t.ids.length === 1 ? '1 ID' : `${t.ids.length} IDs`}
          </li>
        ))}
      </ol>
    </section>
  )
}

function Code({ sign, text }: { sign: string; text: string }) {
  const long = text.length > 400
  const line = (
    <pre
      className={`overflow-auto font-mono text-xs whitespace-pre-wrap ${sign === '+' ? 'text-teal' : 'text-brick'}`}
      style={{ overflowWrap: 'anywhere' }}
    >
      <span aria-label={sign === '+' ? 'inserted' : 'removed'}>{sign} </span>
      {text}
    </pre>
  )
  if (!long) return line
  return (
    <details>
      <summary className="font-mono text-xs text-teal">
        {sign} {text.trim().slice(0, 60)}… ({text.length.toLocaleString('en')} characters)
      </summary>
      {line}
    </details>
  )
}
