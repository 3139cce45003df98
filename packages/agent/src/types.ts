/** What the application and the command line know of the agent. */
export type { FromAgent, ToAgent, Visit } from './messages.ts'
export type { SurveyRequest } from './survey.ts'
export type { AgentOfWindow } from './main.ts'
