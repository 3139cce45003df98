/** How long it takes to get somewhere. */
import { timeOf, type Motion } from '../contract/index.ts'

/**
 * In ms, over a distance in px.
 * @see docs/calculations.md: what the browser's own smooth scrolling takes
 */
export function travelTime(motion: Motion, distance: number): number {
  if (motion === 'jump') return 0
  return motion === 'smooth' ? (Math.min(Math.sqrt(distance), 90) / 60) * 1000 : timeOf(motion, distance)
}
