/** What the application and the command line know of the agent. */
export type { FromAgent, MenuPlace, Emulated, KnownMenus, PickedElement, PickStep, SurveyRequest, ToAgent } from './messages.ts'
export type { AgentOfWindow } from './driven.ts'
