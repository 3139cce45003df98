/** A task of the work: its view, what it draws on the spine, and what it can do by name. Which findings are its own, their rules say. */
import type { Section, Survey, Task as TaskKey } from '@waybell/core'
import type { ComponentType } from 'react'
import type { Action } from '../work/action.ts'
import type { Measured, View, Work } from '../work/context.ts'
import type { FetchedView } from './fetched.tsx'

export interface LayerProps {
  survey: Survey
  /** From px of the page to px of the spine. */
  scale: number
  /** True where something of the spine between these places of the page is in view. */
  inView: (top: number, bottom: number) => boolean
}

export interface Task {
  key: TaskKey
  name: string
  View: FetchedView
  /** What is drawn on the spine’s ground, the later over the earlier. */
  Layers?: ComponentType<LayerProps>[]
  /** What is drawn over all columns. */
  Overlay?: ComponentType
  /** How a band of the spine is named. */
  bandName?: (section: Section) => string
  actions?: (work: Work, measured: Measured, view: View) => Action[]
}

/** Marks nearer to each other than this, in px, are seen as one. */
const LEAST_APART = 3

/** Of marks on the spine, in its order, those that can be told apart at this scale. */
export function toldApart<M extends { y: number }>(marks: readonly M[]): M[] {
  let last = -Infinity
  return marks.filter(({ y }) => {
    if (Math.abs(y - last) < LEAST_APART) return false
    last = y
    return true
  })
}
