/** A task: its view, its layer on the spine, and its commands. Rules name the task of their findings. */
import type { Section, Survey, Task as TaskKey } from '@waybell/core'
import type { ComponentType } from 'react'
import type { Action } from '../work/action.ts'
import type { Measured, View, Work } from '../work/context.ts'
import type { FetchedView } from './fetched.tsx'

export interface LayerProps {
  survey: Survey
  /** px of the spine per px of the page. */
  scale: number
  /** True when a range of the page is visible on the spine. */
  inView: (top: number, bottom: number) => boolean
}

export interface Task {
  key: TaskKey
  name: string
  View: FetchedView
  /** Drawn on the spine, later ones on top. */
  Layers?: ComponentType<LayerProps>[]
  /** Drawn over all columns. */
  Overlay?: ComponentType
  /** A band's label. */
  bandName?: (section: Section) => string
  actions?: (work: Work, measured: Measured, view: View) => Action[]
}

/** Marks closer than this look like one, in px. */
const LEAST_APART = 3

/** Marks that can be told apart at this scale, in order. */
export function toldApart<M extends { y: number }>(marks: readonly M[]): M[] {
  let last = -Infinity
  return marks.filter(({ y }) => {
    if (Math.abs(y - last) < LEAST_APART) return false
    last = y
    return true
  })
}
