/** How long a scroll takes. */
import { timeOf, type Motion } from '../contract/index.ts'

/** Duration in ms for a distance in px. @see docs/calculations.md: browsers' own smooth scrolling */
export function travelTime(motion: Motion, distance: number): number {
  if (motion === 'jump') return 0
  return motion === 'smooth' ? (Math.min(Math.sqrt(distance), 90) / 60) * 1000 : timeOf(motion, distance)
}
