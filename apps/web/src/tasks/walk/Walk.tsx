/** A walk: follows every link on the screen in view, and shows results beside computed values. */
import { judge, walkPlan, type Visit, type WalkStep } from '@waybell/core'
import { useRef, useState } from 'react'
import { Button, Heading, px } from '../../ui/index.tsx'
import { useView, useWork } from '../../work/context.ts'

interface Tried {
  step: WalkStep
  computed: number | null
  visit: Visit
  passed: boolean
}

export function WalkTask() {
  const { page } = useWork()
  const { screen, survey, arrivals, live } = useView()
  const [steps, setSteps] = useState<Tried[]>([])
  const [total, setTotal] = useState(0)
  const [failed, setFailed] = useState<string | null>(null)
  const running = useRef(false)
  const [isRunning, setIsRunning] = useState(false)
  if (!page.sections.length) return <p className="text-faint">The page is not set up yet. Press “Set everything up” in Sections first.</p>
  const walk = async () => {
    running.current = true
    setIsRunning(true)
    setSteps([])
    setFailed(null)
    const plan = walkPlan(page)
    setTotal(plan.length)
    try {
      for (const step of plan) {
        if (!running.current) break
        const visit = await live.visit(screen.key, step.hash, step.from)
        const arrival = arrivals.get(step.section.key) ?? null
        setSteps((s) => [...s, { step, computed: arrival?.land ?? null, visit, passed: judge(step, arrival, visit).passed }])
      }
    } catch (error) {
      setFailed(String(error))
    }
    running.current = false
    setIsRunning(false)
  }
  const misses = steps.filter((s) => !s.passed).length
  return (
    <>
      <Heading>Walk the {screen.name.toLowerCase()} screen</Heading>
      <p className="mb-2 text-sm text-faint">Follows every link from the top and from the end, and compares where it stops.</p>
      <div className="flex items-center gap-3">
        {isRunning ? (
          <Button onClick={() => (running.current = false)}>Stop</Button>
        ) : (
          <Button kind="main" disabled={!survey} onClick={() => void walk()}>
            Start the walk
          </Button>
        )}
        {total > 0 && (
          <span role="status" className="text-sm">
            {steps.length} of {total} links{misses ? `, ${misses} differ` : steps.length ? ', all as computed' : ''}
          </span>
        )}
      </div>
      {failed && (
        <p role="alert" className="mt-2 text-brick">
          The walk stopped: {failed}
        </p>
      )}
      {steps.length > 0 && (
        <table className="mt-3 w-full text-sm">
          <thead>
            <tr className="border-b border-hair text-xs text-faint">
              <th scope="col" className="text-left font-normal">
                Section
              </th>
              <th scope="col" className="text-left font-normal">
                from
              </th>
              <th scope="col" className="text-right font-normal">
                computed
              </th>
              <th scope="col" className="text-right font-normal">
                measured
              </th>
              <th scope="col" className="pl-2 text-left font-normal">
                marked
              </th>
            </tr>
          </thead>
          <tbody>
            {steps.map((s) => (
              <tr key={`${s.step.section.key} ${s.step.start}`} className="border-b border-hair" data-passed={s.passed}>
                <th scope="row" className="max-w-36 truncate py-1 text-left font-normal">
                  {s.step.section.title}
                </th>
                <td>{s.step.start}</td>
                <td className="text-right">{s.computed === null ? '–' : px(s.computed)}</td>
                <td className={`text-right ${s.passed ? '' : 'font-semibold text-brick'}`}>{px(s.visit.scroll)}</td>
                <td className="max-w-24 truncate pl-2 font-mono text-xs">{s.visit.current ?? 'none'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}
