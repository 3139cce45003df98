/** What the application and the agent in a live page say to each other, over a port that the page cannot see. */
import type { PageEdit, Survey } from '@waybell/core'
import type { SurveyRequest } from './survey.ts'

export type ToAgent =
  | { type: 'probe'; turn: number; request: SurveyRequest; touch: boolean }
  | { type: 'patch'; turn: number; edits: PageEdit[]; request: SurveyRequest }
  | { type: 'scroll'; y: number }
  | { type: 'follow'; hash: string }
  /** Draws a box around an element of the page; null takes it away. */
  | { type: 'point'; at: number | null }

export type FromAgent =
  | { type: 'ready' }
  | { type: 'survey'; turn: number; survey: Survey }
  | { type: 'scrolled'; y: number }
  /** The pointer is over one of the parts asked for, or over none. */
  | { type: 'hover'; at: number | null }
  /** A link away from the page was clicked; the page stays. */
  | { type: 'outside'; href: string }
  | { type: 'failed'; turn: number; message: string }
