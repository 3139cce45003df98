/** Types of the agent for application and command line. */
export type { FromAgent, MenuPlace, Emulated, KnownMenus, PickedElement, PickStep, SurveyRequest, ToAgent } from './messages.ts'
export type { AgentOfWindow } from './driven.ts'
